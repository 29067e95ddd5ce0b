package job

import (
	"fmt"
	"strings"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

// Adjusted says that a valve's adjuster was moved, and is not locked yet where it has a lock nut.
//
// Only a valve that is out is touched. One that is in stays, because every turn of a screw is a chance to
// lose a good setting, unless a reason is given, which the sheet shows: all are to come to the aim, say.
// Swapping shims over a whole engine needs none, where moving a good valve's shim saves buying one.
//
// Readings of it that are not kept yet are kept by this, as they stand: one leaf that shows the side is
// enough to go on to setting, whatever the rule, and so an undecided valve may be set.
//
// From here to Locked the nut is slack. Readings with the nut slack are how the screw is brought to the
// leaf; they are no result, and the first reading that counts comes after locking. A shimmed engine has no
// nut: its shim is in, and is read as it is.
type Adjusted struct {
	plain
	Valve  string
	Leaves []gauge.ID     // it was set by; none: not said
	Shim   measure.Length // that went in; 0: none, or not said
	From   string         // the valve that shim came from; empty: from the loose ones, or the shop
	// Reason is why a valve that is in is set all the same: to bring it to the aim, or another; empty: there
	// is none
	Reason string
	// StandIn says that the shim only stands in for the valve's own, which serves another valve at another
	// stop, so that the crank may be turned: nothing is set by it, and the valve still waits for the one that
	// stays
	StandIn bool
	// CamsOut says that every shim can be reached, whatever the crank.
	CamsOut bool
}

// Kind is "adjusted".
func (Adjusted) Kind() Kind { return "adjusted" }

// On is its valve.
func (a Adjusted) On() string { return a.Valve }

func (a Adjusted) sound(j *Job) error { return j.has(a.Valve) }

func (a Adjusted) may(j *Job, _ string) error {
	v := j.valve(a.Valve)
	if err := j.working(); err != nil {
		return err
	}
	if !v.Out && !a.CamsOut { // a bare valve is open to work on already
		if err := j.inHand(v); err != nil {
			return err
		}
	}
	switch {
	case j.Going == ReadOnly:
		return refuse("valve", "This round only reads. Choose another round before a valve is set.")
	case j.asYouGo() && v.unread() && !v.Out && !v.slackened() && len(v.Round) == 0:
		return refuse("valve", fmt.Sprintf("Read %s as found before it is touched.", v.Name))
	case !j.asYouGo() && j.Phase() == AsFound && !v.slackened():
		return refuse("valve", "Read every valve as found before any is touched.")
	case j.Sheet.Shimmed() && a.Shim == 0 && (v.Shim > 0 || v.Out):
		return refuse("shim_mm", fmt.Sprintf("Say which shim went under %s.", v.Name))
	case a.Shim < 0 || a.Shim > MaxShim:
		return refuse("shim_mm", notAShim(a.Shim))
	case a.noGiver(j) != "":
		return refuse("from", a.noGiver(j))
	case a.StandIn && (!j.Sheet.Shimmed() || v.ownShim() == 0):
		return refuse("stand_in", "Only where a known shim comes out does another stand in for it.")
	case a.StandIn && a.Shim > v.ownShim():
		return refuse("shim_mm",
			fmt.Sprintf("%s is thicker than the %s it stands in for: it may hold the valve open.",
				a.Shim, v.ownShim()))
	case a.StandIn:
	case a.swaps(j): // a good valve gets another shim where the choice over the whole engine wants it
	case v.Stage != NutLoose && j.Found(v).Conflict != "":
		return refuse("valve", j.Found(v).Conflict)
	case v.toKeep() && j.stale(v.readAt):
		return refuse("valve",
			fmt.Sprintf("The reading of %s came later than the hot figures hold. Keep it, then run "+
				"the engine warm again.", v.Name))
	case v.Stage == Untouched && !v.Out && j.Found(v).Verdict == clearance.In && !v.Needs() &&
		strings.TrimSpace(a.Reason) == "":
		return refuse("valve", fmt.Sprintf("%s is in. Leave it alone: disturbing a good valve is a risk.",
			v.Name))
	}
	return nil
}

func (a Adjusted) do(j *Job) {
	v := j.valve(a.Valve)
	if v.toKeep() {
		Kept{Valve: a.Valve}.do(j)
	}
	j.picked = ""
	if a.StandIn { // nothing is set
		v.Verified = false
		j.fit(v, a)
		return
	}
	v.Adjustments++
	v.Outside = false
	if reason := strings.TrimSpace(a.Reason); reason != "" {
		v.SetFor = reason
	}
	v.reading(nil)
	v.PutOff = Deferral{}
	v.Verified, v.LeaveReason, v.before = false, "", j.Owned.Pick(a.Leaves).Thickness()
	if a.Shim > 0 {
		j.fit(v, a)
	}
	v.Stage, v.Nipped, v.LockedBy = NutLoose, false, ""
	j.unfelt(v.Name)
	if !j.Sheet.HasLockNut() {
		v.Stage = NutTight
	}
	j.barred, j.picked = false, v.Name
}

func (a Adjusted) closes(*Job) string { return a.Valve }

// noGiver says why a shim cannot come from the valve it is said to come from; empty where it can.
func (a Adjusted) noGiver(j *Job) string {
	if a.From == "" || a.From == a.Valve {
		return ""
	}
	giver, ok := j.Valve(a.From)
	switch {
	case !ok:
		return fmt.Sprintf("%q is no valve of this engine.", a.From)
	case giver.Out || giver.Shim != a.Shim:
		return fmt.Sprintf("%s does not have a shim of %s to give.", giver.Name, a.Shim)
	case !a.CamsOut && !j.Settable(giver):
		return fmt.Sprintf("%s is not clear of its lobe here: its shim cannot be taken out. Take it out at "+
			"its own stop "+
			"with a stand-in in its place, or with the cams out.", giver.Name)
	}
	return ""
}

// swaps says that a valve of a shimmed engine gets another shim than it has.
func (a Adjusted) swaps(j *Job) bool {
	return j.Sheet.Shimmed() && a.Shim > 0 && a.Shim != j.valve(a.Valve).Shim
}
