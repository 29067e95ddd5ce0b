package adjust_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/measure"
)

const um = measure.Micrometre

// Pitches: M8×1 of ISO 261, 5/16-24 of ASME B1.1 (25.4/24 mm). Gains: common practice, reckoned by hand.
func TestTurns(t *testing.T) {
	for name, c := range map[string]struct {
		a         engine.Adjuster
		gap, aim  measure.Length
		deg       float64
		direction adjust.Direction
	}{
		"0.10 too loose, M8×1, a tenth of a turn": {engine.Adjuster{Kind: gear.ScrewValveEnd,
			Pitch: 1000 * um}, 320 * um, 220 * um, 36, adjust.Close},
		"0.05 too tight": {engine.Adjuster{Kind: gear.ThreadedTappet,
			Pitch: 1000 * um}, 250 * um, 300 * um, 18, adjust.Open},
		"measured at the cam, ratio 1.5": {engine.Adjuster{Kind: gear.ScrewValveEndAtCam,
			Pitch: 1000 * um, Ratio: 1.5}, 320 * um, 220 * um, 54, adjust.Close},
		"push-rod end, ratio 1.5": {engine.Adjuster{Kind: gear.ScrewPushrodEnd,
			Pitch: 1000 * um, Ratio: 1.5}, 320 * um, 220 * um, 24, adjust.Close},
		"stud nut, ratio 1.5, 5/16-24": {engine.Adjuster{Kind: gear.CentreNut,
			Pitch: measure.Inch / 24, Ratio: 1.5}, 320 * um, 220 * um, 13.606299, adjust.Close},
		"finger pivot at the cam, ratio 2": {engine.Adjuster{Kind: gear.FingerPivotAtCam,
			Pitch: 1000 * um, Ratio: 2}, 320 * um, 220 * um, 72, adjust.Close},
		"finger pivot at the valve, ratio 1.5": {engine.Adjuster{Kind: gear.FingerPivotAtValve,
			Pitch: 1000 * um, Ratio: 1.5}, 320 * um, 220 * um, 72, adjust.Close},
		"nothing to change": {engine.Adjuster{Kind: gear.ScrewValveEnd,
			Pitch: 1000 * um}, 220 * um, 220 * um, 0, adjust.Close},
	} {
		got, err := adjust.Reckon(c.a, c.gap, c.aim)
		require.NoError(t, err, name)
		assert.InDelta(t, c.deg, got.Degrees, 1e-5, name)
		assert.Equal(t, c.direction, got.Direction, name)
	}
}

func TestTurnsThatCannotBeReckoned(t *testing.T) {
	for want, a := range map[error]engine.Adjuster{
		gear.ErrNoScrew: {Kind: gear.Shim},
		adjust.ErrPitch: {Kind: gear.ScrewValveEnd},
		gear.ErrRatio:   {Kind: gear.FingerPivotAtCam, Pitch: 1000 * um, Ratio: 1},
	} {
		_, err := adjust.Reckon(a, 300*um, 200*um)
		assert.ErrorIs(t, err, want)
	}
	_, err := adjust.Reckon(engine.Adjuster{Kind: gear.CentreNut, Pitch: 1000 * um}, 300*um, 200*um)
	assert.ErrorIs(t, err, gear.ErrRatio)
}

// Every kind with a screw has its turn and its way; what is not known is an error and never a figure.
func TestEveryKindIsKnown(t *testing.T) {
	for _, g := range gear.All() {
		a := engine.Adjuster{Kind: g.Kind, Pitch: 1000 * um, Ratio: 1.5}
		turn, err := adjust.Reckon(a, 300*um, 200*um)
		side, sideErr := adjust.Towards(a, adjust.Close)
		if g.Means != gear.Turned {
			assert.ErrorIs(t, sideErr, gear.ErrNoScrew, g.Kind)
			continue
		}
		require.NoError(t, err, g.Kind)
		require.NoError(t, sideErr, g.Kind)
		assert.NotEmpty(t, turn.Rotation, g.Kind)
		assert.Equal(t, turn.Rotation, side.Rotation, g.Kind)
	}
	for _, kind := range []gear.Kind{"screw_cam_end", ""} {
		a := engine.Adjuster{Kind: kind, Pitch: 1000 * um, Ratio: 1.5}
		_, err := adjust.Reckon(a, 300*um, 200*um)
		assert.ErrorIs(t, err, gear.ErrKind)
		_, err = adjust.Towards(a, adjust.Close)
		assert.ErrorIs(t, err, gear.ErrKind)
	}
}

// An eccentric of 1 mm changes the gap by at most 1 mm per radian: 10° is 0.1745 rad.
func TestEccentricIsByFeel(t *testing.T) {
	got, err := adjust.Reckon(engine.Adjuster{Kind: gear.Eccentric, Eccentricity: 1000 * um}, 300*um,
		200*um)
	require.NoError(t, err)
	assert.True(t, got.ByFeel)
	assert.True(t, math.IsNaN(got.Degrees))
	assert.Contains(t, got.Why, "0.175 mm")
}

// Which way to turn, right-hand thread, seen from the driver's end (by geometry): what is driven towards the
// valve closes by going in, clockwise; what closes by rising out of its thread is turned anticlockwise. A
// left-hand thread reverses it.
func TestWhichWayToTurn(t *testing.T) {
	const pitch = measure.Millimetre
	for kind, closing := range map[gear.Kind]adjust.Rotation{
		gear.ScrewValveEnd: adjust.Clockwise, gear.ScrewPushrodEnd: adjust.Clockwise,
		gear.CentreNut: adjust.Clockwise, gear.ScrewValveEndAtCam: adjust.Clockwise,
		gear.ThreadedTappet: adjust.Anticlockwise, gear.ThreadedTappetAtValve: adjust.Anticlockwise,
		gear.FingerPivotAtCam: adjust.Anticlockwise, gear.FingerPivotAtValve: adjust.Anticlockwise,
	} {
		a := engine.Adjuster{Kind: kind, Pitch: pitch, Ratio: 1.5}
		other := map[adjust.Rotation]adjust.Rotation{adjust.Clockwise: adjust.Anticlockwise,
			adjust.Anticlockwise: adjust.Clockwise}
		turned := func(a engine.Adjuster, gap measure.Length) adjust.Rotation {
			turn, err := adjust.Reckon(a, gap*um, 300*um)
			require.NoError(t, err)
			return turn.Rotation
		}
		assert.Equal(t, closing, turned(a, 400), kind)
		assert.Equal(t, other[closing], turned(a, 200), kind)
		a.Thread = engine.LeftHand
		assert.Equal(t, other[closing], turned(a, 400), kind)
		a.Thread, a.Closes = engine.RightHand, gear.Out
		assert.Equal(t, adjust.Anticlockwise, turned(a, 400), "a gear that says how it closes")
		assert.Empty(t, turned(a, 300), "nothing to change")
	}
	turn, err := adjust.Reckon(engine.Adjuster{Kind: gear.Eccentric}, 400*um, 300*um)
	require.NoError(t, err)
	assert.Empty(t, turn.Rotation, "an eccentric is turned by feel")
}

// Where only a side is known the way is known all the same (by geometry), and no figure is made up.
func TestWhichWayByASideAlone(t *testing.T) {
	for _, kind := range gear.Kinds() {
		a := engine.Adjuster{Kind: kind, Pitch: 1000 * um, Ratio: 1.5}
		way, err := adjust.Towards(a, adjust.Close)
		far, ferr := adjust.Reckon(a, 300*um, 200*um)
		if of, _ := gear.Of(kind); of.Means != gear.Turned {
			assert.ErrorIs(t, err, gear.ErrNoScrew, kind)
			continue
		}
		require.NoError(t, err, kind)
		require.NoError(t, ferr, kind)
		assert.Equal(t, far.Rotation, way.Rotation, kind)
		assert.Equal(t, far.Way, way.Way, kind)
		assert.True(t, math.IsNaN(way.Degrees), kind)
	}
	_, err := adjust.Towards(engine.Adjuster{Kind: "no such"}, adjust.Close)
	assert.ErrorIs(t, err, gear.ErrKind)
}
