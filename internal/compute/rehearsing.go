package compute

import (
	"cmp"
	"fmt"
	"slices"

	"metronix/core/engine"
	"metronix/core/job"
	"metronix/core/rehearse"
	"metronix/core/sequence"
	"metronix/internal/wire"
)

// This file is the operation that plays a job through.

// rehearseRequest is a whole job to be played through: how the engine is gone round, which valves turn out to
// be out, and whether there is a check.
type rehearseRequest struct {
	Sheet wire.UnreadSheet `json:"sheet"`
	wire.Way
	Stops     *int     `json:"stops,omitempty" minimum:"1" maximum:"80" doc:"for fewest_stops: the best plan of so many"`
	Card      int      `json:"card,omitempty" minimum:"0" doc:"index of the sheet's clearances"`
	Round     string   `json:"round,omitempty" enum:",set_as_you_go,read_first,read_only,free_first" doc:"left out: set_as_you_go"`
	KindFirst string   `json:"one_kind_first,omitempty" enum:",exhaust,intake" doc:"left out: both kinds at each stop"`
	Check     string   `json:"check,omitempty" enum:",all,set_ones,none" doc:"left out: set_ones"`
	Out       []string `json:"out,omitempty" doc:"the valves that are found out of their limits"`
}

// rehearseResponse is what the job takes: its steps, the crank's degrees before and in the check, changes of
// leaf, and gestures. The figures are the bench's own, because the bench was asked.
type rehearseResponse struct {
	Applies     bool      `json:"applies"`
	Reason      string    `json:"reason"`
	Assumed     []string  `json:"assumed"`
	Steps       []playing `json:"steps"`
	TotalTurn   *wire.Deg `json:"total_turn_deg" nullable:"true" doc:"up to the last stop before the check round"`
	CheckTurn   *wire.Deg `json:"check_turn_deg" nullable:"true" doc:"all turning after that"`
	LeafChanges *int      `json:"leaf_changes" nullable:"true"`
	Gestures    *int      `json:"gestures" nullable:"true" doc:"taps or keys, from the first stop to the offer to sign"`
}

// playing is one step of it.
type playing struct {
	Do    string    `json:"do" enum:"turn,free,read,set,lock,check_turn"`
	Valve string    `json:"valve,omitempty"`
	Stop  *int      `json:"stop,omitempty" doc:"index of the stop, from 0"`
	Turn  *wire.Deg `json:"turn_deg,omitempty"`
}

// rehearsed plays the job through the rules that lead a real one, one act after another, with a mechanic who
// reads each valve once with the leaf that is offered.
func rehearsed(q rehearseRequest) (rehearseResponse, *wire.Problem) {
	sheet, report := q.Sheet.Load()
	if len(report.Problems) > 0 {
		return rehearseResponse{}, wire.Refused(report.Problems.In("sheet")...)
	}
	var faults wire.Faults
	q.faults(sheet, &faults)
	way := q.Way.Core(stopsAsked(q.Stops, &faults))
	if len(faults) > 0 {
		return rehearseResponse{}, wire.Refused(faults...)
	}
	if _, problem := made(sheet, sequence.Request{Way: way}); problem != nil {
		return rehearseResponse{}, problem
	}
	r := rehearse.Rehearsing{Sheet: sheet, Way: way, Out: q.Out, Round: job.Round{
		Going:     cmp.Or(job.Going(q.Round), job.SetAsYouGo),
		Check:     cmp.Or(job.Check(q.Check), job.CheckSetOnes),
		KindFirst: job.KindFirst(q.KindFirst)}}
	if len(sheet.Clearances) > 0 {
		r.Card = &sheet.Clearances[q.Card]
	}
	out := rehearseResponse{Steps: []playing{}, Assumed: wire.List(report.Assumed)}
	played, err := rehearse.Play(r)
	if err != nil {
		out.Reason = err.Error()
		return out, nil
	}
	out.Applies, out.Assumed = true, append(out.Assumed, played.Assumed...)
	out.TotalTurn, out.CheckTurn = (*wire.Deg)(&played.Turn), (*wire.Deg)(&played.CheckTurn)
	out.LeafChanges, out.Gestures = &played.LeafChanges, &played.Gestures
	for _, s := range played.Steps {
		step := playing{Do: string(s.Do), Valve: s.Valve, Stop: &s.Stop}
		if s.Turn > 0 {
			step.Turn = (*wire.Deg)(&s.Turn)
		}
		out.Steps = append(out.Steps, step)
	}
	return out, nil
}

// faults says what of the request names something that this engine or the program has not.
func (q rehearseRequest) faults(sheet *engine.Sheet, f *wire.Faults) {
	q.Way.Faults(f)
	wire.OneOf(f, "round", q.Round, "", job.SetAsYouGo, job.ReadFirst, job.ReadOnly, job.FreeFirst)
	wire.OneOf(f, "one_kind_first", q.KindFirst, "", job.ExhaustFirst, job.IntakeFirst)
	wire.OneOf(f, "check", q.Check, "", job.CheckAll, job.CheckSetOnes, job.CheckNone)
	if n := len(sheet.Clearances); q.Card < 0 || q.Card > 0 && q.Card >= n {
		f.Add("card", q.Card, "The sheet has %d clearances, counted from 0.", n)
	}
	for i, name := range q.Out {
		if !slices.ContainsFunc(sheet.Valves(), func(v engine.Valve) bool { return v.Name == name }) {
			f.Add(fmt.Sprintf("out[%d]", i), name, "%q is no valve of this engine.", name)
		}
	}
}
