package bench

import (
	"fmt"
	"math"

	"metronix/core/engine"
	"metronix/core/measure"
)

// Clicked is what is said of a torque wrench that clicked at so many newton metres on a lock nut, in a
// person's units, beside what the sheet says of that nut; off is true where the two are apart by more than
// such a wrench may be out: 6 % up to 10 Nm, 4 % above (ISO 6789-1, type II class A, from memory).
func Clicked(s *engine.Sheet, nm float64, speaks measure.Units) (says string, off bool) {
	clicked := engine.SourcedTorque{Torque: engine.Torque{Nm: math.Round(nm*10) / 10}}.Say(speaks)
	to, _ := s.TorquesOf(engine.LockNut)
	if to == nil {
		return fmt.Sprintf("The wrench clicked at %s. No torque is printed for this nut.", clicked), false
	}
	want := to.Torque.Value()
	may := 0.04 * want
	if want <= 10 {
		may = 0.06 * want
	}
	switch by := nm - want; {
	case math.Abs(by) <= may:
		return fmt.Sprintf("The wrench clicked at %s, as it should.", clicked), false
	case by < 0:
		return fmt.Sprintf("The wrench clicked at %s: %s is to be had.", clicked, to.Say(speaks)), true
	default:
		return fmt.Sprintf("The wrench clicked at %s, and %s is to be had: slacken the nut and tighten it anew.",
			clicked, to.Say(speaks)), true
	}
}
