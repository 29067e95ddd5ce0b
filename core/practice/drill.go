package practice

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"

	"metronix/core/adjust"
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Item is one thing that drills ask: a question of it takes a minute at most.
type Item string

// The items, in the order in which they are learned.
const (
	MayBeSet  Item = "may_be_set" // may this valve be set here
	OneOut    Item = "one_turn"   // at firing top dead centre, or one turn out
	Partner   Item = "partner"    // which is set while this one is down, or rocks
	ReadDrag  Item = "drag"       // how does this leaf go
	WhichLeaf Item = "leaf"       // which leaf or stack makes this thickness
	WhichWay  Item = "way"        // which way and how far does the screw go
	WhichCard Item = "card"       // which of two cards holds
	WhatNext  Item = "next"       // what comes next
)

// Items are all of them, in that order.
func Items() []Item {
	return []Item{MayBeSet, OneOut, Partner, ReadDrag, WhichLeaf, WhichWay, WhichCard, WhatNext}
}

// Title names an item as a learner is told it.
func (i Item) Title() string {
	return map[Item]string{
		MayBeSet:  "May it be set here?",
		OneOut:    "One turn out?",
		Partner:   "Its partner",
		ReadDrag:  "Read the drag",
		WhichLeaf: "Which leaf or stack",
		WhichWay:  "Which way, how far",
		WhichCard: "Which card holds",
		WhatNext:  "What comes next",
	}[i]
}

// Question is one question of a drill. Right and Why are hidden until it is answered.
type Question struct {
	Item    Item
	Says    string
	Choices []string
	Right   int    // index of the choice
	Why     string // in a sentence
	// Crank is where the engine stands that is drawn beside it; nil: none is
	Crank *measure.Angle
	Valve string // that is pointed at there; empty: none
	// Pull is of the leaf that is slid in, as Felt has it; nil: none is
	Pull *float64
}

// ErrNoQuestion is that an item asks nothing of an engine.
var ErrNoQuestion = errors.New("this drill asks nothing of this engine")

// asks are how each item is asked.
var asks = map[Item]func(s *engine.Sheet, chance *rand.Rand) (Question, error){
	MayBeSet: askMayBeSet, OneOut: askOneOut, Partner: askPartner, ReadDrag: askDrag, WhichLeaf: askLeaf, WhichWay: askWay,
	WhichCard: askCard, WhatNext: askNext,
}

// Ask asks one question of an item about an engine; the same seed asks the same. It errs with ErrNoQuestion.
func Ask(item Item, sheet *engine.Sheet, seed uint64) (Question, error) {
	ask, known := asks[item]
	if !known {
		return Question{}, ErrNoQuestion
	}
	q, err := ask(sheet, rand.New(rand.NewPCG(seed, 1)))
	q.Item = item
	return q, err
}

// mixed puts the right choice among others, each once, in no order.
func (q Question) mixed(chance *rand.Rand, right string, others ...string) Question {
	q.Choices = []string{right}
	for _, o := range others {
		if !slices.Contains(q.Choices, o) {
			q.Choices = append(q.Choices, o)
		}
	}
	chance.Shuffle(len(q.Choices), func(i, k int) { q.Choices[i], q.Choices[k] = q.Choices[k], q.Choices[i] })
	q.Right = slices.Index(q.Choices, right)
	return q
}

// plain leaves the choices in their order.
func (q Question) plain(right int, choices ...string) Question {
	q.Choices, q.Right = choices, right
	return q
}

// telling is how far from what is needed a valve stands at least that is asked of: nobody is asked of a
// hair's breadth.
const telling = 6 * measure.Degree

func askMayBeSet(s *engine.Sheet, chance *rand.Rand) (Question, error) {
	c, need := cycle.New(s), s.EffectiveMargin()
	for range 200 {
		v := c.Valves[chance.IntN(len(c.Valves))]
		crank := measure.FromDegrees(float64(chance.IntN(720)))
		margin := c.Margin(v, crank)
		if d := margin - need; max(d, -d) < telling {
			continue
		}
		q := Question{Says: "May " + v.Name + " be set here?", Crank: &crank, Valve: v.Name}
		switch {
		case margin < 0:
			q.Why = v.Name + " is open: its lobe holds it."
		case margin < need:
			q.Why = fmt.Sprintf(
				"Its lobe is %.0f° of the crank away, and %.0f° are needed: the ramp may bear already.",
				margin.Degrees(),
				need.Degrees(),
			)
		default:
			q.Why = fmt.Sprintf(
				"Its lobe is %.0f° of the crank away; %.0f° are needed.",
				margin.Degrees(),
				need.Degrees(),
			)
		}
		right := 1
		if margin >= need {
			right = 0
		}
		return q.plain(right, "Yes", "No"), nil
	}
	return Question{}, ErrNoQuestion
}

func askOneOut(s *engine.Sheet, chance *rand.Rand) (Question, error) {
	c := cycle.New(s)
	cylinder := s.FiringOrder[chance.IntN(len(s.FiringOrder))]
	crank, right := c.CrankAt(cylinder, cycle.FiringTDC), chance.IntN(2)
	if right == 1 {
		crank = c.CrankAt(cylinder, cycle.OverlapTDC)
	}
	q := Question{
		Says:  fmt.Sprintf("The mark of cylinder %d is in line. Where does it stand?", cylinder),
		Crank: &crank,
		Why: fmt.Sprintf(
			"At firing TDC both valves of cylinder %d are shut and its rockers loose; one turn out the exhaust is "+
				"just shutting and the intake just opening.",
			cylinder,
		),
	}
	return q.plain(right, "At firing TDC", "One turn out"), nil
}

func askPartner(s *engine.Sheet, chance *rand.Rand) (Question, error) {
	rule, err := sequence.Make(s, sequence.Request{Way: sequence.Way{School: sequence.SumRule}})
	valves := s.Valves()
	if err == nil && rule.Applies {
		w := 1 + chance.IntN(len(valves))
		sum := len(valves) + 1
		var others []string
		for _, k := range chance.Perm(len(valves)) {
			if len(others) < 3 && k+1 != sum-w {
				others = append(others, fmt.Sprintf("Valve %d", k+1))
			}
		}
		q := Question{
			Says: fmt.Sprintf("%s: valve %d is fully down. Which is set?", sequence.SumRule.Title(s), w),
			Why:  fmt.Sprintf("%d − %d = %d.", sum, w, sum-w),
		}
		return q.mixed(chance, fmt.Sprintf("Valve %d", sum-w), others...), nil
	}
	c := cycle.New(s)
	cylinder := s.FiringOrder[chance.IntN(len(s.FiringOrder))]
	partner, ok := c.Companion(cylinder)
	if !ok {
		return Question{}, ErrNoQuestion
	}
	var others []string
	for _, other := range s.FiringOrder {
		if other != partner && other != cylinder {
			others = append(others, fmt.Sprintf("Cylinder %d", other))
		}
	}
	chance.Shuffle(len(others), func(i, k int) { others[i], others[k] = others[k], others[i] })
	q := Question{
		Says: fmt.Sprintf("The valves of cylinder %d rock. Which cylinder is at firing TDC?", cylinder),
		Why:  fmt.Sprintf("Cylinder %d fires a whole turn away from cylinder %d.", partner, cylinder),
	}
	return q.mixed(chance, fmt.Sprintf("Cylinder %d", partner), others[:min(3, len(others))]...), nil
}

// goes are how a leaf goes, by its pull.
var goes = []struct {
	pull float64
	says string
}{
	{0, "It falls through"},
	{0.22, "It drags lightly"},
	{0.5, "It drags as it should"},
	{0.78, "It drags hard"},
	{1, "It does not go in"},
}

// Went says how a leaf went, by its pull: as the nearest of those that drills tell apart.
func Went(pull float64) string {
	at := 0
	for i, g := range goes {
		if math.Abs(g.pull-pull) < math.Abs(goes[at].pull-pull) {
			at = i
		}
	}
	switch { // what falls through and what does not go in is so wholly
	case pull <= 0:
		at = 0
	case pull >= 1:
		at = len(goes) - 1
	default:
		at = min(max(at, 1), len(goes)-2)
	}
	return goes[at].says
}

func askDrag(_ *engine.Sheet, chance *rand.Rand) (Question, error) {
	right := chance.IntN(len(goes))
	pull := goes[right].pull
	if pull > 0 && pull < 1 {
		pull += 0.08 * (chance.Float64() - 0.5)
	}
	q := Question{Says: "Slide the leaf in. How does it go?", Pull: &pull,
		Why: HowItDrags}
	var choices []string
	for _, g := range goes {
		choices = append(choices, g.says)
	}
	return q.plain(right, choices...), nil
}

func askLeaf(_ *engine.Sheet, chance *rand.Rand) (Question, error) {
	var set gauge.Set
	for _, i := range chance.Perm(12)[:6] {
		set = append(set, gauge.Plain(measure.Length(5+5*i)*10*um))
	}
	slices.SortFunc(set, func(a, b gauge.Leaf) int { return int(a.True() - b.True()) })
	pick := func(n int) gauge.Stack {
		var stack gauge.Stack
		for _, i := range chance.Perm(len(set))[:n] {
			stack = append(stack, set[i])
		}
		slices.SortFunc(stack, func(a, b gauge.Leaf) int { return int(a.True() - b.True()) })
		return stack
	}
	wanted := pick(2).Thickness()
	choice, ok := set.Choose(wanted, nil, gauge.MaxStack)
	if !ok || choice.Stack.Thickness() != wanted {
		return Question{}, ErrNoQuestion
	}
	var others []string
	for range 40 {
		if other := pick(1 + chance.IntN(2)); len(others) < 3 && other.Thickness() != wanted &&
			!slices.Contains(others, other.String()) {
			others = append(others, other.String())
		}
	}
	var owned []string
	for _, l := range set {
		owned = append(owned, l.String())
	}
	q := Question{
		Says: fmt.Sprintf("Your leaves are %s. Which makes %s?", strings.Join(owned, ", "), wanted),
		Why:  fmt.Sprintf("%s is %s; the fewest leaves are the surest.", choice.Stack, wanted),
	}
	return q.mixed(chance, choice.Stack.String(), others...), nil
}

func askWay(s *engine.Sheet, chance *rand.Rand) (Question, error) {
	a := adjusterOf(s)
	wanted := measure.Length(15+5*chance.IntN(4)) * 10 * um
	by := measure.Length(4+chance.IntN(9)) * 10 * um
	gap := wanted + by
	if chance.IntN(2) == 0 {
		gap = wanted - by/2
	}
	t, err := adjust.Reckon(a, gap, wanted)
	if err != nil || t.Rotation == "" || t.Degrees < 5 {
		return Question{}, ErrNoQuestion
	}
	says := func(r adjust.Rotation, deg float64) string { return fmt.Sprintf("%.0f° %s", deg, r) }
	back := adjust.Clockwise
	if t.Rotation == adjust.Clockwise {
		back = adjust.Anticlockwise
	}
	q := Question{
		Says: fmt.Sprintf(
			"The gap is %s and %s is wanted; the pitch is %s. Which way does the screw go, as you look at it?",
			gap,
			wanted,
			a.Pitch,
		),
		Why: t.Why,
	}
	return q.mixed(chance, says(t.Rotation, t.Degrees), says(back, t.Degrees), says(t.Rotation, 2*t.Degrees),
		says(back, 2*t.Degrees)), nil
}
