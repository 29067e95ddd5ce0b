// Package sequence plans the order of work: at which crank positions to stop and which valves to set there, by the
// schools of the trade, and refuses a school wherever it would name a valve that is not safely on its base circle.
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

// School names a way round the engine.
type School string

// The schools.
const (
	OneCylinder    School = "one_cylinder"
	RockingPairs   School = "rocking_pairs"
	SumRule        School = "sum_rule"
	ExhaustOpen    School = "exhaust_open"
	TwoStop        School = "two_stop"
	OpeningClosing School = "opening_closing"
	OneLobe        School = "one_lobe"
	Own            School = "own"
	FewestStops    School = "fewest_stops"
)

// Schools lists all schools in the order they are shown.
func Schools() []School {
	return []School{OneCylinder, RockingPairs, SumRule, ExhaustOpen, TwoStop, OpeningClosing, OneLobe, Own, FewestStops}
}

// Direction is the way the crank is turned.
type Direction string

// The two directions; the zero value is the running direction.
const (
	Running Direction = "running"
	Back    Direction = "back"
)

// Order is the order of the stops.
type Order string

// Turning takes the stops as the crank comes to them; Numerical by cylinder or row number.
const (
	Turning   Order = "turning"
	Numerical Order = "numerical"
)

// Positions restricts where the crank may stop.
type Positions string

// Any position, or only those at a mark of the pulley.
const (
	AnyPosition Positions = "any"
	MarksOnly   Positions = "marks"
)

// Way is a way round as it is chosen. Zero values stand for: turning order, running direction, any position.
type Way struct {
	School    School
	Direction Direction
	Order     Order
	Positions Positions
	StopCount int // FewestStops only: the best plan of at most so many; 0: the fewest that reach the margin
}

// Request asks for one plan. A nil margin is the sheet's.
type Request struct {
	Way
	RequiredMargin *float64 // crank degrees
}

// What is a kind of sighting on the engine.
type What string

// The sightings.
const (
	TDCFiring What = "tdc_firing" // a cylinder at firing TDC
	Rocking   What = "rocking"    // a cylinder in overlap
	FullLift  What = "full_lift"  // a valve pressed right down
	Opening   What = "opening"    // a valve just starting to open
	Closing   What = "closing"    // a valve nearly closed
	Mark      What = "mark"       // a pulley mark at the pointer
	Loose     What = "loose"      // a valve has play
	Pressed   What = "pressed"    // a valve is held open
	Degrees   What = "degrees"    // turn by the degree wheel: Mark is the reading, 0 ≤ m < 360
)

// Sighting is something the mechanic can see that tells where the crank stands.
type Sighting struct {
	What     What
	Cylinder int     // 0: none
	Valve    string  // empty: none
	Mark     float64 // degrees on the pulley; only for Mark and Degrees
}

// SetValve is one valve of a stop with its margin there in crank degrees.
type SetValve struct {
	Valve  string
	Margin float64
}

// Stop is one crank position of a plan.
type Stop struct {
	Crank float64 // 0 ≤ a < 720
	Turn  float64 // crank degrees from the stop before; 0 for the first
	Watch []Sighting
	Set   []SetValve
}

// Plan is a school applied to an engine. Where Applies is false Reason says why and there are no stops.
type Plan struct {
	Way
	Applies        bool
	Reason         string
	Stops          []Stop
	TotalTurn      float64 // degrees
	SmallestMargin float64 // degrees
	Cautions       []string
	Assumed        []string
}

// ErrTurnBack refuses a backward plan on an engine that must not be turned back.
var ErrTurnBack = fmt.Errorf("this engine must not be turned back: its sheet says so, because a sprung tensioner or the crank bolt may give")

// draft is a stop before the valves are dealt out and the turns reckoned.
type draft struct {
	crank   float64
	watch   []Sighting
	set     []SetValve
	ordinal int // numerical order: cylinder or row number
}

// Make plans a checked sheet. The only error is ErrTurnBack; a school that does not fit answers Applies false.
func Make(s *engine.Sheet, q Request) (Plan, error) {
	if q.Direction == Back && !s.MayTurnBack {
		return Plan{}, ErrTurnBack
	}
	return build(cycle.New(s), q), nil
}

func build(c *cycle.Cycle, q Request) Plan {
	p := Plan{Way: q.Way, Assumed: engine.Assumed(c.Sheet)}
	if c.Sheet.IsHydraulic() {
		return p.refuse(engine.HydraulicReason)
	}
	need := required(c.Sheet, q)
	drafts, reason := schoolDrafts(c, q, need)
	if reason != "" {
		return p.refuse(reason)
	}
	drafts = arrange(merge(drafts), q)
	if q.Positions == MarksOnly {
		if reason := unmarked(c.Sheet, drafts); reason != "" {
			return p.refuse(reason)
		}
	}
	p.Cautions = cautions(q)
	if q.School == Own {
		p.Cautions = append(p.Cautions, disagreements(c, drafts, need)...)
	} else if reason := fallsShort(drafts, need); reason != "" {
		p.Cautions = nil
		return p.refuse(reason)
	}
	p.lay(drafts, q)
	return p
}

// schoolDrafts gives a school's stops in no order yet, or the reason why there are none.
func schoolDrafts(c *cycle.Cycle, q Request, need float64) ([]draft, string) {
	switch q.School {
	case OneCylinder:
		return oneCylinder(c), ""
	case RockingPairs:
		return rockingPairs(c)
	case SumRule:
		return sumRule(c)
	case ExhaustOpen:
		return exhaustOpen(c), ""
	case TwoStop:
		return twoStop(c), ""
	case OpeningClosing:
		return openingClosing(c), ""
	case OneLobe:
		return oneLobe(c), ""
	case Own:
		return own(c)
	case FewestStops:
		return fewestStops(c, q, need)
	}
	return nil, fmt.Sprintf("No school is called %q.", q.School)
}

func (p Plan) refuse(reason string) Plan {
	p.Applies, p.Reason = false, reason
	return p
}

func required(s *engine.Sheet, q Request) float64 {
	if q.RequiredMargin != nil {
		return *q.RequiredMargin
	}
	return s.EffectiveMargin()
}

// merge joins stops within SameAngle and drops those that set nothing. It keeps the first of each and its place.
func merge(drafts []draft) []draft {
	var out []draft
	for _, d := range drafts {
		if len(d.set) == 0 {
			continue
		}
		same := slices.IndexFunc(out, func(o draft) bool { return measure.Apart(o.crank, d.crank) < measure.SameAngle })
		if same < 0 {
			out = append(out, d)
			continue
		}
		out[same].watch = append(out[same].watch, d.watch...)
		out[same].set = append(out[same].set, d.set...)
		out[same].ordinal = min(out[same].ordinal, d.ordinal)
	}
	return out
}

// arrange orders the stops: by number, or as the crank comes to them from 0 in the chosen direction.
func arrange(drafts []draft, q Request) []draft {
	numerical := q.Order == Numerical && numbered(q.School)
	key := func(d draft) float64 {
		switch {
		case numerical, q.School == Own:
			return float64(d.ordinal)
		case q.Direction == Back:
			return measure.Wrap(-d.crank)
		}
		return d.crank
	}
	slices.SortStableFunc(drafts, func(a, b draft) int { return cmp.Compare(key(a), key(b)) })
	return drafts
}

func (p *Plan) lay(drafts []draft, q Request) {
	p.Applies = true
	p.SmallestMargin = math.Inf(1)
	for i, d := range drafts {
		stop := Stop{Crank: measure.RoundAngle(d.crank), Watch: d.watch, Set: d.set}
		if i > 0 {
			stop.Turn = measure.RoundAngle(TurnBetween(drafts[i-1].crank, d.crank, q.Direction))
		}
		for j := range stop.Set {
			stop.Set[j].Margin = measure.RoundAngle(stop.Set[j].Margin)
			p.SmallestMargin = math.Min(p.SmallestMargin, stop.Set[j].Margin)
		}
		p.TotalTurn = measure.RoundAngle(p.TotalTurn + stop.Turn)
		p.Stops = append(p.Stops, stop)
	}
}

// TurnBetween is how far the crank is turned from one position to the next in a direction, 0 ≤ t < 720 degrees.
func TurnBetween(from, to float64, d Direction) float64 {
	if d == Back {
		from, to = to, from
	}
	return measure.Wrap(to - from)
}

func fallsShort(drafts []draft, required float64) string {
	worst := SetValve{Margin: math.Inf(1)}
	for _, d := range drafts {
		for _, v := range d.set {
			if v.Margin < worst.Margin-measure.SameAngle {
				worst = v
			}
		}
	}
	switch {
	case measure.AtLeast(worst.Margin, required):
		return ""
	case worst.Margin < 0:
		return fmt.Sprintf("%s would still be open at its stop, %s inside its lift; at least %s clear of it is required.",
			worst.Valve, measure.FormatAngle(-worst.Margin), measure.FormatAngle(required))
	}
	return fmt.Sprintf("%s would stand only %s from its opening or closing; at least %s is required.",
		worst.Valve, measure.FormatAngle(worst.Margin), measure.FormatAngle(required))
}

func unmarked(s *engine.Sheet, drafts []draft) string {
	for _, d := range drafts {
		if _, ok := markAt(s, d.crank); !ok {
			return fmt.Sprintf("The stop at %s has no mark on this pulley.", measure.FormatAngle(d.crank))
		}
	}
	return ""
}

// markAt finds the pulley mark under the pointer at a crank position.
func markAt(s *engine.Sheet, crank float64) (float64, bool) {
	for _, m := range s.EffectiveMarks() {
		for _, at := range []float64{m, m + 360} {
			if measure.Apart(crank, at) < measure.SameAngle {
				return m, true
			}
		}
	}
	return 0, false
}

// MarksNeeded lists where the pulley stands at the plan's stops, degrees after a TDC mark, 0 ≤ m < 360, rising.
func (p Plan) MarksNeeded() []float64 {
	var list []float64
	for _, s := range p.Stops {
		list = append(list, onPulley(s.Crank))
	}
	slices.Sort(list)
	return slices.CompactFunc(list, func(a, b float64) bool { return measure.Apart(a, b) < measure.SameAngle })
}

// Marked says whether the pulley has a mark for a crank position.
func Marked(s *engine.Sheet, crank float64) bool {
	_, ok := markAt(s, crank)
	return ok
}

func cautions(q Request) []string {
	list := []string{
		"Hands clear of rockers, cams, belts and pulleys before the crank is turned: call, and wait for the answer.",
		"Never turn the engine with the timing belt or chain off, nor by the camshaft.",
		"Take the socket or handle off the crank before the starter is touched.",
	}
	if q.Direction == Back {
		list = append(list, "Turning back can undo the crank bolt and let a tensioner slip: only where the maker allows it. Overshot a stop: go past it and come up to it again.")
	}
	return list
}

// Orders lists the orders in which a school's stops can be taken: all in turning order, those of numbered cylinders or
// valves also by number.
func Orders(s School) []Order {
	if numbered(s) {
		return []Order{Turning, Numerical}
	}
	return []Order{Turning}
}

func numbered(s School) bool { return s == OneCylinder || s == RockingPairs || s == SumRule }
