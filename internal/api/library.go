package api

import (
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"metronix/internal/compute"
	"metronix/internal/store"
)

// Card is a clearance card in short.
type Card struct {
	Source      string           `json:"source"`
	State       string           `json:"state" enum:"cold,hot"`
	Date        string           `json:"date"`
	Remark      string           `json:"remark"`
	StoneCold   bool             `json:"stone_cold"`
	Holds       string           `json:"holds" doc:"at which engine temperature the figures hold, in words"`
	Intake      Limits           `json:"intake"`
	Exhaust     Limits           `json:"exhaust"`
	Differences []CardDifference `json:"differences" doc:"from the engine's first card"`
}

// CardDifference is what a card says differently.
type CardDifference struct {
	What  string `json:"what"`
	First string `json:"first"`
	Here  string `json:"here"`
}

// Vehicle is what an engine sits in.
type Vehicle struct {
	ID         string `json:"id"`
	Name       string `json:"name"`
	Plate      string `json:"plate"`
	OdometerKM int    `json:"odometer_km"`
	EngineID   string `json:"engine_id"`
	EngineName string `json:"engine_name"`
}

// NewVehicle is a vehicle to store.
type NewVehicle struct {
	ID         string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	Name       string `json:"name" minLength:"1" maxLength:"100"`
	Plate      string `json:"plate" maxLength:"30"`
	OdometerKM int    `json:"odometer_km" minimum:"0" maximum:"9999999"`
	EngineID   string `json:"engine_id" minLength:"1" maxLength:"64"`
}

type listOf[T any] struct{ Body []T }
type bodyOf[T any] struct{ Body T }

func (s *server) libraryRoutes(a huma.API) {
	huma.Get(a, "/api/v1/vehicles", s.vehicles, summary("list-vehicles", "All vehicles"))
	huma.Post(a, "/api/v1/vehicles", s.addVehicle, summary("add-vehicle", "Store a vehicle"))
}

// summary names an operation and says what it is for.
func summary(id, text string) func(*huma.Operation) {
	return func(o *huma.Operation) { o.OperationID, o.Summary, o.MaxBodyBytes = id, text, maxBody }
}

func counted(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

func (s *server) vehicles(context.Context, *struct{}) (*listOf[Vehicle], error) {
	stored, err := s.store.Vehicles()
	if err != nil {
		return nil, fault(err)
	}
	out := &listOf[Vehicle]{Body: []Vehicle{}}
	for _, v := range stored {
		out.Body = append(out.Body, vehicleView(v))
	}
	return out, nil
}

func vehicleView(v store.Vehicle) Vehicle {
	return Vehicle{v.ID, v.Name, v.Plate, v.OdometerKM, v.EngineID, v.EngineName}
}

func (s *server) addVehicle(_ context.Context, in *bodyOf[NewVehicle]) (*bodyOf[Vehicle], error) {
	v := in.Body
	name := strings.TrimSpace(v.Name)
	if name == "" {
		return nil, located(http.StatusUnprocessableEntity, "The vehicle has no name.", compute.Fault{Location: "body.name", Message: "Give the vehicle a name that the workshop knows it by."})
	}
	record := store.Vehicle{ID: v.ID, Name: name, Plate: strings.TrimSpace(v.Plate), OdometerKM: v.OdometerKM, EngineID: v.EngineID, CreatedAt: s.clock()}
	if err := s.store.AddVehicle(record); err != nil {
		return nil, fault(err)
	}
	stored, err := s.store.Vehicle(v.ID)
	if err != nil {
		return nil, fault(err)
	}
	return &bodyOf[Vehicle]{vehicleView(stored)}, nil
}
