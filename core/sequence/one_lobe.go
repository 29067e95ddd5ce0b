package sequence

import (
	"metronix/core/cycle"
	"metronix/core/measure"
)

// oneLobe is each valve at the middle of its base circle, its lobe straight away from the follower.
var oneLobe = school{
	name: OneLobe, title: "One lobe at a time",
	howTo: "Every valve in the middle of its base circle, its lobe straight away.",
	stops: oneLobeStops,
}

func oneLobeStops(c *cycle.Cycle, _ Request, _ measure.Angle) ([]draft, string) {
	var drafts []draft
	for _, v := range c.Valves {
		at := c.DeepestAt(v)
		drafts = append(drafts, draft{crank: at, watch: []Sighting{{What: Loose, Valve: v.Name}},
			set: []SetValve{{v.Name, c.Margin(v, at)}}})
	}
	return drafts, ""
}
