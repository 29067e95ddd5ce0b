package job

import (
	"metronix/core/adjust"
	"metronix/core/clearance"
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

// lockPair is what one locking did: a figure before and after, or where only a side is known after, that. The
// very leaf that set the valve tells a side too: it fell through, or would not go.
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
		v.CameBack, v.BackAs = 0, ""
	case verdict == v.BackAs:
		v.CameBack++
	case verdict == clearance.Tight || verdict == clearance.Loose:
		v.CameBack, v.BackAs = 1, verdict
	}
	v.FellBack = max(v.FellBack, v.CameBack)
}

// SecondTime is how often a valve comes back on one side before the next is left the other way (common
// practice).
const SecondTime = 2

// Width is how wide a valve's limits are.
func (v *ValveState) Width() measure.Length { return v.Limits.Window.Upper - v.Limits.Window.Lower }
