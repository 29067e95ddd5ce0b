package job

import "time"

// apply takes one happening in; where it was accepted before, only what makes no sense at all is refused. On
// a refusal nothing is changed.
func (j *Job) apply(h Happening, accepted bool) error {
	if h.Act == nil {
		return refuse("kind", "It does not say what was done.")
	}
	if err := h.Act.sound(j); err != nil {
		return err
	}
	at, doubt := j.when(h)
	j.screen, j.taking = h.Screen, h.ID
	before := j.pause
	j.rest(at)
	was := j.now
	j.now = at
	if !accepted {
		if err := j.may(h); err != nil {
			j.pause, j.now = before, was
			return err
		}
	}
	j.doubtful, j.keepsClose = doubt, h.by(closeRules)
	j.putBack = j.putBack || at.Before(j.last.Add(-clockSlack))
	if resumes(h.Act) {
		j.Waits = Deferral{}
	}
	h.Act.do(j)
	if h.Act.moves() && h.by(lateRules) {
		j.toldLate(h)
	}
	if v, ok := j.Valve(h.Act.On()); ok {
		v.by = h.Screen
	}
	j.chosen = nil
	j.last = at
	j.effective, j.list = append(j.effective, h), append(j.list, h)
	j.log.note(h, j)
	return nil
}

// may says whether today's rules take a happening now.
func (j *Job) may(h Happening) error {
	_, hot := h.Act.(WentHot)
	if j.SignedBy != "" && !(hot && j.Provisional()) && !j.afterSigning(h.Act) {
		if h.Act.moves() && !h.DoneAt.IsZero() && h.DoneAt.Before(j.last) {
			return refuse("kind", "The job was signed before this was told. What was read after the crank was moved was perhaps read "+
				"elsewhere: amend the sheet, and read those valves again in a new job.")
		}
		return refuse("kind", "The job is signed. What is signed stays as it is: start a new job.")
	}
	return h.Act.may(j, h.Since)
}

// afterSigning says that an act adds to a signed job and changes nothing of it: a note, a second signature,
// and what comes after the sealant has cured, by whoever is there then: the start, how it sounds, the road
// test (common practice).
func (j *Job) afterSigning(a Act) bool {
	switch a := a.(type) {
	case Amended, Countersigned:
		return true
	case TaskMarked:
		return j.Phase() == Done && a.addsTo(j)
	case SoundNoted:
		return j.Phase() == Done && a.After
	}
	return false
}

// when is the time at which a happening counts, and whether that is in doubt because the client's word for it
// cannot be right.
func (j *Job) when(h Happening) (at time.Time, doubt bool) {
	switch {
	case h.At.IsZero():
		return j.last, false
	case h.DoneAt.IsZero():
		return h.At, false
	case !h.believable(), h.DoneAt.Before(j.last.Add(-clockSlack)):
		return h.At, true
	case h.DoneAt.After(h.At):
		return h.At, false
	}
	return h.DoneAt, false
}
