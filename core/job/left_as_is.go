package job

import (
	"fmt"
	"strings"

	"metronix/core/clearance"
)

// LeftAsIs leaves a valve out of its limits on purpose.
//
// A seized adjuster, a part on order, an owner who will not have it touched: the job can be signed all the
// same, and says so. A valve that was not read may be left too: what is not read has its reason. It is
// refused where the valve is in, where a nut is slack, and where the valve was moved and not read since. What
// is left out of its limits stays due.
type LeftAsIs struct {
	plain
	Valve  string
	Reason string // why; the sheet shows it; empty: it is put off, see Deferred
	// Deferred is what setting it is put off for, and until when; the zero value: it is not
	Deferred Deferral
}

// Kind is "left_as_is".
func (LeftAsIs) Kind() Kind { return "left_as_is" }

// On is its valve.
func (a LeftAsIs) On() string { return a.Valve }

func (a LeftAsIs) sound(j *Job) error {
	if err := j.has(a.Valve); err != nil {
		return err
	}
	return a.Deferred.sound()
}

// why is what the sheet shows: the reason, what it was put off for, or both.
func (a LeftAsIs) why() string {
	reason := strings.TrimSpace(a.Reason)
	switch {
	case a.Deferred == (Deferral{}):
		return reason
	case reason == "":
		return a.Deferred.String()
	}
	return reason + "; " + a.Deferred.String()
}

// may leaves nothing half done: no slack nut, no valve unread since it was set, none without its shim.
func (a LeftAsIs) may(j *Job, _ string) error {
	v := j.valve(a.Valve)
	switch {
	case a.why() == "":
		return refuse(
			"reason",
			"Say why the valve is left, or until when it is put off: the sheet will show it.",
		)
	case v.Stage == NutLoose:
		return refuse("valve", fmt.Sprintf("The lock nut of %s is slack. Lock it and read it again before "+
			"it is left.", v.Name))
	case v.Stage == NutTight && len(v.Round) == 0:
		return refuse("valve", fmt.Sprintf("%s was set and not read since. Read it before it is left.",
			v.Name))
	case v.Out:
		return refuse("valve", fmt.Sprintf("%s has no shim: it was taken out for another valve. Fit one "+
			"first.", v.Name))
	case v.StandIn:
		return refuse("valve", fmt.Sprintf("A shim stands in at %s. Fit the one that stays first.", v.Name))
	case j.Found(v).Conflict != "":
		return refuse("valve", j.Found(v).Conflict)
	case v.slackened():
		return refuse("valve",
			fmt.Sprintf("The adjuster of %s was slackened. Set it and lock it before it is left.",
				v.Name))
	case !v.toKeep() && !v.Needs() && !v.toRead(), !v.Needs() && j.Found(v).Verdict == clearance.In:
		return refuse("valve", fmt.Sprintf("%s is not out of its limits: there is nothing to leave.", v.Name))
	}
	return j.alone(v)
}

// do keeps what was read and writes the reason down.
func (a LeftAsIs) do(j *Job) {
	v := j.valve(a.Valve)
	if v.toKeep() {
		Kept{Valve: a.Valve}.do(j)
	}
	v.reading(nil)
	v.LeaveReason, v.PutOff = a.why(), a.Deferred
	j.putDown(v.Name)
}

func (a LeftAsIs) closes(*Job) string { return a.Valve }
