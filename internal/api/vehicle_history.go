package api

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"math"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/engine"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/wear"
	"metronix/internal/report"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// A vehicle's history is what its finished jobs tell, each written beside its list when it was signed; when
// the vehicle is due follows from it and from the intervals that are kept for it.

// Interval is after how far or how long a vehicle is due, and who says so. Several may be in dispute: each is
// kept.
type Interval struct {
	KM     int    `json:"km" minimum:"0" maximum:"1000000" doc:"0: none by distance"`
	Months int    `json:"months" minimum:"0" maximum:"240" doc:"0: none by time"`
	Source string `json:"source" minLength:"1" maxLength:"100"`
	// a new cam: it is due a single time
	OnceFrom string `json:"once_from,omitempty" format:"date" doc:"due once only, counted from this day, such as after a new cam; the source says from what"`
	Weeks    int    `json:"weeks,omitempty" minimum:"0" maximum:"104" doc:"for once_from: after so many weeks"`
	FromKM   int    `json:"from_km,omitempty" minimum:"0" maximum:"9999999" doc:"for once_from: the odometer then; 0: not known"`
}

// once is what falls due a single time; ok is false for what comes again and again.
func (i Interval) once() (o wear.Once, ok bool) {
	from, err := time.Parse(time.DateOnly, i.OnceFrom)
	if err != nil {
		return o, false
	}
	o = wear.Once{What: i.Source, From: from, FromKM: math.NaN(), Weeks: i.Weeks, KM: float64(i.KM)}
	if i.FromKM > 0 {
		o.FromKM = float64(i.FromKM)
	}
	return o, true
}

// VisitView is a finished job, as a vehicle's history shows it.
type VisitView struct {
	JobID      string       `json:"job_id"`
	At         time.Time    `json:"at"`
	OdometerKM int          `json:"odometer_km"`
	State      string       `json:"state" enum:"cold,hot"`
	Source     string       `json:"source" doc:"of the limits"`
	By         string       `json:"by"`
	Outcome    string       `json:"outcome"`
	Tight      int          `json:"tight" doc:"valves found tight"`
	Loose      int          `json:"loose"`
	Later      []string     `json:"later" doc:"findings left for later"`
	Valves     []VisitValve `json:"valves"`
}

// VisitValve is one valve at a visit.
type VisitValve struct {
	Valve   string   `json:"valve"`
	FoundMM *wire.MM `json:"found_mm" nullable:"true" doc:"null: a side only, or not found"`
	LeftMM  *wire.MM `json:"left_mm" nullable:"true"`
	LowerMM wire.MM  `json:"lower_mm"`
	UpperMM wire.MM  `json:"upper_mm"`
}

// ValveWear is how one valve wears.
type ValveWear struct {
	Valve    string      `json:"valve"`
	Rate     *float64    `json:"rate_mm_per_1000km" nullable:"true" doc:"negative: it tightens; null: not known"`
	LeavesKM *float64    `json:"leaves_window_at_km" nullable:"true"`
	Side     string      `json:"side" enum:",tight,loose"`
	Range    *[2]float64 `json:"range_km,omitempty" doc:"from the fastest and the slowest rate between visits"`
	Out      bool        `json:"out" doc:"it was left outside its limits"`
	Odd      bool        `json:"odd" doc:"it wears unlike its neighbours"`
}

// DueView is when a vehicle is due, and why.
type DueView struct {
	VehicleID string `json:"vehicle_id"`
	Vehicle   string `json:"vehicle"`
	Plate     string `json:"plate"`
	On        string `json:"on" doc:"2006-01-02; empty: not known"`
	KM        int    `json:"odometer_km" doc:"0: not known"`
	Because   string `json:"because"`
}

// VehicleHistory is a vehicle with all that its finished jobs tell.
type VehicleHistory struct {
	Vehicle   Vehicle     `json:"vehicle"`
	Engine    *EngineView `json:"engine,omitempty" doc:"absent where its sheet cannot be drawn"`
	Visits    []VisitView `json:"visits" doc:"oldest first"`
	Open      []string    `json:"open_jobs"`
	Wear      []ValveWear `json:"wear"`
	Counted   int         `json:"counted" doc:"the visits that the wear was reckoned from: of one thermal state, the odometer rising"`
	PerDayKM  *float64    `json:"per_day_km" nullable:"true"`
	Due       DueView     `json:"due"`
	Intervals []Interval  `json:"intervals"`
	// as they are typed; vehicle.cards has them resolved
	OwnCards []wire.ClearanceCard `json:"own_cards"`
}

func (s *server) historyRoutes(a huma.API) {
	huma.Get(a, "/api/v1/vehicles/{id}/history", s.vehicleHistory,
		summary("vehicle-history", "A vehicle's finished jobs, how its valves wear, and when it is due"))
	huma.Put(a, "/api/v1/vehicles/{id}/cards", s.putCards,
		summary("put-own-cards", "A vehicle's own clearance cards, where its cam was changed"),
		strictly[OwnCards](a))
	huma.Put(a, "/api/v1/vehicles/{id}/intervals", s.putIntervals,
		summary("put-intervals", "After how far or how long a vehicle is due, each with its source"))
	huma.Get(a, "/api/v1/due", s.dues, summary("due-list", "The vehicles that are due, the earliest first"))
	huma.Get(a, "/api/v1/due.ics", s.dueCalendar,
		summary("due-calendar", "The same as a calendar to subscribe to"))
	huma.Get(a, "/api/v1/vehicles/{id}/due.ics", s.vehicleCalendar,
		summary("vehicle-calendar", "When one vehicle is due, as a calendar file"))
}

// visitOf is what a finished job is kept by; nil before it is finished.
func visitOf(r store.Job, j *job.Job) ([]byte, error) {
	found, ok := j.Visit()
	if !ok {
		return nil, nil
	}
	v := VisitView{JobID: r.ID, At: j.SignedAt.UTC(), OdometerKM: r.OdometerKM, State: string(j.Card.State),
		Source: j.Card.Source, By: j.SignedBy, Outcome: j.Outcome(),
		Later: []string{}, Valves: []VisitValve{}}
	v.Tight, v.Loose = j.FoundOut()
	for _, f := range j.Later() {
		v.Later = append(v.Later, f.Place+": "+f.What)
	}
	for _, f := range found {
		v.Valves = append(v.Valves,
			VisitValve{f.Valve, (*wire.MM)(f.Found), (*wire.MM)(f.Left), wire.MM(f.Window.Lower),
				wire.MM(f.Window.Upper)})
	}
	return json.Marshal(v)
}

func (s *server) visits(ctx context.Context, vehicleID string) ([]VisitView, error) {
	stored, err := s.store.With(ctx).Visits(vehicleID)
	if err != nil {
		return nil, err
	}
	list := []VisitView{}
	for _, v := range stored {
		var visit VisitView
		if err := json.Unmarshal([]byte(v.Visit), &visit); err != nil {
			return nil, err
		}
		list = append(list, visit)
	}
	return list, nil
}

// reckoned are the visits that wear is reckoned from: of the thermal state of the last one, with a rising
// odometer and falling in order of time, for a gap found hot and one found cold are two things.
func reckoned(list []VisitView) (out []wear.Visit) {
	if len(list) == 0 {
		return nil
	}
	state := list[len(list)-1].State
	for _, v := range list {
		n := len(out)
		if v.State != state || n > 0 && (float64(v.OdometerKM) <= out[n-1].OdometerKM ||
			v.At.Before(out[n-1].Date)) {
			continue
		}
		visit := wear.Visit{OdometerKM: float64(v.OdometerKM), Date: v.At}
		for _, x := range v.Valves {
			visit.Valves = append(visit.Valves,
				wear.Found{Valve: x.Valve, Found: (*measure.Length)(x.FoundMM),
					Left: (*measure.Length)(x.LeftMM),
					Window: measure.Window{Lower: measure.Length(x.LowerMM),
						Upper: measure.Length(x.UpperMM)}})
		}
		out = append(out, visit)
	}
	return out
}

func intervalsOf(v store.Vehicle) ([]Interval, error) {
	list := []Interval{}
	if v.Intervals == "" {
		return list, nil
	}
	return list, json.Unmarshal([]byte(v.Intervals), &list)
}

// earliest are the shortest of the intervals: which comes first decides, whoever is right.
func earliest(list []Interval) (km float64, months int) {
	for _, i := range list {
		if _, once := i.once(); once {
			continue
		}
		if i.KM > 0 && (km == 0 || float64(i.KM) < km) {
			km = float64(i.KM)
		}
		if i.Months > 0 && (months == 0 || i.Months < months) {
			months = i.Months
		}
	}
	return km, months
}

// dueOf is when a vehicle is due: the earliest of the first valve to leave its limits, the distance, turned
// into a day by how far the vehicle goes, and the time.
func dueOf(v store.Vehicle, visits []wear.Visit, f wear.Forecast) DueView {
	due := DueView{VehicleID: v.ID, Vehicle: v.Name, Plate: v.Plate, Because: f.Due.Because}
	if len(visits) == 0 {
		return due
	}
	on := f.Due.Date
	if !math.IsNaN(f.Due.OdometerKM) {
		due.KM = int(f.Due.OdometerKM)
		by := wear.On(visits[len(visits)-1], f.Due.OdometerKM, wear.PerDay(visits))
		if !by.IsZero() && (on.IsZero() || by.Before(on)) {
			on = by
		}
	}
	if !on.IsZero() {
		due.On = on.Format(time.DateOnly)
	}
	return due
}

// soonest is when a vehicle is due where something that falls due once comes before: after a new cam.
func soonest(due DueView, h VehicleHistory, visits []wear.Visit) DueView {
	var finished []time.Time
	for _, v := range h.Visits {
		finished = append(finished, v.At)
	}
	for _, i := range h.Intervals {
		o, is := i.once()
		if !is {
			continue
		}
		on, km, ok := o.Due(finished)
		if !ok {
			continue
		}
		if n := len(visits); n > 0 {
			if by := wear.On(visits[n-1], km, wear.PerDay(visits)); !by.IsZero() &&
				(on.IsZero() || by.Before(on)) {
				on = by
			}
		}
		day := ""
		if !on.IsZero() {
			day = on.Format(time.DateOnly)
		}
		if due.On == "" && due.KM == 0 || day != "" && (due.On == "" || day < due.On) {
			due.On, due.KM, due.Because = day, 0, o.Because()
			if !math.IsNaN(km) {
				due.KM = int(km)
			}
		}
	}
	return due
}

func (s *server) vehicleHistory(ctx context.Context, in *VehicleID) (*bodyOf[VehicleHistory], error) {
	out, err := s.historyOf(ctx, in.ID)
	if err != nil {
		return nil, fault(err)
	}
	out.Due.Because = speaksTo(ctx).Retell(out.Due.Because)
	return &bodyOf[VehicleHistory]{out}, nil
}

func (s *server) historyOf(ctx context.Context, id string) (h VehicleHistory, err error) {
	v, err := s.store.With(ctx).Vehicle(id)
	if err != nil {
		return h, err
	}
	h = VehicleHistory{Vehicle: vehicleView(v, speaksTo(ctx)), OwnCards: wire.List(wire.CardsOf(v.Cards)),
		Wear: []ValveWear{}, Open: []string{}}
	kinds := map[string]string{}
	if e, err := s.store.With(ctx).Engine(v.EngineID); err == nil {
		drawing := engineView(e.Sheet)
		h.Engine = &drawing
		for _, x := range drawing.Valves {
			kinds[x.Name] = x.Kind
		}
	}
	if h.Visits, err = s.visits(ctx, id); err != nil {
		return h, err
	}
	open, err := s.store.With(ctx).OpenJobsOf(id)
	if err != nil {
		return h, err
	}
	h.Open = wire.List(open)
	if h.Intervals, err = intervalsOf(v); err != nil {
		return h, err
	}
	visits := reckoned(h.Visits)
	h.Counted = len(visits)
	if perDay := wear.PerDay(visits); !math.IsNaN(perDay) {
		h.PerDayKM = &perDay
	}
	km, months := earliest(h.Intervals)
	f, err := wear.Reckon(visits, km, months)
	if err != nil && !errors.Is(err, wear.ErrVisits) {
		return h, err
	}
	odd := wear.Odd(f.Valves, func(valve string) string { return kinds[valve] })
	for _, w := range f.Valves {
		h.Wear = append(h.Wear, ValveWear{Valve: w.Valve, Rate: known(w.Rate), LeavesKM: known(w.Leaves),
			Side: string(w.Side), Range: w.Range, Out: w.Out, Odd: slices.Contains(odd, w.Valve)})
	}
	slices.SortStableFunc(h.Wear, func(a, b ValveWear) int { return cmp.Compare(a.leaves(), b.leaves()) })
	h.Due = soonest(dueOf(v, visits, f), h, visits)
	return h, nil
}

func (w ValveWear) leaves() float64 {
	if w.LeavesKM == nil {
		return math.Inf(1)
	}
	return *w.LeavesKM
}

func known(x float64) *float64 {
	if math.IsNaN(x) || math.IsInf(x, 0) {
		return nil
	}
	return &x
}

// remember stores when a vehicle is due, after something it follows from has changed.
func (s *server) remember(ctx context.Context, vehicleID string) error {
	h, err := s.historyOf(ctx, vehicleID)
	if err != nil {
		return err
	}
	return s.store.With(ctx).PutDue(store.Due{VehicleID: vehicleID, DueOn: h.Due.On, DueKM: h.Due.KM,
		Because: h.Due.Because})
}

type intervalsInput struct {
	VehicleID
	Body struct {
		Intervals []Interval `json:"intervals" maxItems:"10"`
	}
}

func (s *server) putIntervals(ctx context.Context, in *intervalsInput) (*bodyOf[VehicleHistory], error) {
	for _, i := range in.Body.Intervals {
		if from, err := time.Parse(time.DateOnly, i.OnceFrom); err == nil &&
			from.After(s.clock().Add(24*time.Hour)) {
			message := "The " + i.Source + " was fitted on " + i.OnceFrom +
				", which has not come yet. Give the day it was fitted."
			return nil, located(http.StatusUnprocessableEntity, message,
				wire.Fault{Location: "body.intervals", Value: i.OnceFrom, Message: message})
		}
		if i.KM == 0 && i.Months == 0 && i.Weeks == 0 {
			message := "An interval of " + i.Source + " names neither a distance nor a time."
			return nil, located(http.StatusUnprocessableEntity, message,
				wire.Fault{Location: "body.intervals", Message: message})
		}
	}
	v, err := s.store.With(ctx).Vehicle(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	text, err := json.Marshal(in.Body.Intervals)
	if err != nil {
		return nil, fault(err)
	}
	v.Intervals = string(text)
	if err := s.store.With(ctx).ReplaceVehicle(v); err != nil {
		return nil, fault(err)
	}
	if err := s.remember(ctx, in.ID); err != nil {
		return nil, fault(err)
	}
	return s.vehicleHistory(ctx, &in.VehicleID)
}

// OwnCards are the cards of one vehicle, whose cam was changed.
type OwnCards struct {
	Cards []wire.ClearanceCard `json:"cards" maxItems:"10"`
}

type ownCardsInput struct {
	VehicleID
	RawBody []byte `contentType:"application/json"`
}

// putCards stores a vehicle's own cards, checked as those of its engine's sheet are.
func (s *server) putCards(ctx context.Context, in *ownCardsInput) (*bodyOf[VehicleHistory], error) {
	body, err := readBody[OwnCards](in.RawBody)
	if err != nil {
		return nil, err
	}
	v, err := s.store.With(ctx).Vehicle(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	e, err := s.store.With(ctx).Engine(v.EngineID)
	if err != nil {
		return nil, fault(err)
	}
	sheet := *e.Sheet
	sheet.Clearances = wire.CoreCards(body.Cards)
	var faults wire.Faults
	for _, p := range engine.Check(&sheet).Problems {
		if at, ok := strings.CutPrefix(p.Location, "clearances"); ok {
			faults = append(faults, wire.Fault{Location: "cards" + at, Message: p.Message})
		}
	}
	if len(faults) > 0 {
		return nil, unreadable(faults)
	}
	v.Cards = sheet.Clearances
	if err := s.store.With(ctx).ReplaceVehicle(v); err != nil {
		return nil, fault(err)
	}
	return s.vehicleHistory(ctx, &in.VehicleID)
}

// mostDue bounds the list of what is due.
const mostDue = 500

type duesInput struct {
	Limit int `query:"limit" minimum:"1" maximum:"500" default:"20"`
}

func (s *server) dues(ctx context.Context, in *duesInput) (*listOf[DueView], error) {
	stored, err := s.store.With(ctx).Dues(in.Limit)
	if err != nil {
		return nil, fault(err)
	}
	out := &listOf[DueView]{Body: []DueView{}}
	for _, d := range stored {
		out.Body = append(out.Body, dueView(d, speaksTo(ctx)))
	}
	return out, nil
}

func dueView(d store.Due, speaks measure.Units) DueView {
	return DueView{d.VehicleID, d.Name, d.Plate, d.DueOn, d.DueKM, speaks.Retell(d.Because)}
}

func (s *server) dueCalendar(ctx context.Context, _ *struct{}) (*file, error) {
	stored, err := s.store.With(ctx).Dues(mostDue)
	if err != nil {
		return nil, fault(err)
	}
	return s.calendar("metronix-due", stored)
}

func (s *server) vehicleCalendar(ctx context.Context, in *VehicleID) (*file, error) {
	due, err := s.store.With(ctx).DueOf(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	return s.calendar(in.ID, []store.Due{due})
}

// file is an answer that is saved or shown as a file.
type file struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

func (s *server) calendar(name string, list []store.Due) (*file, error) {
	var entries []report.DueEntry
	for _, d := range list {
		on, err := time.Parse(time.DateOnly, d.DueOn)
		if err != nil {
			continue // no day is known
		}
		entries = append(entries,
			report.DueEntry{VehicleID: d.VehicleID, Vehicle: d.Name, Plate: d.Plate, On: on,
				KM: d.DueKM, Because: d.Because})
	}
	return &file{"text/calendar; charset=utf-8", `inline; filename="` + name + `.ics"`,
		[]byte(report.DueCalendar(entries, s.clock()))}, nil
}
