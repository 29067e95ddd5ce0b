package job

import (
	"fmt"

	"metronix/core/around"
)

// NutFelt ticks one lock nut off: it was felt once more and is tight; or takes that back. When all are, the
// step is done.
//
// Untouched nuts are felt too (common practice): one that somebody left slack years ago comes off in the same
// way.
type NutFelt struct {
	plain
	Valve string
	Back  bool
}

// Kind is "nut_felt".
func (NutFelt) Kind() Kind { return "nut_felt" }

// On is the valve.
func (a NutFelt) On() string { return a.Valve }

func (a NutFelt) sound(j *Job) error {
	if _, ok := j.Valve(a.Valve); !ok {
		return refuse("valve", fmt.Sprintf("%q is no valve of this engine.", a.Valve))
	}
	if !j.Sheet.HasLockNut() {
		return refuse("valve", "The adjusters of this engine have no lock nut.")
	}
	return nil
}

// may refuses to feel a nut tight that is known to be slack.
func (a NutFelt) may(j *Job, _ string) error {
	if v, _ := j.Valve(a.Valve); !a.Back && v.Stage == NutLoose {
		return refuse("valve", "The lock nut of "+a.Valve+" is slack. Lock it, and read the valve again.")
	}
	return nil
}

// do ticks the nut, and the step once all are ticked. A step that was ticked at one go stays ticked while
// single nuts are tapped after it; only a nut that is taken back makes it wait again.
func (a NutFelt) do(j *Job) {
	j.FeelNut(a.Valve, !a.Back)
	switch all, marked := len(j.Around().Felt()) == len(j.Valves), j.Marked(around.NutsStep).Marked; {
	case all && !marked:
		TaskMarked{Task: around.NutsStep}.do(j)
	case a.Back && marked:
		TaskMarked{Task: around.NutsStep, Back: true}.do(j)
	}
}

// unfelt makes a lock nut wait again that was slackened after it was felt, and the step with it.
func (j *Job) unfelt(valve string) {
	if j.NutFelt(valve) {
		NutFelt{Valve: valve, Back: true}.do(j)
	} else if j.Marked(around.NutsStep).Marked {
		TaskMarked{Task: around.NutsStep, Back: true}.do(j)
	}
}
