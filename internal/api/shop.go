package api

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/adjust"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// Shop is what the workshop has set up for all its jobs.
type Shop struct {
	ProbeAddress string      `json:"probe_address" maxLength:"80" doc:"of a temperature probe, 127.0.0.1:7070; empty: none"`
	ShimSizes    ShimSizes   `json:"shim_sizes" doc:"the sizes that can be bought"`
	ShimStock    []ShimCount `json:"shim_stock" maxItems:"200" doc:"the shims that lie in the shop: as counted, less those that went into engines since"`
	Version      string      `json:"version,omitempty" maxLength:"64" doc:"of what is stored; sent back, it is refused where somebody changed it, or a shim of the stock was used, meanwhile"`
	Damaged      string      `json:"damaged,omitempty" maxLength:"200" doc:"what of it cannot be read; not taken"`
}

// ShimSizes are sizes from one to another in steps.
type ShimSizes struct {
	FromMM wire.MM `json:"from_mm"`
	ToMM   wire.MM `json:"to_mm"`
	StepMM wire.MM `json:"step_mm"`
}

// ShimCount is so many shims of a size.
type ShimCount struct {
	ShimMM wire.MM `json:"shim_mm"`
	Count  int     `json:"count" minimum:"0" maximum:"10000"`
}

// usualSizes is taken until the workshop says otherwise: twentieths of a millimetre (from memory).
var usualSizes = ShimSizes{wire.MM(2 * measure.Millimetre), wire.MM(3200 * measure.Micrometre),
	wire.MM(50 * measure.Micrometre)}

// ProbeStatus is how it stands with the temperature probe.
type ProbeStatus struct {
	State    string        `json:"state" enum:"off,connecting,ok,lost"`
	EngineC  *wire.Celsius `json:"engine_c" nullable:"true" doc:"the last reading; null: none yet"`
	AmbientC *wire.Celsius `json:"ambient_c" nullable:"true"`
	At       *time.Time    `json:"at"`
	Detail   string        `json:"detail" doc:"why it is lost"`
}

// JobShims is the choice of shims over a job's whole engine.
type JobShims struct {
	Fit        []ShimFit   `json:"fit"`
	Buy        []ShimCount `json:"buy"`
	SpareMM    []wire.MM   `json:"spare_mm"`
	Impossible []Lacking   `json:"impossible"`
	BenchMM    []wire.MM   `json:"bench_mm" doc:"shims taken out and not in the engine"`
	Choices    []ShimPrice `json:"choices" doc:"what each of the two choices costs"`
	Frontier   []ShimPrice `json:"frontier" doc:"how near to the aim every gap can be brought for so many bought"`
	Steps      []ShimStep  `json:"steps" doc:"the work in order from here, the crank never turned with a shim missing"`
	Promised   []Promised  `json:"promised" doc:"shims of the stock that other open jobs count on too, more than there are"`
	Missing    []string    `json:"missing" doc:"valves whose fitted shim, or whose gap as a figure, is not known yet"`
}

// Promised is a size of the stock that several open jobs count on, of which there are too few.
type Promised struct {
	ShimMM  wire.MM  `json:"shim_mm"`
	InStock int      `json:"in_stock"`
	Wanted  int      `json:"wanted" doc:"by this job and the others together"`
	Jobs    []string `json:"jobs" doc:"the vehicles of the others"`
}

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
}

func shimSteps(j *job.Job, steps []job.ShimStep) []ShimStep {
	out := []ShimStep{}
	for _, s := range steps {
		step := ShimStep{Do: string(s.Do), Valve: s.Valve, ShimMM: wire.MM(s.Shim), Source: string(s.Source),
			From: s.From, Stop: s.Stop, TurnDeg: wire.Deg(s.Turn), MostMM: wire.MM(s.Most)}
		if s.Do == job.TurnOn {
			step.Until = j.Plan.Stops[s.Stop].Until()
		}
		out = append(out, step)
	}
	return out
}

// ShimPrice is what a choice of shims costs, and what it brings.
type ShimPrice struct {
	Prefer    string  `json:"prefer,omitempty" enum:"fewest_bought,nearest_aim"`
	Bought    int     `json:"bought"`
	Disturbed int     `json:"disturbed,omitempty" doc:"valves that get another shim"`
	WorstMM   wire.MM `json:"worst_from_aim_mm" doc:"how far from its aim the worst gap lies"`
}

type jobShimsInput struct {
	JobID
	Prefer  string `query:"prefer" enum:"fewest_bought,nearest_aim" doc:"left out: fewest_bought"`
	CamsOut bool   `query:"cams_out" doc:"the camshafts are out: the steps reach every valve where the crank stands"`
}

// Lacking is a valve that no shim brings into its limits, and why.
type Lacking struct {
	Valve  string `json:"valve"`
	Reason string `json:"reason"`
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
	FromHere bool    `json:"from_here" doc:"its giver is clear here, so that the shim can be taken out"`
}

func (s *server) shopRoutes(a huma.API) {
	huma.Get(a, "/api/v1/shop", s.shop, summary("get-shop", "What the workshop has set up"))
	huma.Put(a, "/api/v1/shop", s.putShop, summary("put-shop", "Change what the workshop has set up"),
		strictly[Shop](a))
	huma.Get(a, "/api/v1/probe", s.probeStatus, summary("get-probe", "The latest of the temperature probe"))
	huma.Get(a, "/api/v1/jobs/{id}/shims", s.jobShims,
		summary("get-job-shims", "The choice of shims over the whole engine"))
}

func readShop(ctx context.Context, st *store.Store) (Shop, error) {
	stored, err := st.With(ctx).Shop()
	return shopView(stored), err
}

// shopView is what is stored; what does not read is said, and nothing is made of it.
func shopView(stored store.Shop) Shop {
	shop := Shop{ProbeAddress: stored.Probe, ShimSizes: usualSizes, ShimStock: []ShimCount{},
		Version: stored.Version}
	if stored.Damaged != "" {
		shop.Damaged = "When the shims were counted does not read: count them again."
	}
	if stored.Sizes != "" {
		if err := json.Unmarshal([]byte(stored.Sizes), &shop.ShimSizes); err != nil {
			shop.ShimSizes, shop.Damaged = usualSizes, "The sizes of shims do not read: enter them again."
		}
	}
	for _, c := range stored.Stock {
		shop.ShimStock = append(shop.ShimStock, ShimCount{wire.MM(c.Shim), c.N})
	}
	return shop
}

func (s *server) shop(ctx context.Context, _ *struct{}) (*bodyOf[Shop], error) {
	shop, err := readShop(ctx, s.store)
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[Shop]{shop}, nil
}

func (s *server) putShop(ctx context.Context, in *rawInput) (*bodyOf[Shop], error) {
	shop, err := readBody[Shop](in.RawBody)
	if err != nil {
		return nil, err
	}
	var faults wire.Faults
	if shop.ProbeAddress != "" {
		if message := s.probeAllowed.Check(shop.ProbeAddress); message != "" {
			faults = append(faults, wire.Fault{Location: "body.probe_address", Value: shop.ProbeAddress,
				Message: message})
		}
	}
	sizesOf(shop.ShimSizes, &faults)
	stock := stockOf(shop.ShimStock, &faults)
	if len(faults) > 0 {
		return nil, located(http.StatusUnprocessableEntity,
			"This cannot be stored: "+counted(len(faults), "fault")+".", faults...)
	}
	sizes, err := json.Marshal(shop.ShimSizes)
	if err != nil {
		return nil, fault(err)
	}
	now := s.clock()
	anew := store.Shop{Probe: shop.ProbeAddress, Sizes: string(sizes), Stock: stock,
		Version: strconv.FormatInt(now.UnixNano(), 36)}
	if err := s.store.With(ctx).PutShop(anew, shop.Version, now); err != nil {
		return nil, fault(err)
	}
	if err := s.desk.shimsChanged(ctx); err != nil {
		return nil, fault(err)
	}
	return s.shop(ctx, nil)
}

// maxSizes bounds a list of sizes.
const maxSizes = 200

func sizesOf(z ShimSizes, faults *wire.Faults) []measure.Length {
	from, to, step := shimLength(z.FromMM, "body.shim_sizes.from_mm", faults), shimLength(z.ToMM,
		"body.shim_sizes.to_mm", faults), shimLength(z.StepMM, "body.shim_sizes.step_mm", faults)
	if len(*faults) > 0 {
		return nil
	}
	if to < from || (to-from)/step >= maxSizes {
		*faults = append(*faults,
			wire.Fault{Location: "body.shim_sizes",
				Message: fmt.Sprintf("Sizes run upwards, and are at most %d: from %s "+
					"to %s in steps of %s is "+
					"not that.", maxSizes, from, to, step)})
		return nil
	}
	var sizes []measure.Length
	for size := from; size <= to; size += step {
		sizes = append(sizes, size)
	}
	return sizes
}

func stockOf(list []ShimCount, faults *wire.Faults) []adjust.Count {
	var stock []adjust.Count
	for i, c := range list {
		at := fmt.Sprintf("body.shim_stock[%d].shim_mm", i)
		size := shimLength(c.ShimMM, at, faults)
		for _, before := range stock {
			if before.Shim == size {
				*faults = append(*faults,
					wire.Fault{Location: at, Value: c.ShimMM,
						Message: fmt.Sprintf("The size %s is listed twice.", size)})
			}
		}
		stock = append(stock, adjust.Count{Shim: size, N: c.Count})
	}
	return stock
}

func shimLength(mm wire.MM, at string, faults *wire.Faults) measure.Length {
	l := measure.Length(mm)
	if l <= 0 || l > job.MaxShim {
		*faults = append(*faults,
			wire.Fault{Location: at, Value: mm,
				Message: fmt.Sprintf("%s is not the thickness of a shim: above 0, at most %s.", l,
					job.MaxShim)})
	}
	return l
}

func (s *server) probeStatus(ctx context.Context, _ *struct{}) (*bodyOf[ProbeStatus], error) {
	stored, err := s.store.With(ctx).Shop()
	if err != nil {
		return nil, fault(err)
	}
	address := stored.Probe
	if s.probeAllowed.Check(address) != "" {
		address = "" // set under another allowance
	}
	status := s.probe.Ask(address)
	out := ProbeStatus{State: string(status.State), Detail: status.Detail}
	if !status.At.IsZero() {
		engine, ambient, at := status.Reading.EngineC, status.Reading.AmbientC, status.At.UTC()
		out.EngineC, out.AmbientC, out.At = (*wire.Celsius)(&engine), (*wire.Celsius)(&ambient), &at
	}
	return &bodyOf[ProbeStatus]{out}, nil
}

func (s *server) jobShims(ctx context.Context, in *jobShimsInput) (*bodyOf[JobShims], error) {
	out := &bodyOf[JobShims]{}
	others, err := s.desk.othersCountOn(ctx, in.ID)
	if err != nil {
		return nil, fault(err)
	}
	err = s.desk.with(ctx, in.ID, func(o *openJob) error {
		shop, err := s.desk.supply(ctx, o)
		if err != nil {
			return err
		}
		j := o.state
		wanted := cmp.Or(adjust.Prefer(in.Prefer), j.Prefer, adjust.FewestBought)
		var choices []ShimPrice
		for _, prefer := range []adjust.Prefer{adjust.FewestBought, adjust.NearestAim} {
			plan, missing := j.Shims(shop.Sizes, shop.Stock, prefer)
			bought, disturbed, worst := plan.Cost(j.AimOfNamed)
			choices = append(choices, ShimPrice{string(prefer), bought, disturbed, wire.MM(worst)})
			if prefer != wanted {
				continue
			}
			out.Body = shimsView(j, plan, missing)
			out.Body.Promised = promised(plan, j, shop.Stock, others)
			steps := j.Steps() // those that the job is led by
			if in.CamsOut != j.CamsOut && in.CamsOut || wanted != cmp.Or(j.Prefer, adjust.FewestBought) {
				steps = j.ShimSteps(plan, shop.Stock, in.CamsOut) // another choice, to be looked at
			}
			out.Body.Steps = shimSteps(j, steps)
		}
		out.Body.Choices = choices
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
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

// supply tells a job of a shimmed engine what the workshop has of shims, from which what is next follows.
func (d *desk) supply(ctx context.Context, o *openJob) (shop job.Shop, err error) {
	if !o.record.Sheet.Shimmed() {
		return shop, nil
	}
	stored, err := readShop(ctx, d.store)
	if err != nil {
		return shop, err
	}
	var faults wire.Faults
	shop = job.Shop{Sizes: sizesOf(stored.ShimSizes, &faults), Stock: stockOf(stored.ShimStock, &faults)}
	o.state.Supply(shop)
	return shop, nil
}

func shimsView(j *job.Job, plan adjust.ShimPlan, missing []string) JobShims {
	out := JobShims{Fit: []ShimFit{}, Buy: []ShimCount{}, SpareMM: wire.Millimetres(plan.Spare),
		Impossible: []Lacking{}, Frontier: []ShimPrice{}, Missing: wire.List(missing),
		BenchMM: wire.Millimetres(j.LooseShims)}
	for _, f := range plan.Fit {
		v, _ := j.Valve(f.Valve)
		out.Fit = append(out.Fit,
			ShimFit{Valve: f.Valve, FittedMM: wire.MM(v.Shim), ShimMM: wire.MM(f.Shim), From: f.From,
				GapMM: wire.MM(f.Gap), Here: j.Settable(v), Source: string(
					j.Source(f)), FromHere: j.GiverClear(f),
				WantedMM: wire.MM(adjust.ShimValve{Fitted: f.Shim, Measured: f.Gap,
					Aim: j.AimOf(v)}.Wanted())})
	}
	for _, c := range plan.Frontier {
		out.Frontier = append(out.Frontier, ShimPrice{Bought: c.Bought, WorstMM: wire.MM(c.Worst)})
	}
	for _, b := range plan.Buy {
		out.Buy = append(out.Buy, ShimCount{wire.MM(b.Shim), b.N})
	}
	for _, l := range plan.Impossible {
		out.Impossible = append(out.Impossible, Lacking{l.Valve, l.Reason})
	}
	return out
}
