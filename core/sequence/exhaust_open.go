package sequence

import (
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// exhaustOpen is a stop at each exhaust's full lift, each valve at its deepest stop.
//
// A rocker that is right down is easily seen and needs no mark. On a straight four 1-3-4-2 the stops are:
// E1 down, set I3 and E4; E3 down, set I4 and E2; E4 down, set I2 and E1; E2 down, set I1 and E3 (common
// practice): the companion's exhaust, in the middle of its base circle, and the intake of the cylinder
// that fires next.
//
// On another engine whatever stands deepest at each stop is set there; no valve is taken by its cylinder's
// number. Exhausts that are down at the same place, two of one cylinder, make one stop.
var exhaustOpen = school{
	name: ExhaustOpen, title: "Exhaust fully open",
	howTo: "Watch each exhaust go fully down, read what stands deepest there.",
	stops: exhaustStops,
}

func exhaustStops(c *cycle.Cycle, _ Request, _ measure.Angle) ([]draft, string) {
	var drafts []draft
	for _, v := range c.Valves {
		if v.Kind == engine.Exhaust {
			drafts = append(drafts, draft{crank: c.PeakAt(v),
				watch: []Sighting{{What: FullLift, Valve: v.Name}}})
		}
	}
	return deal(c, places(drafts)), ""
}
