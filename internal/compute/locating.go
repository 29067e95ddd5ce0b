package compute

import (
	"errors"
	"fmt"

	"metronix/core/measure"
	"metronix/core/sequence"
)

type locateRequest struct {
	Sheet          Node     `json:"sheet"`
	Seen           []seenAt `json:"seen"`
	RequiredMargin *Deg     `json:"required_margin_deg,omitempty"`
}

type seenAt struct {
	What     string `json:"what"`
	Cylinder int    `json:"cylinder,omitempty"`
	Valve    string `json:"valve,omitempty"`
	Mark     *Deg   `json:"mark_deg,omitempty"`
}

type locateResponse struct {
	Positions []arc      `json:"positions"`
	Settable  []string   `json:"settable"`
	TellApart []question `json:"tell_apart"`
	Conflict  string     `json:"conflict"`
}

type arc struct {
	From Deg `json:"from_deg"`
	To   Deg `json:"to_deg"`
}

type question struct {
	LookAt sighting `json:"look_at"`
	Then   []arc    `json:"then"`
}

// mostSeen is more than there is to be seen on any engine at a time.
const mostSeen = 100

func locate(q locateRequest) (locateResponse, *Problem) {
	sheet, problem := soundSheet(q.Sheet)
	if problem != nil {
		return locateResponse{}, problem
	}
	faults := marginFault(q.RequiredMargin)
	if len(q.Seen) > mostSeen {
		faults = append(faults, Fault{Location: "seen", Message: fmt.Sprintf("%d sightings: at most %d are taken.", len(q.Seen), mostSeen)})
	}
	var seen []sequence.Sighting
	for i, s := range q.Seen {
		at := fmt.Sprintf("seen[%d]", i)
		oneOf(&faults, at+".what", s.What, sequence.TDCFiring, sequence.Rocking, sequence.FullLift, sequence.Opening, sequence.Closing,
			sequence.Mark, sequence.Loose, sequence.Pressed)
		w := sequence.Sighting{What: sequence.What(s.What), Cylinder: s.Cylinder, Valve: s.Valve}
		if s.Mark != nil {
			w.Mark = measure.Angle(*s.Mark)
		} else if w.What == sequence.Mark {
			faults = append(faults, Fault{Location: at + ".mark_deg", Message: "Say which mark is at the pointer: its degrees after TDC."})
		}
		seen = append(seen, w)
	}
	if len(faults) > 0 {
		return locateResponse{}, refused(faults...)
	}
	l, err := sequence.Locate(sheet, seen, (*measure.Angle)(q.RequiredMargin))
	var unseen *sequence.UnseenError
	if errors.As(err, &unseen) {
		return locateResponse{}, refused(Fault{Location: fmt.Sprintf("seen[%d]", unseen.Index), Message: unseen.Error()})
	}
	r := locateResponse{Positions: arcs(l.Positions), Settable: list(l.Settable), TellApart: []question{}, Conflict: l.Conflict}
	for _, t := range l.TellApart {
		r.TellApart = append(r.TellApart, question{sightingAnswer(t.LookAt), arcs(t.Then)})
	}
	return r, nil
}

func arcs(ranges []sequence.Range) []arc {
	out := []arc{}
	for _, r := range ranges {
		out = append(out, arc{Deg(r.From), Deg(r.To)})
	}
	return out
}
