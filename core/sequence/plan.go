package sequence

import (
	"cmp"
	"fmt"
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
	RequiredMargin *measure.Angle
	// BackAllowed allows turning back for this job though the sheet does not: the mechanic has a reason
	BackAllowed bool
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
	Degrees   What = "degrees"    // turn by the degree wheel: Mark is the reading, 0 ≤ m < 360°
	Signed    What = "sign"       // a sign that this engine's sheet describes
	LobeAway  What = "lobe_away"  // the lobe of a valve points away from its follower
	LobesAway What = "lobes_away" // those of all valves of a cylinder do
)

// Visible lists what can be seen without a degree wheel, and so may be told to Locate.
func Visible() []What {
	return []What{
		TDCFiring,
		Rocking,
		FullLift,
		Opening,
		Closing,
		Mark,
		Loose,
		Pressed,
		Signed,
		LobeAway,
		LobesAway,
	}
}

// Sighting is something the mechanic can see that tells where the crank stands.
type Sighting struct {
	What     What
	Cylinder int           // 0: none
	Valve    string        // empty: none
	Mark     measure.Angle // on the pulley; only for Mark and Degrees
	Sign     string        // the id of a sign of the sheet; only for Signed
	Row      int           // the valve's number in its row, where the rule counts by it; 0: it does not
}

// SetValve is one valve of a stop with its margin there.
type SetValve struct {
	Valve  string
	Margin measure.Angle
}

// Stop is one crank position of a plan.
type Stop struct {
	Crank measure.Angle // 0 ≤ a < 720°
	Turn  measure.Angle // from the stop before; 0 for the first
	Watch []Sighting
	Set   []SetValve
}

// Sets says whether a valve is set at the stop.
func (s Stop) Sets(valve string) bool {
	return slices.ContainsFunc(s.Set, func(set SetValve) bool { return set.Valve == valve })
}

// Names are the valves that are set at the stop, in order.
func (s Stop) Names() []string {
	names := make([]string, len(s.Set))
	for i, set := range s.Set {
		names[i] = set.Valve
	}
	return names
}

// Plan is a school applied to an engine. Where Applies is false Reason says why and there are no stops.
type Plan struct {
	Way
	Applies        bool
	Reason         string
	Stops          []Stop
	TotalTurn      measure.Angle
	SmallestMargin measure.Angle // degrees
	Cautions       []string
	Assumed        []string
}

// ErrTurnBack refuses a backward plan on an engine that must not be turned back.
var ErrTurnBack = fmt.Errorf("this engine must not be turned back: its sheet says so, because a sprung " +
	"tensioner or the crank bolt may give")

// draft is a stop before the valves are dealt out and the turns reckoned.
type draft struct {
	crank   measure.Angle
	watch   []Sighting
	set     []SetValve
	ordinal int // numerical order: cylinder or row number
}

// Make plans a checked sheet. The only error is ErrTurnBack; a school that does not fit answers Applies
// false.
//
// Every valve appears at one stop exactly, with its margin there. A plan whose smallest margin falls short
// of the required one does not apply, and its reason names the valve, its margin and what is required; the
// limit itself is enough.
func Make(s *engine.Sheet, q Request) (Plan, error) {
	if q.Direction == Back && !s.MayTurnBack && !q.BackAllowed {
		return Plan{}, ErrTurnBack
	}
	return build(cycle.New(s), q), nil
}

func build(c *cycle.Cycle, q Request) Plan {
	p := Plan{Way: q.Way, Assumed: engine.Assumed(c.Sheet)}
	if why := c.Sheet.Gear().NotSet; why != "" {
		return p.refuse(why)
	}
	school, ok := q.School.school()
	if !ok {
		return p.refuse(fmt.Sprintf("No school is called %q.", q.School))
	}
	need := required(c.Sheet, q)
	drafts, reason := school.stops(c, q, need)
	if reason != "" {
		return p.refuse(reason)
	}
	drafts = arrange(merge(c, drafts, need), school, q)
	if q.Positions == MarksOnly {
		if reason := unmarked(c.Sheet, drafts); reason != "" {
			return p.refuse(reason)
		}
	}
	p.Cautions = cautions(c.Sheet, q)
	if school.printed {
		p.Cautions = append(p.Cautions, disagreements(c, drafts, need)...)
	} else if reason := fallsShort(drafts, need); reason != "" {
		p.Cautions = nil
		return p.refuse(reason)
	}
	p.lay(c.Sheet, drafts, q)
	return p
}

func (p Plan) refuse(reason string) Plan {
	p.Applies, p.Reason = false, reason
	return p
}

func required(s *engine.Sheet, q Request) measure.Angle {
	if q.RequiredMargin != nil {
		return *q.RequiredMargin
	}
	return s.EffectiveMargin()
}

// merge joins stops within SameAngle, unless a valve would then fall below the required margin, and drops
// those that set nothing. It keeps the first of each and its place.
func merge(c *cycle.Cycle, drafts []draft, need measure.Angle) []draft {
	var out []draft
	for _, d := range drafts {
		if len(d.set) == 0 {
			continue
		}
		same := slices.IndexFunc(out, func(o draft) bool { return joins(c, d, o.crank, need) })
		if same < 0 {
			out = append(out, d)
			continue
		}
		for _, set := range d.set {
			v, _ := c.Valve(set.Valve)
			out[same].set = append(out[same].set, SetValve{set.Valve, c.Margin(v, out[same].crank)})
		}
		out[same].watch = append(out[same].watch, d.watch...)
		out[same].ordinal = min(out[same].ordinal, d.ordinal)
	}
	return out
}

// joins says whether a stop may be moved to a crank position: within SameAngle, and no valve that had its
// margin loses it there.
func joins(c *cycle.Cycle, d draft, crank, need measure.Angle) bool {
	return measure.Apart(crank, d.crank) < measure.SameAngle &&
		!slices.ContainsFunc(d.set, func(set SetValve) bool {
			v, _ := c.Valve(set.Valve)
			return set.Margin >= need && c.Margin(v, crank) < need
		})
}

// arrange orders the stops: by number, or as the crank comes to them from 0 in the chosen direction.
func arrange(drafts []draft, school school, q Request) []draft {
	numbers := school.printed || q.Order == Numerical && school.numbered
	key := func(d draft) measure.Angle {
		switch {
		case numbers:
			return measure.Angle(d.ordinal)
		case q.Direction == Back:
			return (-d.crank).Wrap()
		}
		return d.crank
	}
	slices.SortStableFunc(drafts, func(a, b draft) int { return cmp.Compare(key(a), key(b)) })
	return drafts
}

func (p *Plan) lay(s *engine.Sheet, drafts []draft, q Request) {
	p.Applies = true
	p.SmallestMargin = measure.Cycle
	for i, d := range drafts {
		stop := Stop{Crank: d.crank, Watch: append(d.watch, signsAt(s, d.crank)...), Set: d.set}
		if i > 0 {
			stop.Turn = TurnBetween(drafts[i-1].crank, d.crank, q.Direction)
		}
		for _, set := range stop.Set {
			p.SmallestMargin = min(p.SmallestMargin, set.Margin)
		}
		p.TotalTurn += stop.Turn
		p.Stops = append(p.Stops, stop)
	}
}

// TurnBetween is how far the crank is turned from one position to the next in a direction, 0 ≤ t < 720°.
func TurnBetween(from, to measure.Angle, d Direction) measure.Angle {
	if d == Back {
		from, to = to, from
	}
	return (to - from).Wrap()
}

func fallsShort(drafts []draft, required measure.Angle) string {
	worst := SetValve{Margin: measure.Cycle}
	for _, d := range drafts {
		for _, v := range d.set {
			if v.Margin < worst.Margin {
				worst = v
			}
		}
	}
	switch {
	case worst.Margin >= required:
		return ""
	case worst.Margin < 0:
		return fmt.Sprintf("%s would still be open at its stop, %s inside its lift; at least %s clear of "+
			"it is required.",
			worst.Valve, -worst.Margin, required)
	}
	return fmt.Sprintf("%s would stand only %s from its opening or closing; at least %s is required.",
		worst.Valve, worst.Margin.Against(required), required.Against(worst.Margin+1))
}

func unmarked(s *engine.Sheet, drafts []draft) string {
	for _, d := range drafts {
		if _, ok := markAt(s, d.crank); !ok {
			return fmt.Sprintf("The stop at %s has no mark on this pulley.", d.crank)
		}
	}
	return ""
}

// markAt finds the pulley mark under the pointer at a crank position.
func markAt(s *engine.Sheet, crank measure.Angle) (measure.Angle, bool) {
	for _, m := range s.EffectiveMarks() {
		for _, at := range []measure.Angle{m, m + measure.Turn} {
			if measure.Apart(crank, at) < measure.SameAngle {
				return m, true
			}
		}
	}
	return 0, false
}

// signsAt are the signs of the sheet that are seen at a crank position.
func signsAt(s *engine.Sheet, crank measure.Angle) (list []Sighting) {
	for _, sign := range s.Signs {
		if slices.ContainsFunc(sign.Places(),
			func(at measure.Angle) bool { return measure.Apart(crank, at) < measure.SameAngle }) {
			list = append(list, Sighting{What: Signed, Sign: sign.ID})
		}
	}
	return list
}

// MarksNeeded lists where the pulley stands at the plan's stops, after a TDC mark, 0 ≤ m < 360°, rising.
func (p Plan) MarksNeeded() []measure.Angle {
	var list []measure.Angle
	for _, s := range p.Stops {
		list = append(list, onPulley(s.Crank))
	}
	slices.Sort(list)
	return slices.CompactFunc(list,
		func(a, b measure.Angle) bool { return measure.Apart(a, b) < measure.SameAngle })
}

// Marked says whether the pulley has a mark for a crank position.
func Marked(s *engine.Sheet, crank measure.Angle) bool {
	_, ok := markAt(s, crank)
	return ok
}

func cautions(s *engine.Sheet, q Request) []string {
	list := []string{
		"Hands clear of rockers, cams, belts and pulleys before the crank is turned: call, and wait for " +
			"the answer.",
		"Never turn the engine with the timing belt or chain off, nor by the camshaft.",
		"Take the socket or handle off the crank before the starter is touched.",
	}
	if q.Direction == Back {
		list = append(list, "Turning back can undo the crank bolt and let a tensioner slip: only where the "+
			"maker allows it. Overshot a stop: go past it and come up to it again.")
	}
	if q.Direction == Back && !s.MayTurnBack {
		list = append(list, "This engine's sheet does not allow turning back: a sprung "+
			"tensioner may let the belt "+
			"or chain jump. It is done on the mechanic's own reason, for this job alone.")
	}
	return list
}
