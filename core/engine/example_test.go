package engine_test

import (
	"fmt"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
)

// Valves have their names from kind and cylinder, and numbers along one row.
func ExampleSheet_Valves() {
	for _, v := range enginetest.Four().Valves()[:4] {
		fmt.Print(v.RowNumber, " ", v.Name, "; ")
	}
	fmt.Println()
	// Output: 1 E1; 2 I1; 3 I2; 4 E2;
}

// Everything that is wrong is found at once, each at its place: 3 fires twice, and 4 is missing.
func ExampleCheck() {
	s := enginetest.Four()
	s.FiringOrder = []int{1, 3, 3, 2}
	for _, p := range engine.Check(s).Problems {
		fmt.Println(p.Location)
	}
	// Output:
	// firing_order[2]
	// firing_order
}
