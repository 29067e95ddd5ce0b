package sequence

import (
	"fmt"

	"metronix/core/cycle"
	"metronix/core/measure"
)

// rockingPairs is the same positions as oneCylinder, seen on the companion cylinder's rockers in overlap. It
// needs a companion for every cylinder.
//
// Cylinders that fire one turn apart are companions: where one is at firing TDC the other is at TDC of
// overlap, its exhaust just closing as its intake starts to open. To and fro about that place its rockers
// rock, one up as the other goes down, which is seen from the side of the engine without a mark, and
// cannot be mistaken by one turn: that is the school's whole merit.
//
// A straight four 1-3-4-2 goes 4 rocks, set 1; 2 rocks, set 3; 1 rocks, set 4; 3 rocks, set 2 (common
// practice). A six 1-5-3-6-2-4 has the pairs 1 and 6, 2 and 5, 3 and 4.
//
// Engines with an odd number of cylinders, and many that fire unevenly, have no companions; then the
// school does not apply and says which cylinder is alone.
var rockingPairs = school{
	name: RockingPairs, title: "Rocking pairs", numbered: true,
	howTo: "Watch the companion cylinder rock, read both valves of the other.",
	stops: func(c *cycle.Cycle, _ Request, _ measure.Angle) ([]draft, string) {
		for _, cylinder := range c.Sheet.FiringOrder {
			if _, ok := c.Companion(cylinder); !ok {
				return nil, fmt.Sprintf("Cylinder %d has no companion firing one turn away, so no cylinder "+
					"rocks while it fires.",
					cylinder)
			}
		}
		return atFiringTDC(c, func(cylinder int) Sighting {
			companion, _ := c.Companion(cylinder)
			return Sighting{What: Rocking, Cylinder: companion}
		}), ""
	},
}
