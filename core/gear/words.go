package gear

import "strings"

// Words are what is said at the wrench.
type Words struct {
	Part  string // what is turned, named where the turn is told: "Screw", "Nut"
	In    string // how it goes into its thread, said of Part: "in", "down"
	Out   string // and out of it
	Turn  string // what is done until the leaf drags, with {leaf} for its name
	Tools string // how the tools are held, and what to mind
	Lock  string // how it is held while it is locked
}

// leaf stands in [Words.Turn] for the leaf to set by.
const leaf = "{leaf}"

// Until is what is done until a leaf drags: "Slacken the lock nut, turn the screw until 0.30 drags."
func (w Words) Until(name string) string { return strings.ReplaceAll(w.Turn, leaf, name) }

// What several kinds have in common (common practice).
var (
	screwTools = []string{"Ring spanner for the lock nut", "Driver or key for the screw"}
	screwWords = Words{
		Part: "Screw", In: "in", Out: "out",
		Turn: "Slacken the lock nut, turn the screw until {leaf} drags.",
		Tools: "Check first that the screw turns freely: a ring spanner on the nut, a driver or key in the " +
			"screw. " +
			"Turn it until it touches the leaf without clamping it. Never a socket on the nut: it drags the screw " +
			"round.",
		Lock: "Tightening drags the screw round and closes the gap. Hold the screw still with the driver while " +
			"the " +
			"nut goes tight.",
	}
	screwMade = []string{"Bent spanner: a thin ring spanner bent behind its head, where the cover’s rim or a pipe is in the " +
		"way", "Driver with a cranked blade, or a bit in a ratchet, where there is no room above the screw"}
	tappetMade  = []string{"Two spanners ground thin and cranked, so that both lie on the tappet at once"}
	tappetTools = []string{"Two thin spanners, cranked where it is tight"}
	tappetWords = Words{
		Part: "Screw", In: "in", Out: "out",
		Turn: "Slacken the lock nut, turn the tappet’s head until {leaf} drags.",
		Tools: "Two thin spanners, cranked where it is tight. Too tight: loosen the lock nut first. Too loose: " +
			"start with the upper nut.",
		Lock: "Tightening draws the thread up and moves the gap. Hold the head with one spanner while the other " +
			"brings the lock nut up.",
	}
	pivotTools = []string{"Open spanner for the pivot", "Spanner for its lock nut"}
	pivotWords = Words{
		Part: "Screw", In: "in", Out: "out",
		Turn: "Slacken the lock nut, turn the pivot until {leaf} drags.",
		Tools: "An open spanner on the pivot, another on its lock nut. A finger can jump out of its socket under " +
			"too much force.",
		Lock: "Tightening draws the thread up and moves the gap. Hold the pivot still while the nut goes tight.",
	}
)
