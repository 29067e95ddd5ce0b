package adjust

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"metronix/core/engine"
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
	Way       engine.Way // which way the screw or nut travels; empty: by feel, or not at all
	ByFeel    bool       // an eccentric: no fixed angle
	Why       string
}

// Why a turn cannot be reckoned; the wrapped text names the figure that is missing.
var (
	ErrNoScrew = errors.New("this gear has no screw to turn")
	ErrPitch   = errors.New("the thread pitch is not given")
	ErrRatio   = errors.New("the ratio is not given or not possible")
	ErrKind    = errors.New("this kind of adjuster is not known")
)

// Reckon gives the turn that brings a gap to its aim: angle = 360 × change / (pitch × gain), by geometry of
// the lever. It errs with ErrNoScrew for shims and hydraulic gear, ErrPitch without a pitch, and ErrRatio
// where the gain needs a ratio (above 1 for a finger follower's pivot) that is not there, ErrKind for a kind that is
// not known.
//
// A tenth of a millimetre too loose at a screw of M8×1 at the valve end is 360 × 0.10 / 1 = 36 degrees, a
// tenth of a turn; at the cam of a rocker of ratio 1.5 the same screw takes 54.
func Reckon(a engine.Adjuster, gap, aim measure.Length) (Turn, error) {
	change := gap - aim
	t := Turn{Direction: Close}
	if change < 0 {
		t.Direction = Open
	}
	if a.Kind == engine.Eccentric {
		return byFeel(a, t)
	}
	gain, err := Gain(a)
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

// Towards is which way to turn where only the side is known: by how much, the leaf says. It errs with ErrNoScrew and
// ErrKind as Reckon does; an eccentric has no way of its own, and errs with ErrNoScrew.
func Towards(a engine.Adjuster, d Direction) (Turn, error) {
	if !slices.Contains(engine.AdjusterKinds(), a.Kind) {
		return Turn{}, unknown(a.Kind)
	}
	if ClosesBy(a) == "" {
		return Turn{}, fmt.Errorf("%w: %s", ErrNoScrew, a.Kind)
	}
	t := Turn{Degrees: math.NaN(), Direction: d, ByFeel: true,
		Why: "A side alone does not say how far: turn it until the leaf drags."}
	t.Way, t.Rotation = turning(a, d)
	return t, nil
}

// ClosesBy is the way the screw or nut of an adjuster travels to close the gap, by geometry: a screw or nut
// that is driven towards the valve, push-rod or rocker closes by going in; a threaded tappet or a finger's
// pivot closes by rising out of its thread. A sheet may say that its gear does otherwise. Empty for what has no
// screw, and for a kind that is not known.
func ClosesBy(a engine.Adjuster) engine.Way {
	if a.Closes != "" {
		return a.Closes
	}
	switch a.Kind {
	case engine.ThreadedTappet, engine.ThreadedTappetAtValve, engine.FingerPivotAtCam,
		engine.FingerPivotAtValve:
		return engine.Out
	case engine.ScrewValveEnd, engine.ScrewPushrodEnd, engine.CentreNut, engine.ScrewValveEndAtCam:
		return engine.In
	}
	return ""
}

// turning is which way the screw travels and is turned to change a gap: a right-hand thread goes in
// clockwise, a left-hand one anticlockwise.
//
// Seen along the thread from the end where the tool sits: what must go in to change the gap the wanted way
// is turned clockwise on a right-hand thread, what must come out anticlockwise; a left-hand thread
// reverses both.
func turning(a engine.Adjuster, d Direction) (engine.Way, Rotation) {
	way := ClosesBy(a)
	if d == Open {
		way = map[engine.Way]engine.Way{engine.In: engine.Out, engine.Out: engine.In}[way]
	}
	if (way == engine.In) == (a.Thread != engine.LeftHand) {
		return way, Clockwise
	}
	return way, Anticlockwise
}

// Gain is the change of gap per travel of the screw or nut along its axis.
//
// Where the levers put it, with r the rocker's ratio (valve side over cam or push-rod side) and R that of
// a finger follower (valve end over cam contact, both from the pivot), the gap changes by, for a travel of
// one:
//
//	screw at the valve end, gap at the valve            1
//	threaded tappet, gap at the tappet                  1
//	screw at the valve end, gap at the cam              1/r
//	threaded tappet, gap at the valve                   r
//	screw at the push-rod end, gap at the valve         r
//	nut on the stud at the rocker's middle              1 + r
//	pivot of a finger, gap at the cam                   1 − 1/R
//	pivot of a finger, gap at the valve                 R − 1
//
// The rocker's middle moves both arms at once, hence 1 + r. A finger's pivot lifts one end of a beam that
// rests on the valve's tip and is pressed by the cam between the two; a ratio of 1 would put the cam over
// the valve, where the pivot changes nothing, so R must be above 1.
func Gain(a engine.Adjuster) (float64, error) {
	r := a.Ratio
	switch a.Kind {
	case engine.ScrewValveEnd, engine.ThreadedTappet:
		return 1, nil
	case engine.Shim, engine.Hydraulic, engine.Eccentric:
		return 0, fmt.Errorf("%w: %s", ErrNoScrew, a.Kind)
	}
	if !slices.Contains(engine.AdjusterKinds(), a.Kind) {
		return 0, unknown(a.Kind)
	}
	if math.IsNaN(r) || r <= 0 {
		return 0, fmt.Errorf("%w: this kind of adjuster needs it", ErrRatio)
	}
	switch a.Kind {
	case engine.ScrewValveEndAtCam:
		return 1 / r, nil
	case engine.ThreadedTappetAtValve, engine.ScrewPushrodEnd:
		return r, nil
	case engine.CentreNut:
		return 1 + r, nil
	}
	if r <= 1 {
		return 0, fmt.Errorf("%w: a finger follower's is above 1", ErrRatio)
	}
	switch a.Kind {
	case engine.FingerPivotAtCam:
		return 1 - 1/r, nil
	case engine.FingerPivotAtValve:
		return r - 1, nil
	}
	return 0, unknown(a.Kind)
}

// unknown is the error of a kind that nothing here is known of: no figure is better than a wrong one.
func unknown(kind engine.AdjusterKind) error { return fmt.Errorf("%w: %q", ErrKind, kind) }

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
