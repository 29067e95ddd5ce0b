package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/engine"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/compute"
)

// Ways is every way round an engine, side by side.
type Ways struct {
	Engine    EngineView `json:"engine"`
	Plans     []PlanView `json:"plans"`
	Frontier  []BestPlan `json:"frontier" doc:"for each number of stops the plan whose smallest margin is largest"`
	MarginDeg float64    `json:"required_margin_deg"`
}

// BestPlan is a point of the frontier.
type BestPlan struct {
	Stops             int       `json:"stops"`
	SmallestMarginDeg float64   `json:"smallest_margin_deg"`
	CrankDeg          []float64 `json:"crank_deg"`
}

// WaysQuery narrows how the engine may be turned and stopped.
type WaysQuery struct {
	Direction string `query:"direction" enum:"running,back" default:"running"`
	Positions string `query:"positions" enum:"any,marks" default:"any"`
	StopCount int    `query:"stops" minimum:"0" maximum:"80" doc:"for fewest_stops: the best plan of so many; 0: the fewest that reach the margin"`
}

type jobWays struct {
	JobID
	WaysQuery
}

type engineWays struct {
	EngineID
	WaysQuery
}

func (s *server) waysRoutes(a huma.API) {
	huma.Get(a, "/api/v1/jobs/{id}/ways", s.jobWays, summary("get-ways", "The ways round this job's engine"))
	huma.Get(a, "/api/v1/engines/{id}/ways", s.engineWays, summary("get-engine-ways", "The ways round an engine of the library"))
}

func (s *server) jobWays(ctx context.Context, in *jobWays) (*bodyOf[Ways], error) {
	var out *bodyOf[Ways]
	err := s.desk.with(ctx, in.ID, func(o *openJob) error {
		var err error
		out, err = waysOf(o.record.Sheet, in.WaysQuery)
		return err
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}

func (s *server) engineWays(ctx context.Context, in *engineWays) (*bodyOf[Ways], error) {
	e, err := s.store.With(ctx).Engine(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	return waysOf(e.Sheet, in.WaysQuery)
}

func waysOf(sheet *engine.Sheet, q WaysQuery) (*bodyOf[Ways], error) {
	out := &bodyOf[Ways]{Ways{Engine: engineView(sheet), Plans: []PlanView{}, Frontier: []BestPlan{}, MarginDeg: sheet.EffectiveMargin().Degrees()}}
	for _, school := range sequence.Schools() {
		for _, order := range sequence.Orders(school) {
			way := sequence.Way{School: school, Order: order, Direction: sequence.Direction(q.Direction), Positions: sequence.Positions(q.Positions)}
			if school == sequence.FewestStops {
				way.StopCount = q.StopCount
			}
			plan, err := sequence.Make(sheet, sequence.Request{Way: way})
			if err != nil {
				return nil, located(http.StatusUnprocessableEntity, err.Error()+".", compute.Fault{Location: "direction", Value: q.Direction, Message: err.Error() + "."})
			}
			out.Body.Plans = append(out.Body.Plans, planView(plan, sheet))
		}
	}
	for _, b := range sequence.Compare(sheet, nil).Frontier {
		out.Body.Frontier = append(out.Body.Frontier, BestPlan{b.Stops, b.SmallestMargin.Degrees(), degrees(b.Cranks)})
	}
	return out, nil
}

// FindQuestion is what is seen on the engine.
type FindQuestion struct {
	Seen []Sighting `json:"seen" maxItems:"100"`
}

// Found is where the crank may stand.
type Found struct {
	Positions  []Arc       `json:"positions"`
	Settable   []string    `json:"settable" doc:"valves that may be set wherever the crank may stand"`
	TellApart  []TellApart `json:"tell_apart" doc:"what to look at where doubt remains, the best first"`
	Conflict   string      `json:"conflict"`
	OneTurnOut string      `json:"one_turn_out" doc:"a sentence where the crank stands a whole turn from where it is expected"`
	Known      bool        `json:"known" doc:"narrow enough to go on from"`
	CrankDeg   *float64    `json:"crank_deg" doc:"where the crank is taken to stand; null until it is known"`
	Stop       int         `json:"stop" doc:"of the next action: where the crank stands, or the stop to turn to"`
	Turn       bool        `json:"turn" doc:"the next action is to turn to the stop"`
	TurnDeg    float64     `json:"turn_deg"`
}

// TellApart is something to look at, and where the crank stands if it is seen.
type TellApart struct {
	LookAt Sighting `json:"look_at"`
	Then   []Arc    `json:"then"`
}

type findInput struct {
	JobID
	Body FindQuestion
}

func (s *server) find(ctx context.Context, in *findInput) (*bodyOf[Found], error) {
	out := &bodyOf[Found]{}
	err := s.desk.with(ctx, in.ID, func(o *openJob) error {
		f, err := o.state.AsOf(s.clock()).Find(seenOf(in.Body.Seen))
		if err == nil {
			out.Body = foundView(f)
		}
		return err
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}

func foundView(f job.Found) Found {
	out := Found{Positions: arcs(f.Positions), Settable: listed(f.Settable), TellApart: []TellApart{}, Conflict: f.Conflict, OneTurnOut: f.OneTurnOut,
		Known: f.Known, Stop: f.Next.Stop, Turn: f.Next.Action == job.DoTurn, TurnDeg: f.Next.Turn.Degrees()}
	for _, q := range f.TellApart {
		out.TellApart = append(out.TellApart, TellApart{sightings([]sequence.Sighting{q.LookAt})[0], arcs(q.Then)})
	}
	if f.Known {
		out.CrankDeg = new(f.Crank.Degrees())
	}
	return out
}

func arcs(list []sequence.Range) []Arc {
	out := []Arc{}
	for _, r := range list {
		out = append(out, Arc{r.From.Degrees(), r.To.Degrees()})
	}
	return out
}

func seenOf(list []Sighting) []sequence.Sighting {
	var out []sequence.Sighting
	for _, w := range list {
		out = append(out, sequence.Sighting{What: sequence.What(w.What), Cylinder: w.Cylinder, Valve: w.Valve, Mark: measure.FromDegrees(w.MarkDeg)})
	}
	return out
}
