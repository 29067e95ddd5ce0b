package job

import (
	"fmt"
	"slices"
)

// Withdrawn takes back one reading that is not kept yet, whichever is trusted least.
//
// A slip of the thumb should cost one tap and never a wrong verdict; where readings contradict each other
// this is how they are made to agree. Once a valve is kept its readings stand, and are changed by reading
// it again.
type Withdrawn struct {
	plain
	Valve string
	Index int // of the reading in the valve's round, from 0
}

// Kind is "withdrawn".
func (Withdrawn) Kind() Kind { return "withdrawn" }

// On is its valve.
func (a Withdrawn) On() string { return a.Valve }

func (a Withdrawn) sound(j *Job) error {
	if err := j.has(a.Valve); err != nil {
		return err
	}
	if n := len(j.valve(a.Valve).Round); a.Index < 0 || a.Index >= n {
		return refuse("index", fmt.Sprintf("%s has no reading %d to take back.", a.Valve, a.Index+1))
	}
	return nil
}

func (a Withdrawn) may(j *Job, _ string) error { return j.alone(j.valve(a.Valve)) }

func (a Withdrawn) do(j *Job) {
	v := j.valve(a.Valve)
	v.reading(slices.Delete(slices.Clone(v.Round), a.Index, a.Index+1))
}

// ReadsOnly is true.
func (Withdrawn) ReadsOnly() bool { return true }
