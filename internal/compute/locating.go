package compute

import (
	"errors"
	"fmt"

	"metronix/core/sequence"
	"metronix/internal/wire"
)

// locateRequest is what is seen on an engine: at most 100 things.
type locateRequest struct {
	OfEngine
	Seen wire.Seen `json:"seen" maxItems:"100"`
}

// mostSeen is more than there is to be seen on any engine at a time.
const mostSeen = 100

// locate says where in its two turns the crank may stand if all of that is seen at once, as ranges; which
// valves may be set wherever in them it stands; and what to look at to tell the ranges apart.
func locate(q locateRequest) (wire.Location, *wire.Problem) {
	sheet, margin, problem := q.sound()
	if problem != nil {
		return wire.Location{}, problem
	}
	var faults wire.Faults
	q.marginFault(&faults)
	if len(q.Seen) > mostSeen {
		faults.Add("seen", nil, "%d sightings: at most %d are taken.", len(q.Seen), mostSeen)
	}
	for i, s := range q.Seen {
		at := fmt.Sprintf("seen[%d]", i)
		wire.OneOf(&faults, at+".what", s.What, sequence.Visible()...)
		if s.Mark == nil && s.What == string(sequence.Mark) {
			faults.Add(at+".mark_deg", nil, "Say which mark is at the pointer: its degrees after TDC.")
		}
	}
	if len(faults) > 0 {
		return wire.Location{}, wire.Refused(faults...)
	}
	l, err := sequence.Locate(sheet, q.Seen.Core(), margin)
	var unseen *sequence.UnseenError
	if errors.As(err, &unseen) {
		faults.Add(fmt.Sprintf("seen[%d]", unseen.Index), nil, "%s", unseen)
		return wire.Location{}, wire.Refused(faults...)
	}
	return wire.LocationOf(l), nil
}
