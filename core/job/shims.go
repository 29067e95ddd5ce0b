package job

import (
	"fmt"
	"slices"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/measure"
)

// MaxShim is the thickest shim that is taken.
const MaxShim = 20 * measure.Millimetre

// size writes down the shim found under a valve.
func (j *Job) size(h Happening) error {
	v, ok := j.Valve(h.Valve)
	switch {
	case !ok:
		return refuse("valve", fmt.Sprintf("%q is no valve of this engine.", h.Valve))
	case !j.Sheet.Shimmed():
		return refuse("valve", "This engine has no shims: its gaps are set by a screw.")
	case h.Shim <= 0 || h.Shim > MaxShim:
		return refuse("shim_mm", fmt.Sprintf("%s is not the thickness of a shim: above 0, at most %s.", h.Shim, MaxShim))
	}
	v.Shim, v.Out = h.Shim, false
	if v.readWith == 0 {
		v.readWith = h.Shim
	}
	return nil
}

// noGiver says why a shim cannot come from the valve it is said to come from; empty where it can.
func (j *Job) noGiver(v *ValveState, h Happening) string {
	if h.From == "" || h.From == v.Name {
		return ""
	}
	giver, ok := j.Valve(h.From)
	switch {
	case !ok:
		return fmt.Sprintf("%q is no valve of this engine.", h.From)
	case giver.Out || giver.Shim != h.Shim:
		return fmt.Sprintf("%s does not have a shim of %s to give.", giver.Name, h.Shim)
	}
	return ""
}

// fit puts a shim under a valve: it leaves its giver or the bench, and the one that was there comes onto the bench.
func (j *Job) fit(v *ValveState, h Happening) {
	if giver, ok := j.Valve(h.From); ok && giver != v {
		giver.Out, giver.Shim = true, 0
	} else if i := slices.Index(j.Bench, h.Shim); i >= 0 {
		j.Bench = slices.Delete(slices.Clone(j.Bench), i, i+1)
	}
	if v.Shim > 0 {
		j.Bench = append(slices.Clone(j.Bench), v.Shim)
	}
	v.Shim, v.Out = h.Shim, false
}

// swapped says that a valve of a shimmed engine gets another shim than it has.
func (j *Job) swapped(v *ValveState, h Happening) bool {
	return j.Sheet.Shimmed() && h.Shim > 0 && h.Shim != v.Shim
}

// Shims works the whole engine over at once, once every valve is read as found: what is still to be done, with the shims that lie on
// the bench counted as stock. Missing names the valves whose fitted size, or whose
// gap as a figure, is not known yet: they are left out.
func (j *Job) Shims(sizes []measure.Length, stock []adjust.Count) (plan adjust.ShimPlan, missing []string) {
	var valves []adjust.ShimValve
	for _, v := range j.Valves {
		gap, ok := gapOf(v)
		switch {
		case v.Stage != Untouched: // done, and waiting to be read again
		case !ok || v.readWith == 0:
			missing = append(missing, v.Name)
		default:
			valves = append(valves, adjust.ShimValve{Valve: v.Name, Fitted: v.readWith, Measured: gap, Window: v.Limits.Window, Aim: j.AimOf(v), Out: v.Out})
		}
	}
	here := slices.Clone(stock)
	for _, shim := range j.Bench {
		here = append(here, adjust.Count{Shim: shim, N: 1})
	}
	return adjust.ChooseShims(valves, sizes, here), missing
}

// gapOf is the gap last kept as one figure: the estimate, or the middle of what it lies between.
func gapOf(v *ValveState) (measure.Length, bool) {
	if v.Last == nil {
		return 0, false
	}
	judged := v.Last.Judgement
	switch {
	case judged.Estimate != nil:
		return *judged.Estimate, true
	case judged.High != nil:
		return judged.Low + (*judged.High-judged.Low)/2, true
	}
	return 0, false
}

// wantFigure sends a valve of a shimmed engine that is out of its limits on to the leaf that drags, because its shim is reckoned from
// the gap as a figure.
func (j *Job) wantFigure(v *ValveState, judged *clearance.Judgement) {
	if !j.Sheet.Shimmed() || (judged.Verdict != clearance.Tight && judged.Verdict != clearance.Loose) {
		return
	}
	if pin := clearance.PinDown(v.Round, j.Owned); pin != nil {
		judged.TryNext = pin
		judged.Why += fmt.Sprintf(" The shim is reckoned from the gap: find the leaf that drags. Try %s.", pin)
	}
}

// lacksFigure says that a valve of a shimmed engine was kept out of its limits without a figure that a leaf could still give.
func (j *Job) lacksFigure(v *ValveState) bool {
	if !j.Sheet.Shimmed() || v.Stage != Untouched || v.Out || !v.Needs() {
		return false
	}
	return v.Last.Judgement.Estimate == nil && clearance.PinDown(v.Last.Readings, j.Owned) != nil
}

// learn takes what locking did to a gap that is known before and after.
func (j *Job) learn(v *ValveState, after clearance.Judgement) {
	if v.Stage == NutTight && j.Sheet.HasLockNut() && v.before > 0 && after.Estimate != nil {
		j.LockPairs = append(j.LockPairs, LockPair{v.Name, adjust.Pair{Before: v.before, After: *after.Estimate}})
	}
	v.before = 0
}
