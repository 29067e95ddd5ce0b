package job

// RoundChosen chooses how the engine is gone round, which valves, and what is checked at the end. It may be
// changed at any time before the job is signed: readings belong to their valves and stay, and what is next
// follows from what is still to do.
//
// A shimmed engine is always read first (or only): which shim goes where is chosen over the whole engine.
// While a valve's nut is slack nothing can be changed to a round that sets nothing, or leaves that valve out.
type RoundChosen struct {
	plain
	Round
}

// Kind is "round_chosen".
func (RoundChosen) Kind() Kind { return "round_chosen" }

func (a RoundChosen) sound(j *Job) error { return a.Round.Sound(j) }

func (a RoundChosen) may(j *Job, _ string) error { return a.Round.may(j) }

func (a RoundChosen) do(j *Job) { j.goRound(a.Round) }
