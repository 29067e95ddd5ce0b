package job

import (
	"fmt"
	"strings"

	"metronix/core/clearance"
	"metronix/core/wear"
)

// Outcome is what a signed job came to besides being done. The zero value is that all was set that had to be.
type Outcome struct {
	Deferred   Deferral // what the whole job was put off for
	NothingSet bool     // it was checked, and nothing was set
	Left       []wear.LeftOut
}

// String says it in words: "checked, nothing set; E3 left tight"; empty for the zero value.
func (o Outcome) String() string {
	if o.Deferred != (Deferral{}) {
		return o.Deferred.String()
	}
	var list []string
	if o.NothingSet {
		list = append(list, "checked, nothing set")
	}
	for _, l := range o.Left {
		list = append(list, fmt.Sprintf("%s left %s", l.Valve, l.Side))
	}
	return strings.Join(list, "; ")
}

// Outcome is what a job came to; the zero value before it is signed.
func (j *Job) Outcome() (o Outcome) {
	if j.SignedBy == "" {
		return o
	}
	o.Deferred = j.Deferred
	o.NothingSet = !j.anyAdjusted() && j.Cold == nil
	for _, v := range j.Valves {
		if side := j.LeftOut(v); side != wear.None {
			o.Left = append(o.Left, wear.LeftOut{Valve: v.Name, Side: side})
		}
	}
	return o
}

// LeftOut is the side on which a valve was left out of its limits, by figure or by side alone.
func (j *Job) LeftOut(v *ValveState) wear.Side {
	if !v.IsOut() || v.Outside {
		return wear.None
	}
	return map[clearance.Verdict]wear.Side{clearance.Tight: wear.Tight,
		clearance.Loose: wear.Loose}[v.Last.Judgement.Verdict]
}
