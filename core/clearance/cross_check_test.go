package clearance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

// One size up will not go, one size down falls through (common practice). With a feel of 0.005 and leaves
// known to 0.005, a drag of 0.25 is 0.25 ± 0.010, and a neighbour closer than 0.015 proves nothing: 0.26 is
// passed over.
func TestCrossCheckOfADrag(t *testing.T) {
	y := clearance.Yardstick{Limits: window(200, 300), Feel: 5 * um,
		Owned: set(150, 200, 230, 250, 260, 280, 300)}
	drag := felt(250, clearance.Drag)[0]
	down, up, ok := y.CrossCheck([]clearance.Reading{drag})
	require.True(t, ok)
	assert.Equal(t, "0.23", down.String())
	assert.Equal(t, "0.28", up.String())

	// a stack is proved by stacks that share a leaf with it: 0.15 + 0.06 goes and 0.15 + 0.07 does not
	// (common practice)
	y.Owned = nil
	for _, m := range []measure.Length{50, 60, 70, 80, 150, 200, 250, 300} {
		y.Owned = append(y.Owned, gauge.Leaf{ID: gauge.ID{Marked: m * um}, Measured: m * um})
	}
	stacked := clearance.Reading{Stack: gauge.Stack{y.Owned[4], y.Owned[1]}, Feel: clearance.Drag}
	down, up, ok = y.CrossCheck([]clearance.Reading{stacked})
	require.True(t, ok)
	assert.Equal(t, "0.15 + 0.05", down.String())
	assert.Equal(t, "0.15 + 0.07", up.String())
	y.Feel = 6 * um // then a hundredth proves nothing
	down, up, ok = y.CrossCheck([]clearance.Reading{stacked})
	require.True(t, ok)
	assert.Equal(t, "0.15 + 0.08", up.String())
	assert.Equal(t, "0.15", down.String())
	y.Feel = 5 * um

	for _, readings := range [][]clearance.Reading{nil,
		felt(250, clearance.Free),
		append(felt(280, clearance.WontGo), drag)} {
		_, _, ok = y.CrossCheck(readings)
		assert.False(t, ok, "%v", readings)
	}
	_, _, ok = y.CrossCheck([]clearance.Reading{{Dial: &clearance.Dial{Gap: 250 * um, Uncertainty: 5 * um}}})
	assert.False(t, ok, "a dial needs no leaves")
	y.Owned = gauge.Set{}
	_, _, ok = y.CrossCheck([]clearance.Reading{drag})
	assert.False(t, ok, "no leaf is owned to prove it by")
}
