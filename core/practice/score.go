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
	Bare         bool           // its shim was left out
	Worn         Wear           // empty: it is not
	Dip          measure.Length // in a worn tip: the gap runs wider by so much than a leaf finds it
	Nut          NutTrouble     // empty: none
	LeftBecause  string         // why it was left as it is; empty: it was not
}

// running is what the gap is that it runs with: by a dial, which a dip in a worn tip does not deceive.
func (v Result) running() clearance.Verdict { return within(v.Left+v.Dip, v.Window) }

// Score is what a run came to.
type Score struct {
	Valves  []Result
	Faults  []Fault
	Turned  measure.Angle // of the crank
	Leaves  int           // that were taken in hand
	Took    time.Duration // from the first thing done to the last
	Signed  bool
	Correct int // valves that ended right: in their limits and believed to be, or out for a good reason and known to be
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
func (r *Run) touched(h Hand, a Answer) {
	e := r.Engine
	switch h := h.(type) {
	case Slid:
		v := e.valves[h.Valve]
		r.seen.round[h.Valve] = &felt{leafName(h.Leaves), *a.Felt, v.gap + e.cooled(), e.margin(h.Valve) < 0}
		k := r.knows(h.Valve)
		stack, _ := e.stack(h.Leaves)
		k.felt(stack.Thickness(), a.Felt.Feel)
		k.off = k.off || !e.clear(h.Valve)
		if e.exercise.Paper() {
			delete(r.seen.locked, h.Valve)
			r.late(h.Valve)
		}
	case Dialled:
		k := r.knows(h.Valve)
		k.dial(*a.Dial)
		k.off = k.off || !e.clear(h.Valve)
		if e.exercise.Paper() {
			delete(r.seen.locked, h.Valve)
			r.late(h.Valve)
		}
	case Turned:
		for _, valve := range e.Bare() {
			r.fault(Fault{Slip: NoShim, Valve: valve})
		}
	case TookShim:
		delete(r.seen.round, h.Valve)
		r.paper.forget(h.Valve, false)
		r.offBase(h.Valve)
	case FittedShim:
		delete(r.seen.round, h.Valve)
		r.paper.forget(h.Valve, true)
		r.seen.set[h.Valve] = e.valves[h.Valve].gap != e.valves[h.Valve].found
		if e.valves[h.Valve].changed { // the same one laid back in has moved nothing
			r.seen.locked[h.Valve] = true
		}
	case Screwed:
		delete(r.seen.round, h.Valve)
		r.paper.forget(h.Valve, false)
		r.seen.set[h.Valve] = true
		r.offBase(h.Valve)
		r.late(h.Valve)
	case Tightened:
		delete(r.seen.round, h.Valve)
		r.paper.forget(h.Valve, r.seen.set[h.Valve])
		if r.seen.set[h.Valve] {
			r.seen.locked[h.Valve] = true
		}
	case Claimed:
		r.claimed(h)
	}
}

// claimed notes what was written down beside what it rests on; what was written of the valve before counts no
// more.
func (r *Run) claimed(h Claimed) {
	r.paper.claims[h.Valve] = h
	delete(r.paper.slips, h.Valve)
	slip := Slip("")
	switch k := r.knows(h.Valve); {
	case h.Left != "":
	case k.off:
		slip = OffBase
	case !k.told():
		slip = NotFelt
	case !k.carries(h.Is, r.window(h.Valve)):
		slip = WrongLeaf
	}
	if slip != "" {
		r.paper.slips[h.Valve] = Fault{Slip: slip, Valve: h.Valve, Entry: len(r.List)}
	}
}

// late notes that a hot engine is worked on when its figures do not hold any more.
func (r *Run) late(valve string) {
	if r.Engine.Late() {
		r.fault(Fault{Slip: TooLate, Valve: valve})
	}
}

func leafName(ids []gauge.ID) string { return fmt.Sprint(ids) }

// reachable is how near to a stop the crank has to stand where it is said to be there: a sign is seen to some
// degrees (common practice).
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
		r.late(a.Valve)
	case job.Sized:
		r.saidOfShim(a.Valve, a.Shim)
	case job.Adjusted:
		if a.Shim > 0 {
			r.saidOfShim(a.Valve, a.Shim)
		}
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
	t := stack.Thickness()
	by := measure.Length(0) // by how much the gap would have to be another for it to be so
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
	if !r.Engine.clear(valve) {
		r.fault(Fault{Slip: OffBase, Valve: valve})
	}
}

func (r *Run) fault(f Fault) {
	f.Entry = len(r.List)
	r.seen.faults = append(r.seen.faults, f)
}

// Score says what the run came to. It tells what was hidden: it is for when the run has ended.
func (r *Run) Score() Score {
	x := r.Exercise()
	s := Score{Turned: r.Engine.turned, Leaves: r.Engine.changes, Signed: r.Job.SignedBy != ""}
	if n := len(r.List); n > 0 {
		s.Took = r.List[n-1].At.Sub(r.List[0].At)
	}
	noted := map[Fault]bool{} // the same thing said twice is one fault
	note := func(f Fault) {
		key := Fault{Slip: f.Slip, Valve: f.Valve}
		if x.counts(f.Slip) && !noted[key] {
			noted[key] = true
			s.Faults = append(s.Faults, f)
		}
	}
	for _, f := range r.seen.faults {
		note(f)
	}
	for _, v := range r.Job.Valves {
		if f, is := r.paper.slips[v.Name]; is {
			note(f)
		}
		res := r.result(v)
		for _, slip := range r.slipsAt(v, res) {
			note(Fault{Slip: slip, Valve: v.Name, Entry: -1})
		}
		if r.right(res) {
			s.Correct++
		}
		s.Valves = append(s.Valves, res)
	}
	if r.Engine.tool {
		note(Fault{Slip: ToolLeft, Entry: -1})
	}
	if x.Limit > 0 && r.Engine.now.Sub(x.Began) > x.Limit { // from its beginning, as its clock shows
		note(Fault{Slip: OverTime, Entry: -1})
	}
	slices.SortStableFunc(
		s.Faults,
		func(a, b Fault) int { return slices.Index(gravest, a.Slip) - slices.Index(gravest, b.Slip) },
	)
	return s
}

// result is one valve as it was, is, and is believed.
func (r *Run) result(v *job.ValveState) Result {
	t := r.Engine.valves[v.Name]
	res := Result{
		Valve:        v.Name,
		Found:        t.found,
		Left:         t.gap,
		Window:       v.Limits.Window,
		Truly:        within(t.gap, v.Limits.Window),
		Disturbed:    r.seen.set[v.Name],
		NutLeftLoose: t.loose,
		Bare:         t.bare,
		Worn:         t.worn,
		Dip:          t.dip,
		Nut:          t.nut,
		LeftBecause:  v.LeaveReason,
	}
	if v.Last != nil && v.Last.Void() == "" {
		res.Believed, res.Verdict = v.Last.Judgement.Estimate, v.Last.Judgement.Verdict
	}
	if claim, said := r.paper.claims[v.Name]; said {
		res.Verdict, res.LeftBecause = claim.Is, claim.Left
	}
	return res
}

// right says whether a valve ended right.
func (r *Run) right(v Result) bool {
	if near(v.Left, v.Window) {
		return v.Verdict == clearance.In || v.Dip > 0 && v.Verdict == v.running()
	}
	return v.Nut == Seized && v.LeftBecause != "" && v.Verdict == v.Truly
}

// slipsAt are the slips that the end of a run shows at a valve.
func (r *Run) slipsAt(v *job.ValveState, res Result) (list []Slip) {
	claim, claimed := r.paper.claims[v.Name]
	said := v.Last != nil || v.LeaveReason != "" || claimed
	in := near(res.Left, res.Window)
	switch {
	case v.Outside:
	case !said:
		list = append(list, Forgotten)
	case r.seen.locked[v.Name]:
		list = append(list, NotReread)
	case !in && res.Verdict == clearance.In:
		list = append(list, LeftOut)
	case !in && !(res.Nut == Seized && res.LeftBecause != ""):
		list = append(list, OutLeft)
	case in && claimed && claim.Is != clearance.In && res.Truly == clearance.In && claim.Is != res.running():
		list = append(list, Misjudged)
	}
	if res.Bare {
		list = append(list, NoShim)
	}
	if res.NutLeftLoose {
		list = append(list, NutLoose)
	}
	if r.seen.set[v.Name] && within(res.Found, res.Window) == clearance.In {
		list = append(list, Disturbed)
	}
	if claimed && res.Worn != "" && res.Worn != Even && !claim.Worn {
		list = append(list, WearMissed)
	}
	return list
}

// doubt is by how much a gap may be beyond a limit and still be taken to lie within it by whoever feels and
// reads rightly: his drag, and four deviations of a hand.
const doubt = drags + 4*noise

// near says that a gap lies so close to its limits that no hand could tell it from in.
func near(gap measure.Length, w measure.Window) bool {
	return w.Lower-doubt <= gap && gap <= w.Upper+doubt
}
