package job

import (
	"fmt"
	"slices"
)

// Phase is how far the job is.
type Phase string

// The phases, in order. Adjust is passed over when every valve is in, Verify when nothing was adjusted.
const (
	ChooseWay Phase = "choose_way"
	Prepare   Phase = "prepare"
	AsFound   Phase = "as_found"
	Adjust    Phase = "adjust"
	Verify    Phase = "verify"
	Sign      Phase = "sign"
	AwaitHot  Phase = "await_hot" // signed cold, provisionally; not finished before the hot pass is signed
	Done      Phase = "done"
)

// Phase is how far the job is.
func (j *Job) Phase() Phase {
	switch {
	case j.Provisional() && j.SignedBy != "":
		return AwaitHot
	case j.SignedBy != "":
		return Done
	case j.Way.School == "":
		return ChooseWay
	}
	at := j.bench()
	// Nothing is measured any more once every valve is done; one that is taken up again is.
	if !j.GateOpen() && (at != Sign || j.passedIn < 0 || j.picked != "") {
		return Prepare
	}
	return at
}

// bench is how far the work at the valves is.
func (j *Job) bench() Phase {
	has := func(f func(*ValveState) bool) bool { return slices.ContainsFunc(j.Valves, f) }
	switch {
	// What was found comes first: a valve whose adjuster was touched can never be read as found again.
	case has((*ValveState).toRead):
		return AsFound
	case j.Going != ReadOnly && has((*ValveState).Needs):
		return Adjust
	// After full turns the oil film and the seats have settled, and a nut that moved a gap shows it.
	case j.anyAdjusted() && has(j.toCheck):
		return Verify
	}
	return Sign
}

// anyAdjusted says whether a check round has anything to look for: a job in which nothing was touched needs
// none, for a gap that was read and left alone has no nut that could have moved it.
func (j *Job) anyAdjusted() bool {
	return slices.ContainsFunc(j.Valves, func(v *ValveState) bool { return v.Adjustments > 0 })
}

// Pending says whether a valve still waits in the present phase. Where one kind is gone round first, the
// other waits for nothing until that is done.
func (j *Job) Pending(v *ValveState) bool {
	if !j.waits(v) {
		return false
	}
	return !j.secondKind(v) || j.Phase() == Verify ||
		!slices.ContainsFunc(j.Valves, func(o *ValveState) bool { return !j.secondKind(o) && j.waits(o) })
}

// waits is Pending whatever kind is gone round first.
func (j *Job) waits(v *ValveState) bool {
	switch j.Phase() {
	case AsFound:
		if j.freeing() {
			return v.toFree()
		}
		return v.toRead() || j.asYouGo() && (v.Needs() || v.Stage != Untouched)
	case Adjust:
		return v.Needs() || v.Stage != Untouched
	case Verify:
		return j.toCheck(v)
	}
	return false
}

// BeforeTurning is what is to be done at slackened adjusters before the crank is turned; empty: nothing. With
// its gap wide open a push-rod can leave its seat, and no rocker moves as it should (common practice).
func (j *Job) BeforeTurning(n Next) string {
	if (n.Action != DoTurn && n.Action != DoBarOver) || j.find((*ValveState).slackened) == nil {
		return ""
	}
	return "Run every slackened screw down to light contact, push-rods seated, before the crank is turned."
}

// WaitsFor says which valve somebody else has to be done with before the crank is turned; empty: none.
func (j *Job) WaitsFor(n Next) string {
	if n.Action != DoTurn && n.Action != DoBarOver {
		return ""
	}
	v := j.find(j.elsewhere)
	if v == nil {
		return ""
	}
	return fmt.Sprintf(
		"%s is in somebody else’s hands on another screen. Turn the crank when it is done.",
		v.Name,
	)
}

// maySetNow says whether setting has its time: as one goes, or after the whole engine was read.
func (j *Job) maySetNow() bool {
	return j.asYouGo() || j.Phase() == Adjust
}
