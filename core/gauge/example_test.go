package gauge_test

import (
	"fmt"

	"metronix/core/gauge"
	"metronix/core/measure"
)

// 0.21 mm from a set that has no such leaf: 0.20 lies within the limits with its whole uncertainty, and one
// leaf is better than 0.15 + 0.06.
func ExampleSet_Choose() {
	var set gauge.Set
	for _, l := range []measure.Length{50, 60, 150, 200, 250} {
		set = append(set, gauge.Plain(l*measure.Micrometre))
	}
	window := measure.Window{Lower: 190 * measure.Micrometre, Upper: 230 * measure.Micrometre}
	choice, _ := set.Choose(210*measure.Micrometre, &window, gauge.MaxStack)
	fmt.Println(choice.Stack, choice.Stack.Thickness(), "±", choice.Stack.Uncertainty(), choice.Within)
	// Output: 0.20 0.20 mm ± 0.005 mm true
}
