package job

import (
	"math"
	"strings"
	"time"

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
			Left: figure(v.Last), FoundU: figureU(v.AsFound), LeftU: figureU(v.Last), LeftOut: j.leftOut(v)}
		if found.Found != nil || found.Left != nil || found.LeftOut != wear.None {
			list = append(list, found)
		}
	}
	return list, true
}

// leftOut is the side on which a valve was left out of its limits, by figure or by side alone.
func (j *Job) leftOut(v *ValveState) wear.Side {
	if !v.IsOut() || v.Outside {
		return wear.None
	}
	return map[clearance.Verdict]wear.Side{clearance.Tight: wear.Tight,
		clearance.Loose: wear.Loose}[v.Last.Judgement.Verdict]
}

// PutOffUntil is the earliest day until which a valve, or the whole job, was put off; the zero time: to no day.
func (j *Job) PutOffUntil() (day time.Time) {
	all := []Deferral{j.Deferred}
	for _, v := range j.Valves {
		all = append(all, v.PutOff)
	}
	for _, d := range all {
		on, err := time.Parse(time.DateOnly, strings.TrimSpace(d.Until))
		if err == nil && d.Waits == WaitsForDate && (day.IsZero() || on.Before(day)) {
			day = on
		}
	}
	return day
}

// figure is the gap of a result as one figure; nil where it has none, or came too late on a hot engine.
func figure(r *Result) *measure.Length {
	if r == nil || r.Stale {
		return nil
	}
	return r.Judgement.Estimate
}

// figureU is the standard uncertainty of that gap: half the interval in which it lies, over √3, all of it being equally
// likely (JCGM 100 4.3.7).
func figureU(r *Result) *measure.Length {
	if figure(r) == nil || r.Judgement.High == nil {
		return nil
	}
	half := (*r.Judgement.High - r.Judgement.Low).Millimetres() / 2
	return new(measure.FromMillimetres(half / math.Sqrt(3)))
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
