package job

import (
	"cmp"
	"fmt"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// WayChosen chooses the sequence in which the valves are worked on, or another one later on.
//
// Needs a sequence that applies to this engine, and no lock nut slack: changing the order of work is no
// moment to forget one. Every reading is kept, since a reading belongs to its valve and not to a stop.
// Where the crank is known and stands at a stop of the new sequence, that stop is where the job goes on;
// elsewhere the next thing is to turn.
//
// The plan is computed anew from the sheet and the choice, and never stored: a sheet that was copied into
// the job cannot change under it, so that the same choice always gives the same plan.
type WayChosen struct {
	plain
	sequence.Way
	Round // how the engine is gone round; what is left empty is as before
}

// Kind is "way_chosen".
func (WayChosen) Kind() Kind { return "way_chosen" }

func (a WayChosen) sound(j *Job) error {
	if err := a.Round.sound(j); err != nil {
		return err
	}
	plan, err := j.planOf(a.Way)
	switch {
	case err != nil:
		return refuse("school", err.Error())
	case !plan.Applies:
		return refuse("school", plan.Reason)
	}
	return nil
}

func (a WayChosen) may(j *Job, _ string) error {
	if plan, err := sequence.Make(j.Sheet, sequence.Request{Way: a.Way}); err != nil || !plan.Applies {
		return refuse("school", plan.Reason)
	}
	if v := j.nutLoose(); v != nil {
		return refuse("school", fmt.Sprintf("The lock nut of %s is slack. Lock it before changing the "+
			"sequence.", v.Name))
	}
	return a.Round.may(j)
}

func (a WayChosen) do(j *Job) {
	plan, _ := j.planOf(a.Way)
	j.Way, j.Plan = a.Way, plan
	round := Round{cmp.Or(a.Going, j.Going), cmp.Or(a.Check, j.Check), cmp.Or(a.KindFirst, j.KindFirst),
		cmp.Or(a.CheckTurns, j.CheckTurns), a.Scope, cmp.Or(a.ToAim, j.ToAim)}
	if a.Scope == nil {
		round.Scope = j.Scope
	}
	j.goRound(round)
	j.Stop = j.stopHere()
}

func (WayChosen) moves() bool { return true }

// planOf is the plan of a sequence. One that was accepted when angles were compared less exactly is planned a
// hair laxer.
func (j *Job) planOf(way sequence.Way) (sequence.Plan, error) {
	plan, err := sequence.Make(j.Sheet, sequence.Request{Way: way})
	if err != nil || plan.Applies {
		return plan, err
	}
	laxer := j.required - 10*measure.SameAngle
	again, err := sequence.Make(j.Sheet, sequence.Request{Way: way, RequiredMargin: &laxer})
	if err == nil && again.Applies {
		return again, nil
	}
	return plan, nil
}
