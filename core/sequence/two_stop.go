package sequence

import (
	"metronix/core/cycle"
	"metronix/core/measure"
)

// twoStop is firing TDC of the first cylinder, then one turn on; each valve at the deeper of the two.
var twoStop = school{
	name: TwoStop, title: "Two stops",
	howTo: "Firing TDC of the first cylinder, then one turn on.",
	stops: func(c *cycle.Cycle, _ Request, _ measure.Angle) ([]draft, string) {
		first, sheet := c.Sheet.FiringOrder[0], c.Sheet
		return deal(c, []draft{
			{crank: 0, watch: append(pulleySign(sheet, 0), Sighting{What: TDCFiring, Cylinder: first})},
			{crank: measure.Turn, watch: append(pulleySign(sheet, measure.Turn),
				Sighting{What: Rocking, Cylinder: first})},
		}), ""
	},
}
