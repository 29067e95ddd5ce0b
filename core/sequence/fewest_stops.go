package sequence

import (
	"fmt"

	"metronix/core/cycle"
	"metronix/core/measure"
)

// fewestStops: the smallest number of stops that reaches the required margin, then the largest smallest
// margin, then the dictionary-smallest positions; or the best plan of at most q.StopCount.
//
// For a wanted margin every valve has an arc of crank positions at which it may be set: its closed
// interval, shortened by the margin at both ends. A set of stops serves all valves where each arc holds
// one of them, which is the stabbing of circular arcs: begun at one arc's end, the greedy walk that stabs
// each next arc as late as it can uses the fewest points, and trying every arc's end as the beginning
// makes that exact on a circle. See best.go.
//
// Of all plans with so few stops the one is taken whose smallest margin is largest. With positions limited
// to the engine's own marks the same is asked of those places alone; where the answer is none, the valve
// is named that no mark serves.
var fewestStops = school{
	name: FewestStops, title: "Fewest stops",
	howTo: "As few stops as the required margin allows, by mark or degree wheel.",
	stops: fewestStopsOf,
}

func fewestStopsOf(c *cycle.Cycle, q Request, need measure.Angle) ([]draft, string) {
	var spots []measure.Angle
	if q.Positions == MarksOnly {
		spots = markSpots(c.Sheet)
	}
	s := newSearch(c, spots)
	k := q.StopCount
	if k == 0 {
		if k = s.stab(need, len(s.arcs)); k == none {
			return nil, s.unreachable(c, need, spots)
		}
	}
	margin, ok := s.best(s.margins(), k)
	if !ok {
		return nil, fmt.Sprintf("With %s some valve would always be open at its stop.", stopsOf(k))
	}
	var drafts []draft
	for _, at := range s.plan(margin, k) {
		drafts = append(drafts, draft{crank: at, watch: placeSigns(c, at)})
	}
	return deal(c, drafts), ""
}
