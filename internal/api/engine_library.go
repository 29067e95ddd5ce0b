package api

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/measure"
	"metronix/internal/seen"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// Vehicle is what an engine sits in.
type Vehicle struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Plate  string `json:"plate"`
	Counts string `json:"counts"                 enum:"km,h" doc:"what counts how far it runs: an odometer, or an hour meter"`
	wire.Counted
	EngineID   string      `json:"engine_id"`
	EngineName string      `json:"engine_name"`
	OnBoard    bool        `json:"on_board"                           doc:"false: made by mistake, and taken off"`
	Cards      []seen.Card `json:"cards"                              doc:"of a cam that was changed: this vehicle's own, after those of its engine's sheet"`
	// why it shows less than it once did
	OdometerWhy string `json:"odometer_why,omitempty"             doc:"why its counter was put back last"`
	Version     string `json:"version"                            doc:"of name, plate, counter and engine; send it back as replaces to change them"`
	Damaged     string `json:"damaged"                            doc:"what of it cannot be read; empty: all can"`
	Place       string `json:"place,omitempty"                    doc:"the workshop that it is of, where several were gathered"`
}

// NewVehicle is a vehicle to store.
type NewVehicle struct {
	ID string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	VehicleBody
}

// VehicleBody is what is known of a vehicle.
type VehicleBody struct {
	Name   string `json:"name"                   minLength:"1" maxLength:"100"`
	Plate  string `json:"plate"                                maxLength:"30"`
	Counts string `json:"counts,omitempty"                                     enum:"km,h" doc:"absent: km"`
	wire.CountedBody
	EngineID string `json:"engine_id"              minLength:"1" maxLength:"64"`
	// a new instrument, or a slip the last time
	OdometerWhy string `json:"odometer_why,omitempty"               maxLength:"200"             doc:"why the counter shows less than it did before"`
}

// listOf is an answer that is a list, never null.
type listOf[T any] struct{ Body []T }

// bodyOf is an answer, or a request, that is one thing.
type bodyOf[T any] struct{ Body T }

// libraryRoutes are the vehicles: listed, added, corrected, and taken off the lists.
func (s *server) libraryRoutes(a huma.API) {
	huma.Get(a, "/api/v1/vehicles", s.vehicles, summary("list-vehicles", "All vehicles"))
	huma.Put(a, "/api/v1/vehicles/{id}", s.putVehicle,
		summary("put-vehicle", "Correct a vehicle; jobs keep the engine they began with"))
	huma.Put(a, "/api/v1/vehicles/{id}/on-board", s.putVehicleOnBoard,
		summary("put-vehicle-on-board",
			"Take a vehicle off the lists, or bring it back; refused while a job of it is open"))
	huma.Post(a, "/api/v1/vehicles", s.addVehicle, summary("add-vehicle", "Store a vehicle"))
}

// summary names an operation and says what it is for.
func summary(id, text string) func(*huma.Operation) {
	return func(o *huma.Operation) { o.OperationID, o.Summary, o.MaxBodyBytes = id, text, maxBody }
}

// counted is a number of things: "1 fault", "3 faults". Its words take an s.
func counted(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// VehiclesQuery narrows the list of vehicles.
type VehiclesQuery struct {
	Search string `query:"search" maxLength:"100" doc:"in name, plate or engine; left out: all"`
	Limit  int    `query:"limit"                  doc:"0: all"                                  minimum:"0" maximum:"500"`
	Offset int    `query:"offset"                                                               minimum:"0" maximum:"10000000"`
}

// VehiclesPage is a part of the vehicles.
type VehiclesPage struct {
	Total int64 `header:"X-Total-Count" doc:"how many there are in all"`
	Body  []Vehicle
}

// vehicles is a page of those that a search finds; with no limit, all of them.
func (s *server) vehicles(ctx context.Context, in *VehiclesQuery) (*VehiclesPage, error) {
	limit := in.Limit
	if limit == 0 {
		limit = -1
	}
	stored, total, err := s.store.With(ctx).SearchVehicles(strings.TrimSpace(in.Search), limit, in.Offset)
	if err != nil {
		return nil, fault(err)
	}
	out := &VehiclesPage{Total: total, Body: []Vehicle{}}
	for _, v := range stored {
		view := vehicleView(v, speaksTo(ctx))
		view.Place = s.places.name(v.ID)
		out.Body = append(out.Body, view)
	}
	return out, nil
}

// vehicleView is a vehicle as a screen has it, its own cards in the units of whoever asks.
func vehicleView(v store.Vehicle, speaks measure.Units) Vehicle {
	out := Vehicle{ID: v.ID, Name: v.Name, Plate: v.Plate, Counts: countsOf(v.Counter), Counted: wire.CountedOf(v.Counter, v.Meter),
		EngineID: v.EngineID, EngineName: v.EngineName, OnBoard: !v.OffBoard, Cards: []seen.Card{}, OdometerWhy: v.OdometerWhy,
		Version: v.Version, Damaged: v.Damaged}
	for _, c := range v.Cards {
		out.Cards = append(out.Cards, seen.CardOf(c, speaks))
	}
	return out
}

// addVehicle stores one. Sent again under the same id, because the answer was lost on the way, it is the same
// vehicle and no error.
func (s *server) addVehicle(ctx context.Context, in *bodyOf[NewVehicle]) (*bodyOf[Vehicle], error) {
	record, err := s.vehicleRecord(in.Body.ID, in.Body.VehicleBody)
	if err != nil {
		return nil, err
	}
	switch err := s.store.With(ctx).AddVehicle(record); {
	case errors.Is(err, store.ErrExists): // sent again, because its answer was lost
		if there, lookErr := s.store.With(ctx).Vehicle(record.ID); lookErr != nil ||
			there.Name != record.Name || there.EngineID != record.EngineID {
			return nil, fault(err)
		}
	case err != nil:
		return nil, fault(err)
	}
	return s.vehicleOf(ctx, record.ID)
}

// vehicleRecord takes a vehicle as it was typed; a name of spaces is none.
func (s *server) vehicleRecord(id string, v VehicleBody) (store.Vehicle, error) {
	name := strings.TrimSpace(v.Name)
	if name == "" {
		return store.Vehicle{}, located(http.StatusUnprocessableEntity, "The vehicle has no name.",
			wire.Fault{Location: "body.name",
				Message: "Give the vehicle a name that the workshop knows it by."})
	}
	by := counterOf(v.Counts)
	shown, err := meterOf(v.CountedBody, by)
	if err != nil {
		return store.Vehicle{}, err
	}
	return store.Vehicle{ID: id, Name: name, Plate: strings.TrimSpace(v.Plate), Counter: by, Meter: shown,
		EngineID: v.EngineID, OdometerWhy: strings.TrimSpace(v.OdometerWhy), CreatedAt: s.clock()}, nil
}

// countsOf is a counter as it is sent, and counterOf as it is taken.
func countsOf(by measure.Counter) string {
	if by == measure.HourMeter {
		return string(by)
	}
	return "km"
}

func counterOf(counts string) measure.Counter {
	if counts == string(measure.HourMeter) {
		return measure.HourMeter
	}
	return measure.Odometer
}

// meterOf is what the counter of a vehicle is said to show; a figure of the other counter is refused.
func meterOf(c wire.CountedBody, by measure.Counter) (int, error) {
	shown, place, err := wire.Counted(c).Shown(by)
	if err != nil {
		return 0, located(http.StatusUnprocessableEntity, wire.Sentence(err),
			wire.Fault{Location: "body." + place, Message: wire.Sentence(err)})
	}
	return shown, nil
}

// vehicleOf is a vehicle as it is stored by now: every answer to a change is read back.
func (s *server) vehicleOf(ctx context.Context, id string) (*bodyOf[Vehicle], error) {
	stored, err := s.store.With(ctx).Vehicle(id)
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[Vehicle]{vehicleView(stored, speaksTo(ctx))}, nil
}

// vehicleInput may say which version it means to replace, so that of two who correct one vehicle the second
// is told.
type vehicleInput struct {
	VehicleID
	Replaces string `query:"replaces" maxLength:"64" doc:"the version that this one replaces; absent: whatever there is"`
	Body     VehicleBody
}

// VehicleID is the path of a vehicle.
type VehicleID struct {
	ID string `path:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// putVehicle corrects one. A counter that would go back wants a reason, with both figures in the refusal;
// open jobs show the new name at once.
func (s *server) putVehicle(ctx context.Context, in *vehicleInput) (*bodyOf[Vehicle], error) {
	before, err := s.store.With(ctx).Vehicle(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	record, err := s.vehicleRecord(in.ID, in.Body)
	if err != nil {
		return nil, err
	}
	switch err := s.store.With(ctx).ReplaceVehicle(record, in.Replaces); {
	case errors.Is(err, store.ErrBackwards):
		return nil, showsLess(before, record.Meter, speaksTo(ctx))
	case errors.Is(err, store.ErrCounted):
		message := fmt.Sprintf(
			"The visits of %s were counted otherwise, and its wear is reckoned from them. Enter "+
				"it once more, as a vehicle of its own, where it counts otherwise now.",
			before.Name,
		)
		return nil, located(
			http.StatusConflict,
			message,
			wire.Fault{Location: "body.counts", Message: message},
		)
	case err != nil:
		return nil, fault(err)
	}
	if err := s.desk.renamed(ctx, in.ID); err != nil {
		return nil, fault(err)
	}
	return s.vehicleOf(ctx, in.ID)
}

// vehicleBoardInput says whether a vehicle stands on the lists.
type vehicleBoardInput struct {
	VehicleID
	Body OnBoard
}

// putVehicleOnBoard hides a vehicle, which deletes nothing. One with a job on the go is not hidden: the job
// would be lost from sight with it.
func (s *server) putVehicleOnBoard(ctx context.Context, in *vehicleBoardInput) (*bodyOf[Vehicle], error) {
	v, err := s.store.With(ctx).Vehicle(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	open, err := s.store.With(ctx).OpenJobsOf(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	if len(open) > 0 && !in.Body.OnBoard {
		message := fmt.Sprintf("%s has a job on the board. Finish that first, or take it off the board.",
			v.Name)
		return nil, located(http.StatusConflict, message,
			wire.Fault{Location: "id", Value: in.ID, Message: message})
	}
	if err := s.store.With(ctx).SetOffBoard(in.ID, !in.Body.OnBoard); err != nil {
		return nil, fault(err)
	}
	return s.vehicleOf(ctx, in.ID)
}
