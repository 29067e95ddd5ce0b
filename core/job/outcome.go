package job

import (
	"fmt"
	"strings"

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
		if side := j.leftOut(v); side != wear.None {
			o.Left = append(o.Left, wear.LeftOut{Valve: v.Name, Side: side})
		}
	}
	return o
}
