package api

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// OutsideBody are a vehicle's visits to other shops.
type OutsideBody struct {
	Visits []wire.OutsideVisit `json:"visits" maxItems:"50"`
}

// outsideInput is all of them.
type outsideInput struct {
	VehicleID
	Body OutsideBody
}

// putOutside stores a vehicle's visits to other shops. One that has not come yet, that tells of a valve the
// engine does not have, or whose counter does not lie between the visits before and after it, is a slip.
func (s *server) putOutside(ctx context.Context, in *outsideInput) (*bodyOf[VehicleHistory], error) {
	v, err := s.store.With(ctx).Vehicle(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	e, err := s.store.With(ctx).Engine(v.EngineID)
	if err != nil {
		return nil, fault(err)
	}
	visits, err := wire.CoreOutside(in.Body.Visits, v.Counter)
	if err != nil {
		return nil, located(http.StatusUnprocessableEntity, wire.Sentence(err),
			wire.Fault{Location: "body.visits", Message: wire.Sentence(err)})
	}
	finished, err := s.visits(ctx, v.ID)
	if err != nil {
		return nil, fault(err)
	}
	others := plain(finished)
	for i, o := range visits {
		if message := s.outsideFault(o, e.Sheet, v, others, speaksTo(ctx)); message != "" {
			return nil, located(http.StatusUnprocessableEntity, message,
				wire.Fault{Location: fmt.Sprintf("body.visits[%d]", i), Message: message})
		}
		others = append(others, record.Visit{At: o.On, Meter: o.Meter, By: o.Shop})
	}
	if err := s.store.With(ctx).SetOutside(v.ID, visits, v.Counter); err != nil {
		return nil, fault(err)
	}
	if err := s.remember(ctx, v.ID); err != nil {
		return nil, fault(err)
	}
	return s.vehicleHistory(ctx, &in.VehicleID)
}

// outsideFault is what is wrong with a visit to another shop; empty: nothing.
func (s *server) outsideFault(
	o record.Outside, sheet *engine.Sheet, v store.Vehicle, others []record.Visit, speaks measure.Units,
) string {
	on := o.On.Format(time.DateOnly)
	if o.On.After(s.clock().Add(24 * time.Hour)) {
		return "The visit to " + o.Shop + " on " + on + " has not come yet. Give the day on its sheet."
	}
	has := map[string]bool{}
	for _, x := range sheet.Valves() {
		has[x.Name] = true
	}
	for _, x := range o.Valves {
		if !has[x.Valve] {
			return sheet.Name + " has no valve " + x.Valve + ". Name it as the engine’s sheet does, or leave it out."
		}
	}
	if len(record.OutsideLimits(sheet, v.Cards, o.State)) == 0 {
		return fmt.Sprintf(
			"No %s limits are known of %s. Enter them as a card first, so that its gaps can be judged.",
			o.State,
			v.EngineName,
		)
	}
	if against, ok := record.Fits(others, o.On, o.Meter); !ok {
		return fmt.Sprintf(
			"On %s it showed %s, so %s on %s cannot be. Correct the slip, or leave it out where its "+
				"instrument was changed since.",
			against.At.Format(time.DateOnly),
			speaks.Run(v.Counter, float64(against.Meter)),
			speaks.Run(v.Counter, float64(o.Meter)),
			on,
		)
	}
	return ""
}

// withOutside puts a vehicle's visits to other shops among its finished jobs. Where its engine is lost, or
// its limits are, nothing is told of them but that they were.
func (s *server) withOutside(ctx context.Context, v store.Vehicle, finished []store.Visited) []store.Visited {
	if len(v.Outside) == 0 {
		return finished
	}
	e, err := s.store.With(ctx).Engine(v.EngineID)
	var elsewhere []store.Visited
	for _, o := range v.Outside {
		limits := map[string]measure.Window{}
		if err == nil {
			limits = record.OutsideLimits(e.Sheet, v.Cards, o.State)
		}
		elsewhere = append(elsewhere, store.Visited{Visit: o.Visit(limits)})
	}
	return record.Among(finished, elsewhere, func(x store.Visited) time.Time { return x.At })
}

// plain are visits without the jobs they were.
func plain(list []store.Visited) []record.Visit {
	out := make([]record.Visit, len(list))
	for i, v := range list {
		out[i] = v.Visit
	}
	return out
}
