package sequence

import (
	"metronix/core/cycle"
	"metronix/core/measure"
)

// oneLobe is each valve at the middle of its base circle, its lobe straight away from the follower.
//
// With the cam in sight nothing has to be known of the engine: the lobe that points straight away from its
// follower stands on the middle of its base circle, and the valve under it is at its deepest. It has a
// stop a valve, the most of all schools, and the largest margin; it is how anybody may work who is in
// doubt.
//
// The sighting says that the lobe points away. On the wire it is written loose, the word that elsewhere says
// that a valve has play: both are seen of a shut valve, and the glossary tells the two apart.
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
