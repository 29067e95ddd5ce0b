package job

// Picked turns to a valve out of turn: it is what is worked on next.
type Picked struct {
	plain
	Valve string
}

// Kind is "picked".
func (Picked) Kind() Kind { return "picked" }

// On is its valve.
func (a Picked) On() string { return a.Valve }

func (a Picked) sound(j *Job) error { return j.has(a.Valve) }

func (a Picked) may(j *Job, _ string) error {
	if err := j.working(); err != nil {
		return err
	}
	return j.alone(j.valve(a.Valve))
}

func (a Picked) do(j *Job) { j.picked = a.Valve }

// ReadsOnly is true.
func (Picked) ReadsOnly() bool { return true }
