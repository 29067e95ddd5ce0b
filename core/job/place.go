package job

import (
	"errors"
	"fmt"
	"slices"
	"time"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// Found is what sightings say of the crank in this job.
type Found struct {
	sequence.Location
	OneTurnOut string        // a sentence where the crank stands a whole turn from where this job expects it
	Doubts     []string      // what a doubtful sign that was seen is to be checked against
	Known      bool          // the place is narrow enough to go on from
	Crank      measure.Angle // where the crank is taken to stand; only where Known
	Next       Next          // what to do from there; only where Known
	Turn       *Instruction  // how to turn to the next stop, where that is to be done
}

// Find says where the crank may stand from what is seen, and what to do from there. It changes nothing. It
// errs with a *Refusal where a sighting cannot be had on this engine.
func (j *Job) Find(seen []sequence.Sighting) (Found, error) {
	if err := j.noSign(seen); err != nil {
		return Found{}, err
	}
	l, err := sequence.Locate(j.Sheet, seen, nil)
	var unseen *sequence.UnseenError
	if errors.As(err, &unseen) {
		return Found{}, refuse(fmt.Sprintf("seen[%d]", unseen.Index), unseen.Error())
	}
	f := Found{Location: l, OneTurnOut: sequence.OneTurnOut(j.Sheet, seen, l.Positions,
		j.expected(l.Positions))}
	for _, w := range seen {
		if sign, ok := j.Sheet.Sign(w.Sign); ok && w.What == sequence.Signed && sign.Doubtful != "" {
			f.Doubts = append(f.Doubts,
				fmt.Sprintf("In doubt: %s. Check it against this: %s.", sign, sign.Doubtful))
		}
	}
	if f.Known = len(l.Positions) == 1 && l.Positions[0].Length() <= sequence.Narrow; f.Known {
		there := *j
		there.takeAt(l.Positions[0])
		f.Crank, f.Next = there.Crank.At, there.Next()
		if turn, ok := there.Instruction(); ok {
			f.Turn = &turn
		}
	}
	return f, nil
}

// noSign refuses a sighting at a valve whose screw was slackened and not set since: with its gap wide open
// every rocker has play, and none moves as it should (by geometry). Marks, cam signs and lobes stay signs.
func (j *Job) noSign(seen []sequence.Sighting) error {
	for i, w := range seen {
		v := j.find(func(v *ValveState) bool {
			if !v.slackened() {
				return false
			}
			switch w.What {
			case sequence.Loose, sequence.Pressed, sequence.FullLift, sequence.Opening, sequence.Closing:
				return v.Name == w.Valve
			case sequence.Rocking:
				return v.Cylinder == w.Cylinder
			}
			return false
		})
		if v != nil {
			return refuse(
				fmt.Sprintf("seen[%d]", i),
				fmt.Sprintf("%s is slackened: what is seen at it tells nothing of "+
					"the crank. Go by a mark, a sign of the cam or a lobe.", v.Name),
			)
		}
	}
	return nil
}

// expected is where this job takes the crank to be: where it stood last, or at the stop it was being turned
// to; of the two the one that agrees with what is seen. Nil where neither is known.
func (j *Job) expected(at []sequence.Range) *measure.Angle {
	var list []measure.Angle
	if j.Crank.Known {
		list = append(list, j.Crank.At)
	}
	if next := j.Next(); next.Action == DoTurn {
		list = append(list, j.Plan.Stops[next.Stop].Crank)
	}
	for _, crank := range list {
		if slices.ContainsFunc(at, func(r sequence.Range) bool { return r.Holds(crank) }) {
			return &crank
		}
	}
	if len(list) == 0 {
		return nil
	}
	return &list[len(list)-1]
}

// stand takes the crank to be somewhere in a range: at the stop that lies in it, else in its middle. Readings
// not kept of a valve that is not clear there are void: they were made somewhere else.
func (j *Job) stand(at sequence.Range) {
	j.takeAt(at)
	for _, v := range j.Valves {
		if !j.Settable(v) && len(v.Round) > 0 {
			v.reading(nil)
		}
	}
	if v, ok := j.Valve(j.picked); !ok || !j.Settable(v) {
		j.picked = ""
	}
}

// takeAt takes the crank to be in a range, and changes nothing about the valves.
func (j *Job) takeAt(at sequence.Range) {
	j.Place, j.Crank.At, j.Crank.Known, j.pause = at, at.Middle(), true, pause{}
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
