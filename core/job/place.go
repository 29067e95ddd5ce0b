package job

import (
	"errors"
	"fmt"
	"slices"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// findable is the widest stretch, crank degrees, that still counts as knowing where the crank stands.
const findable = 60.0

// Found is what sightings say of the crank in this job.
type Found struct {
	sequence.Location
	OneTurnOut string  // a sentence where the crank stands a whole turn from where this job expects it
	Known      bool    // the place is narrow enough to go on from
	Crank      float64 // where the crank is taken to stand; only where Known
	Next       Next    // what to do from there; only where Known
}

// Find says where the crank may stand from what is seen, and what to do from there. It changes nothing. It errs with a *Refusal
// where a sighting cannot be had on this engine.
func (j *Job) Find(seen []sequence.Sighting) (Found, error) {
	l, err := sequence.Locate(j.Sheet, seen, nil)
	var unseen *sequence.UnseenError
	if errors.As(err, &unseen) {
		return Found{}, refuse(fmt.Sprintf("seen[%d]", unseen.Index), unseen.Error())
	}
	f := Found{Location: l, OneTurnOut: sequence.OneTurnOut(j.Sheet, seen, l.Positions, j.expected(l.Positions))}
	if f.Known = len(l.Positions) == 1 && l.Positions[0].Length() <= findable; f.Known {
		there := *j
		there.stand(l.Positions[0])
		f.Crank, f.Next = there.Crank, there.Next()
	}
	return f, nil
}

// expected is where this job takes the crank to be: where it stood last, or at the stop it was being turned to; of the two the
// one that agrees with what is seen. Nil where neither is known.
func (j *Job) expected(at []sequence.Range) *float64 {
	var list []float64
	if j.CrankKnown {
		list = append(list, j.Crank)
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

// stand takes the crank to be somewhere in a range: at the stop that lies in it, else in its middle.
func (j *Job) stand(at sequence.Range) {
	j.Place, j.Crank, j.CrankKnown, j.picked = at, measure.RoundAngle(at.Middle()), true, ""
	if j.Stop = j.stopHere(); j.Stop >= 0 {
		j.Crank = j.Plan.Stops[j.Stop].Crank
	}
}

// stopHere is the index of the stop at which the crank stands, all of whose valves are clear wherever it may be; −1 for none.
func (j *Job) stopHere() int {
	return slices.IndexFunc(j.Plan.Stops, func(s sequence.Stop) bool {
		if !j.CrankKnown || (!j.Place.Holds(s.Crank) && measure.Apart(s.Crank, j.Crank) >= measure.SameAngle) {
			return false
		}
		return !slices.ContainsFunc(s.Set, func(set sequence.SetValve) bool {
			v, ok := j.Valve(set.Valve)
			return !ok || !j.Settable(v)
		})
	})
}

func (j *Job) locate(h Happening) error {
	if err := j.working(); err != nil {
		return err
	}
	if err := j.nothingInHand("seen"); err != nil {
		return err
	}
	f, err := j.Find(h.Seen)
	switch {
	case err != nil:
		return err
	case f.Conflict != "":
		return refuse("seen", f.Conflict)
	case !f.Known && len(f.Positions) > 1:
		return refuse("seen", fmt.Sprintf("The crank may still stand in %d places: look at one thing more.", len(f.Positions)))
	case !f.Known:
		return refuse("seen", fmt.Sprintf("The crank may still stand anywhere within %s: look at one thing more.", measure.FormatAngle(f.Positions[0].Length())))
	}
	j.stand(f.Positions[0])
	return nil
}
