package sequence_test

import (
	"fmt"
	"strings"

	"metronix/core/engine/enginetest"
	"metronix/core/sequence"
)

// The rocking pairs of a four that fires 1-3-4-2: watch one cylinder rock, work on its companion.
func ExampleMake() {
	plan, _ := sequence.Make(enginetest.Four(),
		sequence.Request{Way: sequence.Way{School: sequence.RockingPairs}})
	for i, stop := range plan.Stops {
		var valves []string
		for _, set := range stop.Set {
			valves = append(valves, set.Valve)
		}
		fmt.Printf("%s until %s: %s\n", plan.How(i), stop.Until(), strings.Join(valves, " "))
	}
	// Output:
	// Turn the crank until cylinder 4 rocks: E1 I1
	// Turn a further 180° until cylinder 2 rocks: E3 I3
	// Turn a further 180° until cylinder 1 rocks: I4 E4
	// Turn a further 180° until cylinder 3 rocks: I2 E2
}

// A mark leaves two places; a second look tells them apart.
func ExampleLocate() {
	mark := sequence.Sighting{What: sequence.Mark}
	rocks := sequence.Sighting{What: sequence.Rocking, Cylinder: 1}
	l, _ := sequence.Locate(enginetest.Four(), []sequence.Sighting{mark}, nil)
	fmt.Println(len(l.Positions), "places")
	l, _ = sequence.Locate(enginetest.Four(), []sequence.Sighting{mark, rocks}, nil)
	fmt.Println(l.Positions[0].Middle(), l.Settable)
	// Output:
	// 2 places
	// 360° [E2 I3 I4 E4]
}
