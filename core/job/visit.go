package job

import (
	"metronix/core/clearance"
	"metronix/core/measure"
	"metronix/core/wear"
)

// Visit is what a finished job tells of the wear of its engine: each valve as found and as left, in the pass
// that finished it. A gap is nil where only a side is known, or nothing. ok is false before the job is signed
// for good.
//
// A provisional job's cold figures are left out: found cold and left hot are two different gaps.
func (j *Job) Visit() (list []wear.Found, ok bool) {
	if j.Phase() != Done {
		return nil, false
	}
	for _, v := range j.Valves {
		found := wear.Found{Valve: v.Name, Window: v.Limits.Window, Found: figure(v.AsFound),
			Left: figure(v.Last)}
		if found.Found != nil || found.Left != nil {
			list = append(list, found)
		}
	}
	return list, true
}

// figure is the gap of a result as one figure; nil where it has none, or came too late on a hot engine.
func figure(r *Result) *measure.Length {
	if r == nil || r.Stale {
		return nil
	}
	return r.Judgement.Estimate
}

// FoundOut counts the valves found tight and loose, in the pass that finished the job.
func (j *Job) FoundOut() (tight, loose int) {
	for _, v := range j.Valves {
		if v.AsFound == nil {
			continue
		}
		switch v.AsFound.Judgement.Verdict {
		case clearance.Tight:
			tight++
		case clearance.Loose:
			loose++
		}
	}
	return tight, loose
}
