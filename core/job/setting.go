package job

import (
	"fmt"
	"strings"

	"metronix/core/clearance"
)

// This file is what is done about a gap: set, locked, or left as it is for a reason.

func (j *Job) mayAdjust(h Happening) error {
	v := j.valve(h)
	if err := j.working(); err != nil {
		return err
	}
	if !v.Out && !h.CamsOut { // a bare valve is open to work on already
		if err := j.inHand(v); err != nil {
			return err
		}
	}
	switch {
	case j.Phase() == AsFound:
		return refuse("valve", "Read every valve as found before any is touched.")
	case j.Sheet.Shimmed() && h.Shim == 0 && (v.Shim > 0 || v.Out):
		return refuse("shim_mm", fmt.Sprintf("Say which shim went under %s.", v.Name))
	case h.Shim < 0 || h.Shim > MaxShim:
		return refuse("shim_mm", notAShim(h.Shim))
	case j.noGiver(v, h) != "":
		return refuse("from", j.noGiver(v, h))
	case j.swapped(v, h): // a good valve gets another shim where the choice over the whole engine wants it
	case v.Stage == Untouched && !v.Out && v.Last != nil && v.Last.Judgement.Verdict == clearance.In:
		return refuse("valve", fmt.Sprintf("%s is in. Leave it alone: disturbing a good valve is a risk.", v.Name))
	}
	return nil
}

func (j *Job) adjust(h Happening) {
	v := j.valve(h)
	v.Adjustments++
	v.reading(nil)
	v.Verified, v.Left, v.before = false, "", j.Owned.Pick(h.Leaves).Thickness()
	if h.Shim > 0 {
		j.fit(v, h)
	}
	v.Stage = NutLoose
	if !j.Sheet.HasLockNut() {
		v.Stage = NutTight
	}
	j.barred, j.picked = false, v.Name
}

func (j *Job) mayLock(h Happening) error {
	if v := j.valve(h); v.Stage != NutLoose {
		return refuse("valve", fmt.Sprintf("The lock nut of %s was not slackened.", v.Name))
	}
	return nil
}

// lock ends setting. The gap before it is the reading with the nut slack; where a leaf was tried and did not drag, it is not known.
func (j *Job) lock(h Happening) {
	v := j.valve(h)
	if len(v.Round) > 0 {
		v.before = 0
		if estimate := j.Judge(v).Estimate; estimate != nil {
			v.before = *estimate
		}
	}
	v.Stage = NutTight
	v.reading(nil)
}

func (j *Job) mayLeave(h Happening) error {
	v := j.valve(h)
	switch {
	case strings.TrimSpace(h.Reason) == "":
		return refuse("reason", "Say why the valve is left: the sheet will show it.")
	case v.Stage == NutLoose:
		return refuse("valve", fmt.Sprintf("The lock nut of %s is slack. Lock it and read it again before it is left.", v.Name))
	case v.Stage == NutTight:
		return refuse("valve", fmt.Sprintf("%s was set and not read since. Read it before it is left.", v.Name))
	case v.Out:
		return refuse("valve", fmt.Sprintf("%s has no shim: it was taken out for another valve. Fit one first.", v.Name))
	case !v.Needs():
		return refuse("valve", fmt.Sprintf("%s is not out of its limits: there is nothing to leave.", v.Name))
	}
	return j.alone(v)
}

func (j *Job) leave(h Happening) {
	v := j.valve(h)
	v.reading(nil)
	v.Left, j.picked = strings.TrimSpace(h.Reason), ""
}
