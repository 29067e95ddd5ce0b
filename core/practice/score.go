package practice

import (
	"fmt"
	"slices"
	"time"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
)

// Slip is one kind of fault.
type Slip string

// The slips.
const (
	OffBase    Slip = "off_base"   // read or set where the lobe lifts it, or nearly does
	OneTurnOut Slip = "one_turn"   // the crank was said to be where it was not, by a whole turn
	Elsewhere  Slip = "elsewhere"  // or by anything else
	LeftOut    Slip = "left_out"   // outside its limits at the end, and believed in
	NutLoose   Slip = "nut_loose"  // left loose
	Forgotten  Slip = "forgotten"  // never read
	NotReread  Slip = "not_reread" // not read again after its nut was tight
	OutLeft    Slip = "out_left"   // left outside its limits, and known to be
	Disturbed  Slip = "disturbed"  // set though it was in
	Misread    Slip = "misread"    // said otherwise than it was felt
	NotFelt    Slip = "not_felt"   // said without the leaf having been in
)

// gravest are all of them, the gravest first.
var gravest = []Slip{OffBase, OneTurnOut, Elsewhere, LeftOut, NutLoose, Forgotten, NotReread, OutLeft, Disturbed,
	Misread, NotFelt}

// Fault is something that a good mechanic would point out.
type Fault struct {
	Slip  Slip
	Valve string         // empty: at none
	By    measure.Length // of a reading: by how much it was wrong, 0 where that is not the matter
	Off   measure.Angle  // of the crank: by how much it was elsewhere
	Entry int            // place in the list of what was done, from 0; −1: of none
}

// String says it as it would be said across the bench.
func (f Fault) String() string {
	switch f.Slip {
	case OffBase:
		return f.Valve + " was read or set where its lobe was not clear"
	case Elsewhere:
		return fmt.Sprintf("the crank was said to be at its stop and stood %.0f° off", f.Off.Degrees())
	case OneTurnOut:
		return "the crank was a whole turn out"
	case Forgotten:
		return f.Valve + " was never read"
	case LeftOut:
		return f.Valve + " was left outside its limits and believed in"
	case NotReread:
		return f.Valve + " was not read again after its nut was tight"
	case NutLoose:
		return "the nut of " + f.Valve + " was left loose"
	case Disturbed:
		return f.Valve + " was in, and was set for nothing"
	case Misread:
		return fmt.Sprintf("%s was said otherwise than it was felt, %s off", f.Valve, f.By)
	case NotFelt:
		return f.Valve + " was said without that leaf having been in"
	case OutLeft:
		return f.Valve + " was left outside its limits"
	}
	return string(f.Slip)
}

// Result is one valve as it was and as it was believed, all in nanometres.
type Result struct {
	Valve        string
	Found, Left  measure.Length // truly, as a leaf finds it
	Window       measure.Window
	Believed     *measure.Length // what the job holds of it at the end; nil: no figure
	Verdict      clearance.Verdict
	Truly        clearance.Verdict
	Disturbed    bool
	NutLeftLoose bool
}

// Score is what a run came to.
type Score struct {
	Valves  []Result
	Faults  []Fault
	Turned  measure.Angle // of the crank
	Leaves  int           // that were taken in hand
	Took    time.Duration // from the first thing done to the last
	Signed  bool
	Correct int // valves that ended in their limits and are believed to be
}

// felt is what was last felt at a valve, and whether the gap may have changed since.
type felt struct {
	leaf string
	said Felt
	gap  measure.Length // as it was then
	open bool           // under its lobe
}

// seen is what is noted while a run goes on.
type seen struct {
	round  map[string]*felt
	faults []Fault
	locked map[string]bool // whose nut was tightened and that were not read since
	set    map[string]bool
}

// touched notes what a hand did.
func (r *Run) touched(h Hand, f *Felt) {
	switch h := h.(type) {
	case Slid:
		v := r.Engine.valves[h.Valve]
		r.seen.round[h.Valve] = &felt{leafName(h.Leaves), *f, v.gap, r.Engine.margin(h.Valve) < 0}
	case Screwed:
		delete(r.seen.round, h.Valve)
		r.seen.set[h.Valve] = true
		r.offBase(h.Valve)
	case Tightened:
		delete(r.seen.round, h.Valve)
		if r.seen.set[h.Valve] {
			r.seen.locked[h.Valve] = true
		}
	}
}

func leafName(ids []gauge.ID) string { return fmt.Sprint(ids) }

// reachable is how near to a stop the crank has to stand where it is said to be there: a sign is seen to some degrees
// (common practice).
const reachable = 15 * measure.Degree

// told notes what was said to the job beside what is so.
func (r *Run) told(h job.Happening) {
	switch a := h.Act.(type) {
	case job.Turned:
		off := measure.Apart(r.Engine.crank, r.Job.Plan.Stops[a.Stop].Crank)
		switch {
		case off <= reachable:
		case measure.Turn-off <= reachable:
			r.fault(Fault{Slip: OneTurnOut, Off: off})
		default:
			r.fault(Fault{Slip: Elsewhere, Off: off})
		}
	case job.ReadingTaken:
		r.read(a)
	}
}

// read compares what was said of a leaf with what was felt of it.
func (r *Run) read(a job.ReadingTaken) {
	delete(r.seen.locked, a.Valve)
	last := r.seen.round[a.Valve]
	if last == nil || last.leaf != leafName(a.Leaves) {
		r.fault(Fault{Slip: NotFelt, Valve: a.Valve})
		return
	}
	r.offBase(a.Valve)
	if last.open || a.Feel == last.said.Feel || a.Feel.Drags() && last.said.Feel.Drags() {
		return
	}
	stack, err := r.Engine.stack(a.Leaves)
	if err != nil {
		return
	}
	t, by := stack.Thickness(), measure.Length(
		0,
	) // by how much the gap would have to be another for it to be so
	switch {
	case a.Feel == clearance.Free:
		by = t + drags - last.gap
	case a.Feel == clearance.WontGo:
		by = last.gap + drags - t
	case t < last.gap:
		by = last.gap - drags - t
	default:
		by = t - drags - last.gap
	}
	r.fault(Fault{Slip: Misread, Valve: a.Valve, By: max(0, by)})
}

// offBase notes that a valve is worked on where it is not clear by its engine's margin.
func (r *Run) offBase(valve string) {
	if r.Engine.margin(valve) < r.Engine.exercise.Setup.Sheet.EffectiveMargin() {
		r.fault(Fault{Slip: OffBase, Valve: valve})
	}
}

func (r *Run) fault(f Fault) {
	f.Entry = len(r.List)
	r.seen.faults = append(r.seen.faults, f)
}

// Score says what the run came to. It tells what was hidden: it is for when the run has ended.
func (r *Run) Score() Score {
	s := Score{Turned: r.Engine.turned, Leaves: r.Engine.changes, Signed: r.Job.SignedBy != ""}
	if n := len(r.List); n > 0 {
		s.Took = r.List[n-1].At.Sub(r.List[0].At)
	}
	for i, f := range r.seen.faults { // the same thing said twice is one fault
		if i == 0 || f.Slip != r.seen.faults[i-1].Slip || f.Valve != r.seen.faults[i-1].Valve {
			s.Faults = append(s.Faults, f)
		}
	}
	end := func(slip Slip, valve string) { s.Faults = append(s.Faults, Fault{Slip: slip, Valve: valve, Entry: -1}) }
	for _, v := range r.Job.Valves {
		t := r.Engine.valves[v.Name]
		res := Result{
			Valve:        v.Name,
			Found:        t.found,
			Left:         t.gap,
			Window:       v.Limits.Window,
			Truly:        within(t.gap, v.Limits.Window),
			Disturbed:    r.seen.set[v.Name],
			NutLeftLoose: t.loose,
		}
		if v.Last != nil && v.Last.Void() == "" {
			res.Believed, res.Verdict = v.Last.Judgement.Estimate, v.Last.Judgement.Verdict
		}
		switch {
		case v.Outside:
		case v.Last == nil && v.LeaveReason == "":
			end(Forgotten, v.Name)
		case r.seen.locked[v.Name]:
			end(NotReread, v.Name)
		case res.Truly != clearance.In && res.Verdict == clearance.In && !near(t.gap, v.Limits.Window):
			end(LeftOut, v.Name)
		case res.Truly != clearance.In && !near(t.gap, v.Limits.Window):
			end(OutLeft, v.Name)
		}
		if t.loose {
			end(NutLoose, v.Name)
		}
		if r.seen.set[v.Name] && within(t.found, v.Limits.Window) == clearance.In {
			end(Disturbed, v.Name)
		}
		if (res.Truly == clearance.In || near(t.gap, v.Limits.Window)) && res.Verdict == clearance.In {
			s.Correct++
		}
		s.Valves = append(s.Valves, res)
	}
	slices.SortStableFunc(
		s.Faults,
		func(a, b Fault) int { return slices.Index(gravest, a.Slip) - slices.Index(gravest, b.Slip) },
	)
	return s
}

// doubt is by how much a gap may be beyond a limit and still be taken to lie within it by whoever feels and reads
// rightly: his drag, and four deviations of a hand.
const doubt = drags + 4*noise

// near says that a gap lies so close to its limits that no hand could tell it from in.
func near(gap measure.Length, w measure.Window) bool {
	return w.Lower-doubt <= gap && gap <= w.Upper+doubt
}

func within(gap measure.Length, w measure.Window) clearance.Verdict {
	switch {
	case gap < w.Lower:
		return clearance.Tight
	case gap > w.Upper:
		return clearance.Loose
	}
	return clearance.In
}
