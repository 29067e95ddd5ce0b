package job

import (
	"errors"
	"fmt"
	"metronix/core/measure"
	"metronix/core/sequence"
	"slices"
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
		sign, ok := j.Sheet.Sign(w.Sign)
		if !ok || w.What != sequence.Signed {
			continue
		}
		if sign.Doubtful != "" {
			f.Doubts = append(f.Doubts,
				fmt.Sprintf("In doubt: %s. Check it against this: %s.", sign, sign.Doubtful))
		}
		if sign.CheckBy != "" {
			f.Doubts = append(f.Doubts, fmt.Sprintf("Make sure of %s by this: %s.", sign, sign.CheckBy))
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
