package wear_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"metronix/core/measure"
	"metronix/core/wear"
)

// 36,500 km in a year of 365 days are 100 a day; 20,000 more are 200 days. By hand.
func TestWhenAnOdometerIsReached(t *testing.T) {
	from := time.Date(2025, 3, 1, 0, 0, 0, 0, time.UTC)
	visits := []wear.Visit{{Meter: 10_000, Date: from},
		{Meter: 46_500, Date: from.AddDate(0, 0, 365)}}
	pace := wear.PerDay(visits)
	assert.InDelta(t, 100, pace, 1e-9)
	assert.Equal(t, from.AddDate(0, 0, 565), wear.On(visits[1], 66_500, pace))
	assert.Equal(t, visits[1].Date, wear.On(visits[1], 40_000, pace), "reached already")
	assert.True(t, math.IsNaN(wear.PerDay(visits[:1])))
	assert.True(t, wear.On(visits[1], 66_500, math.NaN()).IsZero())
	assert.True(t, wear.On(visits[1], 1e12, pace).IsZero(), "beyond a century")
	assert.True(t, math.IsNaN(wear.PerDay([]wear.Visit{visits[0], visits[0]})))
}

// One valve unlike its neighbours is worth a warning (common practice).
func TestTheOddOneOut(t *testing.T) {
	rates := []float64{-0.0010, -0.0011, -0.0009, -0.0010, -0.0060}
	var valves []wear.Valve
	for i, r := range rates {
		valves = append(valves, wear.Valve{Valve: "E" + string(rune('1'+i)), Rate: r})
	}
	kind := func(v string) string { return v[:1] }
	assert.Equal(t, []string{"E5"}, wear.Odd(valves, measure.Odometer, kind))
	assert.Empty(t, wear.Odd(valves[:4], measure.Odometer, kind))
	assert.Empty(t, wear.Odd(valves[2:], measure.Odometer, kind), "three have no usual")
	valves[4].Rate = math.NaN()
	assert.Empty(t, wear.Odd(valves, measure.Odometer, kind))
}
