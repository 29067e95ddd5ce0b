package practice

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"
	"time"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
)

// Aid is how much a run tells whoever does it.
type Aid string

// The aids.
const (
	Guided      Aid = "guided"      // the bench leads and judges
	Watched     Aid = "watched"     // nothing is told but where something would go wrong, before it does
	Examination Aid = "examination" // nothing is told before the end
)

// Aids are all of them, the one that tells most first.
func Aids() []Aid { return []Aid{Guided, Watched, Examination} }

// Wear is a kind of wear.
type Wear string

// The kinds of wear.
const (
	Even       Wear = "even"        // every gap has opened alike
	SunkenSeat Wear = "sunken_seat" // one valve has sunk into its seat: its gap has closed by much
	WornTip    Wear = "worn_tip"    // a leaf bridges a dip: the gap runs wider than any leaf finds it
	FlatLobe   Wear = "flat_lobe"   // the valve opens by less; its gap says nothing of it
)

// Wears are all kinds of wear.
func Wears() []Wear { return []Wear{Even, SunkenSeat, WornTip, FlatLobe} }

// Worn is wear of one kind.
type Worn struct {
	Kind  Wear
	Valve string // empty: Even, which is of all
}

// NutTrouble is what is the matter with a nut or screw.
type NutTrouble string

// The troubles.
const (
	Stiff  NutTrouble = "stiff"  // the screw sticks, then jumps
	Seized NutTrouble = "seized" // the nut does not come loose
)

// NutTroubles are all of them.
func NutTroubles() []NutTrouble { return []NutTrouble{Stiff, Seized} }

// BadNut is a nut or screw with a trouble.
type BadNut struct {
	Valve string
	How   NutTrouble
}

// Exercise is what is practised: an engine by one of its cards, with leaves, and a seed from which all that
// is hidden follows, but for what is given.
type Exercise struct {
	Setup job.Setup
	Seed  uint64
	Aid   Aid // empty: Guided
	// Gaps are those that are given, as a leaf finds them in the beginning; any other follows from the seed
	Gaps map[string]measure.Length
	Wear []Worn
	Nuts []BadNut
	// Crank is where it stands in the beginning, 0 ≤ a < 720°; nil: it follows from the seed
	Crank *measure.Angle
	// Plugs says that the plugs are in: the crank is heavy before a firing top dead centre, and let go there
	// it kicks back
	Plugs bool
	// Hot says that the engine was stopped as the run begins, and cools
	Hot   bool
	Began time.Time
	// Limit is how long it may take; 0: as long as it takes
	Limit time.Duration
	// Counts are the slips that count; none: all
	Counts []Slip
}

// aid is the exercise's own, or what is taken where it names none.
func (x Exercise) aid() Aid {
	if x.Aid == "" {
		return Guided
	}
	return x.Aid
}

// Paper says that nothing is entered into a job: what is found is written down valve by valve (Claimed).
func (x Exercise) Paper() bool { return x.aid() != Guided }

// ErrKind is that an engine cannot be practised on: it has nothing to set.
var ErrKind = errors.New(
	"this engine is not for practice: its valves set themselves, or have no nut. " +
		"Take one with a screw and a nut at each valve, or with shims",
)

// Contradiction is what is wrong with an exercise: a field of it, and a sentence.
type Contradiction struct {
	Field   string // as the file names it, such as wear[0]; gaps.E3 for the gap that is given of E3
	Message string
}

func (c Contradiction) Error() string { return c.Message }

// widest is the widest gap that is made or given.
const widest = 3 * measure.Millimetre

// Check says where an exercise contradicts its own engine: a valve that it does not have, a wear twice at one
// valve, a card of the other state. The first that is found; nil: none.
func (x Exercise) Check() error {
	wrong := func(field, format string, a ...any) error {
		return Contradiction{field, fmt.Sprintf(format, a...)}
	}
	has := map[string]bool{}
	for _, v := range x.Setup.Sheet.Valves() {
		has[v.Name] = true
	}
	if !slices.Contains(Aids(), x.aid()) {
		return wrong("aid", "An exercise is guided, watched or an examination.")
	}
	if x.Hot != (x.Setup.Card.State == clearance.Hot) {
		return wrong(
			"hot",
			"The engine is %s and its card is for a %s one.",
			hotWord(x.Hot),
			x.Setup.Card.State,
		)
	}
	if x.Crank != nil && (*x.Crank < 0 || *x.Crank >= measure.Cycle) {
		return wrong("crank_deg", "The crank stands from 0° to below 720°.")
	}
	for _, name := range sortedKeys(x.Gaps) {
		switch gap := x.Gaps[name]; {
		case !has[name]:
			return wrong("gaps."+name, "This engine has no valve %s.", name)
		case gap < 0 || gap > widest:
			return wrong("gaps."+name, "A gap is 0 to 3 mm.")
		}
	}
	worn := map[string]bool{}
	for i, w := range x.Wear {
		field := fmt.Sprintf("wear[%d]", i)
		switch {
		case !slices.Contains(Wears(), w.Kind):
			return wrong(field, "There is no such wear.")
		case (w.Kind == Even) != (w.Valve == ""):
			return wrong(field, "Even wear is of all valves, any other of one.")
		case w.Valve != "" && !has[w.Valve]:
			return wrong(field, "This engine has no valve %s.", w.Valve)
		case worn[w.Valve]:
			return wrong(field, "One wear at one valve.")
		}
		worn[w.Valve] = true
	}
	for i, n := range x.Nuts {
		if !has[n.Valve] || !slices.Contains(NutTroubles(), n.How) {
			return wrong(fmt.Sprintf("nuts[%d]", i), "A nut is stiff or seized, at a valve of this engine.")
		}
	}
	for i, s := range x.Counts {
		if !slices.Contains(gravest, s) {
			return wrong(fmt.Sprintf("counts[%d]", i), "There is no such slip.")
		}
	}
	return nil
}

func hotWord(hot bool) string {
	if hot {
		return "hot"
	}
	return "cold"
}

func sortedKeys[V any](m map[string]V) []string {
	list := make([]string, 0, len(m))
	for k := range m {
		list = append(list, k)
	}
	slices.Sort(list)
	return list
}

// reach is from the thinnest leaf to the thickest stack that is used.
func reach(owned gauge.Set) (thinnest, thickest measure.Length) {
	var all []measure.Length
	for _, s := range owned.Singles() {
		all = append(all, s.Thickness())
	}
	slices.Sort(all)
	for i, t := range all {
		if i >= len(all)-gauge.MaxStack {
			thickest += t
		}
	}
	if len(all) == 0 {
		return 0, 0
	}
	return all[0], thickest
}

// How wear shows (our own figures; nothing of it is a fact of the trade).
const (
	leastEven, mostEven = 30 * um, 70 * um
	leastSunk, mostSunk = 90 * um, 140 * um // below the lower limit
	leastDip, mostDip   = 30 * um, 60 * um
	flatLift            = 0.65 // of its full lift
)

// wears puts the exercise's wear into the engine.
func (e *Engine) wears(chance *rand.Rand, windows map[string]measure.Window) {
	between := func(from, to measure.Length) measure.Length {
		return from + measure.Length(chance.Int64N(int64(to-from)+1))
	}
	for _, w := range e.exercise.Wear {
		v := e.valves[w.Valve]
		switch w.Kind {
		case Even:
			by := between(leastEven, mostEven)
			for _, name := range sortedKeys(e.valves) {
				if _, given := e.exercise.Gaps[name]; !given {
					e.valves[name].gap += by
				}
			}
		case SunkenSeat:
			by := between(leastSunk, mostSunk)
			if _, given := e.exercise.Gaps[w.Valve]; !given {
				v.gap = max(e.thinnest, windows[w.Valve].Lower-by)
			}
		case WornTip:
			v.dip = between(leastDip, mostDip)
		case FlatLobe:
			v.lift = flatLift
		}
		if v != nil {
			v.worn = w.Kind
		}
	}
	for _, n := range e.exercise.Nuts {
		e.valves[n.Valve].nut = n.How
	}
}

// readable errs with a Contradiction where a gap is one that no leaf of the set can read.
func (e *Engine) readable() error {
	thinnest, thickest := reach(e.exercise.Setup.Owned)
	for _, name := range sortedKeys(e.valves) {
		if gap := e.valves[name].gap; gap < thinnest || gap > thickest {
			return Contradiction{"gaps." + name, fmt.Sprintf(
				"The gap of %s would be one that no leaf of this set can read: they read from %s to %s. "+
					"Give this valve a gap, other leaves, or another seed.", name, thinnest, thickest)}
		}
	}
	return nil
}
