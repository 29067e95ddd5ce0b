package job

import "slices"

// shimsDue says that shims are being chosen and fitted.
func (j *Job) shimsDue() bool {
	return j.Sheet.Shimmed() && j.Going != ReadOnly && j.GateOpen() &&
		(j.bench() == Adjust || j.bare() != nil)
}

// awaited is a valve that the choice of shims waits for: one whose size is to be said, the one that was taken
// in hand for it first and then those that are clear here, else one that a leaf would give a figure of; nil:
// none.
func (j *Job) awaited() *ValveState {
	missing := j.choice().missing
	waits := func(v *ValveState) bool { return slices.Contains(missing, v.Name) && !v.Out && !v.StandIn }
	unsized := func(v *ValveState) bool { return waits(v) && v.Shim == 0 }
	if v, ok := j.Valve(j.picked); ok && unsized(v) {
		return v
	}
	if v := j.find(func(v *ValveState) bool { return unsized(v) && j.Settable(v) }); v != nil {
		return v
	}
	if v := j.find(unsized); v != nil {
		return v
	}
	return j.find(func(v *ValveState) bool { return waits(v) && j.lacksFigure(v) })
}

// nextShim is what is next where shims are being changed.
//
// What was begun is finished; a size or a figure that the choice waits for comes first; then the steps in
// their order, where the crank stands; then those that were fitted here are read again before the crank is
// turned, and one that no shim surely serves is tried or left. A valve that none serves, or whose shim has to
// be bought, comes last: it is left, or the job waits.
func (j *Job) nextShim() Next {
	here := func(v *ValveState) bool { return v.Stage == NutTight && j.Settable(v) }
	if v := j.find(func(v *ValveState) bool { return len(v.Round) > 0 }); v != nil {
		return j.workAt(v)
	}
	if v, ok := j.Valve(j.picked); ok && j.bare() == nil && v.Stage != Untouched {
		return j.workAt(v)
	}
	if v := j.awaited(); v != nil && j.bare() == nil {
		if v.Shim == 0 && (v.Name != j.picked || j.CamsOut || j.Settable(v)) {
			return Next{Action: DoAdjust, Valve: v.Name, Stop: j.Stop}
		}
		return j.workAt(v)
	}
	steps := j.Steps()
	if len(steps) > 0 && steps[0].Do != TurnOn {
		return Next{Action: DoAdjust, Valve: steps[0].Valve, Stop: j.Stop, Shim: &steps[0]}
	}
	if v := j.find(here); v != nil {
		return j.workAt(v)
	}
	toTry := func(v *ValveState) bool { return v.Needs() && j.Settable(v) && j.ShimToTry(v.Name) > 0 }
	// While it is at hand it is tried, or left, unless another was taken in hand first: then it comes last.
	if v := j.find(toTry); v != nil && (j.picked == "" || j.picked == v.Name) {
		return Next{Action: DoAdjust, Valve: v.Name, Stop: j.Stop}
	}
	if len(steps) > 0 {
		return Next{Action: DoTurn, Stop: steps[0].Stop, Turn: steps[0].Turn,
			Confirm: !j.Known() && j.Crank.Known && steps[0].Stop == j.Stop}
	}
	if v := j.find(func(v *ValveState) bool { return v.Stage == NutTight }); v != nil {
		return j.workAt(v)
	}
	if v := j.unserved(); v != nil {
		if v.Name == j.picked && !j.CamsOut && !j.Settable(v) { // somebody wants to see to it
			return j.workAt(v)
		}
		return Next{Action: DoAdjust, Valve: v.Name, Stop: j.Stop}
	}
	return j.turnOn()
}

// unserved is a valve that no step serves: the one that was taken in hand, else one that a shim to hand may be
// tried under, for what comes out there may serve another; nil: there is none.
func (j *Job) unserved() *ValveState {
	due := func(v *ValveState) bool { return v.Needs() && v.Stage == Untouched }
	if v, ok := j.Valve(j.picked); ok && due(v) {
		return v
	}
	if v := j.find(func(v *ValveState) bool { return due(v) && j.ShimToTry(v.Name) > 0 }); v != nil {
		return v
	}
	return j.find(due)
}
