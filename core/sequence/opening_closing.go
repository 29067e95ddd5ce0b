package sequence

import (
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// openingClosing is, per cylinder, its intakes as its exhaust starts to open and its exhausts as its intake
// nearly closes.
//
// Cams of long duration leave little base circle, and at firing TDC both valves may be near a ramp. Here
// each valve is taken by its own cylinder's other one: as the exhaust just starts to open the intake has
// long closed, and as the intake is nearly closed the exhaust has long closed too. Two stops a cylinder,
// and none of them needs a mark.
var openingClosing = school{
	name: OpeningClosing, title: "Exhaust opening, intake closing",
	howTo: "As the exhaust starts to open, do the intake; as the intake has almost closed, do the exhaust: for " +
		"long cams.",
	stops: openingClosingStops,
}

func openingClosingStops(c *cycle.Cycle, _ Request, _ measure.Angle) ([]draft, string) {
	var drafts []draft
	for _, cylinder := range c.Sheet.FiringOrder {
		for _, half := range []struct {
			watch engine.Kind
			what  What
			theta measure.Angle
		}{{engine.Exhaust, Opening, c.Events(engine.Exhaust).Open}, {engine.Intake, Closing,
			c.Events(engine.Intake).Shut}} {
			d := draft{crank: c.CrankAt(cylinder, half.theta), ordinal: cylinder}
			for _, v := range c.Valves {
				switch {
				case v.Cylinder != cylinder:
				case v.Kind == half.watch:
					d.watch = append(d.watch, Sighting{What: half.what, Valve: v.Name})
				default:
					d.set = append(d.set, SetValve{v.Name, c.Margin(v, d.crank)})
				}
			}
			drafts = append(drafts, d)
		}
	}
	return drafts, ""
}
