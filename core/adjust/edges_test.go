package adjust_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/measure"
)

// A shift as large as the aim leaves no gap to set.
func TestAShiftThatLeavesNoGapToSet(t *testing.T) {
	s := adjust.Shift{Enough: true, Median: 30 * um}
	pre, ok := s.PreLockAim(31 * um)
	assert.True(t, ok)
	assert.Equal(t, um, pre)
	_, ok = s.PreLockAim(30 * um)
	assert.False(t, ok)
}

// A valve in its limits is moved for the aim's sake where that gains more than it must, not just as much.
func TestAMoveMustGainMoreThanItsLeast(t *testing.T) {
	v := shimmed("I1", 2600, 230, 150, 250, 200)
	v.LeastGain, v.Keeps = 20*um, true
	from := func(sizes ...measure.Length) string {
		p := adjust.ChooseShims([]adjust.ShimValve{v}, sizes, nil, adjust.NearestAim)
		require.Len(t, p.Fit, 1)
		return p.Fit[0].From
	}
	assert.Equal(t, "I1", from(2620*um), "from 0.03 off to 0.01: just as much")
	assert.Equal(t, adjust.FromStock, from(2620*um+1))
}

// Two valves of one need, and single shims of two sizes in the shop: each gets one, and nothing is bought.
func TestTheShopServesTwoWithSingleShims(t *testing.T) {
	p := adjust.ChooseShims(
		[]adjust.ShimValve{shimmed("I1", 2700, 100, 150, 250, 200), shimmed("I2", 2700, 100, 150, 250, 200)},
		[]measure.Length{
			2600 * um,
		},
		[]adjust.Count{{Shim: 2600 * um, N: 1}, {Shim: 2620 * um, N: 1}},
		adjust.FewestBought,
	)
	assert.Empty(t, p.Buy)
	require.Len(t, p.Fit, 2)
	assert.ElementsMatch(
		t,
		[]measure.Length{2600 * um, 2620 * um},
		[]measure.Length{p.Fit[0].Shim, p.Fit[1].Shim},
	)
}

// A gap that is known just well enough for one thickness lacks that thickness, not certainty.
func TestWhyAValveIsNotServed(t *testing.T) {
	reason := func(v adjust.ShimValve, sizes ...measure.Length) string {
		p := adjust.ChooseShims([]adjust.ShimValve{v}, sizes, nil, adjust.FewestBought)
		require.Len(t, p.Impossible, 1)
		return p.Impossible[0].Reason
	}
	v := shimmed("I1", 2700, 400, 150, 250, 200)
	v.Uncertainty = 50 * um
	assert.Contains(t, reason(v, 1000*um), "no size on the list")
	v.Uncertainty++
	assert.Contains(t, reason(v, 1000*um), "leave room for")
	assert.Contains(t, reason(shimmed("I1", 20, 100, 110, 220, 150), 0, 5000*um), "no size on the list",
		"a shim of nothing is none")
}

// By the aim too, of two sizes equally near it the thinner wins: loose rather than tight (common practice).
func TestTiesByTheAimGoToTheLooseSide(t *testing.T) {
	stock := []adjust.Count{{Shim: 2580 * um, N: 1}, {Shim: 2620 * um, N: 1}}
	stays := shimmed("I2", 2600, 200, 150, 250, 200)
	stays.Stays = true
	p := adjust.ChooseShims(
		[]adjust.ShimValve{shimmed("I1", 2700, 100, 150, 250, 200), stays},
		nil,
		stock,
		adjust.NearestAim,
	)
	require.Len(t, p.Fit, 2)
	assert.Equal(t, 220*um, p.Fit[0].Gap)
}

// Of an eccentric whose eccentricity is not stated no bound is told.
func TestAnEccentricWithoutItsEccentricity(t *testing.T) {
	turn, err := adjust.Reckon(engine.Adjuster{Kind: gear.Eccentric}, 300*um, 200*um)
	require.NoError(t, err)
	assert.NotContains(t, turn.Why, "10°")
}
