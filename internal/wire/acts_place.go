package wire

import "metronix/core/job"

// Where the crank stands, and what is taken in hand there.

// turned says that the crank stands at a stop of the plan.
type turned struct {
	Stop int `json:"stop" doc:"index of the stop at which the crank stands now, from 0"`
}

func (w turned) act(*Faults) job.Act { return job.Turned{Stop: w.Stop} }

// located says where it stands by what is seen.
type located struct {
	Seen Seen   `json:"seen" maxItems:"100" doc:"what is visible on the engine"`
	Take string `json:"take,omitempty" doc:"the valve that is taken in hand there; a place as wide as it is clear throughout is enough"`
}

func (w located) act(*Faults) job.Act { return job.Located{Seen: w.Seen.Core(), Take: w.Take} }

// doubted says that nobody is sure of it any more.
type doubted struct{}

func (doubted) act(*Faults) job.Act { return job.Doubted{} }

// picked takes another valve in hand.
type picked struct {
	Valve string `json:"valve" maxLength:"8"`
}

func (w picked) act(*Faults) job.Act { return job.Picked{Valve: w.Valve} }

// barredOver is the full turns before the check round.
type barredOver struct {
	Stop *int `json:"stop,omitempty" doc:"index of the stop at which the crank came to rest; left out: where it stood"`
}

func (w barredOver) act(*Faults) job.Act { return job.BarredOver{Stop: w.Stop} }
