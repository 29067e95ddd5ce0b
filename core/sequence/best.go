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

// The best plan of k stops is the one whose smallest margin is largest. For a wanted margin each valve may be
// set on an arc of crank positions, and the fewest stops are the fewest points that stab all arcs: exact by
// starting a greedy walk at each arc's end. The largest margin is reached where some arc's start meets some
// arc's end, so only those margins are tried. Everything is counted in whole micro-degrees, so that arcs
// which touch do touch.

// closedArc is where one kind of valve of one cylinder is shut, as crank positions; valves that share it are
// set together.
type closedArc struct{ shut, open measure.Angle }

// length is how far the arc reaches.
func (a closedArc) length() measure.Angle { return (a.open - a.shut).Wrap() }

// span is an allowed arc: from left it runs length in the running direction.
type span struct{ left, length measure.Angle }

// search is one engine's arcs, and the positions that are allowed (nil: any).
type search struct {
	arcs  []closedArc
	spots []measure.Angle // sorted
}

func newSearch(c *cycle.Cycle, spots []measure.Angle) *search {
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
func markSpots(s *engine.Sheet) []measure.Angle {
	var spots []measure.Angle
	for _, m := range s.EffectiveMarks() {
		spots = append(spots, m, m+measure.Turn)
	}
	slices.Sort(spots)
	return spots
}

// spans are the arcs shrunk by a margin; ok is false where one vanishes.
func (s *search) spans(margin measure.Angle) (list []span, ok bool) {
	list = make([]span, 0, len(s.arcs))
	for _, a := range s.arcs {
		length := a.length() - 2*margin
		if length < 0 {
			return nil, false
		}
		list = append(list, span{(a.shut + margin).Wrap(), length})
	}
	return list, true
}

// holds says whether a span contains a position, 0 ≤ at < 720°.
func (p span) holds(at measure.Angle) bool {
	d := at - p.left
	if d < 0 {
		d += measure.Cycle
	}
	return d <= p.length
}

// last is the furthest allowed position on a span; ok is false where there is none.
func (s *search) last(p span) (at measure.Angle, ok bool) {
	if s.spots == nil {
		return (p.left + p.length).Wrap(), true
	}
	best, found := measure.Angle(0), before
	for _, spot := range s.spots {
		if along := (spot - p.left).Wrap(); p.holds(spot) && along > found {
			best, found = spot, along
		}
	}
	return best, found != before
}

// none is that so many positions do not do. before lies before every position, and final is the last there
// is: a whole number of micro-degrees below 720°.
const (
	none   = -1
	before = measure.Angle(-1)
	final  = measure.Cycle - measure.Microdegree
)

// stab is the fewest positions that reach a margin, at most limit; none where that many do not do.
//
// On a line the greedy walk is optimal by itself: stab at the end of the arc that ends first, drop all
// arcs that hold the point, go on. On a circle there is no first arc; but some point of the best answer
// may be moved on to the end of one of its arcs without losing any, so trying each arc's end as the first
// point finds it.
func (s *search) stab(margin measure.Angle, limit int) int {
	spans, ok := s.spans(margin)
	if !ok {
		return none
	}
	ends := make([]measure.Angle, len(spans))
	for i, p := range spans {
		if ends[i], ok = s.last(p); !ok {
			return none
		}
	}
	order := make([]int, len(spans))
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(a, b int) int { return cmp.Compare(ends[a], ends[b]) })
	shortest := slices.MinFunc(spans, func(a, b span) int { return cmp.Compare(a.length, b.length) })
	best := none
	for start, i := range order {
		if !shortest.holds(ends[i]) {
			continue // some point stabs the shortest span, and may be slid to the first end it meets there
		}
		if n := walk(spans, ends, order, start, limit); n != none { // no more than the best so far
			best, limit = n, n
		}
	}
	return best
}

// walk stabs greedily once round, the first point at the end of the start-th span; none where it needs more
// than limit.
func walk(spans []span, ends []measure.Angle, order []int, start, limit int) int {
	first := ends[order[start]]
	last, n := first, 1
	for step := 1; step < len(order); step++ {
		i := order[(start+step)%len(order)]
		if spans[i].holds(last) || spans[i].holds(first) {
			continue
		}
		if n++; n > limit {
			return none
		}
		last = ends[i]
	}
	return n
}

// margins are all margins at which the answer can change, rising.
//
// As the margin grows every arc shrinks at both ends, and the fewest points can change only where some
// arc's left end meets another's right end (or an allowed position meets an end): between two such margins
// the same points serve. So finitely many are tried, and since more margin never needs fewer points,
// halving finds the largest that k points reach.
func (s *search) margins() []measure.Angle {
	var list []measure.Angle
	add := func(m measure.Angle) {
		if m > 0 {
			list = append(list, m)
		}
	}
	for _, a := range s.arcs {
		if s.spots != nil {
			for _, spot := range s.spots {
				since := (spot - a.shut).Wrap()
				add(min(since, a.length()-since))
			}
			continue
		}
		for _, b := range s.arcs {
			// the largest whole one at which a's start does not pass b's end
			add((b.open - a.shut).Wrap() / 2)
		}
	}
	slices.Sort(list)
	return slices.Compact(list)
}

// best is the largest margin that at most k positions reach; ok is false where even the smallest positive one
// is not reached.
func (s *search) best(margins []measure.Angle, k int) (measure.Angle, bool) {
	i, _ := slices.BinarySearchFunc(margins, 0, func(m measure.Angle, _ int) int {
		if s.stab(m, k) != none {
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
//
// Many lists may reach the same margin; the smallest by comparing them from the front is taken, so that
// one sheet has one plan on every machine and in every test.
func (s *search) positions(margin measure.Angle, n int) []measure.Angle {
	spans, _ := s.spans(margin)
	slices.SortFunc(spans, func(a, b span) int { return cmp.Compare(a.left, b.left) })
	starts := []measure.Angle{0}
	if s.spots != nil {
		starts = s.spots
	} else {
		for _, p := range spans {
			starts = append(starts, p.left)
		}
	}
	var chosen []measure.Angle
	left := spans
	for after := before; len(chosen) < n; {
		next, rest, ok := s.nextPosition(starts, after, left, n-len(chosen)-1)
		if !ok {
			panic("sequence: a margin that so many positions reach is not reached") // stab found them
		}
		chosen, left, after = append(chosen, next), rest, next
	}
	return chosen
}

// nextPosition is the smallest start after a position from which the remaining spans need at most more
// further ones.
func (s *search) nextPosition(starts []measure.Angle, after measure.Angle, spans []span,
	more int) (at measure.Angle, rest []span, ok bool) {
	for _, at := range starts {
		if at <= after {
			continue
		}
		rest := make([]span, 0, len(spans))
		for _, p := range spans {
			if p.left < at && !p.holds(at) {
				// it lies behind and does not come again before 720: no later start reaches it either
				return 0, nil, false
			}
			if !p.holds(at) {
				rest = append(rest, p)
			}
		}
		if s.line(rest) <= more {
			return at, rest, true
		}
	}
	return 0, nil, false
}

// line is the fewest positions below 720° that stab spans, sorted by their starts, each at or after its
// start.
func (s *search) line(spans []span) int {
	n, reach := 0, before // one more position serves every span that starts up to reach
	for _, p := range spans {
		to := min(p.left+p.length, final)
		if s.spots != nil {
			i, _ := slices.BinarySearch(s.spots, to+measure.Microdegree)
			if i == 0 || s.spots[i-1] < p.left {
				return math.MaxInt
			}
			to = s.spots[i-1]
		}
		if p.left > reach {
			n, reach = n+1, to
		}
		reach = min(reach, to)
	}
	return n
}

func stopsOf(k int) string {
	if k == 1 {
		return "1 stop"
	}
	return fmt.Sprintf("%d stops", k)
}

// plan is the positions of the best plan of k stops: the dictionary-smallest of those that reach the margin.
// Where fewer reach it already, the rest go to middles of base circles, which brings some valves deeper
// though not the worst one.
func (s *search) plan(margin measure.Angle, k int) []measure.Angle {
	list := s.positions(margin, s.stab(margin, k))
	for _, a := range s.arcs {
		middle := (a.shut + a.length()/2).Wrap()
		taken := func(at measure.Angle) bool { return measure.Apart(at, middle) < measure.SameAngle }
		if s.spots == nil && len(list) < k && !slices.ContainsFunc(list, taken) {
			list = append(list, middle)
		}
	}
	slices.Sort(list)
	return list
}

// unreachable says which valve cannot reach the required margin.
func (s *search) unreachable(c *cycle.Cycle, need measure.Angle, spots []measure.Angle) string {
	for _, v := range c.Valves {
		deepest, where := c.DeepestMargin(v.Kind), "in the middle of its base circle"
		if spots != nil {
			deepest, where = -measure.Cycle, "at the best of the marks"
			for _, at := range spots {
				deepest = max(deepest, c.Margin(v, at))
			}
		}
		if deepest < need {
			return fmt.Sprintf("%s stands only %s from opening and closing even %s; %s is required.", v.Name,
				deepest.Against(need), where, need.Against(deepest+1))
		}
	}
	return "The required margin cannot be reached."
}
