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
	Source  string `json:"source"`
	State   string `json:"state" enum:"cold,hot"`
	Intake  Limits `json:"intake"`
	Exhaust Limits `json:"exhaust"`
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

// GaugeSet is a set of leaves in short.
type GaugeSet struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Leaves int    `json:"leaves"`
}

// NewGaugeSet is a set of leaves to store.
type NewGaugeSet struct {
	ID     string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	Name   string `json:"name" minLength:"1" maxLength:"100"`
	Leaves []Leaf `json:"leaves" minItems:"1" maxItems:"100"`
}

// Leaf is one feeler leaf.
type Leaf struct {
	Marked   float64  `json:"marked_mm"`
	Measured *float64 `json:"measured_mm,omitempty"`
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
	huma.Get(a, "/api/v1/gauge-sets", s.gaugeSets, summary("list-gauge-sets", "All gauge sets"))
	huma.Post(a, "/api/v1/gauge-sets", s.addGaugeSet, summary("add-gauge-set", "Store a gauge set"))
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

func (s *server) gaugeSets(context.Context, *struct{}) (*listOf[GaugeSet], error) {
	stored, err := s.store.GaugeSets()
	if err != nil {
		return nil, fault(err)
	}
	out := &listOf[GaugeSet]{Body: []GaugeSet{}}
	for _, g := range stored {
		out.Body = append(out.Body, GaugeSet{g.ID, g.Name, len(g.Leaves)})
	}
	return out, nil
}

func (s *server) addGaugeSet(_ context.Context, in *bodyOf[NewGaugeSet]) (*bodyOf[GaugeSet], error) {
	set, faults := leavesOf(in.Body.Leaves)
	if len(faults) > 0 {
		return nil, located(http.StatusUnprocessableEntity, "These leaves cannot be stored: "+counted(len(faults), "fault")+".", faults...)
	}
	if err := s.store.AddGaugeSet(store.GaugeSet{ID: in.Body.ID, Name: in.Body.Name, Leaves: set, CreatedAt: s.clock()}); err != nil {
		return nil, fault(err)
	}
	return &bodyOf[GaugeSet]{GaugeSet{in.Body.ID, in.Body.Name, len(set)}}, nil
}
