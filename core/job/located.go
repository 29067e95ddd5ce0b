package job

import (
	"fmt"
	"slices"

	"metronix/core/sequence"
)

// Located finds the crank by what is visible on the engine.
//
// Sightings are taken together: each allows a range of positions, and what they have in common must be one
// place, narrow enough to say which valves are clear everywhere within it. Two that cannot both be are
// named as a pair. What was seen is kept with the job, and the place is remembered as the range it is: a
// valve counts as clear only if it is at every position of that range.
//
// A valve may be taken in hand with it: then a place as wide as that valve is clear throughout is enough,
// such as while its lobe points away.
type Located struct {
	plain
	Seen []sequence.Sighting
	Take string // the valve that is taken in hand there; empty: as the sequence has it
}

// Kind is "located".
func (Located) Kind() Kind { return "located" }

func (a Located) sound(j *Job) error {
	if a.Take != "" {
		if err := j.has(a.Take); err != nil {
			return err
		}
	}
	_, err := j.Find(a.Seen)
	return err
}

// may takes a place only where what is seen leaves one, narrow enough to go on from.
func (a Located) may(j *Job, since string) error {
	if at := j.log.since(since); since != "" && (at < 0 || j.log.movedAfter(at, j.screen)) {
		return &Refusal{Field: "seen", Code: CrankMoved,
			Message: "The crank was moved since this was seen. Look again where it stands."}
	}
	if j.Way.School == "" {
		return refuse("kind", "Choose the sequence first.")
	}
	f, err := j.Find(a.Seen)
	switch clear := slices.Contains(f.Settable, a.Take); {
	case err != nil:
		return err
	case f.Conflict != "":
		return refuse("seen", f.Conflict)
	case a.Take != "" && len(f.Positions) == 1 && clear:
		return j.alone(j.valve(a.Take))
	case a.Take != "" && len(f.Positions) == 1:
		return refuse("seen", fmt.Sprintf("%s may be open by that: see its lobe point straight away, or turn to its "+
			"stop.", a.Take))
	case !f.Known && len(f.Positions) > 1:
		return refuse("seen", fmt.Sprintf("The crank may still stand in %d places: look at one thing more.",
			len(f.Positions)))
	case !f.Known:
		return refuse("seen", fmt.Sprintf("The crank may still stand anywhere within %s: look at one thing "+
			"more.",
			f.Positions[0].Length()))
	}
	return nil
}

// do stands there. A stored list that no longer leaves one place loses it, in place of guessing.
func (a Located) do(j *Job) {
	if l, err := sequence.Locate(j.Sheet, a.Seen, nil); err == nil && len(l.Positions) == 1 {
		j.stand(l.Positions[0])
		if v, ok := j.Valve(a.Take); ok && j.Settable(v) {
			j.pick(a.Take)
		}
	} else {
		j.lose()
	}
}

func (Located) moves() bool { return true }
