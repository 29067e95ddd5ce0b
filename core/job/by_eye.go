package job

import (
	"cmp"
	"slices"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// This file is how a valve is taken out of turn: how far the crank goes until it is clear, and by what it is
// seen to be clear (common practice: who turns by eye wants to know which valve is next, and in how many
// degrees).

// ClearIn is how far the crank is turned until a valve is clear, 0 where it is; ok is false where nobody
// knows.
func (j *Job) ClearIn(v *ValveState) (turn measure.Angle, ok bool) {
	switch {
	case j.Settable(v):
		return 0, true
	case !j.Sure():
		return 0, false
	}
	return sequence.ClearAfter(j.Cycle, j.required, v.Valve, j.Place, j.Way.Direction)
}

// Coming is a valve that waits, and how far the crank is turned until it is clear.
type Coming struct {
	Valve string
	In    measure.Angle
}

// mostComing is how many valves are told that come clear next.
const mostComing = 3

// ComesClear are the valves that wait in this phase and come clear next, the nearest first. None where nobody
// knows where the crank stands.
func (j *Job) ComesClear() (list []Coming) {
	if j.Way.School == "" || !j.Sure() {
		return nil
	}
	for _, v := range j.Valves {
		if in, ok := j.ClearIn(v); ok && in > 0 && j.Pending(v) {
			list = append(list, Coming{v.Name, in})
		}
	}
	slices.SortStableFunc(list, func(a, b Coming) int { return cmp.Compare(a.In, b.In) })
	return list[:min(len(list), mostComing)]
}

// TakenBy are the things of which each, seen alone, lets a valve be taken: its own lobe pointing away, where
// the cam can be seen and the stop that sets it stands at the middle of its base circle, and cylinders that
// rock. One that the sheet's way sets off its base circle's middle is come to by its stop alone.
func (j *Job) TakenBy(v *ValveState) (list []sequence.Sighting) {
	if j.Sheet.Gear().CamSeen() && !j.offMiddle(v) {
		list = append(list, sequence.Sighting{What: sequence.LobeAway, Valve: v.Name})
	}
	return append(list, sequence.ClearSigns(j.Cycle, j.required, v.Valve)...)
}

// offMiddle says that a maker's order sets the valve off the middle of its base circle.
func (j *Job) offMiddle(v *ValveState) bool {
	at := j.stopOf(v)
	return j.Way.School == sequence.Own && at >= 0 &&
		sequence.OffMiddle(j.Cycle, v.Valve, j.Plan.Stops[at].Crank)
}
