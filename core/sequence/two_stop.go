package sequence

import (
	"metronix/core/cycle"
	"metronix/core/measure"
)

// twoStop is firing TDC of the first cylinder, then one turn on; each valve at the deeper of the two.
//
// The timing mark is brought to the pointer twice. On a straight four the first stop serves I1 E1 I2 E3
// and the second I3 I4 E2 E4; on a six 1-5-3-6-2-4 the first I1 E1 I2 E3 I4 E5 and the second the rest
// (common practice). Nothing turns the crank less.
//
// The price is depth. Beyond four cylinders some valves stand nearer to their ramps than one cylinder at a
// time would have them, and with a long cam the smallest margin no longer reaches what the sheet requires:
// then the school does not apply, and the valve that falls short is the reason.
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
