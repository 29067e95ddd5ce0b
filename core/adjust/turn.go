package adjust

import (
	"cmp"
	"errors"
	"fmt"
	"math"

	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/measure"
)

// Direction is which way the gap changes.
type Direction string

// Closing makes the gap smaller, opening larger.
const (
	Close Direction = "close"
	Open  Direction = "open"
)

// Rotation is which way a screw or nut is turned, seen along its thread from the end where the driver or
// spanner sits. Empty: by feel, or not at all.
type Rotation string

// The two ways to turn.
const (
	Clockwise     Rotation = "clockwise"
	Anticlockwise Rotation = "anticlockwise"
)

// Turn is how far to turn an adjuster.
type Turn struct {
	Degrees   float64 // of the screw or nut, not negative; NaN where ByFeel
	Direction Direction
	Rotation  Rotation
	Way       gear.Way // which way the screw or nut travels; empty: by feel, or not at all
	ByFeel    bool     // an eccentric: no fixed angle
	Why       string
}

// ErrPitch says that a turn cannot be reckoned for want of the thread's pitch; what else may be missing is
// said by the errors of [gear.Gain].
var ErrPitch = errors.New("the thread pitch is not given")

// Reckon gives the turn that brings a gap to its aim: angle = 360 × change / (pitch × gain), by geometry of
// the lever. It errs as [gear.Gain] does, and with ErrPitch without a pitch.
//
// A tenth of a millimetre too loose at a screw of M8×1 at the valve end is 360 × 0.10 / 1 = 36 degrees, a
// tenth of a turn; at the cam of a rocker of ratio 1.5 the same screw takes 54.
func Reckon(a engine.Adjuster, gap, aim measure.Length) (Turn, error) {
	change := gap - aim
	t := Turn{Direction: Close}
	if change < 0 {
		t.Direction = Open
	}
	if of, _ := gear.Of(a.Kind); of.Means == gear.Felt {
		return byFeel(a, t)
	}
	gain, err := gear.Gain(a.Kind, a.Ratio)
	if err != nil {
		return Turn{}, err
	}
	if a.Pitch <= 0 {
		return Turn{}, fmt.Errorf("%w: without it the turn cannot be reckoned", ErrPitch)
	}
	t.Degrees = measure.FromDegrees(
		360 * change.Abs().Millimetres() / (a.Pitch.Millimetres() * gain)).Degrees()
	if change != 0 {
		t.Way, t.Rotation = turning(a, t.Direction)
	}
	t.Why = fmt.Sprintf("%s to change, pitch %s, gain %.4g: 360° × %.4g / (%.4g × %.4g).",
		change.Abs(), a.Pitch, gain, change.Abs().Millimetres(), a.Pitch.Millimetres(), gain)
	return t, nil
}

// Towards is which way to turn where only the side is known: by how much, the leaf says. It errs with
// [gear.ErrKind], and with [gear.ErrNoScrew] where there is none; an eccentric has no way of its own.
func Towards(a engine.Adjuster, d Direction) (Turn, error) {
	if of, ok := gear.Of(a.Kind); !ok {
		return Turn{}, fmt.Errorf("%w: %q", gear.ErrKind, a.Kind)
	} else if of.Means != gear.Turned {
		return Turn{}, fmt.Errorf("%w: %s", gear.ErrNoScrew, a.Kind)
	}
	t := Turn{Degrees: math.NaN(), Direction: d, ByFeel: true,
		Why: "A side alone does not say how far: turn it until the leaf drags."}
	t.Way, t.Rotation = turning(a, d)
	return t, nil
}

// closesBy is the way the screw or nut of an adjuster travels to close the gap: by its kind, unless its sheet
// says that the gear does otherwise.
func closesBy(a engine.Adjuster) gear.Way {
	of, _ := gear.Of(a.Kind)
	return cmp.Or(a.Closes, of.Closes)
}

// turning is which way the screw travels and is turned to change a gap: a right-hand thread goes in
// clockwise, a left-hand one anticlockwise.
//
// Seen along the thread from the end where the tool sits: what must go in to change the gap the wanted way
// is turned clockwise on a right-hand thread, what must come out anticlockwise; a left-hand thread
// reverses both.
func turning(a engine.Adjuster, d Direction) (gear.Way, Rotation) {
	way := closesBy(a)
	if d == Open {
		way = map[gear.Way]gear.Way{gear.In: gear.Out, gear.Out: gear.In}[way]
	}
	if (way == gear.In) == (a.Thread != engine.LeftHand) {
		return way, Clockwise
	}
	return way, Anticlockwise
}

// byFeel bounds an eccentric: at most its eccentricity per radian.
//
// A pin that sits e off the middle of its disc moves by e × sin of the angle turned: at most e for a
// radian, and nothing at the ends of its throw. Where in its throw it stands is not known, so no angle can
// be told; what ten degrees can change at most can.
func byFeel(a engine.Adjuster, t Turn) (Turn, error) {
	t.ByFeel, t.Degrees = true, math.NaN()
	t.Why = "An eccentric changes the gap unevenly: turn it by feel against the leaf."
	if a.Eccentricity > 0 {
		most := measure.FromMillimetres(a.Eccentricity.Millimetres() * 10 * math.Pi / 180).Millimetres()
		t.Why += fmt.Sprintf(" 10° changes it by at most %.3f mm.", most)
	}
	return t, nil
}
