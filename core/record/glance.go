package record

import (
	"cmp"
	"time"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/sequence"
)

// Glance is a job as it is seen from afar: what the board shows of it. Nothing of it is in words but what
// somebody wrote.
type Glance struct {
	Phase      job.Phase
	Next       job.Brief
	Quiet      job.Brief // the same once so long passed that the crank's place has to be confirmed
	CrankKnown bool
	Done       int // valves that are done with, of Total, in the present phase
	Total      int
	Stops      int
	School     sequence.School    // empty: not chosen yet
	Direction  sequence.Direction // empty: not chosen yet
	Waits      job.Deferral       // what the open vehicle waits for
	Hand       string             // whoever it was handed over to last; empty: nobody
	SignedBy   string
	ReadyAt    time.Time // when a cooling engine may be worked on; the zero time: it does not cool, or nobody knows
	CoverBy    time.Time // until when the cover has to be on over open sealant; the zero time: there is none
	StartFrom  time.Time // before when the engine must not run; the zero time: it may
	Valves     []Dot
}

// Dot is one valve as it is seen from afar.
type Dot struct {
	Valve   string
	Verdict clearance.Verdict // of the reading that was kept last; empty: none
}

// Glance is the job as it is seen from afar, touched last at a time.
func (j Told) Glance(touched time.Time) Glance {
	g := Glance{
		Phase:      j.Phase(),
		Next:       j.Brief(),
		Quiet:      j.AsOf(touched.Add(job.ConfirmAfter + time.Second)).Brief(),
		CrankKnown: j.Known(),
		Stops:      len(j.Plan.Stops),
		School:     j.Way.School,
		Waits:      j.Waits,
		Hand:       j.Hand(),
		SignedBy:   j.SignedBy,
	}
	g.Done, g.Total = j.Progress()
	g.CoverBy, _ = j.Around().CoverBy()
	g.StartFrom, _ = j.Around().StartFrom()
	if j.Way.School != "" {
		g.Direction = cmp.Or(j.Way.Direction, sequence.Running)
	}
	if at, ok := j.ReadyAt(); ok && g.Phase == job.Prepare {
		g.ReadyAt = at
	}
	for _, v := range j.Valves {
		dot := Dot{Valve: v.Name}
		if v.Last != nil {
			dot.Verdict = v.Last.Judgement.Verdict
		}
		g.Valves = append(g.Valves, dot)
	}
	return g
}

// AsOf is what is next at a time: a crank that was known has to be confirmed once so long passed since.
func (g Glance) AsOf(touched, now time.Time) (next job.Brief, crankKnown bool) {
	if g.CrankKnown && job.NeedsConfirming(touched, now) {
		return g.Quiet, false
	}
	return g.Next, g.CrankKnown
}
