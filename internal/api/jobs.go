package api

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/compute"
	"metronix/internal/store"
)

// JobShort is a job on the board.
type JobShort struct {
	ID         string     `json:"id"`
	Vehicle    string     `json:"vehicle"`
	Plate      string     `json:"plate"`
	EngineName string     `json:"engine_name"`
	Mechanic   string     `json:"mechanic"`
	Reason     string     `json:"reason"`
	CreatedAt  time.Time  `json:"created_at"`
	TouchedAt  time.Time  `json:"touched_at"`
	Phase      string     `json:"phase" enum:"choose_way,prepare,as_found,adjust,verify,sign,await_hot,done"`
	ReadyAt    *time.Time `json:"ready_at,omitempty" doc:"when a cooling engine may be worked on"`
	Done       int        `json:"done"`
	Total      int        `json:"total"`
	Now        Now        `json:"now"`
	SignedBy   string     `json:"signed_by"`
	Valves     []ValveDot `json:"valves"`
	Stops      int        `json:"stops"`
	School     string     `json:"school"`
	Watch      []Sighting `json:"watch" doc:"what to look for at the stop to turn to"`
}

// ValveDot is one valve on the board's small head.
type ValveDot struct {
	Name    string `json:"name"`
	Kind    string `json:"kind" enum:"intake,exhaust"`
	Verdict string `json:"verdict" doc:"of the last kept reading; empty: none"`
}

// NewJob is what a job starts from.
type NewJob struct {
	ID         string   `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	VehicleID  string   `json:"vehicle_id" minLength:"1" maxLength:"64"`
	GaugeSetID string   `json:"gauge_set_id" minLength:"1" maxLength:"64"`
	Card       int      `json:"card" minimum:"0" maximum:"99" doc:"index of the clearance card on the engine's sheet"`
	HotCard    *int     `json:"hot_card,omitempty" minimum:"0" maximum:"99" doc:"card of the hot pass, where the first one is only a cold start"`
	CardReason string   `json:"card_reason,omitempty" maxLength:"200" doc:"why this card"`
	Aim        string   `json:"aim,omitempty" enum:",nominal,loose"`
	AimReason  string   `json:"aim_reason,omitempty" maxLength:"200"`
	Rule       string   `json:"rule,omitempty" enum:",workshop,guarded"`
	FeelMM     *float64 `json:"feel_mm,omitempty" doc:"this mechanic's uncertainty of feel; absent: 0.005"`
	Mechanic   string   `json:"mechanic" minLength:"1" maxLength:"100"`
	Reason     string   `json:"reason" maxLength:"200"`
	OdometerKM int      `json:"odometer_km" minimum:"0" maximum:"9999999"`
}

// Happening is something the mechanic did.
type Happening struct {
	ID            string     `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$" doc:"made by the client; sending it twice stores it once"`
	Kind          string     `json:"kind" enum:"way_chosen,prepared,turned,located,picked,reading,dial,withdrawn,sized,kept,adjusted,locked,left_as_is,barred_over,undone,signed,temperature,went_hot"`
	Valve         string     `json:"valve,omitempty" maxLength:"8"`
	LeavesMM      []float64  `json:"leaves_mm,omitempty" maxItems:"3"`
	Feel          string     `json:"feel,omitempty" maxLength:"16"`
	Stop          int        `json:"stop,omitempty"`
	School        string     `json:"school,omitempty" maxLength:"32"`
	Order         string     `json:"order,omitempty" enum:",turning,numerical"`
	Direction     string     `json:"direction,omitempty" enum:",running,back"`
	Positions     string     `json:"positions,omitempty" enum:",any,marks"`
	StopCount     int        `json:"stop_count,omitempty" minimum:"0" maximum:"80"`
	Seen          []Sighting `json:"seen,omitempty" maxItems:"100"`
	EngineC       float64    `json:"engine_c,omitempty"`
	AmbientC      float64    `json:"ambient_c,omitempty"`
	GapMM         float64    `json:"gap_mm,omitempty"`
	UncertaintyMM float64    `json:"uncertainty_mm,omitempty"`
	Index         int        `json:"index,omitempty"`
	ShimMM        float64    `json:"shim_mm,omitempty"`
	From          string     `json:"from,omitempty" maxLength:"8" doc:"the valve a shim came from"`
	Reason        string     `json:"reason,omitempty" maxLength:"200"`
	Target        string     `json:"target,omitempty" maxLength:"64"`
	By            string     `json:"by,omitempty" maxLength:"100"`
	ToolsOut      bool       `json:"tools_out,omitempty"`
}

// JobID is the path of a job.
type JobID struct {
	ID string `path:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

type happenInput struct {
	ID   string `path:"id" minLength:"1" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	Body Happening
}

func (s *server) jobRoutes(a huma.API) {
	huma.Get(a, "/api/v1/jobs", s.jobs, summary("list-jobs", "All jobs, the last touched first"))
	huma.Post(a, "/api/v1/jobs", s.addJob, summary("start-job", "Start a job"))
	huma.Get(a, "/api/v1/jobs/{id}", s.job, summary("get-job", "One job"))
	huma.Post(a, "/api/v1/jobs/{id}/find", s.find, summary("find-crank", "Where the crank may stand from what is seen, and what to do from there; nothing is stored"))
	huma.Post(a, "/api/v1/jobs/{id}/happenings", s.happen, summary("add-happening", "Add what the mechanic did; answered when it is on disk"))
}

func (s *server) jobs(context.Context, *struct{}) (*listOf[JobShort], error) {
	stored, err := s.store.Jobs()
	if err != nil {
		return nil, fault(err)
	}
	out := &listOf[JobShort]{Body: []JobShort{}}
	for _, record := range stored {
		if err := s.desk.with(record.ID, func(o *openJob) error {
			out.Body = append(out.Body, jobShort(o))
			return nil
		}); err != nil {
			return nil, fault(err)
		}
	}
	slices.SortStableFunc(out.Body, func(a, b JobShort) int { return b.TouchedAt.Compare(a.TouchedAt) })
	return out, nil
}

func jobShort(o *openJob) JobShort {
	r, j := o.record, o.state
	short := JobShort{ID: r.ID, Vehicle: r.Vehicle.Name, Plate: r.Vehicle.Plate, EngineName: r.Sheet.Name, Mechanic: r.Mechanic, Reason: r.Reason,
		CreatedAt: r.CreatedAt, TouchedAt: r.CreatedAt, Phase: string(j.Phase()), Now: nowView(j), SignedBy: j.SignedBy,
		Valves: []ValveDot{}, Stops: len(j.Plan.Stops), School: string(j.Way.School), Watch: []Sighting{}}
	short.Done, short.Total = j.Progress()
	if c := coolingView(j); c != nil && j.Phase() == job.Prepare {
		short.ReadyAt = c.ReadyAt
	}
	if n := len(o.list); n > 0 {
		short.TouchedAt = o.list[n-1].At
	}
	if short.Now.Action == string(job.DoTurn) {
		short.Watch = sightings(j.Plan.Stops[short.Now.Stop].Watch)
	}
	for _, v := range j.Valves {
		dot := ValveDot{Name: v.Name, Kind: v.Kind.String()}
		if v.Last != nil {
			dot.Verdict = string(v.Last.Judgement.Verdict)
		}
		short.Valves = append(short.Valves, dot)
	}
	return short
}

func (s *server) addJob(_ context.Context, in *bodyOf[NewJob]) (*bodyOf[JobView], error) {
	n := in.Body
	vehicle, err := s.store.Vehicle(n.VehicleID)
	if err != nil {
		return nil, missing(err, "vehicle_id", "This vehicle is not stored.")
	}
	set, err := s.store.GaugeSet(n.GaugeSetID)
	if err != nil {
		return nil, missing(err, "gauge_set_id", "This gauge set is not stored.")
	}
	engine, err := s.store.Engine(vehicle.EngineID)
	if err != nil {
		return nil, fault(err)
	}
	hot := -1
	if n.HotCard != nil {
		hot = *n.HotCard
	}
	if max(n.Card, hot) >= len(engine.Sheet.Clearances) {
		return nil, located(http.StatusUnprocessableEntity, "There is no such clearance card.", compute.Fault{Location: "body.card", Value: n.Card,
			Message: fmt.Sprintf("This engine's sheet has %s. Add one to the sheet first.", counted(len(engine.Sheet.Clearances), "clearance card"))})
	}
	feel := clearance.DefaultFeel
	if n.FeelMM != nil {
		if feel, err = length(*n.FeelMM); err != nil || feel <= 0 || feel > measure.Millimetre/10 {
			return nil, located(http.StatusUnprocessableEntity, "This cannot be a feel.", compute.Fault{Location: "body.feel_mm", Value: *n.FeelMM,
				Message: "The uncertainty of feel is above 0, at most 0.1 mm, commonly 0.005."})
		}
	}
	record := store.Job{ID: n.ID, Vehicle: vehicle, Sheet: engine.Sheet, Card: n.Card, HotCard: hot, CardReason: strings.TrimSpace(n.CardReason),
		Aim: clearance.Aim(n.Aim), AimReason: strings.TrimSpace(n.AimReason), Rule: clearance.Rule(n.Rule), Feel: feel,
		GaugeName: set.Name, Leaves: gauge.Owned(set.Items),
		Mechanic: strings.TrimSpace(n.Mechanic), Reason: strings.TrimSpace(n.Reason), OdometerKM: n.OdometerKM, CreatedAt: s.clock()}
	if _, err := job.New(setupOf(record)); err != nil {
		return nil, fault(err)
	}
	if err := s.store.AddJob(record); err != nil {
		return nil, fault(err)
	}
	return s.viewOf(n.ID)
}

func missing(err error, field, message string) error {
	if err == store.ErrNotFound {
		return located(http.StatusUnprocessableEntity, message, compute.Fault{Location: "body." + field, Message: message})
	}
	return fault(err)
}

func (s *server) job(_ context.Context, in *JobID) (*bodyOf[JobView], error) { return s.viewOf(in.ID) }

func (s *server) viewOf(id string) (*bodyOf[JobView], error) {
	record, err := s.store.Job(id)
	if err != nil {
		return nil, fault(err)
	}
	shift, err := s.desk.learned(record) // before the job's own lock is taken
	if err != nil {
		return nil, fault(err)
	}
	out := &bodyOf[JobView]{}
	err = s.desk.with(id, func(o *openJob) error {
		o.shift = shift
		r, j := o.record, o.state
		out.Body = JobView{CardReason: r.CardReason, Aim: string(cmp.Or(r.Aim, clearance.AimNominal)), AimReason: r.AimReason,
			Rule: string(cmp.Or(r.Rule, clearance.Workshop)), FeelMM: r.Feel.Millimetres(), LockShift: shiftView(shift), Vehicle: vehicleView(r.Vehicle), OdometerKM: r.OdometerKM, Mechanic: r.Mechanic, Reason: r.Reason, GaugeName: r.GaugeName,
			Card: cardShort(j.Card), CreatedAt: r.CreatedAt,
			Engine: engineView(r.Sheet), State: stateView(id, o)}
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}

func (s *server) happen(_ context.Context, in *happenInput) (*bodyOf[JobState], error) {
	h, faults := happeningOf(in.Body, s.clock())
	if len(faults) > 0 {
		return nil, located(http.StatusUnprocessableEntity, faults[0].Message, faults...)
	}
	out := &bodyOf[JobState]{}
	err := s.desk.with(in.ID, func(o *openJob) error {
		if err := s.desk.happen(o, h); err != nil {
			return err
		}
		out.Body = stateView(in.ID, o)
		return nil
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}

func happeningOf(b Happening, at time.Time) (job.Happening, []compute.Fault) {
	h := job.Happening{ID: b.ID, Kind: job.Kind(b.Kind), At: at.UTC(), Valve: b.Valve, Stop: b.Stop, EngineC: b.EngineC, AmbientC: b.AmbientC, Reason: b.Reason, Target: b.Target, By: b.By, ToolsOut: b.ToolsOut}
	h.Way = sequence.Way{School: sequence.School(b.School), Order: sequence.Order(b.Order), Direction: sequence.Direction(b.Direction),
		Positions: sequence.Positions(b.Positions), StopCount: b.StopCount}
	h.Seen = seenOf(b.Seen)
	var faults []compute.Fault
	var leaves []measure.Length
	for i, mm := range b.LeavesMM {
		leaves = append(leaves, leafLength(mm, fmt.Sprintf("body.leaves_mm[%d]", i), &faults))
	}
	h.Leaves = leaves
	for _, l := range []struct {
		mm    float64
		field string
		to    *measure.Length
	}{{b.GapMM, "gap_mm", &h.Gap}, {b.UncertaintyMM, "uncertainty_mm", &h.Uncertainty}, {b.ShimMM, "shim_mm", &h.Shim}} {
		var err error
		if *l.to, err = length(l.mm); err != nil {
			faults = append(faults, compute.Fault{Location: "body." + l.field, Value: l.mm, Message: fmt.Sprintf("%v mm cannot be read: at most six decimal places.", l.mm)})
		}
	}
	h.Index, h.From = b.Index, b.From
	if b.Feel != "" {
		feel, ok := compute.ParseFeel(b.Feel)
		if !ok {
			feel = clearance.Feel(b.Feel) // refused by the core in its words
		}
		h.Feel = feel
	}
	return h, faults
}

func sortRungs(rungs []Rung) []Rung {
	slices.SortStableFunc(rungs, func(a, b Rung) int { return cmp.Compare(a.ThicknessMM, b.ThicknessMM) })
	return slices.CompactFunc(rungs, func(a, b Rung) bool { return slices.Equal(a.LeavesMM, b.LeavesMM) })
}
