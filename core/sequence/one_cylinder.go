package sequence

import (
	"metronix/core/cycle"
	"metronix/core/measure"
)

// oneCylinder is each cylinder at its firing TDC, in firing order: both or all of its valves there. It always
// applies, margin allowing.
var oneCylinder = school{
	name: OneCylinder, title: "One cylinder at a time", numbered: true,
	howTo: "Each cylinder at its own firing TDC, both valves there.",
	stops: func(c *cycle.Cycle, _ Request, _ measure.Angle) ([]draft, string) {
		return atFiringTDC(c, func(cylinder int) Sighting {
			return Sighting{What: TDCFiring,
				Cylinder: cylinder}
		}), ""
	},
}

// atFiringTDC deals each cylinder's valves to its own firing TDC, never reassigned.
func atFiringTDC(c *cycle.Cycle, watch func(cylinder int) Sighting) []draft {
	var drafts []draft
	for _, cylinder := range c.Sheet.FiringOrder {
		d := draft{crank: c.CrankAt(cylinder, cycle.FiringTDC), ordinal: cylinder,
			watch: []Sighting{watch(cylinder)}}
		if m, ok := markAt(c.Sheet, d.crank); ok {
			d.watch = append(d.watch, Sighting{What: Mark, Mark: m})
		}
		for _, v := range c.Valves {
			if v.Cylinder == cylinder {
				d.set = append(d.set, SetValve{v.Name, c.Margin(v, d.crank)})
			}
		}
		drafts = append(drafts, d)
	}
	return drafts
}
