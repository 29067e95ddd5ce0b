// Package adjust knows how a valve's adjuster changes its gap.
package adjust

import (
	"errors"
	"fmt"
	"math"

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

// Turn is how far to turn an adjuster.
type Turn struct {
	Degrees   float64 // of the screw or nut, not negative; NaN where ByFeel
	Direction Direction
	ByFeel    bool // an eccentric: no fixed angle
	Why       string
}

// Why a turn cannot be reckoned; the wrapped text names the figure that is missing.
var (
	ErrNoScrew = errors.New("this gear has no screw to turn")
	ErrPitch   = errors.New("the thread pitch is not given")
	ErrRatio   = errors.New("the ratio is not given or not possible")
)

// Reckon gives the turn that brings a gap to its aim: angle = 360 × change / (pitch × gain), by geometry of the lever.
// It errs with ErrNoScrew for shims and hydraulic gear, ErrPitch without a pitch, and ErrRatio where the gain needs a ratio
// (above 1 for a finger follower's pivot) that is not there.
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
	t.Degrees = measure.RoundAngle(360 * change.Abs().Millimetres() / (a.Pitch.Millimetres() * gain))
	t.Why = fmt.Sprintf("%s to change, pitch %s, gain %.4g: 360° × %.4g / (%.4g × %.4g).",
		change.Abs(), a.Pitch, gain, change.Abs().Millimetres(), a.Pitch.Millimetres(), gain)
	return t, nil
}

// Gain is the change of gap per travel of the screw or nut along its axis.
func Gain(a engine.Adjuster) (float64, error) {
	r := a.Ratio
	switch a.Kind {
	case engine.ScrewValveEnd, engine.ThreadedTappet:
		return 1, nil
	case engine.Shim, engine.Hydraulic:
		return 0, fmt.Errorf("%w: %s", ErrNoScrew, a.Kind)
	}
	if math.IsNaN(r) || r <= 0 {
		return 0, fmt.Errorf("%w: %s needs it", ErrRatio, a.Kind)
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
	if a.Kind == engine.FingerPivotAtCam {
		return 1 - 1/r, nil
	}
	return r - 1, nil
}

// byFeel bounds an eccentric: at most its eccentricity per radian.
func byFeel(a engine.Adjuster, t Turn) (Turn, error) {
	t.ByFeel, t.Degrees = true, math.NaN()
	t.Why = "An eccentric changes the gap unevenly: turn it by feel against the leaf."
	if a.Eccentricity > 0 {
		most := measure.FromMillimetres(a.Eccentricity.Millimetres() * 10 * math.Pi / 180).Millimetres()
		t.Why += fmt.Sprintf(" 10° changes it by at most %.3f mm.", most)
	}
	return t, nil
}
