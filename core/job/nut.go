package job

import (
	"fmt"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

// This file is what a job learns of the lock nut: what tightening does to a gap.

// learn takes what locking did to a gap that is known before, from what was felt after: a figure, or a side.
// The same leaf before and after is as good as a figure: its thickness cancels, and it dragged before.
func (j *Job) learn(v *ValveState, after clearance.Judgement) {
	if v.Stage == NutTight && j.Sheet.HasLockNut() && v.before > 0 {
		if pair, ok := j.lockPair(v, after); ok {
			j.LockPairs = append(j.LockPairs, LockPair{v.Name, pair, j.Hand()})
		}
		v.fallBack(after.Verdict)
	}
	v.before = 0
}

func (j *Job) lockPair(v *ValveState, after clearance.Judgement) (p adjust.Pair, ok bool) {
	p = adjust.Pair{Before: v.before}
	if after.Estimate != nil {
		p.After = *after.Estimate
		return p, true
	}
	if after.Low > 0 {
		p.AfterLow = new(after.Low)
	}
	if after.High != nil {
		p.AfterHigh = new(*after.High)
	}
	for _, r := range v.Round {
		switch {
		case r.Dial != nil || r.Stack.Thickness() != v.before:
		case r.Feel == clearance.WontGo:
			p.AfterHigh = new(v.before - j.Feel)
		case r.Feel == clearance.Free:
			p.AfterLow = new(v.before + j.Feel)
		}
	}
	return p, p.OneSided()
}

// fallBack counts how often a valve that was set came back out on the same side, one after the other.
func (v *ValveState) fallBack(verdict clearance.Verdict) {
	switch {
	case verdict == clearance.In:
		v.cameBack, v.backAs = 0, ""
	case verdict == v.backAs:
		v.cameBack++
	case verdict == clearance.Tight || verdict == clearance.Loose:
		v.cameBack, v.backAs = 1, verdict
	}
}

// secondTime is how often a valve comes back on one side before the next is left the other way (common
// practice).
const secondTime = 2

// nutGoes is the way that locking is known to go at a valve: from its own coming back twice, else from what
// is known of these hands; empty: not known.
func (a *Advice) nutGoes(v *ValveState) string {
	switch {
	case !a.j.Sheet.HasLockNut():
		return ""
	case v.cameBack >= secondTime && v.backAs == clearance.Tight:
		return adjust.Closes
	case v.cameBack >= secondTime && v.backAs == clearance.Loose:
		return adjust.Opens
	}
	return a.shift.Way
}

// beside is the leaf to set by where only the way is known that locking goes: the next owned one on the other
// side of the one that would be taken else, for each time that the valve came back; nil: none is near.
func (a *Advice) beside(v *ValveState, leaf gauge.Stack) gauge.Stack {
	way := a.nutGoes(v)
	if way == "" || len(leaf) == 0 {
		return nil
	}
	steps := max(1, v.cameBack-secondTime+1)
	at, best := leaf.Thickness(), gauge.Stack(nil)
	for range steps {
		next := gauge.Stack(nil)
		for _, st := range a.j.Owned.Singles() {
			off := st.Thickness() - at
			if way == adjust.Opens {
				off = -off
			}
			nearer := next == nil || (st.Thickness()-at).Abs() < (next.Thickness()-at).Abs()
			if off > 0 && nearer && (st.Thickness()-leaf.Thickness()).Abs() <= mostOwnShift {
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
func (a *Advice) NutSays(v *ValveState) string {
	if _, ok := a.PreLock(v); ok {
		return ""
	}
	choice, _ := a.j.Owned.Choose(a.j.AimOf(v), &v.Limits.Window, gauge.MaxStack)
	leaf := a.beside(v, choice.Stack)
	if leaf == nil {
		return ""
	}
	does := map[string]string{adjust.Closes: "closes", adjust.Opens: "opens"}[a.nutGoes(v)]
	if v.cameBack >= secondTime {
		return fmt.Sprintf("Locking %s it, %d times by now: set it with %s, then lock.", does, v.cameBack, leaf)
	}
	return fmt.Sprintf("Locking %s the gap in these hands: set it with %s, then lock.", does, leaf)
}

// width is how wide a valve's limits are.
func (v *ValveState) width() measure.Length { return v.Limits.Window.Upper - v.Limits.Window.Lower }
