package sequence

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// The best plan of k stops is the one whose smallest margin is largest. For a wanted margin each valve may be set on an arc
// of crank positions, and the fewest stops are the fewest points that stab all arcs: exact by starting a greedy walk at each
// arc's end. The largest margin is reached where some arc's start meets some arc's end, so only those margins are tried.

// hair keeps touching arcs touching in spite of float noise, degrees.
const hair = 1e-8

// closedArc is where one kind of valve of one cylinder is shut, as crank positions; valves that share it are set together.
type closedArc struct{ shut, open float64 }

// span is an allowed arc: from left it runs length degrees in the running direction.
type span struct{ left, length float64 }

// search is one engine's arcs, and the positions that are allowed (nil: any).
type search struct {
	arcs  []closedArc
	spots []float64 // sorted
}

func newSearch(c *cycle.Cycle, spots []float64) *search {
	s := &search{spots: spots}
	for _, v := range c.Valves {
		arc := closedArc{c.ShutsAt(v), c.OpensAt(v)}
		if !slices.Contains(s.arcs, arc) {
			s.arcs = append(s.arcs, arc)
		}
	}
	return s
}

// markSpots is every crank position with a mark under the pointer.
func markSpots(s *engine.Sheet) []float64 {
	var spots []float64
	for _, m := range s.EffectiveMarks() {
		spots = append(spots, m, m+360)
	}
	slices.Sort(spots)
	return spots
}

// spans are the arcs shrunk by a margin; ok is false where one vanishes.
func (s *search) spans(margin float64) (list []span, ok bool) {
	list = make([]span, 0, len(s.arcs))
	for _, a := range s.arcs {
		length := measure.Wrap(a.open-a.shut) - 2*margin
		if length < -hair {
			return nil, false
		}
		list = append(list, span{measure.Wrap(a.shut + margin), math.Max(0, length)})
	}
	return list, true
}

// holds says whether a span contains a position.
func (p span) holds(at float64) bool {
	d := at - p.left
	if d < -hair {
		d += measure.Cycle
	}
	return d <= p.length+hair || d >= measure.Cycle-hair
}

// last is the furthest allowed position on a span; ok is false where there is none.
func (s *search) last(p span) (at float64, ok bool) {
	end := measure.Wrap(p.left + p.length)
	if s.spots == nil {
		return end, true
	}
	best, found := 0.0, -1.0
	for _, spot := range s.spots {
		if !p.holds(spot) {
			continue
		}
		if along := measure.Wrap(spot - p.left + hair); along > found {
			best, found = spot, along
		}
	}
	return best, found >= 0
}

// stab is the fewest positions that reach a margin, at most limit; −1 where that many do not do.
func (s *search) stab(margin float64, limit int) int {
	spans, ok := s.spans(margin)
	if !ok {
		return -1
	}
	ends := make([]float64, len(spans))
	for i, p := range spans {
		if ends[i], ok = s.last(p); !ok {
			return -1
		}
	}
	order := make([]int, len(spans))
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(a, b int) int { return cmp.Compare(ends[a], ends[b]) })
	shortest := slices.MinFunc(spans, func(a, b span) int { return cmp.Compare(a.length, b.length) })
	best := -1
	for start, i := range order {
		if !shortest.holds(ends[i]) {
			continue // some point stabs the shortest span, and may be slid to the first end it meets there
		}
		if n := walk(spans, ends, order, start, limit); n >= 0 && (best < 0 || n < best) {
			best, limit = n, n
		}
	}
	return best
}

// walk stabs greedily once round, the first point at the end of the start-th span; −1 where it needs more than limit.
func walk(spans []span, ends []float64, order []int, start, limit int) int {
	first := ends[order[start]]
	last, n := first, 1
	for step := 1; step < len(order); step++ {
		i := order[(start+step)%len(order)]
		if spans[i].holds(last) || spans[i].holds(first) {
			continue
		}
		if n++; n > limit {
			return -1
		}
		last = ends[i]
	}
	return n
}

// margins are all margins at which the answer can change, rising.
func (s *search) margins() []float64 {
	var list []float64
	if s.spots != nil {
		for _, a := range s.arcs {
			closed := measure.Wrap(a.open - a.shut)
			for _, spot := range s.spots {
				since := measure.Wrap(spot - a.shut)
				if m := math.Min(since, closed-since); m > 0 {
					list = append(list, m)
				}
			}
		}
	} else {
		for _, a := range s.arcs {
			for _, b := range s.arcs {
				if m := measure.Wrap(b.open-a.shut) / 2; m > 0 {
					list = append(list, m)
				}
			}
		}
	}
	slices.Sort(list)
	return slices.CompactFunc(list, func(a, b float64) bool { return math.Abs(b-a) < hair })
}

// best is the largest margin that at most k positions reach; ok is false where even the smallest positive one is not reached.
func (s *search) best(margins []float64, k int) (float64, bool) {
	i, _ := slices.BinarySearchFunc(margins, 0, func(m float64, _ int) int {
		if n := s.stab(m, k); n >= 0 && n <= k {
			return -1
		}
		return 1
	})
	if i == 0 {
		return 0, false
	}
	return margins[i-1], true
}

// positions is the dictionary-smallest sorted list of n positions that reach a margin.
func (s *search) positions(margin float64, n int) []float64 {
	spans, _ := s.spans(margin)
	slices.SortFunc(spans, func(a, b span) int { return cmp.Compare(a.left, b.left) })
	starts := []float64{0}
	if s.spots != nil {
		starts = s.spots
	} else {
		for _, p := range spans {
			starts = append(starts, p.left)
		}
	}
	var chosen []float64
	left := spans
	for after := -1.0; len(chosen) < n; {
		next, rest := s.nextPosition(starts, after, left, n-len(chosen)-1)
		if rest == nil {
			return nil // cannot be: the margin is reached by n positions
		}
		chosen, left, after = append(chosen, next), rest, next
	}
	return chosen
}

// nextPosition is the smallest start after a position from which the remaining spans need at most more further ones.
func (s *search) nextPosition(starts []float64, after float64, spans []span, more int) (float64, []span) {
	for _, at := range starts {
		if at <= after {
			continue
		}
		rest := make([]span, 0, len(spans))
		for _, p := range spans {
			if p.left < at && !p.holds(at) {
				return 0, nil // it lies behind and does not come again before 720: no later start reaches it either
			}
			if !p.holds(at) {
				rest = append(rest, p)
			}
		}
		if s.line(rest) <= more {
			return at, rest
		}
	}
	return 0, nil
}

// line is the fewest positions below 720 that stab spans, sorted by their starts, each at or after its start.
func (s *search) line(spans []span) int {
	n, reach := 0, math.Inf(-1) // one more position serves every span that starts up to reach
	for _, p := range spans {
		to := min(p.left+p.length, measure.Cycle-hair)
		if s.spots != nil {
			i, _ := slices.BinarySearch(s.spots, to+hair)
			if i == 0 || s.spots[i-1] < p.left-hair {
				return math.MaxInt
			}
			to = s.spots[i-1]
		}
		if p.left > reach+hair {
			n, reach = n+1, to
		}
		reach = min(reach, to)
	}
	return n
}

// fewestStops: the smallest number of stops that reaches the required margin, then the largest smallest margin, then the
// dictionary-smallest positions; or the best plan of at most q.StopCount.
func fewestStops(c *cycle.Cycle, q Request, need float64) ([]draft, string) {
	var spots []float64
	if q.Positions == MarksOnly {
		spots = markSpots(c.Sheet)
	}
	s := newSearch(c, spots)
	margins := s.margins()
	k := q.StopCount
	if k == 0 {
		if k = s.stab(need-hair, len(s.arcs)); k < 0 {
			return nil, s.unreachable(c, need, spots)
		}
	}
	margin, ok := s.best(margins, k)
	if !ok {
		return nil, fmt.Sprintf("With %d stops some valve would always be open at its stop.", k)
	}
	var drafts []draft
	for _, at := range s.plan(margin, k) {
		drafts = append(drafts, draft{crank: at, watch: placeSigns(c, at)})
	}
	return deal(c, drafts), ""
}

// plan is the positions of the best plan of k stops: the dictionary-smallest of those that reach the margin. Where fewer reach
// it already, the rest go to middles of base circles, which brings some valves deeper though not the worst one.
func (s *search) plan(margin float64, k int) []float64 {
	list := s.positions(margin, s.stab(margin, k))
	for i := range list {
		list[i] = measure.RoundAngle(list[i])
	}
	for _, a := range s.arcs {
		middle := measure.RoundAngle(measure.Wrap(a.shut + measure.Wrap(a.open-a.shut)/2))
		taken := func(at float64) bool { return measure.Apart(at, middle) < measure.SameAngle }
		if s.spots == nil && len(list) < k && !slices.ContainsFunc(list, taken) {
			list = append(list, middle)
		}
	}
	slices.Sort(list)
	return list
}

// unreachable says which valve cannot reach the required margin.
func (s *search) unreachable(c *cycle.Cycle, need float64, spots []float64) string {
	for _, v := range c.Valves {
		deepest := c.DeepestMargin(v.Kind)
		if spots != nil {
			deepest = math.Inf(-1)
			for _, at := range spots {
				deepest = math.Max(deepest, c.Margin(v, at))
			}
		}
		if !measure.AtLeast(deepest, need) {
			where := "in the middle of its base circle"
			if spots != nil {
				where = "at the best of the marks"
			}
			return fmt.Sprintf("%s stands only %s from opening and closing even %s; %s is required.", v.Name, measure.FormatAngle(deepest), where, measure.FormatAngle(need))
		}
	}
	return "The required margin cannot be reached."
}
