package wire

import (
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Sighting is something seen on the engine. Which of its fields count follows from what is seen.
type Sighting struct {
	What     string `json:"what" enum:"tdc_firing,rocking,full_lift,opening,closing,mark,loose,pressed,degrees,sign,lobe_away,lobes_away"`
	Cylinder int    `json:"cylinder,omitempty" minimum:"0" maximum:"16" doc:"of tdc_firing, rocking and lobes_away"`
	Valve    string `json:"valve,omitempty" maxLength:"8" doc:"of full_lift, opening, closing, loose, pressed and lobe_away"`
	Mark     *Deg   `json:"mark_deg,omitempty" doc:"of mark and degrees: after TDC"`
	Sign     string `json:"sign,omitempty" maxLength:"40" doc:"of sign: its id in the sheet"`
}

// Core is the sighting as the core knows it; a mark that is not said is the TDC mark.
func (s Sighting) Core() sequence.Sighting {
	w := sequence.Sighting{What: sequence.What(s.What), Cylinder: s.Cylinder, Valve: s.Valve, Sign: s.Sign}
	if s.Mark != nil {
		w.Mark = measure.Angle(*s.Mark)
	}
	return w
}

// SightingOf writes a sighting of the core.
func SightingOf(w sequence.Sighting) Sighting {
	out := Sighting{What: string(w.What), Cylinder: w.Cylinder, Valve: w.Valve, Sign: w.Sign}
	if w.What == sequence.Mark || w.What == sequence.Degrees {
		out.Mark = (*Deg)(&w.Mark)
	}
	return out
}

// Seen is a list of sightings.
type Seen []Sighting

// Core is the list as the core knows it.
func (s Seen) Core() []sequence.Sighting {
	out := make([]sequence.Sighting, len(s))
	for i, w := range s {
		out[i] = w.Core()
	}
	return out
}

// SeenOf writes a list of sightings; it is never null.
func SeenOf(list []sequence.Sighting) Seen {
	out := Seen{}
	for _, w := range list {
		out = append(out, SightingOf(w))
	}
	return out
}

// Arc is a range of crank positions; from greater than to wraps through 0.
type Arc struct {
	From Deg `json:"from_deg"`
	To   Deg `json:"to_deg"`
}

// ArcOf writes a range.
func ArcOf(r sequence.Range) Arc { return Arc{Deg(r.From), Deg(r.To)} }

// ArcsOf writes a list of ranges; it is never null.
func ArcsOf(ranges []sequence.Range) []Arc {
	out := []Arc{}
	for _, r := range ranges {
		out = append(out, ArcOf(r))
	}
	return out
}

// Question is something to look at, and where the crank stands if it is seen.
type Question struct {
	LookAt Sighting `json:"look_at"`
	Then   []Arc    `json:"then"`
}

// Location is where the crank may stand.
type Location struct {
	Positions []Arc      `json:"positions"`
	Settable  []string   `json:"settable" doc:"valves that may be set wherever the crank may stand"`
	TellApart []Question `json:"tell_apart" doc:"what to look at where doubt remains, the best first"`
	Conflict  string     `json:"conflict"`
}

// LocationOf writes what sightings say.
func LocationOf(l sequence.Location) Location {
	out := Location{ArcsOf(l.Positions), List(l.Settable), []Question{}, l.Conflict}
	for _, t := range l.TellApart {
		out.TellApart = append(out.TellApart, Question{SightingOf(t.LookAt), ArcsOf(t.Then)})
	}
	return out
}
