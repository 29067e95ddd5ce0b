package api

import (
	"context"
	"math"
	"net/http"
	"time"

	"metronix/core/measure"
	"metronix/core/wear"
	"metronix/internal/report"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// DueView is when a vehicle is due, and why.
type DueView struct {
	VehicleID string `json:"vehicle_id"`
	Vehicle   string `json:"vehicle"`
	Plate     string `json:"plate"`
	On        string `json:"on" doc:"2006-01-02; empty: not known"`
	wire.Counted
	Because string `json:"because"`
}

// remember stores when a vehicle is due, after something it follows from has changed.
func (s *server) remember(ctx context.Context, vehicleID string) error {
	v, err := s.store.With(ctx).Vehicle(vehicleID)
	if err != nil {
		return err
	}
	_, f, _, err := s.reckoned(ctx, v)
	if err != nil {
		return err
	}
	return s.store.With(ctx).PutDue(dueOf(v, f.Due))
}

// dueOf is when a vehicle is due, as it is stored: days and whole kilometres.
func dueOf(v store.Vehicle, due wear.Due) store.Due {
	d := store.Due{VehicleID: v.ID, Name: v.Name, Plate: v.Plate, Cause: due.Cause}
	if !due.Date.IsZero() {
		d.DueOn = due.Date.Format(time.DateOnly)
	}
	if !math.IsNaN(due.Meter) {
		d.DueAt = int(due.Meter)
	}
	return d
}

// IntervalsBody are the intervals of a vehicle.
type IntervalsBody struct {
	Intervals []wire.Interval `json:"intervals" maxItems:"10"`
}

// intervalsInput is all intervals of a vehicle.
type intervalsInput struct {
	VehicleID
	Body IntervalsBody
}

// putIntervals stores after how far or how long a vehicle is due. One that names neither, or counts from a
// day that has not come, is a slip.
func (s *server) putIntervals(ctx context.Context, in *intervalsInput) (*bodyOf[VehicleHistory], error) {
	for _, i := range in.Body.Intervals {
		if from, err := time.Parse(time.DateOnly, i.OnceFrom); err == nil &&
			from.After(s.clock().Add(24*time.Hour)) {
			message := "The " + i.Source + " was fitted on " + i.OnceFrom +
				", which has not come yet. Give the day it was fitted."
			return nil, located(http.StatusUnprocessableEntity, message,
				wire.Fault{Location: "body.intervals", Value: i.OnceFrom, Message: message})
		}
		if i.KM == 0 && i.Hours == 0 && i.Months == 0 && i.Weeks == 0 {
			message := "An interval of " + i.Source + " names neither a distance, nor hours, nor a time."
			return nil, located(http.StatusUnprocessableEntity, message,
				wire.Fault{Location: "body.intervals", Message: message})
		}
	}
	v, err := s.store.With(ctx).Vehicle(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	intervals, err := wire.CoreIntervals(in.Body.Intervals, v.Counter)
	if err != nil {
		return nil, located(http.StatusUnprocessableEntity, wire.Sentence(err),
			wire.Fault{Location: "body.intervals", Message: wire.Sentence(err)})
	}
	if err := s.store.With(ctx).SetIntervals(in.ID, intervals); err != nil {
		return nil, fault(err)
	}
	if err := s.remember(ctx, in.ID); err != nil {
		return nil, fault(err)
	}
	return s.vehicleHistory(ctx, &in.VehicleID)
}

// mostDue bounds the list of what is due.
const mostDue = 500

// duesInput is how many to list.
type duesInput struct {
	Limit int `query:"limit" minimum:"1" maximum:"500" default:"20"`
}

// dues lists who is due, the earliest first, as it was reckoned when each vehicle last changed.
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

// dueView words a cause when it is asked for, in the units of whoever asks.
func dueView(d store.Due, speaks measure.Units) DueView {
	return DueView{d.VehicleID, d.Name, d.Plate, d.DueOn, wire.CountedOf(d.Cause.By, d.DueAt),
		d.Cause.In(speaks)}
}

// dueCalendar is the whole list for a calendar that subscribes to it.
func (s *server) dueCalendar(ctx context.Context, _ *struct{}) (*file, error) {
	stored, err := s.store.With(ctx).Dues(mostDue)
	if err != nil {
		return nil, fault(err)
	}
	return s.calendar("metronix-due", stored, speaksTo(ctx))
}

// vehicleCalendar is one vehicle's, to be put into a calendar.
func (s *server) vehicleCalendar(ctx context.Context, in *VehicleID) (*file, error) {
	due, err := s.store.With(ctx).DueOf(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	return s.calendar(in.ID, []store.Due{due}, speaksTo(ctx))
}

// file is an answer that is saved or shown as a file.
type file struct {
	ContentType string `header:"Content-Type"`
	Disposition string `header:"Content-Disposition"`
	Body        []byte
}

// calendar writes entries for those whose day is known; a distance alone is no day.
func (s *server) calendar(name string, list []store.Due, speaks measure.Units) (*file, error) {
	var entries []report.DueEntry
	for _, d := range list {
		on, err := time.Parse(time.DateOnly, d.DueOn)
		if err != nil {
			continue // no day is known
		}
		e := report.DueEntry{VehicleID: d.VehicleID, Vehicle: d.Name, Plate: d.Plate, On: on,
			Because: d.Cause.In(speaks)}
		if d.DueAt > 0 {
			e.At = speaks.Run(d.Cause.By, float64(d.DueAt))
		}
		entries = append(entries, e)
	}
	return &file{"text/calendar; charset=utf-8", `inline; filename="` + name + `.ics"`,
		[]byte(report.DueCalendar(entries, s.clock()))}, nil
}
