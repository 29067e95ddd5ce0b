package job

import "fmt"

// Nipped says that a valve's lock nut was nipped up with a ring spanner while a driver held the screw, which
// is the first of two stages of locking; the torque wrench follows (common practice).
//
// A socket on the nut drags the screw round, a ring spanner lets it be held. Between nipping and torque the
// gap may be felt once more. The nut does not count as tight before Locked.
type Nipped struct {
	plain
	Valve string
}

// Kind is "nipped".
func (Nipped) Kind() Kind { return "nipped" }

// On is its valve.
func (a Nipped) On() string { return a.Valve }

func (a Nipped) sound(j *Job) error { return j.has(a.Valve) }

func (a Nipped) may(j *Job, _ string) error {
	switch v := j.valve(a.Valve); {
	case v.Stage != NutLoose:
		return refuse("valve", fmt.Sprintf("The lock nut of %s was not slackened.", v.Name))
	case v.Nipped:
		return refuse("valve",
			fmt.Sprintf("The lock nut of %s is nipped already. Tighten it to its torque.", v.Name))
	}
	return nil
}

// do marks the nut; the valve still waits to be locked.
func (a Nipped) do(j *Job) { j.valve(a.Valve).Nipped = true }
