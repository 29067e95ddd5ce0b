package job

import (
	"fmt"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// Turned says that the crank now stands at a stop of the plan: it was turned there, or found there.
//
// It is refused where turning would do harm or lose something: a lock nut slack at a valve that can still
// be reached, since it may unscrew; a shim missing, since the cam would run on a bare bucket and can lock;
// a reading that is not kept, since its place would be forgotten. It is also refused where the screen that
// sends it was drawn before somebody else moved the crank: "turned to stop 2" is believed only from one
// who saw where it stood.
//
// From here on the crank is known exactly, at the stop, until the engine runs or somebody doubts it.
type Turned struct {
	plain
	Stop int // index into the plan's stops, from 0
}

// Kind is "turned".
func (Turned) Kind() Kind { return "turned" }

func (a Turned) sound(j *Job) error {
	if n := len(j.Plan.Stops); n > 0 && (a.Stop < 0 || a.Stop >= n) {
		return refuse("stop", fmt.Sprintf("There is no stop %d: this sequence has stops 0 to %d.", a.Stop,
			n-1))
	}
	return nil
}

// may refuses a turn that was meant for another place of the crank, with a shim missing, a nut slack or a
// reading not kept.
func (a Turned) may(j *Job, since string) error {
	if at := j.log.since(since); since != "" && (at < 0 || j.log.movedAfter(at, j.screen)) {
		return &Refusal{Field: "stop", Code: CrankMoved,
			Message: "The crank was moved since this screen was drawn. Look where it stands now before it " +
				"is turned."}
	}
	if err := j.working(); err != nil {
		return err
	}
	if v := j.bare(); v != nil {
		return refuse("stop", fmt.Sprintf("%s has no shim: it was taken out for another valve. "+
			"Fit one before the crank is turned.", v.Name))
	}
	if v := j.nutLoose(); v != nil && (j.Settable(v) || a.Stop != j.stopFor(v)) {
		return refuse("stop", fmt.Sprintf("The lock nut of %s is slack. Lock it before the crank is turned.",
			v.Name))
	}
	if v := j.unkept(); v != nil && j.Known() {
		return refuse("stop", fmt.Sprintf("%s has a reading that is not kept. "+
			"Keep it or take it back before the crank is turned.", v.Name))
	}
	return nil
}

func (a Turned) do(j *Job) {
	if len(j.Plan.Stops) == 0 {
		return
	}
	by := measure.Angle(0)
	if j.sureOfPlace() {
		by = j.turnTo(a.Stop)
	}
	j.turnOver(a.Stop, by)
}

// turnOver brings the crank to a stop by so much in the way of turning.
func (j *Job) turnOver(stop int, by measure.Angle) {
	j.takeAt(sequence.Exactly(j.Plan.Stops[stop].Crank))
	j.travel += by
	j.standingThere()
	j.Stop, j.StopSince = stop, j.now
}

func (Turned) moves() bool { return true }
