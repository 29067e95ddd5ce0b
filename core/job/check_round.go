package job

import (
	"cmp"

	"metronix/core/measure"
)

// ripe says that a valve which waits in the check round was turned over often enough by now; in any other
// phase each is.
func (j *Job) ripe(v *ValveState, phase Phase) bool { return phase != Verify || j.turnedEnough(v) }

// WorthChecking are the valves that a check by turning is worth proposing for where none was chosen: those
// that fell back twice while their nut went tight (common practice). Before the job is at its signature there
// are none.
func (j *Job) WorthChecking() (list []*ValveState) {
	if j.Phase() != Sign || j.Checks() != CheckNone || j.Sheet.Shimmed() {
		return nil
	}
	for _, v := range j.Valves {
		if v.FellBack >= SecondTime && v.LeaveReason == "" && !v.Outside {
			list = append(list, v)
		}
	}
	return list
}

// toCheckNext is what is next in the check round: the walk goes on in its direction, and each valve is read
// at the first coming of a stop that sets it at which it was turned over often enough. Turning that is a
// whole cycle or more is full turns, and said as such.
func (j *Job) toCheckNext() Next {
	next := Next{Action: DoNothing, Stop: j.Stop}
	var first *ValveState
	for _, v := range j.Valves {
		if !j.Pending(v) {
			continue
		}
		left := j.toTurn() - j.turnsSince(v)
		if left <= 0 && j.Stop < 0 && j.Settable(v) {
			return j.workAt(v)
		}
		for at, stop := range j.Plan.Stops {
			if !stop.Sets(v.Name) && at != j.stopFor(v) {
				continue
			}
			by := j.turnTo(at)
			for by < left {
				by += measure.Cycle
			}
			if next.Action == DoNothing || by < next.Turn {
				next, first = Next{Action: DoTurn, Stop: at, Turn: by}, v
			}
		}
	}
	switch {
	case next.Action == DoNothing:
		return next
	case next.Turn == 0:
		return j.workAt(cmp.Or(j.firstPending(j.Plan.Stops[next.Stop]), first))
	case next.Turn >= measure.Cycle:
		next.Action = DoBarOver
	}
	return next
}
