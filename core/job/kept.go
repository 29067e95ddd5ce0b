package job

import (
	"fmt"

	"metronix/core/clearance"
)

// Kept says that a valve's readings stand, and goes on to the next.
//
// This is the moment at which a reading becomes a result: the first kept before the valve's adjuster was
// touched is its as-found figure for good, whatever is read later; the last is how it was left. After two
// turns and with the valve in, it counts as checked.
//
// What the mechanic's own lock nut did is learned here too: the gap with the nut slack and the gap with it
// tight are a pair.
//
// A result of a hot pass that came later than the hot figures hold is kept and marked stale: it is true of
// an engine that is cooler than its card, and is offered to be read again.
type Kept struct {
	plain
	Valve string
}

// Kind is "kept".
func (Kept) Kind() Kind { return "kept" }

// On is its valve.
func (a Kept) On() string { return a.Valve }

func (a Kept) sound(j *Job) error { return j.has(a.Valve) }

// may keeps no reading of a slack nut, nor readings that contradict one another.
func (a Kept) may(j *Job, _ string) error {
	v := j.valve(a.Valve)
	switch {
	case v.Stage == NutLoose:
		return refuse("valve", fmt.Sprintf("The lock nut of %s is slack. Lock it, then check again.", v.Name))
	case len(v.Round) == 0:
		return refuse("valve", fmt.Sprintf("%s has no reading to keep.", v.Name))
	case j.Judge(v).Conflict != "":
		return refuse("valve", j.Judge(v).Conflict)
	}
	return nil
}

// do makes the result: as found where nothing was touched yet, as left in any case, checked where the full
// turns were made. A reading that came too late for hot figures is kept, marked, and shuts the gate.
func (a Kept) do(j *Job) {
	v := j.valve(a.Valve)
	judgement := j.Judge(v)
	result := &Result{Judgement: judgement, Readings: v.Round, At: v.readAt, Stale: j.stale(v.readAt),
		TimeDoubtful: v.readDoubt, reading: v.readBy, OffAim: j.offAim(v, judgement)}
	j.learn(v, judgement)
	untouched := v.Adjustments == 0 && !v.Freed
	if checked := v.AsFound != nil && j.turnedEnough(v); untouched && !j.checked && !checked {
		if v.AsFound == nil {
			v.tightAt = j.travel
		}
		v.AsFound = result
	}
	if v.Shim > 0 {
		v.readWith = v.Shim
	}
	v.reading(nil)
	v.Last, v.Stage, v.LeaveReason, v.Outside = result, Untouched, "", false
	j.putDown(v.Name)
	v.PutOff = Deferral{}
	v.Verified = j.turnedEnough(v) && judgement.Verdict == clearance.In && !result.Stale
	if result.Stale {
		j.shut("The last reading came later than the hot figures hold. Run the engine warm again.")
	}
}

// offAim says that a gap is in and that its aim lies outside what it may be, so that the leaf of the aim
// would not drag.
func (j *Job) offAim(v *ValveState, judged clearance.Judgement) bool {
	aim := j.AimOf(v)
	return judged.Verdict == clearance.In && judged.Estimate != nil &&
		(aim < judged.Low || judged.High != nil && aim > *judged.High)
}

func (a Kept) closes(*Job) string { return a.Valve }

// keepSure keeps a valve's readings where that is asked and they leave nothing to ask: surely in its limits,
// with its nut tight, and with a figure where one is needed. A close one waits for the mechanic.
func (j *Job) keepSure(valve string, asked bool) {
	v := j.valve(valve)
	if !asked || !v.toKeep() {
		return
	}
	judged := j.Judge(v)
	sure := judged.Verdict == clearance.In && judged.Sure && judged.TryNext == nil
	if sure || j.keepsClose && j.aimDrags(v, judged) {
		Kept{Valve: valve}.do(j)
	}
}

// aimDrags says that a valve is in by a drag of the aim's own leaf, which is what was wanted: close or not,
// nothing is to be asked. Not under the guarded rule, which asks for more, nor where that leaf lies below the
// nominal, where close is close to tight, nor with shims, which are chosen by figures.
func (j *Job) aimDrags(v *ValveState, judged clearance.Judgement) bool {
	leaf, ok := j.AimLeaf(v)
	last := v.Round[len(v.Round)-1]
	return ok && judged.Verdict == clearance.In && judged.Conflict == "" && !j.Sheet.Shimmed() &&
		j.Rule != clearance.Guarded && leaf.Thickness() >= v.Limits.Nominal &&
		last.Dial == nil && last.Feel.Drags() && last.Stack.Same(leaf)
}

// keptAtOnce is the valve that keepSure kept just now; empty where it waits, or where that was taken back.
func (j *Job) keptAtOnce(valve string, asked bool) string {
	if asked && j != nil && len(j.valve(valve).Round) == 0 {
		return valve
	}
	return ""
}
