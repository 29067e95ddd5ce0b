package cycle_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
)

// Worked by hand from the typical card: intake open 348 … 592, exhaust 128 … 372 of the cylinder's cycle.
func TestMarginsByHand(t *testing.T) {
	c := cycle.New(enginetest.Four())
	for _, want := range []struct {
		valve         string
		crank, margin float64
	}{
		{"I1", 0, 128}, {"E1", 0, 128}, // 592−720 = −128 before, 128 after
		{"I2", 0, 168}, {"E3", 0, 168}, // cylinder 2 stands at 180, 3 at 540
		{"E4", 0, -12},    // rocking: closes in 12°
		{"E1", 250, -122}, // full lift, halfway through 244° of opening
		{"E4", 250, 238},  // its partner by nine, the middle of the base circle
		{"I1", 348, 0},
	} {
		v, ok := c.Valve(want.valve)
		require.True(t, ok)
		assert.Equal(t, measure.FromDegrees(want.margin), c.Margin(v, measure.FromDegrees(want.crank)),
			"%s at %v", want.valve, want.crank)
	}
}

// With valve 8 (E4) fully down on E I I E E I I E, valve 6 (I3) is well down too, and 1 and 3 (E1, I2) may
// both be set: common practice.
func TestOneValveDownShowsItsNeighbours(t *testing.T) {
	c := cycle.New(enginetest.Four())
	at := func(name string) engine.Valve { v, _ := c.Valve(name); return v }
	crank := c.PeakAt(at("E4"))
	assert.Equal(t, 1.0, c.OpenFraction(at("E4"), crank))
	assert.Greater(t, c.OpenFraction(at("I3"), crank), 0.5)
	var names []string
	for _, v := range c.Valves {
		if c.Margin(v, crank) >= 20*measure.Degree {
			names = append(names, v.Name)
		}
	}
	assert.Contains(t, names, "E1")
	assert.Contains(t, names, "I2")
	assert.NotContains(t, names, "I3")
}

func TestCompanions(t *testing.T) {
	four := cycle.New(enginetest.Four())
	for a, b := range map[int]int{1: 4, 4: 1, 2: 3, 3: 2} {
		got, ok := four.Companion(a)
		assert.True(t, ok)
		assert.Equal(t, b, got)
	}
	five := cycle.New(enginetest.Inline([]int{1, 2, 4, 5, 3}, "EIEIEIEIEI"))
	_, ok := five.Companion(1)
	assert.False(t, ok, "an odd number of cylinders has none")
}

// The margin is found a second way: by walking outwards in small steps until the valve opens or shuts.
func TestMarginAgreesWithWalking(t *testing.T) {
	c := cycle.New(enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE"))
	rapid.Check(t, func(t *rapid.T) {
		v := rapid.SampledFrom(c.Valves).Draw(t, "valve")
		// off the events themselves
		crank := measure.Angle(rapid.IntRange(0, 7199).Draw(t, "tenths"))*measure.Degree/10 +
			measure.Degree/20
		open := c.OpenFraction(v, crank) > 0
		walked := measure.Angle(0)
		for (c.OpenFraction(v, crank+walked) > 0) == open && (c.OpenFraction(v, crank-walked) > 0) == open {
			walked += measure.Degree / 10
		}
		margin := c.Margin(v, crank)
		require.Equal(t, open, margin < 0)
		if margin < 0 {
			margin = -margin
		}
		require.InDelta(t, walked.Degrees(), margin.Degrees(), 0.11)
	})
}

func TestMaySetIsWhereTheMarginIsEnough(t *testing.T) {
	c := cycle.New(enginetest.Four())
	for _, v := range c.Valves {
		from, to, ok := c.MaySet(v, 20*measure.Degree)
		require.True(t, ok)
		assert.Equal(t, 20*measure.Degree, c.Margin(v, from))
		assert.Equal(t, 20*measure.Degree, c.Margin(v, to))
		assert.Equal(t, c.DeepestMargin(v.Kind), c.Margin(v, c.DeepestAt(v)))
		assert.Equal(t, (720-244-40)*measure.Degree, (to - from).Wrap())
	}
	_, _, ok := c.MaySet(c.Valves[0], 239*measure.Degree)
	assert.False(t, ok)
}
