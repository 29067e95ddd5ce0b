package api

import (
	"context"
	"encoding/json"
	"math"
	"net/http"
	"time"

	"metronix/core/measure"
	"metronix/core/wear"
	"metronix/internal/report"
	"metronix/internal/store"
	"metronix/internal/wire"
)

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

// DueView is when a vehicle is due, and why.
type DueView struct {
	VehicleID string `json:"vehicle_id"`
	Vehicle   string `json:"vehicle"`
	Plate     string `json:"plate"`
	On        string `json:"on" doc:"2006-01-02; empty: not known"`
	KM        int    `json:"odometer_km" doc:"0: not known"`
	Because   string `json:"because"`
}

// intervalsOf reads a vehicle's intervals; none where they do not read.
func intervalsOf(v store.Vehicle) ([]Interval, error) {
	list := []Interval{}
	if v.Intervals == "" {
		return list, nil
	}
	if err := json.Unmarshal([]byte(v.Intervals), &list); err != nil {
		return []Interval{}, err
	}
	return list, nil
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

// remember stores when a vehicle is due, after something it follows from has changed.
func (s *server) remember(ctx context.Context, vehicleID string) error {
	h, err := s.historyOf(ctx, vehicleID)
	if err != nil {
		return err
	}
	return s.store.With(ctx).PutDue(store.Due{VehicleID: vehicleID, DueOn: h.Due.On, DueKM: h.Due.KM,
		Because: h.Due.Because})
}

// IntervalsBody are the intervals of a vehicle.
type IntervalsBody struct {
	Intervals []Interval `json:"intervals" maxItems:"10"`
}

type intervalsInput struct {
	VehicleID
	Body IntervalsBody
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
	text, err := json.Marshal(in.Body.Intervals)
	if err != nil {
		return nil, fault(err)
	}
	if err := s.store.With(ctx).SetIntervals(in.ID, string(text)); err != nil {
		return nil, fault(err)
	}
	if err := s.remember(ctx, in.ID); err != nil {
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
