package sequence

import (
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// Best is the best plan of so many stops: its smallest margin and its positions, rising.
type Best struct {
	Stops          int
	SmallestMargin measure.Angle
	Cranks         []measure.Angle
}

// Comparison is every school on one engine, and the frontier of the best plans from the first number of stops
// with a positive margin to the one that reaches the largest possible.
type Comparison struct {
	Schools  []Plan
	Frontier []Best
}

// Compare plans every school and the frontier for a checked sheet. A nil margin is the sheet's.
func Compare(s *engine.Sheet, requiredMargin *measure.Angle) Comparison {
	c := cycle.New(s)
	var out Comparison
	for _, school := range Schools() {
		out.Schools = append(out.Schools,
			build(c, Request{Way: Way{School: school}, RequiredMargin: requiredMargin}))
	}
	if s.Gear().NotSet == "" {
		out.Frontier = frontier(c)
	}
	return out
}

func frontier(c *cycle.Cycle) []Best {
	s := newSearch(c, nil)
	margins := s.margins()
	largest := min(c.DeepestMargin(engine.Intake), c.DeepestMargin(engine.Exhaust))
	var list []Best
	for k := 1; k <= len(s.arcs); k++ {
		margin, ok := s.best(margins, k)
		if !ok {
			continue
		}
		for margins[0] < margin { // more stops reach no less
			margins = margins[1:]
		}
		list = append(list, Best{Stops: k, SmallestMargin: margin, Cranks: s.plan(margin, k)})
		if margin >= largest {
			break
		}
	}
	return list
}
