package sequence

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// How far from its exact place the crank may stand when something is seen, degrees either way. From memory.
const (
	aboutMark = 5.0  // a mark or TDC
	aboutLift = 10.0 // full lift, opening, closing, and rocking without overlap
)

// Range is a stretch of crank positions; From greater than To wraps through 0.
type Range struct{ From, To float64 }

// Exactly is the range that is one position.
func Exactly(crank float64) Range { return Range{crank, crank} }

// Question is something to look at, and where the crank stands if it is seen.
type Question struct {
	LookAt Sighting
	Then   []Range
}

// Location is what sightings say of the crank. Where they contradict each other there are no positions and Conflict says why.
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

// Locate says where the crank may stand, for a checked sheet. It errs with an *UnseenError where a sighting names no cylinder or
// valve of the engine. A nil margin is the sheet's.
func Locate(s *engine.Sheet, seen []Sighting, requiredMargin *float64) (Location, error) {
	c := cycle.New(s)
	for i, w := range seen {
		if reason := unseen(c, w); reason != "" {
			return Location{}, &UnseenError{i, reason}
		}
	}
	need := required(s, Request{RequiredMargin: requiredMargin})
	at := where(c, seen)
	if len(at) == 0 {
		return Location{Conflict: contradictionOf(c, seen)}, nil
	}
	l := Location{Positions: at}
	for _, v := range c.Valves {
		if !slices.ContainsFunc(at, func(r Range) bool { return !measure.AtLeast(LeastMargin(c, v, r), need) }) {
			l.Settable = append(l.Settable, v.Name)
		}
	}
	l.TellApart = tellApart(c, at)
	return l, nil
}

// unseen says why an engine cannot show a sighting; empty where it can.
func unseen(c *cycle.Cycle, w Sighting) string {
	switch w.What {
	case TDCFiring, Rocking:
		if !slices.Contains(c.Sheet.FiringOrder, w.Cylinder) {
			return fmt.Sprintf("it has no cylinder %d", w.Cylinder)
		}
	case FullLift, Opening, Closing, Loose, Pressed:
		if _, ok := c.Valve(w.Valve); !ok {
			return fmt.Sprintf("it has no valve %q", w.Valve)
		}
	case Mark:
		if math.IsNaN(w.Mark) || w.Mark < 0 || w.Mark >= 360 {
			return "a mark lies from 0 to below 360 degrees"
		}
	default:
		return fmt.Sprintf("%q is no sighting", w.What)
	}
	return ""
}

// ranges is where the crank may stand when one thing is seen.
func ranges(c *cycle.Cycle, w Sighting) []Range {
	about := func(at, slack float64) Range { return Range{measure.Wrap(at - slack), measure.Wrap(at + slack)} }
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
	}
	return []Range{about(w.Mark, aboutMark), about(w.Mark+360, aboutMark)}
}

// Holds says whether a range contains a position.
func (r Range) Holds(at float64) bool {
	return r.To == measure.Cycle || measure.Wrap(at-r.From) <= r.Length()+hair
}

// Length is how many degrees a range spans; the whole cycle, 0 to 720, has 720.
func (r Range) Length() float64 {
	if r.To-r.From == measure.Cycle {
		return measure.Cycle
	}
	return measure.Wrap(r.To - r.From)
}

// Middle is the position half way along a range.
func (r Range) Middle() float64 { return measure.Wrap(r.From + r.Length()/2) }

// where intersects the sightings. Between two neighbouring ends of ranges nothing changes, so the middle of each piece decides.
func where(c *cycle.Cycle, seen []Sighting) []Range {
	ends := []float64{}
	allowed := make([][]Range, len(seen))
	for i, w := range seen {
		allowed[i] = ranges(c, w)
		for _, r := range allowed[i] {
			ends = append(ends, r.From, r.To)
		}
	}
	if len(ends) == 0 {
		return []Range{{0, measure.Cycle}}
	}
	slices.Sort(ends)
	ends = slices.Compact(ends)
	var out []Range
	for i, from := range ends {
		to := ends[(i+1)%len(ends)]
		middle := measure.Wrap(from + measure.Wrap(to-from)/2)
		everywhere := !slices.ContainsFunc(allowed, func(list []Range) bool {
			return !slices.ContainsFunc(list, func(r Range) bool { return r.Holds(middle) })
		})
		if everywhere {
			out = join(out, Range{measure.RoundAngle(from), measure.RoundAngle(to)})
		}
	}
	if n := len(out); n > 1 && out[n-1].To == out[0].From {
		out[0].From = out[n-1].From
		out = out[:n-1]
	}
	return out
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
func LeastMargin(c *cycle.Cycle, v engine.Valve, r Range) float64 {
	if r.To == measure.Cycle {
		return -c.Events(v.Kind).Duration() / 2
	}
	least := min(c.Margin(v, r.From), c.Margin(v, r.To))
	lift := c.Events(v.Kind)
	for _, at := range []float64{c.OpensAt(v), c.ShutsAt(v), c.CrankAt(v.Cylinder, (lift.Open+lift.Shut)/2)} {
		if r.Holds(at) {
			least = min(least, c.Margin(v, at))
		}
	}
	return least
}

// tellApart gives, where several places remain, the thing to look at that splits them best, first the one that leaves least.
func tellApart(c *cycle.Cycle, at []Range) []Question {
	if len(at) < 2 {
		return nil
	}
	var list []Question
	for _, w := range signs(c) {
		var then []Range
		for _, r := range at {
			if slices.ContainsFunc(ranges(c, w), func(o Range) bool { return o.Holds(r.Middle()) }) {
				then = append(then, r)
			}
		}
		if len(then) > 0 && len(then) < len(at) {
			list = append(list, Question{w, then})
		}
	}
	half := float64(len(at)) / 2
	slices.SortStableFunc(list, func(a, b Question) int {
		return cmp.Compare(math.Abs(float64(len(a.Then))-half), math.Abs(float64(len(b.Then))-half))
	})
	return onePerPlace(list, at)
}

// onePerPlace keeps the best question, and for each place that it leaves out the best one that shows it.
func onePerPlace(list []Question, at []Range) []Question {
	var out []Question
	for _, place := range at {
		shows := func(q Question) bool { return slices.Contains(q.Then, place) }
		if slices.ContainsFunc(out, shows) {
			continue
		}
		if i := slices.IndexFunc(list, shows); i >= 0 {
			out = append(out, list[i])
		}
	}
	return out
}

// signs is everything that may be looked at, the plainest first.
func signs(c *cycle.Cycle) []Sighting {
	var list []Sighting
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

// contradictionOf names two sightings that cannot both be, or says that all together cannot.
func contradictionOf(c *cycle.Cycle, seen []Sighting) string {
	for i, a := range seen {
		for _, b := range seen[:i] {
			if len(where(c, []Sighting{b, a})) == 0 {
				return fmt.Sprintf("%s and %s cannot both be: look at the two again.", Describe(b), Describe(a))
			}
		}
	}
	all := make([]string, len(seen))
	for i, w := range seen {
		all[i] = Describe(w)
	}
	return fmt.Sprintf("These cannot all be: %s. Look at each again.", strings.Join(all, "; "))
}

// Describe writes a sighting in a mechanic's words.
func Describe(w Sighting) string {
	switch w.What {
	case TDCFiring:
		return fmt.Sprintf("cylinder %d at firing TDC", w.Cylinder)
	case Rocking:
		return fmt.Sprintf("cylinder %d rocking", w.Cylinder)
	case FullLift:
		return w.Valve + " fully down"
	case Opening:
		return w.Valve + " just starting to open"
	case Closing:
		return w.Valve + " nearly closed"
	case Loose:
		return w.Valve + " with play"
	case Pressed:
		return w.Valve + " held open"
	}
	return fmt.Sprintf("the %s mark at the pointer", measure.FormatAngle(w.Mark))
}

// OneTurnOut says in a sentence that the crank stands a whole turn from where it was expected; empty where it does not, or where
// that cannot be told yet. A nil expectation is the firing TDC of the first cylinder where its mark was seen.
func OneTurnOut(s *engine.Sheet, seen []Sighting, at []Range, expected *float64) string {
	first := s.FiringOrder[0]
	switch {
	case len(at) != 1:
		return ""
	case expected != nil && !at[0].Holds(*expected) && at[0].Holds(measure.Wrap(*expected+360)):
		return fmt.Sprintf("One turn out: the same mark is at the pointer, but the crank is expected a whole turn from here. Turn on %s.", measure.FormatAngle(360))
	case expected != nil:
		return ""
	case slices.Contains(seen, Sighting{What: Mark}) && at[0].Holds(360) && !at[0].Holds(0):
		return fmt.Sprintf("One turn out: the TDC mark is at the pointer, but cylinder %d is in overlap, not firing. Turn on %s for its firing TDC.", first, measure.FormatAngle(360))
	}
	return ""
}
