package job

import (
	"cmp"
	"fmt"
	"strings"

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
	// BackReason is why the crank is turned back though the sheet does not allow it; empty: it is not
	BackReason string
	Round      // how the engine is gone round; what is left empty is as before
}

// Kind is "way_chosen".
func (WayChosen) Kind() Kind { return "way_chosen" }

func (a WayChosen) sound(j *Job) error {
	if err := a.Round.Sound(j); err != nil {
		return err
	}
	plan, err := j.planOf(a)
	switch {
	case err != nil:
		return refuse("school", err.Error())
	case !plan.Applies:
		return refuse("school", plan.Reason)
	}
	return nil
}

// may plans by today's rules, where sound replays by what was stored.
func (a WayChosen) may(j *Job, _ string) error {
	if plan, err := sequence.Make(j.Sheet, a.request()); err != nil || !plan.Applies {
		return refuse("school", plan.Reason)
	}
	if v := j.nutLoose(); v != nil {
		return refuse("school", fmt.Sprintf("The lock nut of %s is slack. Lock it before changing the "+
			"sequence.", v.Name))
	}
	return a.Round.may(j)
}

// do changes the sequence in the middle of a job too: what was read stays, and what is not said stays as it
// was.
func (a WayChosen) do(j *Job) {
	plan, _ := j.planOf(a)
	j.BackReason = ""
	if a.Direction == sequence.Back && !j.Sheet.MayTurnBack {
		j.BackReason = strings.TrimSpace(a.BackReason)
	}
	if a.Direction != j.Way.Direction {
		j.countAnew()
	}
	j.Way, j.Plan = a.Way, plan
	round := Round{cmp.Or(a.Going, j.Going), cmp.Or(a.Check, j.Check), cmp.Or(a.KindFirst, j.KindFirst),
		cmp.Or(a.CheckTurns, j.CheckTurns), a.Scope, cmp.Or(a.Locking, j.Locking),
		cmp.Or(a.OwnShift, j.OwnShift), cmp.Or(a.ToAim, j.ToAim)}
	if a.Scope == nil {
		round.Scope = j.Scope
	}
	j.goRound(round)
	j.Stop = j.stopHere()
}

func (WayChosen) moves() bool { return true }

// request is the sequence with what its reason allows.
func (a WayChosen) request() sequence.Request {
	return sequence.Request{Way: a.Way, BackAllowed: strings.TrimSpace(a.BackReason) != ""}
}

// planOf is the plan of a sequence. One that was accepted when angles were compared less exactly is planned a
// hair laxer.
func (j *Job) planOf(a WayChosen) (sequence.Plan, error) {
	q := a.request()
	plan, err := sequence.Make(j.Sheet, q)
	if err != nil || plan.Applies {
		return plan, err
	}
	laxer := j.required - 10*measure.SameAngle
	q.RequiredMargin = &laxer
	again, err := sequence.Make(j.Sheet, q)
	if err == nil && again.Applies {
		return again, nil
	}
	return plan, nil
}
