package record_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/wear"
)

func mm(x float64) *measure.Length { return new(measure.FromMillimetres(x)) }

func on(year int, month time.Month, day int) time.Time {
	return time.Date(year, month, day, 0, 0, 0, 0, time.UTC)
}

// A gap on another shop's sheet is uncertain by the root of (0.025² + 0.01² + 0.01²)/3 = 0.0166 mm (worked by
// hand after JCGM 100 4.3.7 and 5.1.2), and is judged by the limits that hold here.
func TestAnotherShopsSheetIsLessCertain(t *testing.T) {
	assert.InDelta(t, 0.016583, record.OutsideU().Millimetres(), 0.000001)
	window := measure.Window{Lower: *mm(0.25), Upper: *mm(0.30)}
	v := record.Outside{On: on(2025, 5, 3), Meter: 40_000, State: clearance.Cold, Shop: "Lane end",
		Valves: []record.OutsideValve{
			{"E1", mm(0.20), mm(0.27)},
			{"E2", mm(0.35), nil},
			{"E3", nil, mm(0.28)},
			{"I9", mm(0.1), mm(0.1)},
		}}.
		Visit(map[string]measure.Window{"E1": window, "E2": window, "E3": window})
	assert.Equal(t, "Lane end", v.By)
	assert.Equal(t, 1, v.Tight)
	assert.Equal(t, 1, v.Loose)
	require.Len(t, v.Valves, 3, "a valve without limits is left out")
	assert.Equal(t, record.OutsideU(), *v.Valves[0].FoundU)
	assert.Equal(t, record.OutsideU(), *v.Valves[0].LeftU)
	assert.Nil(t, v.Valves[1].LeftU)
	assert.Nil(t, v.Valves[2].FoundU)
}

// It stands among the jobs of its vehicle by its day, and its counter must lie between those beside it.
func TestAnotherShopsSheetStandsByItsDay(t *testing.T) {
	at := func(year, meter int) record.Visit { return record.Visit{At: on(year, 1, 1), Meter: meter} }
	own := []record.Visit{at(2021, 20_000), at(2023, 40_000), at(2025, 0)}
	day := func(v record.Visit) time.Time { return v.At }
	all := record.Among(own, []record.Visit{at(2020, 1), at(2022, 2), at(2026, 3)}, day)
	years := []int{}
	for _, v := range all {
		years = append(years, v.At.Year())
	}
	assert.Equal(t, []int{2020, 2021, 2022, 2023, 2025, 2026}, years)
	for _, c := range []struct {
		year, meter, against int // against: the counter of the visit that it contradicts; 0: none
	}{{2022, 30_000, 0}, {2022, 19_000, 20_000}, {2022, 20_000, 20_000}, {2022, 40_000, 40_000}, {2022, 0, 0},
		{2020, 19_999, 0}, {2020, 25_000, 20_000}, {2026, 40_001, 0}, {2026, 39_000, 40_000}} {
		against, ok := record.Fits(own, on(c.year, 1, 1), c.meter)
		assert.Equal(t, c.against == 0, ok, "%+v", c)
		assert.Equal(t, c.against, against.Meter, "%+v", c)
	}
}

// The limits are the vehicle's own where it has a card of that state, else its engine's, and never those that
// are not to be used.
func TestAnotherShopsSheetIsJudgedByOwnLimits(t *testing.T) {
	sheet := *jobtest.Setup().Sheet
	sheet.Clearances = []clearance.Card{
		jobtest.Card(clearance.Cold, 220, 300),
		jobtest.Card(clearance.Cold, 180, 200),
	}
	lower := func(own ...clearance.Card) string {
		return record.OutsideLimits(&sheet, own, clearance.Cold)["I1"].Lower.Decimal()
	}
	assert.Len(t, record.OutsideLimits(&sheet, nil, clearance.Cold), len(sheet.Valves()))
	assert.Equal(t, "0.2", lower())
	assert.Equal(t, "0.13", lower(jobtest.Card(clearance.Cold, 150, 200)))
	assert.Equal(t, "0.2", lower(jobtest.Card(clearance.Hot, 150, 200)))
	sheet.Clearances[0].Distrusted = "copied wrongly"
	assert.Equal(t, "0.16", lower())
	assert.Empty(t, record.OutsideLimits(&sheet, nil, clearance.Hot))
}

// A visit whose counter nobody read says nothing of how far a valve went: it is no visit at none.
func TestACounterThatWasNotReadIsNotNought(t *testing.T) {
	at := func(year, meter int, gap float64) record.Visit {
		return record.Visit{At: on(year, 1, 1), Meter: meter, State: clearance.Cold,
			Valves: []wear.Found{{Valve: "E1", Found: mm(gap), Left: mm(gap)}}}
	}
	h := record.History(
		[]record.Visit{at(2021, 0, 0.34), at(2023, 40_000, 0.32), at(2025, 60_000, 0.30)},
		"",
		nil,
	)
	f, err := h.Reckon()
	require.NoError(t, err)
	assert.InDelta(t, -0.001, f.Valves[0].Rate, 1e-9, "0.02 mm over 20,000 km")
	assert.Len(
		t,
		record.History([]record.Visit{at(2021, 0, 0.3)}, "", nil).Visits,
		1,
		"the day of the only one counts",
	)
}
