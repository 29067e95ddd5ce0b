package wear_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/measure"
	"metronix/core/wear"
	"metronix/internal/golden"
)

// The edges of pace, dates and usual wear: a day is a pace and less is none; beyond a century nothing is due;
// three rates of a kind have no usual, and four have.
func TestTheEdgesOfPaceAndUsual(t *testing.T) {
	at := func(hours float64, km float64) wear.Visit {
		return wear.Visit{
			Date:  day("2026-01-01").Add(time.Duration(hours * float64(time.Hour))),
			Meter: km,
		}
	}
	assert.Equal(t, 100.0, wear.PerDay([]wear.Visit{at(0, 0), at(24, 100)}))
	assert.True(t, math.IsNaN(wear.PerDay([]wear.Visit{at(0, 0), at(23.99, 100)})))
	century := 100 * 365.0
	assert.Equal(t, day("2026-01-01").AddDate(0, 0, int(century)), wear.On(at(0, 0), century, 1))
	assert.Zero(t, wear.On(at(0, 0), century+1, 1))
	assert.Zero(t, wear.On(at(0, 0), 10, 0))
	assert.Equal(t, day("2026-01-02"), wear.On(at(0, 0), 1, 1))
	assert.Equal(t, day("2026-01-01"), wear.On(at(0, 50), 10, 1), "behind already")

	rates := func(list ...float64) (valves []wear.Valve) {
		for i, r := range list {
			valves = append(valves, wear.Valve{Valve: fmt.Sprintf("E%d", i), Rate: r})
		}
		return valves
	}
	kind := func(string) string { return "exhaust" }
	assert.Empty(t, wear.Odd(rates(0.001, 0.001, 0.05), measure.Odometer, kind))
	assert.Equal(t, []string{"E3"}, wear.Odd(rates(0.001, 0.001, 0.001, 0.05), measure.Odometer, kind))
	assert.Empty(t, wear.Odd(rates(0, 0, 0, 0.0003), measure.Odometer, kind), "a trifle")
	assert.Equal(t, []string{"E3"}, wear.Odd(rates(0, 0, 0, 0.00031), measure.Odometer, kind))
	assert.Empty(t, wear.Odd(rates(0, 0, 0, 0.015), measure.HourMeter, kind), "a trifle in a thousand hours")
	assert.Equal(t, []string{"E3"}, wear.Odd(rates(0, 0, 0, 0.016), measure.HourMeter, kind))
	// four: the median lies midway between the second and the third, 0.0025; deviations 0.0015 0.0005 0.0005
	// 0.0075, their median 0.001, so that beyond 0.003 is odd. By hand.
	assert.Equal(t, []string{"E3"}, wear.Odd(rates(0.001, 0.002, 0.003, 0.01), measure.Odometer, kind))
	assert.Empty(t, wear.Odd(rates(0.001, 0.002, 0.003, 0.005), measure.Odometer, kind))
	// five: the median is the third, 0.003; deviations 0.002 0.001 0 0.001 0.0035, their median 0.001
	assert.Equal(t, []string{"E4"}, wear.Odd(rates(0.001, 0.002, 0.003, 0.004, 0.0065), measure.Odometer, kind))
	assert.Empty(t, wear.Odd(rates(0.001, 0.002, 0.003, 0.004, 0.0055), measure.Odometer, kind))
	assert.Equal(
		t,
		[]string{"E0", "E1"},
		wear.Odd(rates(0, 0, 0.004, 0.004, 0.004), measure.Odometer, kind),
		"the third of five is the median",
	)

	_, err := wear.Reckon(
		[]wear.Visit{visit(100, "2026-01-01", 300, 300), visit(100, "2026-02-01", 300, 300)},
		wear.Every{},
	)
	require.ErrorIs(t, err, wear.ErrVisits)
	assert.Contains(t, err.Error(), "visit 2 does not lie after")
	twice := visit(200, "2026-02-01", 300, 300)
	twice.Valves = append(twice.Valves, twice.Valves[0])
	_, err = wear.Reckon([]wear.Visit{visit(100, "2026-01-01", 300, 300), twice}, wear.Every{})
	require.ErrorIs(t, err, wear.ErrVisits)
	assert.Contains(t, err.Error(), "visit 2 has E1 twice")
	_, err = wear.Reckon(
		[]wear.Visit{visit(100, "2026-01-01", 300, 300), visit(101, "2026-01-01", 300, 300)},
		wear.Every{},
	)
	require.NoError(t, err, "on the same day it may have gone on")
}

// Over drawn visits: rates, their doubt, when each valve leaves, and when the vehicle is due, stay as they
// were.
func TestForecastsStay(t *testing.T) {
	chance := rand.New(rand.NewPCG(6, 4))
	var lines []string
	for range 120 {
		lines = append(lines, forecastLine(t, chance))
	}
	golden.Hold(t, "forecasts", lines)
}

func forecastLine(t *testing.T, chance *rand.Rand) string {
	t.Helper()
	length := func(from, to int) *measure.Length { return new(measure.Length(from+chance.IntN(to-from)) * um) }
	var visits []wear.Visit
	at, km, valves := day("2020-03-31"), 1000.0, 1+chance.IntN(5)
	for range 1 + chance.IntN(5) {
		v := wear.Visit{Date: at, Meter: km}
		for n := range valves {
			f := wear.Found{Valve: fmt.Sprintf("E%d", n), Found: length(270, 330), Left: length(285, 320),
				Window: measure.Window{Lower: 280 * um, Upper: 320 * um}}
			switch chance.IntN(8) {
			case 0:
				f.Found = nil
			case 1:
				f.Left = nil
			case 2:
				f.Left = f.Found
			case 3:
				f.FoundU, f.LeftU = length(0, 9), length(0, 9)
			case 4:
				f.Left = length(325, 340)
			case 5:
				f.Left, f.LeftOut = nil, wear.Tight
			}
			if chance.IntN(12) > 0 {
				v.Valves = append(v.Valves, f)
			}
		}
		visits = append(visits, v)
		at, km = at.AddDate(0, 1+chance.IntN(14), chance.IntN(30)), km+float64(1000+chance.IntN(20_000))
	}
	f, err := wear.Reckon(visits, wear.Every{Run: float64(chance.IntN(3) * 15_000), Months: chance.IntN(3) * 12})
	require.NoError(t, err)
	line := fmt.Sprintf(
		"%d visits, due %.3f %s %s:",
		len(visits),
		f.Due.Meter,
		f.Due.Date.Format(time.DateOnly),
		f.Due.Cause.String(),
	)
	for _, v := range f.Valves {
		between := "never"
		if v.Range != nil {
			between = fmt.Sprintf("%.2f–%.2f", v.Range[0], v.Range[1])
		}
		line += fmt.Sprintf(
			" %s %.8f ± %.8f %v %v %s %.2f %s;",
			v.Valve,
			v.Rate,
			v.RateU,
			v.Differs,
			v.Out,
			v.Side,
			v.Leaves,
			between,
		)
	}
	return line
}
