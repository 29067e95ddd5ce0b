package wear_test

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/measure"
	"metronix/core/wear"
)

const um = measure.Micrometre

func day(s string) time.Time {
	t, err := time.Parse(time.DateOnly, s)
	if err != nil {
		panic(err)
	}
	return t
}

// visit knows both gaps exactly.
func visit(km float64, date string, found, left measure.Length) wear.Visit {
	return wear.Visit{Meter: km, Date: day(date),
		Valves: []wear.Found{{Valve: "E1", Found: new(found * um), Left: new(left * um),
			FoundU: new(measure.Length(0)), LeftU: new(measure.Length(0)),
			Window: measure.Window{Lower: 280 * um, Upper: 320 * um}}}}
}

// usual is a visit whose gaps are as certain as readings usually are.
func usual(km float64, date string, found, left measure.Length) wear.Visit {
	v := visit(km, date, found, left)
	v.Valves[0].FoundU, v.Valves[0].LeftU = nil, nil
	return v
}

// By hand: left at 0.30, found at 0.29 after 20 000 km: −0.0005 mm per 1000 km; from 0.30 the 0.28 limit is
// 40 000 km on.
func TestRateAndForecastByHand(t *testing.T) {
	f, err := wear.Reckon([]wear.Visit{visit(100_000, "2025-01-10", 300, 300),
		visit(120_000, "2026-01-10", 290, 300)}, wear.Every{Run: 24_000, Months: 12})
	require.NoError(t, err)
	v := f.Valves[0]
	assert.InDelta(t, -0.0005, v.Rate, 1e-12)
	assert.InDelta(t, 160_000, v.Leaves, 1e-6)
	assert.Equal(t, wear.Tight, v.Side)
	assert.Equal(t, &[2]float64{160_000, 160_000}, v.Range, "no doubt, no range")
	assert.Equal(t, 144_000.0, f.Due.Meter)
	assert.Equal(t, day("2027-01-10"), f.Due.Date)
	assert.Contains(t, f.Due.Cause.String(), "24,000 km (14,913 miles), or the interval of 12 months")
}

// Rates are pooled: 0.01 tighter in 20 000 km and 0.02 in 10 000 km make 0.03 in 30 000 km. Four readings of
// ± 0.004 make 0.008 over 30 000 km, 0.000267 per 1000; 1.645 of these either way is where it may leave. By
// hand.
func TestRatesArePooledAndTheRangeIsHonest(t *testing.T) {
	f, err := wear.Reckon([]wear.Visit{usual(0, "2023-01-01", 300, 310),
		usual(20_000, "2024-01-01", 300, 310), usual(30_000, "2025-01-01", 290, 300)}, wear.Every{})
	require.NoError(t, err)
	v := f.Valves[0]
	assert.InDelta(t, -0.001, v.Rate, 1e-12)
	assert.InDelta(t, 0.008/30, v.RateU, 1e-12)
	assert.True(t, v.Differs, "3.75 of its uncertainties")
	assert.InDelta(t, 50_000, v.Leaves, 1e-6)
	require.NotNil(t, v.Range)
	assert.InDelta(t, 30_000+0.02/(0.001+1.645*0.008/30)*1000, v.Range[0], 1e-6)
	assert.InDelta(t, 30_000+0.02/(0.001-1.645*0.008/30)*1000, v.Range[1], 1e-6)
	assert.Contains(t, f.Due.Cause.String(), "E1 leaves its limits on the tight side")
}

// One reading ends an interval and begins the next where a gap was left as it was found: its error cancels.
// By hand: only the first and the last reading count.
func TestAReadingBetweenTwoIntervalsCancels(t *testing.T) {
	f, err := wear.Reckon([]wear.Visit{usual(0, "2023-01-01", 300, 300),
		usual(10_000, "2024-01-01", 298, 298), usual(20_000, "2025-01-01", 296, 296)}, wear.Every{})
	require.NoError(t, err)
	assert.InDelta(t, 0.004*math.Sqrt2/20, f.Valves[0].RateU, 1e-12)
	f, err = wear.Reckon([]wear.Visit{usual(0, "2023-01-01", 300, 300),
		usual(10_000, "2024-01-01", 298, 300), usual(20_000, "2025-01-01", 298, 298)}, wear.Every{})
	require.NoError(t, err)
	assert.InDelta(t, 0.004*2/20, f.Valves[0].RateU, 1e-12, "set in between: two readings")
}

// Left at 0.30 and found at 0.29 after 20 000 km with leaves as they are says next to nothing: steady until
// it is more, with a range all the same, and no date from it.
func TestNoiseIsNoWear(t *testing.T) {
	f, err := wear.Reckon([]wear.Visit{usual(100_000, "2025-01-10", 300, 300),
		usual(101_000, "2026-01-10", 290, 300)}, wear.Every{Run: 20_000})
	require.NoError(t, err)
	v := f.Valves[0]
	assert.False(t, v.Differs)
	assert.True(t, math.IsNaN(v.Leaves))
	assert.Equal(t, wear.None, v.Side)
	assert.InDelta(t, 101_000+0.02/(0.01+1.645*0.004*math.Sqrt2)*1000, v.Range[0], 1e-6)
	assert.Equal(t, 121_000.0, f.Due.Meter, "the interval decides")
}

// Engines without wear, eight valves each, read with leaves and hands as they are, are called in before their
// interval in at most 5 of 100: by the meaning of the test. Seeded.
func TestEnginesWithoutWearAreLeftAlone(t *testing.T) {
	chance := rand.New(rand.NewPCG(1, 2))
	const engines = 3000
	early := 0
	for range engines {
		var visits []wear.Visit
		for i := range 4 {
			v := wear.Visit{Meter: float64(i) * 5_000, Date: day("2020-01-01").AddDate(i, 0, 0)}
			for n := range 8 {
				read := 300*um + measure.FromMillimetres(0.004*chance.NormFloat64())
				v.Valves = append(v.Valves, wear.Found{Valve: string(rune('A' + n)), Found: new(read),
					Left: new(read), Window: measure.Window{Lower: 270 * um, Upper: 330 * um}})
			}
			visits = append(visits, v)
		}
		f, err := wear.Reckon(visits, wear.Every{Run: 20_000})
		require.NoError(t, err)
		if f.Due.Meter < 35_000 {
			early++
		}
	}
	assert.LessOrEqual(t, float64(early)/engines, 0.06, "5 of 100, and what chance adds to 3,000")
	assert.Positive(t, early, "the test can tell")
}

func TestStandingStillNeverLeaves(t *testing.T) {
	f, err := wear.Reckon([]wear.Visit{visit(0, "2023-01-01", 300, 300),
		visit(9_000, "2024-01-01", 300, 300)}, wear.Every{})
	require.NoError(t, err)
	assert.Zero(t, f.Valves[0].Rate)
	assert.True(t, math.IsNaN(f.Valves[0].Leaves))
	one, err := wear.Reckon([]wear.Visit{visit(0, "2023-01-01", 300, 300)}, wear.Every{})
	require.NoError(t, err)
	assert.True(t, math.IsNaN(one.Valves[0].Rate))
	_, err = wear.Reckon([]wear.Visit{visit(9_000, "2023-01-01", 300, 300),
		visit(8_000, "2024-01-01", 300, 300)}, wear.Every{})
	assert.ErrorIs(t, err, wear.ErrVisits)
}

// A valve that was left outside its window is due now, whatever its rate: by the meaning of a window.
func TestAValveThatIsOutIsDueNow(t *testing.T) {
	for name, visits := range map[string][]wear.Visit{
		"moving away": {visit(140_000, "2025-01-10", 240, 240), visit(150_000, "2026-01-10", 250, 250)},
		"standing":    {visit(140_000, "2025-01-10", 250, 250), visit(150_000, "2026-01-10", 250, 250)},
		"one visit":   {visit(150_000, "2026-01-10", 250, 250)},
	} {
		f, err := wear.Reckon(visits, wear.Every{Run: 60_000})
		require.NoError(t, err)
		assert.Equal(t, 150_000.0, f.Valves[0].Leaves, name)
		assert.Equal(t, wear.Tight, f.Valves[0].Side, name)
		assert.Equal(t, 150_000.0, f.Due.Meter, name)
		assert.Contains(t, f.Due.Cause.String(), "left out of", name)
	}
}

// A visit that did not read a valve lets its wear go on: 0.02 in 20 000 km over two intervals.
func TestAVisitWithoutAValveKeepsItsRate(t *testing.T) {
	between := visit(110_000, "2025-06-10", 0, 0)
	between.Valves = nil
	f, err := wear.Reckon([]wear.Visit{visit(100_000, "2025-01-10", 300, 300), between,
		visit(120_000, "2026-01-10", 290, 300)}, wear.Every{})
	require.NoError(t, err)
	assert.InDelta(t, -0.0005, f.Valves[0].Rate, 1e-12)
	twice := visit(130_000, "2026-02-10", 300, 300)
	twice.Valves = append(twice.Valves, twice.Valves[0])
	_, err = wear.Reckon([]wear.Visit{twice}, wear.Every{})
	assert.ErrorContains(t, err, "has E1 twice")
}

// Calendar months, clipped to the month's last day: by the calendar.
func TestMonthsEndWithTheirLastDay(t *testing.T) {
	for _, want := range []struct {
		from   string
		months int
		to     string
	}{{"2025-08-31", 6, "2026-02-28"}, {"2024-02-29", 12, "2025-02-28"}, {"2023-08-31", 6,
		"2024-02-29"}, {"2025-01-10", 12, "2026-01-10"}, {"2025-10-31", 1, "2025-11-30"}} {
		assert.Equal(t, day(want.to), wear.MonthsOn(day(want.from), want.months), want.from)
	}
}

// A visit that knows only a side, or found nothing, gives no rate and ends no pair: the next pair begins
// where the gap was left as a figure again.
func TestAVisitWithoutAFigure(t *testing.T) {
	side := visit(120_000, "2025-06-10", 0, 300)
	side.Valves[0].Found = nil
	f, err := wear.Reckon([]wear.Visit{visit(100_000, "2025-01-10", 300, 300), side}, wear.Every{})
	require.NoError(t, err)
	assert.True(t, math.IsNaN(f.Valves[0].Rate))
	f, err = wear.Reckon([]wear.Visit{visit(100_000, "2025-01-10", 300, 300), side,
		visit(130_000, "2026-01-10", 295, 300)}, wear.Every{})
	require.NoError(t, err)
	assert.InDelta(t, -0.0005, f.Valves[0].Rate, 1e-12, "0.005 over the last 10 000 km alone")
	unleft := visit(120_000, "2025-06-10", 290, 0)
	unleft.Valves[0].Left = nil
	f, err = wear.Reckon([]wear.Visit{visit(100_000, "2025-01-10", 300, 300), unleft}, wear.Every{Run: 24_000})
	require.NoError(t, err)
	assert.True(t, math.IsNaN(f.Valves[0].Leaves))
	assert.Equal(t, 144_000.0, f.Due.Meter)
}
