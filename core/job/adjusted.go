package job

import (
	"fmt"
	"slices"
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

// may asks each reason not to move an adjuster in turn.
func (a Adjusted) may(j *Job, _ string) error {
	for _, refused := range notAdjusted {
		if err := refused(a, j, j.valve(a.Valve)); err != nil {
			return err
		}
	}
	return nil
}

// do keeps what was read before, counts the setting, and slackens: from here the valve waits to be locked, or
// read again where nothing is locked. A shim that only stands in sets nothing.
func (a Adjusted) do(j *Job) {
	v := j.valve(a.Valve)
	if v.toKeep() {
		Kept{Valve: a.Valve}.do(j)
	}
	j.pick("")
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
		v.Stage, v.tightAt = NutTight, j.travel
	}
	j.pick(v.Name)
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

// notAdjusted are the reasons for which an adjuster is not moved, in the order in which they are told.
var notAdjusted = []func(Adjusted, *Job, *ValveState) error{
	Adjusted.notYet, Adjusted.outOfReach, Adjusted.onlyRead, Adjusted.unread, Adjusted.othersUnread,
	Adjusted.whichShim, Adjusted.noShimSoThick, Adjusted.noGiverHere, Adjusted.nothingToStandInFor, Adjusted.standsTooThick,
	Adjusted.disagree, Adjusted.tooLate, Adjusted.goodAlready,
}

// The refusals, in the order in which they are asked (mayNotSet). Each is one reason, so that the sentence is
// about what is really in the way.
func (a Adjusted) notYet(j *Job, _ *ValveState) error { return j.working() }

// outOfReach: a bare valve is open to work on already.
func (a Adjusted) outOfReach(j *Job, v *ValveState) error {
	if v.Out || a.CamsOut {
		return nil
	}
	return j.inHand(v)
}

func (a Adjusted) onlyRead(j *Job, _ *ValveState) error {
	return refuseIf(j.Going == ReadOnly, "valve",
		"This round only reads. Choose another round before a valve is set.")
}

// unread protects the as-found figure: once an adjuster is touched nobody can ever read it again.
func (a Adjusted) unread(j *Job, v *ValveState) error {
	return refuseIf(j.asYouGo() && v.unread() && !v.Out && !v.slackened() && len(v.Round) == 0, "valve",
		"Read "+v.Name+" as found before it is touched.")
}

// othersUnread is the same for rounds that read the whole engine first.
func (a Adjusted) othersUnread(j *Job, v *ValveState) error {
	return refuseIf(!j.asYouGo() && j.Phase() == AsFound && !v.slackened(), "valve",
		"Read every valve as found before any is touched.")
}

func (a Adjusted) whichShim(j *Job, v *ValveState) error {
	return refuseIf(j.Sheet.Shimmed() && a.Shim == 0 && (v.Shim > 0 || v.Out), "shim_mm",
		"Say which shim went under "+v.Name+".")
}

func (a Adjusted) noShimSoThick(*Job, *ValveState) error {
	return refuseIf(a.Shim < 0 || a.Shim > MaxShim, "shim_mm", notAShim(a.Shim))
}

func (a Adjusted) noGiverHere(j *Job, _ *ValveState) error {
	why := a.noGiver(j)
	return refuseIf(why != "", "from", why)
}

// nothingToStandInFor: a stand-in is for a shim that is known, and comes out.
func (a Adjusted) nothingToStandInFor(j *Job, v *ValveState) error {
	return refuseIf(a.StandIn && (!j.Sheet.Shimmed() || v.ownShim() == 0), "stand_in",
		"Only where a known shim comes out does another stand in for it.")
}

// standsTooThick keeps a stand-in from holding its valve open while the crank turns.
func (a Adjusted) standsTooThick(_ *Job, v *ValveState) error {
	return refuseIf(
		a.StandIn && a.Shim > v.ownShim(),
		"shim_mm",
		fmt.Sprintf(
			"%s is thicker than the %s it stands in for: it may hold the valve open.",
			a.Shim,
			v.ownShim(),
		),
	)
}

// byReading says that the valve is set because of what was read of it: it is no stand-in, and no good valve
// that gets another shim where the choice over the whole engine wants it.
func (a Adjusted) byReading(j *Job) bool { return !a.StandIn && !a.swaps(j) }

func (a Adjusted) disagree(j *Job, v *ValveState) error {
	why := j.Found(v).Conflict
	return refuseIf(a.byReading(j) && v.Stage != NutLoose && why != "", "valve", why)
}

// tooLate keeps a valve from being set by a reading of an engine that has cooled since.
func (a Adjusted) tooLate(j *Job, v *ValveState) error {
	return refuseIf(
		a.byReading(j) && v.toKeep() && j.stale(v.readAt),
		"valve",
		fmt.Sprintf(
			"The reading of %s came later than the hot figures hold. Keep it, then run the engine warm again.",
			v.Name,
		),
	)
}

// goodAlready protects a good valve: each disturbance is a chance of a slack nut.
func (a Adjusted) goodAlready(j *Job, v *ValveState) error {
	good := v.Stage == Untouched && !v.Out && j.Found(v).Verdict == clearance.In && !v.Needs()
	return refuseIf(a.byReading(j) && good && strings.TrimSpace(a.Reason) == "", "valve",
		v.Name+" is in. Leave it alone: disturbing a good valve is a risk.")
}

// fit puts a shim under a valve: it leaves its giver, the bench, or the shop, and the one that was there
// comes onto the bench. A giver has to be read again, once it has a shim.
func (j *Job) fit(v *ValveState, a Adjusted) {
	giver, given := j.Valve(a.From)
	lent := false
	v.remember()
	if v.Shim > 0 && !v.StandIn && a.Shim != v.Shim {
		v.hadUnder = append(slices.Clone(v.hadUnder), v.Shim)
	}
	v.stoodIn = v.stoodIn || a.StandIn
	switch {
	case v.StandIn && !a.StandIn && v.Shim == a.Shim && a.From == "": // the one that stood in stays
		v.StandIn, v.lent = false, false
		return
	case given && giver != v:
		giver.Out, giver.Shim, giver.Verified = true, 0, false
	case !v.Out && v.Shim == a.Shim && !a.StandIn && !v.StandIn: // the one it has, taken out and put back
		return
	default:
		if i := slices.Index(j.LooseShims, a.Shim); i >= 0 {
			j.LooseShims = slices.Delete(slices.Clone(j.LooseShims), i, i+1)
		} else {
			lent = true
			j.FromShop = append(slices.Clone(j.FromShop), ShopShim{a.Shim, j.now})
		}
	}
	switch {
	case v.StandIn && v.lent: // it goes back to the shop
		if i := slices.IndexFunc(j.FromShop, func(s ShopShim) bool { return s.Shim == v.Shim }); i >= 0 {
			j.FromShop = slices.Delete(slices.Clone(j.FromShop), i, i+1)
		}
	case v.Shim > 0:
		j.LooseShims = append(slices.Clone(j.LooseShims), v.Shim)
	}
	v.Stamped = 0
	v.Shim, v.Out, v.StandIn, v.lent = a.Shim, false, a.StandIn, a.StandIn && lent
}
