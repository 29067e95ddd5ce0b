// Package deep says how much a test does: a covering selection in make test, the full product and long rounds
// in make deep.
package deep

import "os"

// On says whether the long tests were asked for.
var On = os.Getenv("METRONIX_DEEP") != ""

// Rounds is how often something is tried: usually so many times, in make deep so many.
func Rounds(usual, deep int) int {
	if On {
		return deep
	}
	return usual
}
