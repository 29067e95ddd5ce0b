package sequence

import (
	"fmt"

	"metronix/core/cycle"
	"metronix/core/measure"
)

// fewestStops: the smallest number of stops that reaches the required margin, then the largest smallest
// margin, then the dictionary-smallest positions; or the best plan of at most q.StopCount.
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
		if k = s.stab(need, len(s.arcs)); k < 0 {
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
