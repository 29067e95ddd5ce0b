package practice

import (
	"fmt"
	"metronix/core/measure"
	"slices"
)

// Slip is one kind of fault.
type Slip string

// The slips.
const (
	OffBase    Slip = "off_base"   // read or set where the lobe lifts it, or nearly does
	OneTurnOut Slip = "one_turn"   // the crank was said to be where it was not, by a whole turn
	Elsewhere  Slip = "elsewhere"  // or by anything else
	LeftOut    Slip = "left_out"   // outside its limits at the end, and believed in
	NutLoose   Slip = "nut_loose"  // left loose
	NoShim     Slip = "no_shim"    // the crank was turned with a shim out, or one was left out
	WrongShim  Slip = "wrong_shim" // said of a shim that it is another than it is
	Forgotten  Slip = "forgotten"  // never read
	NotReread  Slip = "not_reread" // not read again after its nut was tight
	OutLeft    Slip = "out_left"   // left outside its limits, and known to be
	Disturbed  Slip = "disturbed"  // set though it was in
	Misread    Slip = "misread"    // said otherwise than it was felt
	NotFelt    Slip = "not_felt"   // said without the leaf having been in
	Misjudged  Slip = "misjudged"  // said to be out, and in
	WrongLeaf  Slip = "wrong_leaf" // said of leaves that cannot tell
	TooLate    Slip = "too_late"   // read or set when a hot engine had cooled
	ToolLeft   Slip = "tool_left"  // left on the crank
	WearMissed Slip = "wear"       // worn, and not noted
	OverTime   Slip = "over_time"  // it took longer than it may
)

// gravest are all of them, the gravest first.
var gravest = []Slip{
	ToolLeft,
	NoShim,
	OffBase,
	OneTurnOut,
	Elsewhere,
	LeftOut,
	NutLoose,
	WrongShim,
	Forgotten,
	NotReread,
	TooLate,
	OutLeft,
	Misjudged,
	WearMissed,
	Disturbed,
	Misread,
	WrongLeaf,
	NotFelt,
	OverTime,
}

// Slips are all of them, the gravest first.
func Slips() []Slip { return slices.Clone(gravest) }

// Fault is something that a good mechanic would point out.
type Fault struct {
	Slip  Slip
	Valve string         // empty: at none
	By    measure.Length // of a reading: by how much it was wrong, 0 where that is not the matter
	Off   measure.Angle  // of the crank: by how much it was elsewhere
	Entry int            // place in the list of what was done, from 0; −1: of none
}

// String says it as it would be said across the bench.
func (f Fault) String() string {
	switch f.Slip {
	case OffBase:
		return f.Valve + " was read or set where its lobe was not clear"
	case Elsewhere:
		return fmt.Sprintf("the crank was said to be at its stop and stood %.0f° off", f.Off.Degrees())
	case OneTurnOut:
		return "the crank was a whole turn out"
	case Forgotten:
		return f.Valve + " was never read"
	case LeftOut:
		return f.Valve + " was left outside its limits and believed in"
	case NotReread:
		return f.Valve + " was not read again after its nut was tight"
	case NoShim:
		return "there was no shim in " + f.Valve
	case WrongShim:
		return fmt.Sprintf("the shim in %s is not as it was said: %s off", f.Valve, f.By)
	case NutLoose:
		return "the nut of " + f.Valve + " was left loose"
	case Disturbed:
		return f.Valve + " was in, and was set for nothing"
	case Misread:
		return fmt.Sprintf("%s was said otherwise than it was felt, %s off", f.Valve, f.By)
	case NotFelt:
		return f.Valve + " was said without that leaf having been in"
	case OutLeft:
		return f.Valve + " was left outside its limits"
	case Misjudged:
		return f.Valve + " was said to be out, and was in"
	case WrongLeaf:
		return f.Valve + " was said of leaves that could not tell"
	case TooLate:
		return f.Valve + " was read or set when the engine was not hot any more"
	case ToolLeft:
		return "the tool was left on the crank"
	case WearMissed:
		return f.Valve + " is worn, and nobody noted it"
	case OverTime:
		return "it took longer than it may"
	}
	return string(f.Slip)
}
