package cycle_test

import (
	"fmt"
	"testing"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/internal/checks"
)

var geometry = checks.Theorem("a four-stroke cycle is 720° of the crank; card events " +
	"counted from TDC and BDC")

// A road cam of 12-52-52-12, its events counted from firing TDC.
func TestEventsAgainstTheOutside(t *testing.T) {
	intake, exhaust := cycle.EventsOf(*enginetest.Timing(12, 52, 52, 12))
	for what, c := range map[string]struct {
		want float64
		got  measure.Angle
	}{
		"exhaust opens, 180 − 52":       {128, exhaust.Open},
		"exhaust closes, 360 + 12":      {372, exhaust.Shut},
		"exhaust at its peak":           {250, exhaust.Peak},
		"exhaust open for":              {244, exhaust.Duration()},
		"intake opens, 360 − 12":        {348, intake.Open},
		"intake closes, 540 + 52":       {592, intake.Shut},
		"intake at its peak":            {470, intake.Peak},
		"intake closed for, 720 − open": {476, 720*measure.Degree - intake.Duration()},
	} {
		checks.Near(t, geometry, what+", °", c.want, c.got.Degrees(), 1e-6)
	}
	c := cycle.New(enginetest.Four())
	v, _ := c.Valve("E1")
	checks.Near(t, geometry, "margin of the exhaust at firing TDC, to its opening, °", 128,
		c.Margin(v, 0).Degrees(), 1e-6)
	checks.Near(t, geometry, "margin in the middle of the base circle, half of 476°, °", 238,
		c.DeepestMargin(engine.Exhaust).Degrees(), 1e-6)
	w, _ := c.Valve("I1")
	checks.Near(t, geometry, "margin of the intake at firing TDC, to its closing, °", 128,
		c.Margin(w, 0).Degrees(), 1e-6)
}

// Cylinders 360° apart run together: one rocks where the other fires.
func TestCompanionsAgainstTheOutside(t *testing.T) {
	for _, c := range []struct {
		from  checks.Source
		order []int
		pairs map[int]int
	}{
		{checks.Practice("running mates of a four"), []int{1, 3, 4, 2}, map[int]int{1: 4, 3: 2}},
		{checks.Practice("running mates of a straight six"), []int{1, 5, 3, 6, 2, 4},
			map[int]int{1: 6, 5: 2, 3: 4}},
		{geometry, []int{1, 8, 4, 3, 6, 5, 7, 2}, map[int]int{1: 6, 8: 5, 4: 7, 3: 2}},
	} {
		e := cycle.New(enginetest.Inline(c.order, ""))
		for one, other := range c.pairs {
			got, _ := e.Companion(one)
			checks.Equal(t, c.from, fmt.Sprintf("%v: the companion of cylinder %d", c.order, one), other, got)
		}
	}
	for _, order := range [][]int{{1, 3, 2}, {1, 2, 4, 5, 3}} {
		_, any := cycle.New(enginetest.Inline(order, "")).Companion(1)
		checks.Equal(t, checks.Practice("an odd number of cylinders has no running mates"),
			fmt.Sprintf("%d cylinders: companions", len(order)), false, any)
	}
}

// Firing TDC of each cylinder in turn, 720° divided by their number.
func TestFiringIntervalsAgainstTheOutside(t *testing.T) {
	for _, c := range []struct {
		order []int
		every float64
	}{{[]int{1, 3, 2}, 240}, {[]int{1, 3, 4, 2}, 180}, {[]int{1, 2, 4, 5, 3}, 144},
		{[]int{1, 5, 3, 6, 2, 4}, 120}, {[]int{1, 8, 4, 3, 6, 5, 7, 2}, 90}} {
		e := cycle.New(enginetest.Inline(c.order, ""))
		checks.Near(t, geometry, fmt.Sprintf("%v: from one firing TDC to the next, °", c.order), c.every,
			e.CrankAt(c.order[1], cycle.FiringTDC).Degrees(), 1e-6)
	}
}
