package api

import (
	"cmp"
	"context"
	"log/slog"
	"math"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/wear"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// A vehicle's history is what its finished jobs tell, each written beside its list when it was signed; when
// the vehicle is due follows from it and from the intervals that are kept for it.

// VisitView is a finished job, as a vehicle's history shows it.
type VisitView struct {
	JobID string    `json:"job_id" doc:"empty: it was at another shop, by which it is told"`
	At    time.Time `json:"at"`
	wire.Counted
	State   string       `json:"state" enum:"cold,hot"`
	Source  string       `json:"source" doc:"of the limits"`
	By      string       `json:"by"`
	Outcome string       `json:"outcome"`
	Tight   int          `json:"tight" doc:"valves found tight"`
	Loose   int          `json:"loose"`
	Later   []string     `json:"later" doc:"findings left for later"`
	PutOff  string       `json:"put_off,omitempty" doc:"the earliest day until which a valve or the job was put off; absent: to none"`
	Valves  []VisitValve `json:"valves"`
}

// VisitValve is one valve at a visit.
type VisitValve struct {
	Valve   string   `json:"valve"`
	FoundMM *wire.MM `json:"found_mm" nullable:"true" doc:"null: a side only, or not found"`
	LeftMM  *wire.MM `json:"left_mm" nullable:"true"`
	FoundU  *wire.MM `json:"found_u_mm,omitempty" doc:"its standard uncertainty; absent: not known"`
	LeftU   *wire.MM `json:"left_u_mm,omitempty"`
	LowerMM wire.MM  `json:"lower_mm"`
	UpperMM wire.MM  `json:"upper_mm"`
	LeftOut string   `json:"left_out,omitempty" enum:",tight,loose" doc:"the side on which it was left out of its limits"`
}

// ValveWear is how one valve wears.
type ValveWear struct {
	Valve   string       `json:"valve"`
	Rate    *float64     `json:"rate_mm_per_1000" nullable:"true" doc:"per 1000 of what its vehicle counts, km or running hours; negative: it tightens; null: not known"`
	Leaves  *float64     `json:"leaves_at" nullable:"true" doc:"what the counter shows when it leaves its limits"`
	Side    string       `json:"side" enum:",tight,loose"`
	RateU   *float64     `json:"rate_u_mm_per_1000" nullable:"true" doc:"its standard uncertainty"`
	Differs bool         `json:"differs" doc:"the rate is more than readings of a valve that stands still would show; else it is steady"`
	Range   *[2]*float64 `json:"range,omitempty" doc:"the earliest and the latest at which it leaves; null: never"`
	Out     bool         `json:"out" doc:"it was left outside its limits"`
	Odd     bool         `json:"odd" doc:"it wears unlike its neighbours"`
}

// VehicleHistory is a vehicle with all that its finished jobs tell.
type VehicleHistory struct {
	Vehicle   Vehicle         `json:"vehicle"`
	Engine    *EngineView     `json:"engine,omitempty" doc:"absent where its sheet cannot be drawn"`
	Visits    []VisitView     `json:"visits" doc:"oldest first"`
	Open      []string        `json:"open_jobs"`
	Wear      []ValveWear     `json:"wear"`
	Counted   int             `json:"counted" doc:"the visits that the wear was reckoned from: of one thermal state, the counter rising"`
	PerDay    *float64        `json:"per_day" nullable:"true" doc:"how far it goes in a day, by its counter"`
	Due       DueView         `json:"due"`
	Intervals []wire.Interval `json:"intervals"`
	// visits to other shops, as they are typed; they stand among the visits too
	Outside []wire.OutsideVisit `json:"outside"`
	// as they are typed; vehicle.cards has them resolved
	OwnCards []wire.ClearanceCard `json:"own_cards"`
	// vehicles of other places with its plate, where several workshops were gathered
	AlsoAt []Elsewhere `json:"also_at"`
}

// historyRoutes are a vehicle over the years: what its jobs found, how it wears, its own cards and intervals,
// and when it is due.
func (s *server) historyRoutes(a huma.API) {
	huma.Get(a, "/api/v1/vehicles/{id}/history", s.vehicleHistory,
		summary("vehicle-history", "A vehicle's finished jobs, how its valves wear, and when it is due"))
	huma.Put(a, "/api/v1/vehicles/{id}/cards", s.putCards,
		summary("put-own-cards", "A vehicle's own clearance cards, where its cam was changed"),
		strictly[OwnCards](a))
	huma.Put(a, "/api/v1/vehicles/{id}/outside", s.putOutside,
		summary("put-outside-visits", "A vehicle's visits to other shops, from their sheets"))
	huma.Put(a, "/api/v1/vehicles/{id}/intervals", s.putIntervals,
		summary("put-intervals", "After how far or how long a vehicle is due, each with its source"))
	huma.Get(a, "/api/v1/due", s.dues, summary("due-list", "The vehicles that are due, the earliest first"))
	huma.Get(a, "/api/v1/due.ics", s.dueCalendar,
		summary("due-calendar", "The same as a calendar to subscribe to"))
	huma.Get(a, "/api/v1/vehicles/{id}/due.ics", s.vehicleCalendar,
		summary("vehicle-calendar", "When one vehicle is due, as a calendar file"))
}

// visitOf is what a finished job tells of its vehicle; nil before it is finished.
func visitOf(r store.Job, j *job.Job) *record.Visit {
	v, ok := record.Of(j).Visit()
	if !ok {
		return nil
	}
	v.Meter = r.Meter
	return &v
}

// visitView shows a finished job.
func visitView(v store.Visited, by measure.Counter) VisitView {
	out := VisitView{
		JobID:   v.JobID,
		At:      v.At,
		Counted: wire.CountedOf(by, v.Meter),
		State:   string(v.State),
		Source:  v.Source,
		By:      v.By,
		Outcome: v.Outcome.String(),
		Tight:   v.Tight,
		Loose:   v.Loose,
		Later:   []string{},
		Valves:  []VisitValve{},
	}
	for _, r := range v.Later {
		out.Later = append(out.Later, r.String())
	}
	for _, f := range v.Valves {
		out.Valves = append(
			out.Valves,
			VisitValve{f.Valve, (*wire.MM)(f.Found), (*wire.MM)(f.Left), (*wire.MM)(f.FoundU),
				(*wire.MM)(f.LeftU), wire.MM(f.Window.Lower), wire.MM(f.Window.Upper), string(f.LeftOut)},
		)
	}
	if !v.PutOff.IsZero() {
		out.PutOff = v.PutOff.Format(time.DateOnly)
	}
	return out
}

// visits are a vehicle's finished jobs. One that does not read is left out, and said in the program's log: it
// follows from its job's list, and metronix rebuild makes it anew.
func (s *server) visits(ctx context.Context, vehicleID string) ([]store.Visited, error) {
	list, damaged, err := s.store.With(ctx).Visits(vehicleID)
	for _, d := range damaged {
		slog.Error(
			"what is known of a finished job does not read: metronix rebuild makes it anew",
			"job",
			d.ID,
			"error",
			d.Why,
		)
	}
	return list, err
}

// reckoned is what a vehicle's finished jobs and its intervals come to.
func (s *server) reckoned(
	ctx context.Context,
	v store.Vehicle,
) (h wear.History, f wear.Forecast, list []store.Visited,
	err error) {
	if list, err = s.visits(ctx, v.ID); err != nil {
		return h, f, nil, err
	}
	list = s.withOutside(ctx, v, list)
	h = record.History(plain(list), v.Counter, v.Intervals)
	f, err = h.Reckon()
	return h, f, list, err
}

// vehicleHistory gives all of that at once.
func (s *server) vehicleHistory(ctx context.Context, in *VehicleID) (*bodyOf[VehicleHistory], error) {
	out, err := s.historyOf(ctx, in.ID)
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[VehicleHistory]{out}, nil
}

// historyOf asks core/wear once and shows what it says: visits, rates and their ranges, and what comes first.
// A vehicle whose engine was lost still has its visits.
func (s *server) historyOf(ctx context.Context, id string) (h VehicleHistory, err error) {
	v, err := s.store.With(ctx).Vehicle(id)
	if err != nil {
		return h, err
	}
	h = VehicleHistory{Vehicle: vehicleView(v, speaksTo(ctx)), OwnCards: wire.List(wire.CardsOf(v.Cards)), Outside: wire.OutsideOf(v.Outside, v.Counter),
		Wear: []ValveWear{}, Open: []string{}, Visits: []VisitView{}}
	h.Vehicle.Place = s.places.name(v.ID)
	if h.AlsoAt, err = s.alsoAt(s.store.With(ctx), v); err != nil {
		return h, err
	}
	kinds := map[string]string{}
	if e, err := s.store.With(ctx).Engine(v.EngineID); err == nil {
		drawing := engineView(e.Sheet)
		h.Engine = &drawing
		for _, x := range drawing.Valves {
			kinds[x.Name] = x.Kind
		}
	}
	history, f, list, err := s.reckoned(ctx, v)
	if err != nil {
		return h, err
	}
	for _, visit := range list {
		h.Visits = append(h.Visits, visitView(visit, v.Counter))
	}
	open, err := s.store.With(ctx).OpenJobsOf(id)
	if err != nil {
		return h, err
	}
	h.Open, h.Intervals, h.Counted = wire.List(open), wire.IntervalsOf(v.Intervals, v.Counter), len(history.Visits)
	if perDay := wear.PerDay(history.Visits); !math.IsNaN(perDay) {
		h.PerDay = &perDay
	}
	odd := wear.Odd(f.Valves, v.Counter, func(valve string) string { return kinds[valve] })
	for _, w := range f.Valves {
		h.Wear = append(h.Wear, ValveWear{Valve: w.Valve, Rate: known(w.Rate), Leaves: known(w.Leaves),
			RateU: known(
				w.RateU,
			), Differs: w.Differs, Side: string(w.Side), Range: leavesBetween(w.Range), Out: w.Out, Odd: slices.Contains(odd, w.Valve)})
	}
	slices.SortStableFunc(h.Wear, func(a, b ValveWear) int { return cmp.Compare(a.leaves(), b.leaves()) })
	h.Due = dueView(dueOf(v, f.Due), speaksTo(ctx))
	return h, nil
}

// leaves is by when a valve leaves its limits, for sorting; never is after everything.
func (w ValveWear) leaves() float64 {
	if w.Leaves == nil {
		return math.Inf(1)
	}
	return *w.Leaves
}

// leavesBetween is a range as it is sent; an end that is never is null.
func leavesBetween(r *[2]float64) *[2]*float64 {
	if r == nil {
		return nil
	}
	return &[2]*float64{known(r[0]), known(r[1])}
}

// known is a figure that may not be there; JSON has no infinity.
func known(x float64) *float64 {
	if math.IsNaN(x) || math.IsInf(x, 0) {
		return nil
	}
	return &x
}
