package cycle_test

import (
	"fmt"

	"metronix/core/cycle"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
)

// As cylinder 1 of a four fires, its own valves stand far from their lobes, and those of its companion 4
// rock.
func ExampleCycle_Margin() {
	c := cycle.New(enginetest.Four())
	for _, name := range []string{"E1", "I1", "E4", "I4"} {
		v, _ := c.Valve(name)
		fmt.Println(name, c.Margin(v, 0))
	}
	companion, _ := c.Companion(1)
	fmt.Println("companion of 1:", companion)
	// Output:
	// E1 128°
	// I1 128°
	// E4 -12°
	// I4 -12°
	// companion of 1: 4
}

func ExampleCycle_MaySet() {
	c := cycle.New(enginetest.Four())
	v, _ := c.Valve("E1")
	from, to, _ := c.MaySet(v, 20*measure.Degree)
	fmt.Println("from", from, "through 0 to", to)
	// Output: from 392° through 0 to 108°
}
