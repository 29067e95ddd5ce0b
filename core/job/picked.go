package job

// Picked turns to a valve out of turn: it is what is worked on next.
//
// Any valve that stands clear may be taken up, and one that does not may be chosen to be looked at; what
// may be done with it is said when it is done. A valve in the middle of its adjustment is finished first:
// it holds a slack nut.
type Picked struct {
	plain
	Valve string
}

// Kind is "picked".
func (Picked) Kind() Kind { return "picked" }

// On is its valve.
func (a Picked) On() string { return a.Valve }

func (a Picked) sound(j *Job) error { return j.has(a.Valve) }

// may takes a valve in hand where no other one must be finished first.
func (a Picked) may(j *Job, _ string) error {
	if err := j.mayTake(); err != nil {
		return err
	}
	return j.alone(j.valve(a.Valve))
}

// mayTake refuses to take any valve up before the sequence is chosen and the gate passed. With every valve
// done the gate may be shut: to take one up again asks for it.
func (j *Job) mayTake() error {
	if j.Phase() == Sign {
		return nil
	}
	return j.working()
}

// MayTake says that any valve may be taken up now, whether it stands clear or not.
func (j *Job) MayTake() bool { return j.SignedBy == "" && j.mayTake() == nil }

func (a Picked) do(j *Job) { j.pick(a.Valve) }

// ReadsOnly is true.
func (Picked) ReadsOnly() bool { return true }
