package sequence

import (
	"metronix/core/cycle"
	"metronix/core/measure"
)

// oneCylinder is each cylinder at its firing TDC, in firing order: both or all of its valves there. It always
// applies, margin allowing.
//
// At its firing TDC a cylinder's piston is at the top with both valves shut, and both lobes point away:
// with the typical road cam the nearest event lies 128 degrees off on either side, the exhaust that is to
// open and the intake that has closed. It is the plainest school and the one that every book falls back
// on.
//
// How the mechanic knows the place: the timing mark at the pointer, and both rockers of that very cylinder
// with play. The mark alone comes round every turn, at overlap as well, and a crank one turn out is the
// classic mistake; so the sighting to look for is the cylinder's, and the mark only stands beside it where
// the pulley has one.
//
// Taken in firing order a four is turned 540 degrees from its first stop to its last, a six 600: 720 less
// one firing interval. Taken by number it is turned further, because the cylinders do not fire in that
// order. Both are taught.
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
//
// The order of work within a stop is that of the sheet; which of the valves comes first is for the job to
// say.
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
