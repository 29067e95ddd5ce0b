package job

import (
	"fmt"

	"metronix/core/clearance"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// This file is what readings by leaf and by dial have in common.

// mostReadings bounds the readings of one round: more tell nothing more, and each costs time to weigh.
const mostReadings = 200

// mayRead holds for leaves and dials alike.
func (j *Job) mayRead(valve string, madeThere bool, since string) error {
	if err := j.outdated(valve, madeThere, since); err != nil {
		return err
	}
	v := j.valve(valve)
	if len(v.Round) >= mostReadings {
		return refuse("valve", fmt.Sprintf("%s has %d readings already. Keep them, or take some back.",
			v.Name, len(v.Round)))
	}
	if !madeThere {
		return j.inHand(v)
	}
	if err := j.working(); err != nil {
		return err
	}
	margin, ok := j.clearThere(v, since)
	if !ok {
		return refuse("valve", fmt.Sprintf("%s was not known to be clear of its lobe where this reading "+
			"was made (%s). "+
			"Read it again.", v.Name, margin))
	}
	return j.alone(v)
}

// addReading adds a reading to those of its valve, which stays in hand.
func (j *Job) addReading(valve string, madeThere bool, r clearance.Reading) {
	v := j.valve(valve)
	v.reading(append(v.Round, r))
	v.readAt, v.readDoubt, v.readBy = j.now, j.doubtful, j.taking
	v.readThere = madeThere
	j.pick(v.Name)
	if r.Dial == nil {
		j.lastRead, j.leafInHand = v.Name, r.Stack
	}
}

// outdated refuses to read a valve by a stale screen: one that was kept since, or one at a place where the
// crank stands no more, unless it is said that it was read there.
func (j *Job) outdated(valve string, madeThere bool, since string) error {
	if since == "" {
		return nil
	}
	switch at := j.log.since(since); {
	case at < 0:
		return &Refusal{Field: "valve", Code: KeptSince,
			Message: "This reading of " + valve + " follows upon something that this job does not hold. Read it again " +
				"if it still counts."}
	case j.log.closedAfter(at, j.screen, valve):
		return &Refusal{Field: "valve", Code: KeptSince,
			Message: valve + " was read and kept by somebody else since. Read it again if this reading " +
				"still counts."}
	case j.log.ranAfter(at, j.screen, j.epoch):
		return &Refusal{Field: "valve", Code: EngineRan,
			Message: "The engine ran after this reading of " + valve +
				": it is of an engine that was warmer or colder. Read it again."}
	case !madeThere && j.log.movedAfter(at, j.screen):
		return &Refusal{Field: "valve", Code: CrankMoved,
			Message: "The crank was moved after this reading of " + valve +
				". Keep it for the place where it was made, or read it again."}
	}
	return nil
}

// clearThere says whether a valve stood clear where the crank was when a reading was made.
func (j *Job) clearThere(v *ValveState, since string) (margin measure.Angle, ok bool) {
	place, known := j.log.placeAt(j.log.knownBy(j.log.since(since), j.screen))
	if !known {
		return 0, false
	}
	margin = sequence.LeastMargin(j.Cycle, v.Valve, place)
	return margin, margin >= j.required || j.byMaker(v, place)
}
