package job

import (
	"fmt"
	"slices"
)

// RoundChosen chooses how the engine is gone round, and what is checked at the end. It may be changed at any
// time before the job is signed: readings belong to their valves and stay, and what is next follows from what
// is still to do.
//
// A shimmed engine is always read first (or only): which shim goes where is chosen over the whole engine.
// While a valve's nut is slack nothing can be changed to a round that sets nothing.
type RoundChosen struct {
	plain
	Going Going // empty: ReadFirst
	Check Check // empty: CheckAll
}

// Kind is "round_chosen".
func (RoundChosen) Kind() Kind { return "round_chosen" }

func (a RoundChosen) sound(j *Job) error {
	switch may := slices.Contains(j.Rounds(), a.Going); {
	case a.Going == "", may:
	case a.Going == SetAsYouGo:
		return refuse("round", "Shims are chosen over the whole engine, so every valve is read first.")
	default:
		return refuse("round",
			fmt.Sprintf("%q is no round: %s, %s or %s.", a.Going, SetAsYouGo, ReadFirst, ReadOnly))
	}
	switch a.Check {
	case "", CheckAll, CheckSetOnes, CheckNone:
		return nil
	}
	return refuse("check",
		fmt.Sprintf("%q is no check round: %s, %s or %s.", a.Check, CheckAll, CheckSetOnes, CheckNone))
}

func (a RoundChosen) may(j *Job, _ string) error {
	if a.Going != ReadOnly {
		return nil
	}
	if v := j.find(func(v *ValveState) bool { return v.Stage != Untouched || v.Out }); v != nil {
		return refuse("round", fmt.Sprintf("Finish %s first: %s.", v.Name, v.unfinished()))
	}
	return nil
}

func (a RoundChosen) do(j *Job) { j.Going, j.Check = a.Going, a.Check }
