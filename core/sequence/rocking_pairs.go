package sequence

import (
	"fmt"

	"metronix/core/cycle"
	"metronix/core/measure"
)

// rockingPairs is the same positions as oneCylinder, seen on the companion cylinder's rockers in overlap. It
// needs a companion for every cylinder.
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
