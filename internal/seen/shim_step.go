package seen

import (
	"metronix/core/bench"
	"metronix/core/job"
	"metronix/core/sequence"
	"metronix/internal/wire"
)

// ShimStep is one step of the work on shims.
type ShimStep struct {
	Do      string   `json:"do" enum:"fit,stand_in,turn"`
	Valve   string   `json:"valve"`
	ShimMM  wire.MM  `json:"shim_mm" doc:"that goes in; 0: a stand-in that is still to be found"`
	MostMM  wire.MM  `json:"most_mm" doc:"for a stand-in: how thick it may be"`
	Source  string   `json:"source" enum:",stays,valve,bench,shop" doc:"where the shim is to be had then; stays: one that stood in is left in"`
	From    string   `json:"from" doc:"the valve that it comes straight from; empty: it lies on the bench or in the shop"`
	Stop    int      `json:"stop" doc:"for turn: the stop to go to"`
	TurnDeg wire.Deg `json:"turn_deg"`
	Until   string   `json:"until" doc:"for turn: until what is seen"`
	Said    string   `json:"said" doc:"the step as a line of a list"`
}

func ShimStepsOf(j *job.Job, steps []job.ShimStep) []ShimStep {
	out := []ShimStep{}
	for _, s := range steps {
		step := ShimStep{Do: string(s.Do), Valve: s.Valve, ShimMM: wire.MM(s.Shim), Source: string(s.Source),
			From: s.From, Stop: s.Stop, TurnDeg: wire.Deg(s.Turn), MostMM: wire.MM(s.Most)}
		var stop sequence.Stop
		if s.Do == job.TurnOn {
			stop = j.Plan.Stops[s.Stop]
			step.Until = stop.Until()
		}
		step.Said = bench.ShimStep(s, stop)
		out = append(out, step)
	}
	return out
}
