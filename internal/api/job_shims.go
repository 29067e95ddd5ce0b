package api

import (
	"cmp"
	"context"
	"errors"

	"metronix/core/adjust"
	"metronix/core/bench"
	"metronix/core/job"
	"metronix/internal/seen"
	"metronix/internal/wire"
)

// JobShims is the choice of shims over a job's whole engine.
type JobShims struct {
	Fit        []ShimFit        `json:"fit"`
	Buy        []seen.ShimCount `json:"buy"`
	SpareMM    []wire.MM        `json:"spare_mm"`
	Impossible []Lacking        `json:"impossible"`
	BenchMM    []wire.MM        `json:"bench_mm" doc:"shims taken out and not in the engine"`
	Choices    []ShimPrice      `json:"choices" doc:"what each of the two choices costs"`
	Frontier   []ShimPrice      `json:"frontier" doc:"how near to the aim every gap can be brought for so many bought"`
	Steps      []seen.ShimStep  `json:"steps" doc:"the work in order from here, the crank never turned with a shim missing"`
	Promised   []Promised       `json:"promised" doc:"shims of the stock that other open jobs count on too, more than there are"`
	Missing    []string         `json:"missing" doc:"valves whose fitted shim, or whose gap as a figure, is not known yet"`
}

// Promised is a size of the stock that several open jobs count on, of which there are too few.
type Promised struct {
	ShimMM  wire.MM  `json:"shim_mm"`
	InStock int      `json:"in_stock"`
	Wanted  int      `json:"wanted" doc:"by this job and the others together"`
	Jobs    []string `json:"jobs" doc:"the vehicles of the others"`
}

// ShimPrice is what a choice of shims costs, and what it brings.
type ShimPrice struct {
	Prefer    string  `json:"prefer,omitempty" enum:"fewest_bought,nearest_aim"`
	Bought    int     `json:"bought"`
	Disturbed int     `json:"disturbed,omitempty" doc:"valves that get another shim"`
	WorstMM   wire.MM `json:"worst_from_aim_mm" doc:"how far from its aim the worst gap lies"`
}

// jobShimsInput asks for a choice by another wish than the job's own, to be looked at; choosing it is a
// happening of the job.
type jobShimsInput struct {
	JobID
	ShimsWish
}

// ShimsWish is what a choice of shims is to be after.
type ShimsWish struct {
	Prefer  string `query:"prefer" enum:"fewest_bought,nearest_aim" doc:"left out: fewest_bought"`
	CamsOut bool   `query:"cams_out" doc:"the camshafts are out: the steps reach every valve where the crank stands"`
}

// Lacking is a valve that no shim brings into its limits, and why.
type Lacking struct {
	Valve   string  `json:"valve"`
	Reason  string  `json:"reason"`
	TryMM   wire.MM `json:"try_mm,omitempty" doc:"a shim to hand that may serve it, and may be tried; absent: there is none"`
	OrderMM wire.MM `json:"order_mm,omitempty" doc:"a size to buy that may serve it, where none to hand may be tried; absent: there is none"`
}

// ShimFit is what goes under one valve.
type ShimFit struct {
	Valve    string  `json:"valve"`
	FittedMM wire.MM `json:"fitted_mm"`
	WantedMM wire.MM `json:"wanted_mm" doc:"the thickness that would land on the aim"`
	ShimMM   wire.MM `json:"shim_mm"`
	From     string  `json:"from" doc:"a valve, its own name where it stays, or stock"`
	GapMM    wire.MM `json:"gap_mm"`
	Here     bool    `json:"here" doc:"the valve may be worked on where the crank stands"`
	Source   string  `json:"source" enum:"stays,valve,bench,shop,buy" doc:"where the shim is to be had"`
	Origin   string  `json:"origin" doc:"the same in words"`
	FromHere bool    `json:"from_here" doc:"its giver is clear here, so that the shim can be taken out"`
}

// jobShims is the choice of shims over the whole engine: both wishes with what they cost, the one asked for
// in full, and its steps. What other open jobs count on from the same shelf is said, and takes nothing away.
func (s *server) jobShims(ctx context.Context, in *jobShimsInput) (*bodyOf[JobShims], error) {
	out := &bodyOf[JobShims]{}
	others, err := s.desk.othersCountOn(ctx, in.ID)
	if err != nil {
		return nil, fault(err)
	}
	err = s.desk.with(ctx, in.ID, func(o *openJob) error {
		if _, err := s.desk.supply(ctx, o); err != nil {
			return err
		}
		out.Body = chosenShims(o.state, in.ShimsWish, others)
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}

// chosenShims is the choice for a job by what is wished of it, from what the workshop has.
func chosenShims(j *job.Job, wish ShimsWish, others []counting) (out JobShims) {
	shop := j.Shop()
	wanted := cmp.Or(adjust.Prefer(wish.Prefer), j.Prefer, adjust.FewestBought)
	var choices []ShimPrice
	for _, prefer := range []adjust.Prefer{adjust.FewestBought, adjust.NearestAim} {
		plan, missing := j.ChooseShims(shop.Sizes, shop.Stock, prefer)
		bought, disturbed, worst := plan.Cost(j.AimOfNamed)
		choices = append(choices, ShimPrice{string(prefer), bought, disturbed, wire.MM(worst)})
		if prefer != wanted {
			continue
		}
		out = shimsView(j, plan, missing)
		out.Promised = promised(plan, j, shop.Stock, others)
		steps := j.Steps() // those that the job is led by
		if wish.CamsOut != j.CamsOut && wish.CamsOut || wanted != cmp.Or(j.Prefer, adjust.FewestBought) {
			steps = j.ShimSteps(plan, shop.Stock, wish.CamsOut) // another choice, to be looked at
		}
		out.Steps = seen.ShimStepsOf(j, steps)
	}
	out.Choices = choices
	return out
}

// counting is what one open job counts on of the stock.
type counting struct {
	vehicle string
	on      []adjust.Count
}

// othersCountOn is what the open jobs besides one count on of the shop's stock.
func (d *desk) othersCountOn(ctx context.Context, id string) (list []counting, err error) {
	ids, err := d.store.With(ctx).OpenJobs()
	if err != nil {
		return nil, err
	}
	for _, other := range ids {
		if other == id {
			continue
		}
		err := d.with(ctx, other, func(o *openJob) error {
			if on := o.state.CountsOn(); len(on) > 0 && !o.record.OffBoard {
				list = append(list, counting{o.record.Vehicle.Name, on})
			}
			return nil
		})
		if err != nil && !errors.Is(err, errUnreadable) {
			return nil, err
		}
	}
	return list, nil
}

// promised are the sizes that a choice takes from the stock and others count on too, where there are too few
// for all.
func promised(plan adjust.ShimPlan, j *job.Job, stock []adjust.Count, others []counting) []Promised {
	out := []Promised{}
	for _, has := range stock {
		p := Promised{ShimMM: wire.MM(has.Shim), InStock: has.N, Jobs: []string{}}
		for _, f := range plan.Fit {
			if f.Shim == has.Shim && j.Source(f) == job.InShop {
				p.Wanted++
			}
		}
		if p.Wanted == 0 {
			continue
		}
		for _, o := range others {
			for _, c := range o.on {
				if c.Shim == has.Shim {
					p.Wanted, p.Jobs = p.Wanted+c.N, append(p.Jobs, o.vehicle)
				}
			}
		}
		if len(p.Jobs) > 0 && p.Wanted > p.InStock {
			out = append(out, p)
		}
	}
	return out
}

// shimsView is a choice as it is sent, valve by valve.
func shimsView(j *job.Job, plan adjust.ShimPlan, missing []string) JobShims {
	out := JobShims{Fit: []ShimFit{}, Buy: []seen.ShimCount{}, SpareMM: wire.Millimetres(plan.Spare),
		Impossible: []Lacking{}, Frontier: []ShimPrice{}, Missing: wire.List(missing),
		BenchMM: wire.Millimetres(j.LooseShims)}
	for _, f := range plan.Fit {
		v, _ := j.Valve(f.Valve)
		out.Fit = append(out.Fit,
			ShimFit{Valve: f.Valve, FittedMM: wire.MM(v.Shim), ShimMM: wire.MM(f.Shim), From: f.From,
				GapMM: wire.MM(f.Gap), Here: j.Settable(v), Source: string(j.Source(f)), Origin: bench.ShimFrom(j.Source(f), f.From), FromHere: j.GiverClear(f),
				WantedMM: wire.MM(adjust.ShimValve{Fitted: f.Shim, Measured: f.Gap,
					Aim: j.AimOf(v)}.Wanted())})
	}
	for _, c := range plan.Frontier {
		out.Frontier = append(out.Frontier, ShimPrice{Bought: c.Bought, WorstMM: wire.MM(c.Worst)})
	}
	for _, b := range plan.Buy {
		out.Buy = append(out.Buy, seen.ShimCount{ShimMM: wire.MM(b.Shim), Count: b.N})
	}
	for _, l := range plan.Impossible {
		out.Impossible = append(out.Impossible, Lacking{l.Valve, l.Reason, wire.MM(l.Try), wire.MM(l.Order)})
	}
	return out
}
