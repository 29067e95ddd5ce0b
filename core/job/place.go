package job

import (
	"slices"
	"time"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// stand takes the crank to be somewhere in a range: at the stop that lies in it, else in its middle. Readings
// not kept of a valve that is not clear there are void: they were made somewhere else.
func (j *Job) stand(at sequence.Range) {
	known, from := j.sureOfPlace(), j.Crank.At
	j.takeAt(at)
	switch {
	case !j.Sure():
		j.countAnew()
	case known && !at.Holds(from):
		j.turnedBy(from, j.Crank.At)
	}
	j.standingThere()
}

// standingThere drops what was read somewhere else and not kept, and lets go of a valve that is not clear.
func (j *Job) standingThere() {
	for _, v := range j.Valves {
		if !j.Settable(v) && len(v.Round) > 0 {
			v.reading(nil)
		}
	}
	j.letGo(j.Settable)
}

// takeAt takes the crank to be in a range, and changes nothing about the valves. In a wide one it stands at
// no stop, wherever that lies.
func (j *Job) takeAt(at sequence.Range) {
	j.Place, j.Crank.At, j.Crank.Known, j.pause = at, at.Middle(), true, pause{}
	if j.Stop = -1; at.Length() > sequence.Narrow {
		return
	}
	if j.Stop = j.stopHere(); j.Stop >= 0 {
		j.StopSince = j.now
		j.Crank.At = j.Plan.Stops[j.Stop].Crank
	}
}

// lose makes the crank's place unknown: it must be found before anything is read or set. Readings not kept
// are void, for it is not known where they were made.
func (j *Job) lose() {
	j.Place, j.Crank.At, j.Crank.Known, j.Stop, j.pause = sequence.Range{}, 0, false, -1, pause{}
	for _, v := range j.Valves {
		v.reading(nil)
	}
	j.countAnew()
}

// stopHere is the index of the stop at which the crank stands, all of whose valves are clear wherever it may
// be; −1 for none.
func (j *Job) stopHere() int {
	return slices.IndexFunc(j.Plan.Stops, func(s sequence.Stop) bool {
		if !j.Crank.Known || (!j.Place.Holds(s.Crank) &&
			measure.Apart(s.Crank, j.Crank.At) >= measure.SameAngle) {
			return false
		}
		return !slices.ContainsFunc(s.Set, func(set sequence.SetValve) bool {
			v, ok := j.Valve(set.Valve)
			return !ok || !(j.Margin(v) >= j.required || j.byMaker(v, j.Place))
		})
	})
}

// stopOf is the index of the stop at which the plan sets a valve; −1 where it has none.
func (j *Job) stopOf(v *ValveState) int {
	return slices.IndexFunc(j.Plan.Stops, func(s sequence.Stop) bool { return s.Sets(v.Name) })
}

// stopFor is the stop at which a valve may be worked on: the one that sets it, else, where a maker's order
// leaves it out, the first at which it is clear; −1 where there is none.
func (j *Job) stopFor(v *ValveState) int {
	if at := j.stopOf(v); at >= 0 {
		return at
	}
	return slices.IndexFunc(j.Plan.Stops, func(s sequence.Stop) bool {
		return sequence.LeastMargin(j.Cycle, v.Valve, sequence.Exactly(s.Crank)) >= j.required
	})
}

// ConfirmAfter is how long nothing may be entered before the crank's place has to be confirmed (common
// practice: a night or a day off, in which anybody may have turned it).
const ConfirmAfter = 6 * time.Hour

// pause is what a long time without an entry, or a clock that runs backwards, brings into doubt.
type pause struct {
	confirm bool      // the crank's place is to be confirmed
	since   time.Time // of the last entry before
}

// rest lets time pass until the next entry.
func (j *Job) rest(until time.Time) {
	if j.Crank.Known && NeedsConfirming(j.last, until) {
		j.pause = pause{confirm: true, since: j.last}
	}
}

// AsOf is the job as it stands at a time, after which nothing was entered yet: j itself, or a copy whose
// crank is to be confirmed. The copy is for looking at only.
func (j *Job) AsOf(now time.Time) *Job {
	there := *j
	there.rest(now)
	if there.pause == j.pause {
		return j
	}
	return &there
}

// ToConfirm says since when nothing was entered, where the crank's place has to be confirmed because of it;
// ok is false where it has not.
func (j *Job) ToConfirm() (since time.Time, ok bool) { return j.pause.since, j.pause.confirm }

// NeedsConfirming says whether so long passed since the last entry that a crank which was known has to be
// confirmed.
func NeedsConfirming(last, now time.Time) bool { return !last.IsZero() && now.Sub(last) > ConfirmAfter }

// toldLate says of what was read and kept after the crank was moved, where that was told later, that it was
// read elsewhere than was believed: of a valve that is clear where the crank was brought to it counts all the
// same. Of any other it does not, and the valve is read again.
func (j *Job) toldLate(h Happening) {
	for _, v := range j.Valves {
		if r := v.Last; r != nil && j.readAfter(h, v) && !j.Settable(v) {
			there := *r
			there.Elsewhere = true
			v.Last, v.Verified = &there, false
			if v.AsFound == r {
				v.AsFound = v.Last
			}
		}
	}
}

// clocksApart is by how much two screens' words for when something was done may differ: each takes the
// program's time from an answer, which it waits for that long at most.
const clocksApart = 8 * time.Second

// readAfter says that a valve's last figure is of a reading made after something was done that is told now.
// Where no word for when it was done can be right, what its screen knew says it: others read what it did not
// know of. So it does where the two words are too close to tell, and, of what was read in the minute before,
// where nothing was said because it was sent at once: it was on its way.
func (j *Job) readAfter(h Happening, v *ValveState) bool {
	read := v.Last.At
	switch {
	case !h.DoneAt.IsZero() && h.believable():
		if read.After(h.DoneAt) || !h.by(soonRules) || !read.After(h.DoneAt.Add(-clocksApart)) {
			return read.After(h.DoneAt)
		}
	case !h.DoneAt.IsZero() && !h.by(knewRules):
		return false
	case h.DoneAt.IsZero() && (!h.by(soonRules) || h.At.Sub(read) > clockSlack):
		return false
	}
	knew := j.log.since(h.Since)
	return knew >= 0 && j.log.entered(v.Last.reading, knew, h.Screen)
}
