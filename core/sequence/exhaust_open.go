package sequence

import (
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// exhaustOpen is a stop at each exhaust's full lift, each valve at its deepest stop.
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
