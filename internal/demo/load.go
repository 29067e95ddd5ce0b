package demo

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"net/http"
	"path"
	"strings"
	"time"

	"metronix/internal/api"
	"metronix/internal/store"
)

// Load fills an empty data file with the made-up workshop. A file that already holds a vehicle is left as it is.
func Load(st *store.Store) error {
	known, err := st.Vehicles()
	if err != nil || len(known) > 0 {
		return err
	}
	now := time.Now().Add(-72 * time.Hour)
	l := &loader{clock: now}
	l.door = api.Handler(st, api.Options{Clock: func() time.Time { l.clock = l.clock.Add(9 * time.Second); return l.clock }})
	return l.all()
}

// loader sends requests to the program's own interface, as a browser would.
type loader struct {
	door  http.Handler
	clock time.Time
}

func (l *loader) all() error {
	entries, err := engines.ReadDir("engines")
	if err != nil {
		return err
	}
	for _, e := range entries {
		sheet, err := engines.ReadFile(path.Join("engines", e.Name()))
		if err != nil {
			return err
		}
		if err := l.send(http.MethodPut, "/api/v1/engines/"+strings.TrimSuffix(e.Name(), ".engine.json"), json.RawMessage(sheet), nil); err != nil {
			return fmt.Errorf("%s: %w", e.Name(), err)
		}
	}
	for _, g := range gaugeSets {
		set := api.NewGaugeSet{ID: g.id, GaugeSetBody: api.GaugeSetBody{Name: g.name, Checked: g.checked}}
		for _, leaf := range g.leaves {
			entry := api.Leaf{Marked: leaf[0]}
			if leaf[1] > 0 {
				entry.Measured = &leaf[1]
			}
			if g.thou {
				entry = api.Leaf{MarkedIn: &leaf[0], Measured: entry.Measured}
			}
			set.Leaves = append(set.Leaves, entry)
		}
		if err := l.send(http.MethodPost, "/api/v1/gauge-sets", set, nil); err != nil {
			return err
		}
	}
	for _, v := range vehicles {
		if err := l.send(http.MethodPost, "/api/v1/vehicles", api.NewVehicle{ID: v.id, VehicleBody: api.VehicleBody{Name: v.name, Plate: v.plate, OdometerKM: v.odometer, EngineID: v.engine}}, nil); err != nil {
			return err
		}
	}
	for _, j := range jobs {
		if err := l.job(j); err != nil {
			return fmt.Errorf("%s: %w", j.id, err)
		}
	}
	return nil
}

func (l *loader) job(j demoJob) error {
	l.clock = time.Now().Add(-time.Duration(j.ageHours * float64(time.Hour)))
	odometer := 0
	for _, v := range vehicles {
		if v.id == j.vehicle {
			odometer = v.odometer
		}
	}
	var view api.JobView
	start := api.NewJob{ID: j.id, JobStart: api.JobStart{VehicleID: j.vehicle, GaugeSetID: j.gauge, Card: j.card, CardReason: j.cardReason,
		Mechanic: j.mechanic, Reason: j.reason, OdometerKM: odometer}}
	if hot := j.hotCard - 1; hot >= 0 {
		start.HotCard = &hot
	}
	if err := l.send(http.MethodPost, "/api/v1/jobs", start, &view); err != nil {
		return err
	}
	state := view.State
	for step := 0; step < 400; step++ {
		if reached(state, j.until) {
			return nil
		}
		h := l.next(&j, state)
		h.ID = fmt.Sprintf("%s-%03d", j.id, step)
		if err := l.send(http.MethodPost, "/api/v1/jobs/"+j.id+"/happenings", h, &state); err != nil {
			return err
		}
	}
	return errors.New("the demo job never gets where it should")
}

func reached(s api.JobState, until string) bool {
	if until == "cooling" {
		return s.Cooling != nil
	}
	var kept int
	if _, err := fmt.Sscanf(until, "feel:%d", &kept); err == nil {
		return s.Done == kept && s.Phase == "as_found" && len(round(s, s.Now.Valve)) > 0
	}
	return s.Phase == until
}

func round(s api.JobState, valve string) []api.Reading {
	for _, v := range s.Valves {
		if v.Name == valve {
			return v.Round
		}
	}
	return nil
}

// next is what the made-up mechanic does, following what the program says.
func (l *loader) next(j *demoJob, s api.JobState) api.Happening {
	switch s.Now.Action {
	case "choose_way":
		return api.Happening{Kind: "way_chosen", School: j.school, Order: j.order}
	case "prepare":
		if len(j.cooling) > 0 {
			engine := j.cooling[0]
			j.cooling = j.cooling[1:]
			l.clock = l.clock.Add(10 * time.Minute)
			return api.Happening{Kind: "temperature", EngineC: &engine, AmbientC: new(17.0)}
		}
		return api.Happening{Kind: "prepared", EngineC: new(19.0), AmbientC: new(17.0)}
	case "turn":
		for _, v := range s.Valves {
			if size, ok := j.shims[v.Name]; ok && v.ShimMM == 0 {
				return api.Happening{Kind: "sized", Valve: v.Name, ShimMM: size}
			}
		}
		return api.Happening{Kind: "turned", Stop: new(s.Now.Stop)}
	case "read":
		return feel(*j, s)
	case "keep":
		return api.Happening{Kind: "kept", Valve: s.Now.Valve}
	case "adjust":
		return api.Happening{Kind: "adjusted", Valve: s.Now.Valve}
	case "lock":
		return api.Happening{Kind: "locked", Valve: s.Now.Valve}
	case "bar_over":
		return api.Happening{Kind: "barred_over"}
	}
	return api.Happening{Kind: "signed", By: j.mechanic, ToolsOut: true}
}

// feel tries the leaf that the program advises, or at first the one it would set by, in the hidden gap.
func feel(j demoJob, s api.JobState) api.Happening {
	var v api.ValveState
	for _, v = range s.Valves {
		if v.Name == s.Now.Valve {
			break
		}
	}
	gap, hidden := j.gaps[v.Name]
	if !hidden || v.Adjusted > 0 {
		gap = v.Limits.NominalMM
	}
	leaf := s.Now.Ladder[0]
	for _, r := range s.Now.Ladder {
		if math.Abs(r.ThicknessMM-v.Limits.NominalMM) < math.Abs(leaf.ThicknessMM-v.Limits.NominalMM) {
			leaf = r
		}
	}
	if v.Judgement != nil && len(v.Judgement.TryNext) > 0 {
		for _, r := range s.Now.Ladder {
			if fmt.Sprint(r.LeavesMM) == fmt.Sprint(v.Judgement.TryNext) {
				leaf = r
			}
		}
	}
	word := "drag"
	switch d := gap - leaf.ThicknessMM; {
	case d > 0.006:
		word = "free"
	case d < -0.006:
		word = "wont_go"
	}
	return api.Happening{Kind: "reading", Valve: v.Name, LeavesMM: leaf.LeavesMM, Feel: word}
}

// send makes one request; an answer other than success is an error with its text.
func (l *loader) send(method, address string, body, answer any) error {
	data, err := json.Marshal(body)
	if err != nil {
		return err
	}
	request, err := http.NewRequest(method, "http://localhost"+address, bytes.NewReader(data))
	if err != nil {
		return err
	}
	request.Header.Set("Content-Type", "application/json")
	got := &recorder{header: http.Header{}, status: http.StatusOK}
	l.door.ServeHTTP(got, request)
	if got.status >= http.StatusMultipleChoices {
		return fmt.Errorf("%s %s: %d %s", method, address, got.status, got.body.String())
	}
	if answer == nil {
		return nil
	}
	return json.Unmarshal(got.body.Bytes(), answer)
}

// recorder takes an answer without a connection.
type recorder struct {
	header http.Header
	status int
	body   bytes.Buffer
}

func (r *recorder) Header() http.Header         { return r.header }
func (r *recorder) WriteHeader(status int)      { r.status = status }
func (r *recorder) Write(p []byte) (int, error) { return r.body.Write(p) }
