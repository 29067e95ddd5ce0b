package bench

import (
	"fmt"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
)

// nutGoes is the way that locking is known to go at a valve: from its own coming back twice, else from what
// is known of these hands; empty: not known.
func (a *Advice) nutGoes(v *job.ValveState) string {
	switch {
	case !a.j.Sheet.HasLockNut():
		return ""
	case v.CameBack >= job.SecondTime && v.BackAs == clearance.Tight:
		return adjust.Closes
	case v.CameBack >= job.SecondTime && v.BackAs == clearance.Loose:
		return adjust.Opens
	}
	return a.shift.Way
}

// beside is the leaf to set by where only the way is known that locking goes: the next owned one on the other
// side of the one that would be taken else, for each time that the valve came back; nil: none is near.
func (a *Advice) beside(v *job.ValveState, leaf gauge.Stack) gauge.Stack {
	way := a.nutGoes(v)
	if way == "" || len(leaf) == 0 {
		return nil
	}
	steps := max(1, v.CameBack-job.SecondTime+1)
	at, best := leaf.Thickness(), gauge.Stack(nil)
	for range steps {
		next := gauge.Stack(nil)
		for _, st := range a.j.Owned.Singles() {
			off := st.Thickness() - at
			if way == adjust.Opens {
				off = -off
			}
			nearer := next == nil || (st.Thickness()-at).Abs() < (next.Thickness()-at).Abs()
			if off > 0 && nearer && (st.Thickness()-leaf.Thickness()).Abs() <= job.MostOwnShift {
				next = st
			}
		}
		if next == nil {
			break
		}
		best, at = next, next.Thickness()
	}
	return best
}

// NutSays is what is known of the nut at a valve and what to do about it: "Locking closed it twice: set it
// with 0.32, then lock."; empty: nothing, or a figure is known and allowed for.
func (a *Advice) NutSays(v *job.ValveState) string {
	if _, ok := a.PreLock(v); ok {
		return ""
	}
	choice, _ := a.j.Owned.Choose(a.j.AimOf(v), &v.Limits.Window, gauge.MaxStack)
	leaf := a.beside(v, choice.Stack)
	if leaf == nil {
		return ""
	}
	does := map[string]string{adjust.Closes: "closes", adjust.Opens: "opens"}[a.nutGoes(v)]
	if v.CameBack >= job.SecondTime {
		return fmt.Sprintf(
			"Locking %s it, %d times by now: set it with %s, then lock.",
			does,
			v.CameBack,
			leaf,
		)
	}
	return fmt.Sprintf("Locking %s the gap in these hands: set it with %s, then lock.", does, leaf)
}
