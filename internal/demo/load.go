package demo

import (
	"bytes"
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"net/http"
	"path"
	"slices"
	"strings"
	"time"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/api"
	"metronix/internal/seen"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// Load fills an empty data file with the made-up workshop. A file that already holds a vehicle is left as it
// is.
func Load(st *store.Store) error {
	known, err := st.Vehicles()
	if err != nil || len(known) > 0 {
		return err
	}
	now := time.Now().Add(-72 * time.Hour)
	l := &loader{clock: now}
	l.door = api.Handler(st,
		api.Options{Clock: func() time.Time { l.clock = l.clock.Add(9 * time.Second); return l.clock }})
	return l.all()
}

// loader sends requests to the program's own interface, as a browser would.
type loader struct {
	door  http.Handler
	clock time.Time
}

// all loads everything as a client would, by requests: what the demo shows could have been typed.
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
		if err := l.send(http.MethodPut, "/api/v1/engines/"+strings.TrimSuffix(e.Name(), ".engine.json"),
			json.RawMessage(sheet), nil); err != nil {
			return fmt.Errorf("%s: %w", e.Name(), err)
		}
	}
	for _, g := range gaugeSets {
		set := api.NewGaugeSet{ID: g.id, GaugeSetBody: api.GaugeSetBody{Name: g.name, Checked: g.checked}}
		for _, leaf := range g.leaves {
			marked := millimetres(leaf[0])
			if g.thou {
				marked = measure.Length(math.Round(leaf[0]*1000)) * measure.Thou
			}
			item := gauge.Item{Leaf: gauge.Leaf{ID: gauge.ID{Marked: marked}, Thou: g.thou,
				Measured: millimetres(leaf[1])}}
			set.Leaves = append(set.Leaves, wire.LeafOf(item))
		}
		if err := l.send(http.MethodPost, "/api/v1/gauge-sets", set, nil); err != nil {
			return err
		}
	}
	for _, v := range vehicles {
		if err := l.send(http.MethodPost, "/api/v1/vehicles",
			api.NewVehicle{ID: v.id,
				VehicleBody: api.VehicleBody{Name: v.name, Plate: v.plate, EngineID: v.engine,
					Counts: string(v.counter), CountedBody: v.counted(v.atFirst())}}, nil); err != nil {
			return err
		}
	}
	if err := l.send(http.MethodPut, "/api/v1/vehicles/demo-post-bus/intervals",
		map[string]any{"intervals": []any{
			map[string]any{"km": 24_000, "months": 24, "source": "maker's book"},
			map[string]any{"km": 30_000, "months": 0, "source": "the yard's own habit"}}}, nil); err != nil {
		return err
	}
	if err := l.send(http.MethodPut, "/api/v1/vehicles/demo-pump-set/intervals",
		map[string]any{"intervals": []any{
			map[string]any{"km": 0, "hours": 500, "months": 0, "source": "maker's book"}}}, nil); err != nil {
		return err
	}
	if err := l.send(http.MethodPut, "/api/v1/vehicles/demo-round-van/outside", map[string]any{"visits": []any{
		map[string]any{"on": "2025-06-17", "odometer_km": 41_300, "state": "cold", "shop": "a shop down the valley",
			"valves": outsideGaps}}}, nil); err != nil {
		return err
	}
	for _, j := range jobs {
		if err := l.job(j); err != nil {
			return fmt.Errorf("%s: %w", j.id, err)
		}
	}
	return nil
}

// counted is what its counter shows, as it is sent.
func (v vehicle) counted(meter int) wire.CountedBody {
	return wire.CountedBody(wire.CountedOf(v.counter, meter))
}

// atFirst is what its counter showed before the first of the vehicle's jobs; each job raises it.
func (v vehicle) atFirst() int {
	first := v.meter
	for _, j := range jobs {
		if j.vehicle == v.id && j.meter > 0 {
			first = min(first, j.meter)
		}
	}
	return first
}

// job works one job from its start to where the demo stops it, with a clock of its own, so that the board has
// a yesterday.
func (l *loader) job(j demoJob) error {
	l.clock = time.Now().Add(-time.Duration(j.ageHours * float64(time.Hour)))
	of := vehicles[slices.IndexFunc(vehicles, func(v vehicle) bool { return v.id == j.vehicle })]
	var view api.JobView
	start := api.NewJob{ID: j.id,
		JobStart: api.JobStart{VehicleID: j.vehicle, GaugeSetID: j.gauge, Card: j.card,
			CardReason: j.cardReason,
			Mechanic:   j.mechanic, Reason: j.reason, CountedBody: of.counted(cmp.Or(j.meter, of.meter))}}
	if hot := j.hotCard - 1; hot >= 0 {
		start.HotCard = &hot
	}
	if err := l.send(http.MethodPost, "/api/v1/jobs", start, &view); err != nil {
		return err
	}
	state := view.State
	if err := l.around(j, &state); err != nil {
		return err
	}
	for step := 0; step < 400; step++ {
		if reached(state, j.until) {
			return l.putOff(j, &state)
		}
		if state.Now.Action == "sign" {
			if err := l.closed(j, &state); err != nil {
				return err
			}
		}
		h := wire.Happening{Happening: job.Happening{ID: fmt.Sprintf("%s-%03d", j.id, step),
			Act: l.next(&j, state)}}
		if err := l.send(http.MethodPost, "/api/v1/jobs/"+j.id+"/happenings", h, &state); err != nil {
			return err
		}
	}
	return errors.New("the demo job never gets where it should")
}

// reached says whether a job stands where the demo wants it: at a phase, after so many valves, or in the
// middle of a valve's readings.
func reached(s seen.JobState, until string) bool {
	if until == "cooling" {
		return s.Cooling != nil
	}
	var kept int
	if _, err := fmt.Sscanf(until, "as_found:%d", &kept); err == nil {
		return s.Done == kept && s.Phase == "as_found"
	}
	if _, err := fmt.Sscanf(until, "feel:%d", &kept); err == nil {
		return s.Done == kept && s.Phase == "as_found" && len(round(s, s.Now.Valve)) > 0
	}
	return s.Phase == until
}

// round are the readings of a valve that are not kept yet.
func round(s seen.JobState, valve string) []seen.Reading {
	for _, v := range s.Valves {
		if v.Name == valve {
			return v.Round
		}
	}
	return nil
}

// next is what the made-up mechanic does, following what the program says.
func (l *loader) next(j *demoJob, s seen.JobState) job.Act {
	switch s.Now.Action {
	case "choose_way":
		return job.WayChosen{Way: sequence.Way{School: sequence.School(j.school),
			Order: sequence.Order(j.order)}}
	case "prepare":
		switch {
		case j.hot && s.HotClock == nil:
			return job.EngineStopped{}
		case j.hot:
			return job.JudgedHot{How: job.ByFan, RanMin: 25}
		}
		if len(j.cooling) > 0 {
			engine := j.cooling[0]
			j.cooling = j.cooling[1:]
			l.clock = l.clock.Add(10 * time.Minute)
			return job.TemperatureNoted{EngineC: engine, AmbientC: 17}
		}
		return job.Prepared{EngineC: 19, AmbientC: 17}
	case "turn":
		for _, v := range s.Valves {
			if size, ok := j.shims[v.Name]; ok && v.ShimMM == 0 {
				return job.Sized{Valve: v.Name, Shim: millimetres(size)}
			}
		}
		return job.Turned{Stop: s.Now.Stop}
	case "read":
		if s.Now.Valve != j.first && slices.Contains(s.Now.Here, j.first) {
			return job.Picked{Valve: j.first}
		}
		return feel(*j, s)
	case "keep":
		return job.Kept{Valve: s.Now.Valve}
	case "adjust":
		return job.Adjusted{Valve: s.Now.Valve}
	case "lock":
		return job.Locked{Valve: s.Now.Valve}
	case "bar_over":
		return job.BarredOver{Stop: &s.Now.Stop}
	}
	return job.Signed{By: j.mechanic, ToolsOut: true}
}

// feel tries the leaf that the program advises, or at first the one it would set by, in the hidden gap.
func feel(j demoJob, s seen.JobState) job.Act {
	var v seen.ValveState
	for _, v = range s.Valves {
		if v.Name == s.Now.Valve {
			break
		}
	}
	hiddenMM, hidden := j.gaps[v.Name]
	gap := millimetres(hiddenMM)
	switch {
	case v.Adjusted > 0:
		gap = measure.Length(v.Limits.NominalMM)
	case !hidden:
		gap = measure.Length(v.Limits.NominalMM) - millimetres(j.worn)
	}
	if j.dial {
		return job.DialRead{Valve: v.Name, Gap: gap, Uncertainty: 4 * measure.Micrometre}
	}
	thickness := func(r seen.Rung) measure.Length { return measure.Length(r.ThicknessMM) }
	leaf := slices.MinFunc(s.Now.Ladder, func(a, b seen.Rung) int {
		nominal := measure.Length(v.Limits.NominalMM)
		return cmp.Compare((thickness(a) - nominal).Abs(), (thickness(b) - nominal).Abs())
	})
	if v.Judgement != nil && len(v.Judgement.TryNext) > 0 {
		for _, r := range s.Now.Ladder {
			if slices.Equal(r.LeavesMM, v.Judgement.TryNext) {
				leaf = r
			}
		}
	}
	felt := clearance.Drag
	switch d := gap - thickness(leaf); {
	case d > 6*measure.Micrometre:
		felt = clearance.Free
	case d < -6*measure.Micrometre:
		felt = clearance.WontGo
	}
	return job.ReadingTaken{Valve: v.Name, Leaves: wire.Stack{Leaves: leaf.LeavesMM}.Core(), Feel: felt}
}

// millimetres is a figure of the scenario.
func millimetres(mm float64) measure.Length {
	return measure.Length(math.Round(mm*1000)) * measure.Micrometre
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
	return l.carry(request, answer)
}

// carry carries a request out and reads its answer.
func (l *loader) carry(request *http.Request, answer any) error {
	got := &recorder{header: http.Header{}, status: http.StatusOK}
	l.door.ServeHTTP(got, request)
	if got.status >= http.StatusMultipleChoices {
		return fmt.Errorf("%s %s: %d %s", request.Method, request.URL.Path, got.status, got.body.String())
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
