package job

import "fmt"

// Locked says that a valve's lock nut is tight, which ends setting. The gap before it is the reading with the
// nut slack; where a leaf was tried and did not drag, it is not known.
//
// Tightening drags the screw round and moves the gap, mostly tighter by a hundredth or two. So no valve is
// finished by being set: it is read again with its nut tight, and the difference teaches what to allow for
// next time.
type Locked struct {
	plain
	Valve string
	By    LockedBy // empty: not said
}

// Kind is "locked".
func (Locked) Kind() Kind { return "locked" }

// On is its valve.
func (a Locked) On() string { return a.Valve }

func (a Locked) sound(j *Job) error {
	switch a.By {
	case "", ByTorque, ByFeel:
		return j.has(a.Valve)
	}
	return refuse("by", fmt.Sprintf("%q is no way of tightening: %s or %s.", a.By, ByTorque, ByFeel))
}

func (a Locked) may(j *Job, _ string) error {
	if v := j.valve(a.Valve); v.Stage != NutLoose {
		return refuse("valve", fmt.Sprintf("The lock nut of %s was not slackened.", v.Name))
	}
	return nil
}

// do remembers the gap before, for learning what the nut does, and asks for a reading after.
func (a Locked) do(j *Job) {
	v := j.valve(a.Valve)
	if len(v.Round) > 0 {
		v.before = 0
		if estimate := j.Judge(v).Estimate; estimate != nil {
			v.before = *estimate
		}
	}
	v.Stage, v.Nipped, v.LockedBy, v.tightAt = NutTight, false, a.By, j.travel
	v.reading(nil)
}

func (a Locked) closes(*Job) string { return a.Valve }
