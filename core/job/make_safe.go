package job

import "metronix/core/around"

// MakeSafe says that the vehicle is made safe before what is next: hands come near belts, fan and crank, and
// nobody has said so yet, or the engine ran since it was said. An engine that is run warm for hot figures has
// its key in and its battery on: what was made safe before is not any more. Common practice.
func (j *Job) MakeSafe(n Next) bool {
	if !n.Action.handsOn() {
		return false
	}
	if said := j.Marked(around.SafeStep); said.Marked {
		return j.ranAt.After(said.At)
	}
	return j.find((*ValveState).touched) == nil
}

// ConfirmKinds says that somebody follows the ports before what is next: the kinds of the valves were taken
// from a common pattern, and none is judged by a pattern. It comes after the vehicle is made safe.
func (j *Job) ConfirmKinds(n Next) bool {
	return j.Sheet.KindsToConfirm && n.Action.handsOn() && !j.MakeSafe(n) &&
		!j.Marked(around.KindsStep).Marked
}

// handsOn says that an action is done at the engine.
func (a Action) handsOn() bool {
	switch a {
	case DoChooseWay, DoPrepare, DoSign, DoGoHot, DoNothing:
		return false
	}
	return true
}

// touched says that something was read or done at the valve.
func (v *ValveState) touched() bool { return v.begun() || v.Freed || v.AsFound != nil || v.Last != nil }
