package cycle_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/cycle"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
)

// At the very opening and closing of a valve its margin is nought, and it counts as shut at its closing; one
// degree inside it is open, one outside shut. (By the definition of the four events.)
func TestTheEdgesOfAMargin(t *testing.T) {
	s := enginetest.Four()
	s.Timing = enginetest.Timing(12, 52, 52, 12)
	c := cycle.New(s)
	v, ok := c.Valve("E1")
	require.True(t, ok)
	one := 1 * measure.Degree
	for _, at := range []measure.Angle{c.OpensAt(v), c.ShutsAt(v)} {
		assert.Zero(t, c.Margin(v, at))
	}
	assert.Equal(t, -one, c.Margin(v, c.OpensAt(v)+one))
	assert.Equal(t, one, c.Margin(v, c.OpensAt(v)-one))
	assert.Equal(t, -one, c.Margin(v, c.ShutsAt(v)-one))
	assert.Equal(t, one, c.Margin(v, c.ShutsAt(v)+one))

	// the drawing's lift: nought at both ends, one at the peak, a half midway of the rise and of the fall
	// (sine squared)
	peak := c.PeakAt(v)
	rise := (peak - c.OpensAt(v)).Wrap()
	fall := (c.ShutsAt(v) - peak).Wrap()
	assert.Zero(t, c.OpenFraction(v, c.ShutsAt(v)))
	assert.Zero(t, c.OpenFraction(v, c.OpensAt(v)))
	assert.InDelta(t, 1, c.OpenFraction(v, peak), 1e-12)
	assert.InDelta(t, 0.5, c.OpenFraction(v, (c.OpensAt(v)+rise/2).Wrap()), 1e-6)
	assert.InDelta(t, 0.5, c.OpenFraction(v, (peak+fall/2).Wrap()), 1e-6)
	assert.InDelta(t, 0.146447, c.OpenFraction(v, (peak+fall*3/4).Wrap()), 1e-5, "sin²(22.5°)")

	// a cam card may put the peak off the middle: the rise is then steeper than the fall, or the other way
	// about
	s.Timing.ExhaustCentre = new(100 * measure.Degree)
	off := cycle.New(s)
	peak = off.PeakAt(v)
	fall = (off.ShutsAt(v) - peak).Wrap()
	require.NotEqual(t, (peak - off.OpensAt(v)).Wrap(), fall)
	assert.InDelta(t, 0.5, off.OpenFraction(v, (peak+fall/2).Wrap()), 1e-6)
	assert.InDelta(t, 0.146447, off.OpenFraction(v, (peak+fall*3/4).Wrap()), 1e-5)

	// what is asked for exactly is had, and no more
	deepest := c.DeepestMargin(v.Kind)
	from, to, ok := c.MaySet(v, deepest)
	assert.True(t, ok)
	assert.Equal(t, from.Wrap(), to.Wrap(), "a single place")
	_, _, ok = c.MaySet(v, deepest+1)
	assert.False(t, ok)

	// cylinders that fire a turn apart are companions, to within what counts as the same angle
	other, ok := c.Companion(1)
	assert.True(t, ok)
	assert.Equal(t, 4, other)
	for off, is := range map[measure.Angle]bool{measure.SameAngle - 1: true, measure.SameAngle: false} {
		twin := enginetest.Inline([]int{1, 2}, "EIIE")
		twin.FiringAngles = []measure.Angle{0, measure.Turn + off}
		_, ok = cycle.New(twin).Companion(1)
		assert.Equal(t, is, ok, off)
	}
}
