package gear

import (
	"errors"
	"fmt"
	"math"
	"slices"
)

// Kind names how the gap is changed, as an engine sheet has it.
type Kind string

// Means is what is done to a gear to change its gap.
type Means string

// The means there are. The zero value belongs to no kind.
const (
	Turned    Means = "turned"    // a screw or nut, by an angle that can be reckoned
	Felt      Means = "felt"      // an eccentric: no fixed angle, until the leaf drags
	Exchanged Means = "exchanged" // a shim or bucket, for one of another size
	Never     Means = "never"     // the gear holds its gap by itself
)

// Way is which way a screw or nut travels along its thread.
type Way string

// In is driven towards the valve, push-rod or rocker; Out rises out of its thread.
const (
	In  Way = "in"
	Out Way = "out"
)

// Ratio is which ratio of levers the gain of a kind is reckoned from.
type Ratio int

// The ratios that a gain may need.
const (
	NoRatio     Ratio = iota
	RockerRatio       // valve side over cam or push-rod side; above 0
	FingerRatio       // valve end over cam contact, both from the pivot; above 1
)

// Gear is all that follows from a kind of adjuster. The zero value is that of a kind that is not known.
type Gear struct {
	Kind     Kind
	Title    string // "Rocker stud nut"
	Means    Means
	Closes   Way      // which way its screw or nut travels to close the gap, by geometry; empty: it has none
	Ratio    Ratio    // what its gain is reckoned from
	Creeps   bool     // its thread holds by itself: a check by turning is worth its time (common practice)
	FallsOut bool     // a part of it can drop out where it is slackened until it is free
	NotSet   string   // why there is nothing to set; empty: it is set
	Tools    []string // what it is set with, laid out before the job (common practice)
	Made     []string // tools for it that one makes oneself (common practice)
	Words    Words
	Picture  Picture
	gain     func(ratio float64) float64 // nil: it has no screw
}

// kinds is every kind in the order they are offered.
var kinds = []Gear{
	screwValveEnd, screwPushrodEnd, centreNut, fingerPivotAtCam, fingerPivotAtValve, screwValveEndAtCam,
	threadedTappet, threadedTappetAtValve, eccentric, shim, hydraulic,
}

// Assumed is the gear where a sheet states none: a screw with its lock nut at the valve end, the most usual
// (common practice).
func Assumed() Gear { return screwValveEnd }

// All is every gear in the order they are offered.
func All() []Gear { return slices.Clone(kinds) }

// Kinds are the names of all gears, in the same order.
func Kinds() []Kind {
	names := make([]Kind, len(kinds))
	for i, g := range kinds {
		names[i] = g.Kind
	}
	return names
}

// Of is the gear of a kind; ok is false for one that is not known.
func Of(kind Kind) (g Gear, ok bool) {
	i := slices.IndexFunc(kinds, func(g Gear) bool { return g.Kind == kind })
	if i < 0 {
		return Gear{}, false
	}
	return kinds[i], true
}

// LockNut says whether its adjuster is held by a nut that must be locked after it is moved.
func (g Gear) LockNut() bool { return g.Means == Turned || g.Means == Felt }

// CamSeen says that the lobes are seen with the cover off: not with the cam in the block (common practice).
func (g Gear) CamSeen() bool { return g.Picture.Train != Pushrod && g.Picture.Train != Tappet }

// Why a gain cannot be reckoned; the wrapped text names what is missing.
var (
	ErrKind    = errors.New("this kind of adjuster is not known")
	ErrNoScrew = errors.New("this gear has no screw to turn")
	ErrRatio   = errors.New("the ratio is not given or not possible")
)

// Gain is the change of gap per travel of a kind's screw or nut along its axis, with the ratio of its rocker
// or finger, which is looked at only where the kind needs one. It errs with ErrKind for a kind that is not
// known: no figure is better than a wrong one; with ErrNoScrew for gear that has none; and with ErrRatio for
// a ratio that is not given (0), not a number, or too small for its levers.
func Gain(kind Kind, ratio float64) (float64, error) {
	g, ok := Of(kind)
	switch {
	case !ok:
		return 0, fmt.Errorf("%w: %q", ErrKind, kind)
	case g.gain == nil:
		return 0, fmt.Errorf("%w: %s", ErrNoScrew, kind)
	case g.Ratio == NoRatio:
		return g.gain(1), nil
	case math.IsNaN(ratio) || ratio <= 0:
		return 0, fmt.Errorf("%w: this kind of adjuster needs it", ErrRatio)
	case g.Ratio == FingerRatio && ratio <= 1:
		return 0, fmt.Errorf("%w: a finger follower's is above 1", ErrRatio)
	}
	return g.gain(ratio), nil
}
