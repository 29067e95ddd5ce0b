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

// How far from its exact place the crank may stand when something is seen, either way. From memory.
const (
	aboutMark = 5 * measure.Degree  // a mark, a sign of the sheet, or TDC
	leastLobe = 20 * measure.Degree // that a lobe called away is clear at least: its ramps cannot be seen
	aboutLift = 10 * measure.Degree // full lift, opening, closing, and rocking without overlap
)

// Narrow is the widest stretch of crank positions that still counts as knowing where the crank stands (from
// memory: a cylinder rocks for about 24° on a road cam and for twice that on a long one).
const Narrow = 60 * measure.Degree

// Range is a stretch of crank positions; From greater than To wraps through 0. From 0 to 720° is the whole
// cycle.
type Range struct{ From, To measure.Angle }

// Exactly is the range that is one position.
func Exactly(crank measure.Angle) Range { return Range{crank, crank} }

// Question is something to look at, and every place where the crank may stand if it is seen.
type Question struct {
	LookAt Sighting
	Then   []Range
}

// Location is what sightings say of the crank. Where they contradict each other there are no positions and
// Conflict says why.
type Location struct {
	Positions []Range
	Settable  []string // valves with the required margin at every remaining position
	TellApart []Question
	Conflict  string
}

// UnseenError is a sighting that this engine cannot show: its index among those given, and why.
type UnseenError struct {
	Index  int
	Reason string
}

func (e *UnseenError) Error() string { return "This cannot be seen on this engine: " + e.Reason + "." }

// Locate says where the crank may stand, for a checked sheet. It errs with an *UnseenError where a sighting
// names no cylinder or valve of the engine. A nil margin is the sheet's.
//
// With the pulley's TDC mark at the pointer a straight four stands at 0 or at 360; cylinder 1 with play in
// both rockers says which, and so does cylinder 4 if it rocks. What is left after all sightings is where
// the crank may be, and a valve may be set only where it is clear at every one of those positions, the
// least clear of them counting.
//
// A sighting is believed to within what an eye can tell: five degrees for a mark, ten for a valve that is
// fully down; a cylinder rocks for as long as its two valves overlap.
func Locate(s *engine.Sheet, seen []Sighting, requiredMargin *measure.Angle) (Location, error) {
	c := cycle.New(s)
	for i, w := range seen {
		if reason := unseen(c, w); reason != "" {
			return Location{}, &UnseenError{i, reason}
		}
	}
	need := required(s, Request{RequiredMargin: requiredMargin})
	at := where(c, need, seen)
	if len(at) == 0 {
		return Location{Conflict: contradictionOf(c, need, seen)}, nil
	}
	l := Location{Positions: at}
	for _, v := range c.Valves {
		if !slices.ContainsFunc(at, func(r Range) bool { return LeastMargin(c, v, r) < need }) {
			l.Settable = append(l.Settable, v.Name)
		}
	}
	l.TellApart = tellApart(c, need, seen, at)
	return l, nil
}

// unseen says why an engine cannot show a sighting; empty where it can.
//
// It is a fault of who asks, not a contradiction between what is seen: cylinder 6 of a four rocks on no
// engine.
func unseen(c *cycle.Cycle, w Sighting) string {
	switch w.What {
	case TDCFiring, Rocking, LobesAway:
		if !slices.Contains(c.Sheet.FiringOrder, w.Cylinder) {
			return fmt.Sprintf("it has no cylinder %d", w.Cylinder)
		}
	case Signed:
		if _, ok := c.Sheet.Sign(w.Sign); !ok {
			return fmt.Sprintf("its sheet describes no sign %q", w.Sign)
		}
	case FullLift, Opening, Closing, Loose, Pressed, LobeAway:
		if _, ok := c.Valve(w.Valve); !ok {
			return fmt.Sprintf("it has no valve %q", w.Valve)
		}
	case Mark:
		if w.Mark < 0 || w.Mark >= measure.Turn {
			return "a mark lies from 0 to below 360 degrees"
		}
	default:
		return fmt.Sprintf("%q is no sighting", w.What)
	}
	return ""
}

// ranges is where the crank may stand when one thing is seen.
//
// Two are returned where the crank has to be told apart by more: a pulley mark comes round twice in a
// cycle. A range may wrap through firing TDC of the first cylinder.
func ranges(c *cycle.Cycle, need measure.Angle, w Sighting) []Range {
	about := func(at, slack measure.Angle) Range { return Range{(at - slack).Wrap(), (at + slack).Wrap()} }
	v, _ := c.Valve(w.Valve)
	switch w.What {
	case TDCFiring:
		return []Range{about(c.CrankAt(w.Cylinder, cycle.FiringTDC), aboutMark)}
	case Rocking:
		opens, shuts := c.Events(engine.Intake).Open, c.Events(engine.Exhaust).Shut
		if opens < shuts {
			return []Range{{c.CrankAt(w.Cylinder, opens), c.CrankAt(w.Cylinder, shuts)}}
		}
		return []Range{about(c.CrankAt(w.Cylinder, cycle.OverlapTDC), aboutLift)}
	case FullLift:
		return []Range{about(c.PeakAt(v), aboutLift)}
	case Opening:
		return []Range{about(c.OpensAt(v), aboutLift)}
	case Closing:
		return []Range{about(c.ShutsAt(v), aboutLift)}
	case Loose:
		return []Range{{c.ShutsAt(v), c.OpensAt(v)}}
	case Pressed:
		return []Range{{c.OpensAt(v), c.ShutsAt(v)}}
	case LobeAway:
		shut, clear := Range{c.ShutsAt(v), c.OpensAt(v)}, max(leastLobe, need)
		if shut.Length() < 2*clear {
			return nil
		}
		return []Range{{(shut.From + clear).Wrap(), (shut.To - clear).Wrap()}}
	case Signed:
		sign, _ := c.Sheet.Sign(w.Sign)
		var list []Range
		for _, at := range sign.Places() {
			list = append(list, about(at, aboutMark))
		}
		return list
	}
	return []Range{about(w.Mark, aboutMark), about(w.Mark+measure.Turn, aboutMark)}
}

// Holds says whether a range contains a position.
func (r Range) Holds(at measure.Angle) bool {
	return r.To == measure.Cycle || (at-r.From).Wrap() <= r.Length()
}

// Length is how much a range spans; the whole cycle, 0 to 720°, has 720°.
func (r Range) Length() measure.Angle {
	if r.To-r.From == measure.Cycle {
		return measure.Cycle
	}
	return (r.To - r.From).Wrap()
}

// Middle is the position half way along a range.
func (r Range) Middle() measure.Angle { return (r.From + r.Length()/2).Wrap() }

// where intersects the sightings. Between two neighbouring ends of ranges nothing changes, so the middle of
// each piece decides.
func where(c *cycle.Cycle, need measure.Angle, seen []Sighting) []Range {
	seen = each(c, seen)
	ends := []measure.Angle{}
	allowed := make([][]Range, len(seen))
	for i, w := range seen {
		allowed[i] = ranges(c, need, w)
		for _, r := range allowed[i] {
			ends = append(ends, r.From, r.To)
		}
	}
	if len(seen) == 0 {
		return []Range{{0, measure.Cycle}}
	}
	slices.Sort(ends)
	ends = slices.Compact(ends)
	var out []Range
	for i, from := range ends {
		to := ends[(i+1)%len(ends)]
		middle := Range{from, to}.Middle()
		everywhere := !slices.ContainsFunc(allowed, func(list []Range) bool {
			return !slices.ContainsFunc(list, func(r Range) bool { return r.Holds(middle) })
		})
		if everywhere {
			out = join(out, Range{from, to})
		}
	}
	if n := len(out); n > 1 && out[n-1].To == out[0].From {
		out[0].From = out[n-1].From
		out = out[:n-1]
	}
	return out
}

// each takes what is seen of a whole cylinder apart: both its lobes away is each of them away.
func each(c *cycle.Cycle, seen []Sighting) (list []Sighting) {
	for _, w := range seen {
		if w.What != LobesAway {
			list = append(list, w)
			continue
		}
		for _, v := range c.Valves {
			if v.Cylinder == w.Cylinder {
				list = append(list, Sighting{What: LobeAway, Valve: v.Name})
			}
		}
	}
	return list
}

// join appends a range, or lengthens the last one where it touches.
func join(list []Range, r Range) []Range {
	if n := len(list); n > 0 && list[n-1].To == r.From {
		list[n-1].To = r.To
		return list
	}
	return append(list, r)
}

// LeastMargin is a valve's smallest margin over a range: at an end, or at the middle of its lift inside it.
func LeastMargin(c *cycle.Cycle, v engine.Valve, r Range) measure.Angle {
	if r.To == measure.Cycle {
		return -c.Events(v.Kind).Duration() / 2
	}
	least := min(c.Margin(v, r.From), c.Margin(v, r.To))
	lift := c.Events(v.Kind)
	for _, at := range []measure.Angle{c.OpensAt(v), c.ShutsAt(v),
		c.CrankAt(v.Cylinder, (lift.Open+lift.Shut)/2)} {
		if r.Holds(at) {
			least = min(least, c.Margin(v, at))
		}
	}
	return least
}

// tellApart gives, where several places or one wide one remain, the things to look at that split them best,
// so that whatever place can be told apart by a look is told by one of them. A question's Then is exactly
// what its sighting would leave.
func tellApart(c *cycle.Cycle, need measure.Angle, seen []Sighting, at []Range) []Question {
	if len(at) == 1 && at[0].Length() <= Narrow {
		return nil
	}
	var list []Question
	for _, w := range looks(c) {
		then := where(c, need, append(slices.Clone(seen), w))
		if len(then) > 0 && !slices.Equal(then, at) {
			list = append(list, Question{w, then})
		}
	}
	share := func(q Question) float64 { return float64(len(q.Then)) / float64(len(at)) }
	if len(at) == 1 {
		share = func(q Question) float64 { return float64(total(q.Then)) / float64(total(at)) }
	}
	slices.SortStableFunc(list, func(a, b Question) int {
		return cmp.Compare(math.Abs(share(a)-0.5), math.Abs(share(b)-0.5))
	})
	return covering(list, at)
}

func total(at []Range) (sum measure.Angle) {
	for _, r := range at {
		sum += r.Length()
	}
	return sum
}

// covering keeps the best question, and further ones only where they show a place that those before leave
// out.
func covering(list []Question, at []Range) []Question {
	var out []Question
	left := at
	for _, q := range list {
		rest := without(left, q.Then)
		if total(rest) == total(left) && len(rest) == len(left) {
			continue
		}
		out, left = append(out, q), rest
	}
	return out
}

// without takes stretches out of others; what is left is closed again at its ends.
func without(from, out []Range) []Range {
	var ends []measure.Angle
	for _, r := range slices.Concat(from, out) {
		ends = append(ends, r.From, r.To%measure.Cycle)
	}
	slices.Sort(ends)
	ends = slices.Compact(ends)
	in := func(list []Range, at measure.Angle) bool {
		return slices.ContainsFunc(list, func(r Range) bool { return r.Holds(at) })
	}
	var rest []Range
	for i, a := range ends {
		piece := Range{a, ends[(i+1)%len(ends)]}
		if middle := piece.Middle(); in(from, middle) && !in(out, middle) {
			rest = join(rest, piece)
		}
	}
	return rest
}

// looks is everything that may be looked at, the plainest first: what the sheet says can be seen and is not
// in doubt, rocking, and single valves.
func looks(c *cycle.Cycle) []Sighting {
	var list []Sighting
	for _, sign := range c.Sheet.Signs {
		if sign.Doubtful == "" {
			list = append(list, Sighting{What: Signed, Sign: sign.ID})
		}
	}
	for _, cylinder := range c.Sheet.FiringOrder {
		list = append(list, Sighting{What: Rocking, Cylinder: cylinder})
	}
	for _, v := range c.Valves {
		list = append(list, Sighting{What: Pressed, Valve: v.Name})
	}
	for _, v := range c.Valves {
		list = append(list, Sighting{What: Loose, Valve: v.Name})
	}
	return list
}
