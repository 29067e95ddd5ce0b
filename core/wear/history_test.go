package wear_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/measure"
	"metronix/core/wear"
)

// history is a vehicle that goes 100 km a day: two visits 20,000 km and 200 days apart, at which nothing
// moved.
func history() wear.History {
	return wear.History{
		Visits:   []wear.Visit{usual(10_000, "2025-03-01", 300, 300), usual(30_000, "2025-09-17", 300, 300)},
		Finished: []wear.Finished{{At: day("2025-03-01")}, {At: day("2025-09-17")}},
	}
}

func dueOf(t *testing.T, h wear.History) wear.Due {
	t.Helper()
	f, err := h.Reckon()
	require.NoError(t, err)
	return f.Due
}

// Whichever comes first decides (common practice), a distance by the day on which it is reached: 5,000 km at
// 100 km a day are 50 days. By hand.
func TestWhenAVehicleIsDue(t *testing.T) {
	h := history()
	assert.Equal(t, wear.Unknown, dueOf(t, h).Cause.Kind)
	h.Intervals = []wear.Interval{{Run: 5_000, Source: "yard"}, {Run: 40_000, Months: 6, Source: "book"},
		{Months: 12, Source: "plate"}}
	due := dueOf(t, h)
	assert.Equal(t, day("2025-11-06"), due.Date)
	assert.Equal(t, 35_000.0, due.Meter)
	assert.Equal(t, wear.Cause{Kind: wear.Distance, Run: 5_000, Months: 6}, due.Cause)
	h.Intervals = h.Intervals[1:]
	assert.Equal(t, day("2026-03-17"), dueOf(t, h).Date, "six months come before 400 days")
	h.Intervals = h.Intervals[1:]
	assert.Equal(t, wear.Cause{Kind: wear.Time, Months: 12}, dueOf(t, h).Cause)
	assert.Equal(t, wear.NoVisit, dueOf(t, wear.History{Intervals: h.Intervals}).Cause.Kind)
}

// A job that was put off, or left a valve out, keeps its vehicle due: from the day that was named, else from
// that job.
func TestWhatTheLastJobLeftKeepsItDue(t *testing.T) {
	h := history()
	last := &h.Finished[1]
	last.PutOff = day("2025-10-05")
	due := dueOf(t, h)
	assert.Equal(t, day("2025-10-05"), due.Date)
	assert.Equal(t, "The last job was put off.", due.Cause.String())
	last.Left = []wear.LeftOut{{Valve: "E1", Side: wear.Tight}, {Valve: "I2", Side: wear.Loose}}
	assert.Equal(t, "Left out of limits: E1 tight, I2 loose.", dueOf(t, h).Cause.String())
	last.PutOff = time.Time{}
	assert.Equal(t, day("2025-09-17"), dueOf(t, h).Date)
	h.Intervals = []wear.Interval{{Months: 6}}
	assert.Equal(t, wear.Left, dueOf(t, h).Cause.Kind, "it comes before")
	last.PutOff = day("2026-03-17")
	assert.Equal(t, wear.Time, dueOf(t, h).Cause.Kind, "of the same day, what was known before")
	h.Finished = append(h.Finished, wear.Finished{At: day("2025-10-01")})
	assert.Equal(t, wear.Time, dueOf(t, h).Cause.Kind, "a later job left nothing")
}

// A new cam is checked once, and it decides where that comes first; no interval by distance is taken from it.
func TestWhatFallsDueOnceDecidesWhereItComesFirst(t *testing.T) {
	cam := wear.Interval{Run: 800, Source: "new cam", OnceFrom: day("2025-10-01"), Weeks: 4, FromMeter: 31_000}
	h := history()
	h.Intervals = []wear.Interval{cam, {Months: 12}}
	due := dueOf(t, h)
	assert.Equal(t, day("2025-10-05"), due.Date, "1,800 km at 100 a day come before four weeks")
	assert.Equal(t, 31_800.0, due.Meter)
	assert.Equal(t, "Once, 4 weeks or 800 km (497 miles) after the new cam.", due.Cause.String())
	h.Intervals[0].FromMeter = 0
	assert.Equal(
		t,
		day("2025-10-29"),
		dueOf(t, h).Date,
		"from an odometer that nobody read there is no distance",
	)
	h.Intervals[0].Weeks = 200
	assert.Equal(t, wear.Time, dueOf(t, h).Cause.Kind)
	h.Finished = append(h.Finished, wear.Finished{At: day("2025-10-20")})
	h.Intervals = h.Intervals[:1]
	assert.Equal(t, wear.Unknown, dueOf(t, h).Cause.Kind, "it was checked")
	only := wear.History{
		Intervals: []wear.Interval{{Run: 800, Source: "new cam", OnceFrom: day("2025-10-01"), FromMeter: 31_000}},
	}
	due = dueOf(t, only)
	assert.True(t, due.Date.IsZero())
	assert.Equal(t, 31_800.0, due.Meter, "of a vehicle whose pace is not known")
	assert.Zero(t, wear.Shortest([]wear.Interval{cam}))
}

// Each cause is a sentence of its own, in a person's own units.
func TestEveryCauseIsSaid(t *testing.T) {
	miles := measure.Units{Miles: true}
	for want, c := range map[string]wear.Cause{
		"There is no visit yet.":                 {},
		"Enter an interval, or do a second job.": {Kind: wear.Unknown},
		"The interval of 12,427 miles (20,000 km), or the interval of 12 months, whichever comes first.": {
			Kind: wear.Distance, Run: 20_000, Months: 12},
		"The interval of 1 month.":                               {Kind: wear.Time, Months: 1},
		"E1 leaves its limits on the tight side.":                {Kind: wear.Leaves, Valve: "E1", Side: wear.Tight},
		"E1 was left out of its limits, on the loose side.":      {Kind: wear.WasOut, Valve: "E1", Side: wear.Loose},
		"Left out of limits: E1 tight.":                          {Kind: wear.Left, Left: []wear.LeftOut{{"E1", wear.Tight}}},
		"The last job was put off.":                              {Kind: wear.PutOff},
		"Once, 1 week after the new cam.":                        {Kind: wear.OnceOnly, What: "new cam", Weeks: 1},
		"Once, 497 miles (800 km) after the new cam.":            {Kind: wear.OnceOnly, What: "new cam", Run: 800},
		"Once, 2 weeks or 497 miles (800 km) after the new cam.": {Kind: wear.OnceOnly, What: "new cam", Weeks: 2, Run: 800},
		"The interval of 1,250 h.":                               {Kind: wear.Distance, Run: 1_250, By: measure.HourMeter},
		"\"gone\" is no cause that is known.":                    {Kind: "gone"},
	} {
		assert.Equal(t, want, c.In(miles))
	}
}
