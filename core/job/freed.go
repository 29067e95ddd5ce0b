package job

import "fmt"

// Freed says that a valve's lock nut was slackened and its adjuster found to turn, before any is set.
//
// After a rebuild, with a new cam or with screws that sat for years, all adjusters are freed first and the
// engine is then gone round and set. Nothing is read before, so there is no as-found figure; where one is
// wanted, the valve is read instead. A freed valve is set, locked and read like any other, and the job is not
// finished before: its nut is slack.
//
// It is done where the engine stands, wherever that is: nothing is read. At a valve that is clear nut and
// screw, at one that is held open, whose spring bears on the screw, the nut only is cracked. An eccentric or
// a finger follower can fall out, and is slackened at its own stop as it is set.
type Freed struct {
	plain
	Valve string
}

// Kind is "freed".
func (Freed) Kind() Kind { return "freed" }

// On is its valve.
func (a Freed) On() string { return a.Valve }

func (a Freed) sound(j *Job) error { return j.has(a.Valve) }

// may slackens before a reading only in the round that frees everything first.
func (a Freed) may(j *Job, _ string) error {
	v := j.valve(a.Valve)
	if !j.freesAtOnce() && j.Going == FreeFirst {
		if err := j.inHand(v); err != nil {
			return err
		}
	}
	if err := j.working(); err != nil {
		return err
	}
	if err := j.alone(v); err != nil {
		return err
	}
	switch {
	case j.Going != FreeFirst:
		return refuse("valve",
			"Only a round that frees all adjusters first slackens a valve that was not read.")
	case !v.toFree():
		return refuse("valve", fmt.Sprintf("%s is past being slackened: it was read, set or left.", v.Name))
	}
	return nil
}

// do marks the valve as freed: it has no figure as found, and the sheet says so.
func (a Freed) do(j *Job) {
	v := j.valve(a.Valve)
	v.Freed, v.Verified = true, false
	j.pick("")
}

func (a Freed) closes(*Job) string { return a.Valve }
