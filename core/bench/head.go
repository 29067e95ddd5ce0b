package bench

import (
	"math"
	"slices"

	"metronix/core/job"
	"metronix/core/sequence"
)

// Note is the word under a cylinder that matters now.
type Note struct {
	Cylinder int
	Text     string
	Strong   bool // something is to be done there, here and now
}

// Notes are the words under the cylinders: what to watch while the crank is turned and what is next there;
// where it stands, what is seen and where there is work. One a cylinder, the work before the sight, in the
// order of the cylinders.
func (a *Advice) Notes(n job.Next) (notes []Note) {
	turning := n.Action == job.DoTurn
	at := a.j.Stop
	if turning {
		at = n.Stop
	}
	if a.j.Way.School == "" || at < 0 {
		return nil
	}
	stop, under := a.j.Plan.Stops[at], map[int]Note{}
	for _, s := range stop.Watch {
		switch v, _ := a.j.Valve(s.Valve); s.What {
		case sequence.Rocking:
			under[s.Cylinder] = Note{Text: noteRock}
			if turning {
				under[s.Cylinder] = Note{Text: noteWatch}
			}
		case sequence.FullLift:
			under[v.Cylinder] = Note{Text: noteDown(v.Name, turning)}
		}
	}
	waiting := a.j.Here()
	if turning {
		waiting = stop.Names()
	}
	for _, name := range waiting {
		v, _ := a.j.Valve(name)
		switch {
		case !a.j.Pending(v):
		case turning:
			under[v.Cylinder] = Note{Text: noteNext}
		default:
			under[v.Cylinder] = Note{Text: noteHere(a.j.Phase()), Strong: true}
		}
	}
	for cylinder, note := range under {
		note.Cylinder = cylinder
		notes = append(notes, note)
	}
	slices.SortFunc(notes, func(a, b Note) int { return a.Cylinder - b.Cylinder })
	return notes
}

// Side is the valve that is drawn from the side, and the leaf in hand there.
type Side struct {
	Valve string
	Leaf  string // as stamped; empty: none is in hand
}

// Side is the valve in hand; while the crank is turned, the first that waits at the next stop; else the one
// that lastOn names, which was worked on last; else the first.
func (a *Advice) Side(n job.Next, lastOn string) Side {
	if v, ok := a.j.Valve(n.Valve); ok {
		return Side{n.Valve, a.inHand(n, v)}
	}
	if (n.Action == job.DoTurn || n.Action == job.DoBarOver) && n.Stop >= 0 {
		for _, name := range a.j.Plan.Stops[n.Stop].Names() {
			if v, ok := a.j.Valve(name); ok && a.j.Pending(v) {
				return Side{Valve: name}
			}
		}
	}
	if _, ok := a.j.Valve(lastOn); ok {
		return Side{Valve: lastOn}
	}
	return Side{Valve: a.j.Valves[0].Name}
}

// inHand is the leaf that is in hand at a valve: the one to set by, the one to try next, the one tried last,
// the one to begin with.
func (a *Advice) inHand(n job.Next, v *job.ValveState) string {
	if n.Action == job.DoAdjust || n.Action == job.DoLock {
		return a.LeafSaid(v)
	}
	if len(v.Round) > 0 {
		if next := a.j.Judge(v).TryNext; next != nil {
			return next.String()
		}
		if tried := v.Round[len(v.Round)-1].Stack; len(tried) > 0 {
			return tried.String()
		}
	}
	return a.first(v).String()
}

// printed rounds an angle to the step that it is printed in, a tenth of a degree, so that every processor
// says the same.
func printed(degrees float64) float64 { return math.Round(degrees*10) / 10 }
