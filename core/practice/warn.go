package practice

import (
	"fmt"

	"metronix/core/clearance"
	"metronix/core/job"
)

// setWrong is why nothing is set at a valve that is not clear.
const setWrong = "whatever you set is wrong"

// Warning is what a good mechanic who looks on says before a slip is made at a valve; empty where nobody can
// see it coming. At several valves they are named together.
func (s Slip) Warning(valve string) string {
	switch s {
	case OffBase:
		return notClearHere(valve, setWrong)
	case NutLoose:
		return fmt.Sprintf("The nut of %s is loose: tighten it before the crank is turned.", valve)
	case NoShim:
		return fmt.Sprintf("There is no shim in %s: lay one in before the crank is turned.", valve)
	case TooLate:
		return fmt.Sprintf("Its %.0f minutes are over: it is not hot any more.", job.HotFor.Minutes())
	case Disturbed:
		return valve + " is in by what you felt: leave it as it is."
	case NotReread:
		return valve + " was not read again since its nut was tight."
	case NotFelt:
		return fmt.Sprintf("No leaf was in %s since.", valve)
	case WrongLeaf:
		return carriesNot(valve, clearance.In)
	case ToolLeft:
		return "The tool is on the crank."
	case Forgotten:
		return fmt.Sprintf("Nothing is written down of %s.", valve)
	case OneTurnOut, Elsewhere, WrongShim, LeftOut, OutLeft, Misjudged, WearMissed, Misread, OverTime:
		return ""
	}
	return ""
}

// notClearHere says why nothing is done at a valve whose lobe is not clear.
func notClearHere(valve, why string) string {
	return fmt.Sprintf("%s’s lobe is not clear here: %s.", valve, why)
}

// carriesNot says that what was felt of a valve does not tell what is said of it.
func carriesNot(valve string, is clearance.Verdict) string {
	return fmt.Sprintf("What you felt does not carry that %s is %s: try another leaf.", valve, verdictWord(is))
}
