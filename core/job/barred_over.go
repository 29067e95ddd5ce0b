package job

import (
	"fmt"
)

// BarredOver is two full turns of the crank, or four, before the check pass.
//
// Two turns of the crank are one of the cam: every follower goes over its lobe once and what was laid in
// oil or held by friction settles. Then every valve is read once more, and every lock nut is felt.
type BarredOver struct {
	plain
	// Stop is the index of the stop at which the crank came to rest after them; nil: where it stood before
	Stop *int
}

// Kind is "barred_over".
func (BarredOver) Kind() Kind { return "barred_over" }

func (a BarredOver) sound(j *Job) error {
	if a.Stop == nil {
		return nil
	}
	return Turned{Stop: *a.Stop}.sound(j)
}

// may asks that nothing is begun: a slack nut turned over twice is a nut on the floor.
func (a BarredOver) may(j *Job, since string) error {
	turns := FullTurns(j.TurnsToCheck())
	if j.Phase() != Verify {
		return refuse("kind", fmt.Sprintf("The %s come after every valve is adjusted and locked.", turns))
	}
	if err := j.nothingBegun("the " + turns); err != nil || a.Stop == nil {
		return err
	}
	if !j.Sure() {
		return refuse("stop", "Nobody knows where the crank stands: find it again first.")
	}
	return Turned{Stop: *a.Stop}.may(j, since)
}

// do counts what was led where these are the turns that were led, else the full turns and on to the stop.
func (a BarredOver) do(j *Job) {
	by := j.toTurn()
	if n := j.toCheckNext(); a.Stop != nil && n.Action == DoBarOver && n.Stop == *a.Stop {
		by = n.Turn
	} else if a.Stop != nil && j.Sure() && len(j.Plan.Stops) > 0 {
		by += j.turnTo(*a.Stop)
	}
	j.checked = true
	if a.Stop == nil || len(j.Plan.Stops) == 0 {
		j.travel += by
		return
	}
	j.turnOver(*a.Stop, by)
}

func (BarredOver) moves() bool { return true }
