package job

import (
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Turns of the crank are counted for each valve from when its own nut was made tight, and for one that was
// left alone from when it was read: two turns since then are enough for a check, and going round once more
// gives them to every valve (common practice).
//
// They are net and one way: rocking to and fro counts nothing. They begin anew where the crank's place is
// lost, or where the way of turning changes, because nobody can say then how far it went.

// turnsSince is how far the crank was turned since a valve's nut was made tight.
func (j *Job) turnsSince(v *ValveState) measure.Angle { return j.travel - v.tightAt }

// turnedEnough says that a valve was turned over its lobe often enough to be checked.
func (j *Job) turnedEnough(v *ValveState) bool { return j.turnsSince(v) >= j.toTurn() }

// toTurn is how far the crank is turned before a valve is checked.
func (j *Job) toTurn() measure.Angle { return measure.Turn * measure.Angle(j.TurnsToCheck()) }

// countAnew forgets how far the crank was turned.
func (j *Job) countAnew() {
	for _, v := range j.Valves {
		v.tightAt = j.travel
	}
}

// sureOfPlace says that the crank's place is known without a doubt, so that a movement from it can be
// counted. After hours in which anybody may have turned it the count begins anew.
func (j *Job) sureOfPlace() bool {
	if j.Crank.Known && j.pause.confirm {
		j.countAnew()
	}
	return j.Sure()
}

// turnedBy counts a movement of the crank from one place to another that was not led: forwards where that is
// the shorter way, else a step back.
func (j *Job) turnedBy(from, to measure.Angle) {
	on := sequence.TurnBetween(from, to, j.Way.Direction)
	if on > measure.Cycle/2 {
		on -= measure.Cycle
	}
	j.travel += on
}
