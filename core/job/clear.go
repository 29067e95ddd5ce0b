package job

import (
	"fmt"
	"slices"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// This file is which valves may be worked on where the crank stands.

// Known says whether the crank's place is known and need not be confirmed.
func (j *Job) Known() bool { return j.Crank.Known && !j.pause.confirm }

// Sure says that the crank's place is known so narrowly that turning is told in degrees. A lobe that points
// away leaves a place that is wide: the valve under it may be worked on, and the next stop is told by its
// sign.
func (j *Job) Sure() bool { return j.Known() && j.Place.Length() <= sequence.Narrow }

// Settable says whether a valve may be worked on wherever the crank may stand now.
func (j *Job) Settable(v *ValveState) bool {
	return j.Known() && (j.Margin(v) >= j.required || j.byMaker(v, j.Place))
}

// ByMaker says that a valve is worked on here because the maker's printed order has it so, though the
// geometry does not.
func (j *Job) ByMaker(v *ValveState) bool {
	return j.Known() && j.Margin(v) < j.required && j.byMaker(v, j.Place)
}

// Caution is what to mind before a valve is worked on here; empty: nothing. The maker's printed order wins
// over the geometry, and is worked to its end, but not without a word.
func (j *Job) Caution(v *ValveState) string {
	if !j.ByMaker(v) {
		return ""
	}
	where := fmt.Sprintf("%s stands only %s from its opening or closing here", v.Name,
		j.Margin(v).Against(j.required))
	if margin := j.Margin(v); margin < 0 {
		where = fmt.Sprintf("%s is still open here, %s inside its lift", v.Name, -margin)
	}
	return fmt.Sprintf("By this sheet %s. The maker's printed order sets it here: check the order and the "+
		"cam card first.", where)
}

// byMaker says whether the maker's order, where it is the way round, sets a valve at a place.
func (j *Job) byMaker(v *ValveState, at sequence.Range) bool {
	return j.Way.School == sequence.Own && slices.ContainsFunc(j.Plan.Stops, func(s sequence.Stop) bool {
		return at.Holds(s.Crank) && at.Length() <= sequence.Narrow && s.Sets(v.Name)
	})
}

// Margin is a valve's smallest margin wherever the crank may stand now. The crank's place must be known.
func (j *Job) Margin(v *ValveState) measure.Angle {
	return sequence.LeastMargin(j.Cycle, v.Valve, j.Place)
}
