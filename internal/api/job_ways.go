package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/engine"
	"metronix/core/job"
	"metronix/core/rehearse"
	"metronix/core/sequence"
	"metronix/internal/seen"
	"metronix/internal/wire"
)

// Ways is every way round an engine, side by side.
type Ways struct {
	Engine   EngineView      `json:"engine"`
	Plans    []seen.PlanView `json:"plans"`
	Frontier []wire.Best     `json:"frontier" doc:"for each number of stops the plan whose smallest margin is largest"`
	Margin   wire.Deg        `json:"required_margin_deg"`
}

// WaysQuery narrows how the engine may be turned and stopped.
type WaysQuery struct {
	Direction  string `query:"direction" enum:"running,back" default:"running"`
	Positions  string `query:"positions" enum:"any,marks" default:"any"`
	StopCount  int    `query:"stops" minimum:"0" maximum:"80" doc:"for fewest_stops: the best plan of so many; 0: the fewest that reach the margin"`
	BackAnyway bool   `query:"back_anyway" doc:"plan turning back though the sheet does not allow it"`
	Round      string `query:"round" enum:"set_as_you_go,read_first,read_only,free_first" doc:"tell what each costs by this round; left out: nothing is told"`
	Check      string `query:"check" enum:"all,set_ones,none" doc:"left out: all"`
	KindFirst  string `query:"one_kind_first" enum:"both,exhaust,intake" doc:"left out: both"`
	Turns      int    `query:"check_turns" minimum:"0" maximum:"4" multipleOf:"2" doc:"left out: as the sheet says"`
}

// round is how the engine would be gone round, for what each sequence would cost.
func (q WaysQuery) round() job.Round {
	return job.Round{Going: job.Going(q.Round), Check: job.Check(q.Check),
		KindFirst:  job.KindFirst(q.KindFirst),
		CheckTurns: q.Turns}
}

// jobWays asks for the sequences of a job's engine.
type jobWays struct {
	JobID
	WaysQuery
}

// engineWays asks for those of an engine in the library.
type engineWays struct {
	EngineID
	WaysQuery
}

// waysRoutes are the schools side by side, each rehearsed by the round that is chosen.
func (s *server) waysRoutes(a huma.API) {
	huma.Get(a, "/api/v1/jobs/{id}/ways", s.jobWays,
		summary("get-ways", "The sequences of this job's engine"))
	huma.Get(a, "/api/v1/engines/{id}/ways", s.engineWays,
		summary("get-engine-ways", "The sequences of an engine of the library"))
}

// jobWays compares within the job's scope and by its card.
func (s *server) jobWays(ctx context.Context, in *jobWays) (*bodyOf[Ways], error) {
	var out *bodyOf[Ways]
	err := s.desk.with(ctx, in.ID, func(o *openJob) error {
		var err error
		round := in.WaysQuery.round()
		round.Scope = o.state.Scope
		out, err = waysOf(
			o.record.Sheet,
			in.WaysQuery,
			rehearse.Rehearsing{Round: round, Card: &o.state.Card},
		)
		return err
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}

// engineWays compares by the first card of the sheet, where there is one.
func (s *server) engineWays(ctx context.Context, in *engineWays) (*bodyOf[Ways], error) {
	e, err := s.store.With(ctx).Engine(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	playing := rehearse.Rehearsing{Round: in.WaysQuery.round()}
	if len(e.Sheet.Clearances) > 0 {
		playing.Card = &e.Sheet.Clearances[0]
	}
	return waysOf(e.Sheet, in.WaysQuery, playing)
}

// waysOf plans every sequence of a sheet and, where a round is asked for, plays each through.
func waysOf(sheet *engine.Sheet, q WaysQuery, playing rehearse.Rehearsing) (*bodyOf[Ways], error) {
	out := &bodyOf[Ways]{Ways{Engine: engineView(sheet), Plans: []seen.PlanView{},
		Margin:   wire.Deg(sheet.EffectiveMargin()),
		Frontier: wire.FrontierOf(sequence.Compare(sheet, nil).Frontier)}}
	for _, school := range sequence.Schools() {
		for _, way := range q.waysOf(school, sheet) {
			plan, err := sequence.Make(sheet, sequence.Request{Way: way, BackAllowed: q.BackAnyway})
			if err != nil {
				return nil, located(http.StatusUnprocessableEntity, err.Error()+".",
					wire.Fault{Location: "direction", Value: q.Direction, Message: err.Error() + "."})
			}
			view := seen.PlanOf(plan, sheet)
			playing.BackAllowed = q.BackAnyway
			if playing.Sheet, playing.Way = sheet, way; q.Round != "" && plan.Applies {
				view.Costs = costsOf(playing)
			}
			out.Body.Plans = append(out.Body.Plans, view)
		}
	}
	return out, nil
}

// waysOf are the ways of a school that are planned: each of its orders, and where the engine may be turned
// back those that go by half turns backwards as well (common practice: a flat four with order 1-4-3-2 is set
// 1, 2, 3, 4 so).
func (q WaysQuery) waysOf(school sequence.School, sheet *engine.Sheet) (list []sequence.Way) {
	for _, order := range school.Orders() {
		way := sequence.Way{School: school, Order: order, Direction: sequence.Direction(q.Direction),
			Positions: sequence.Positions(q.Positions)}
		if school == sequence.FewestStops {
			way.StopCount = q.StopCount
		}
		list = append(list, way)
		if sheet.MayTurnBack && way.Direction != sequence.Back && order != sequence.Numerical &&
			(school == sequence.OneCylinder || school == sequence.RockingPairs) {
			way.Direction = sequence.Back
			list = append(list, way)
		}
	}
	return list
}

// someOut is how many valves are taken to be out where a job is played with some of them so (from memory: of
// a four's eight or a six's twelve, that is common at the usual interval).
const someOut = 3

// costsOf plays a job with every valve in, and with some out that lie well apart; nil where the engine is not
// gone round so.
func costsOf(playing rehearse.Rehearsing) *seen.Costs {
	cost := func(out []string) (seen.Cost, error) {
		playing.Out = out
		r, err := rehearse.Play(playing)
		return seen.Cost{Turn: wire.Deg(r.Turn), CheckTurn: wire.Deg(r.CheckTurn), LeafChanges: r.LeafChanges,
			Gestures: r.Gestures}, err
	}
	names := playing.Round.Scope
	if names == nil {
		for _, v := range playing.Sheet.Valves() {
			names = append(names, v.Name)
		}
	}
	out := []string{names[0], names[len(names)/2], names[len(names)-1]}[:min(someOut, len(names))]
	allIn, err := cost(nil)
	if err != nil {
		return nil
	}
	some, err := cost(out)
	if err != nil {
		return nil
	}
	return &seen.Costs{AllIn: allIn, Out: some, Count: len(out)}
}

// FindQuestion is what is seen on the engine.
type FindQuestion struct {
	Seen wire.Seen `json:"seen" maxItems:"100"`
}

// Found is where the crank may stand, and what to do from there.
type Found struct {
	wire.Location
	OneTurnOut  string            `json:"one_turn_out" doc:"a sentence where the crank stands a whole turn from where it is expected"`
	Doubts      []string          `json:"doubts" doc:"what a doubtful sign that was seen is to be checked against"`
	Known       bool              `json:"known" doc:"narrow enough to go on from"`
	Crank       *wire.Deg         `json:"crank_deg" nullable:"true" doc:"where the crank is taken to stand; null until it is known"`
	Stop        int               `json:"stop" doc:"of the next action: where the crank stands, or the stop to turn to"`
	Turn        bool              `json:"turn" doc:"the next action is to turn to the stop"`
	TurnDeg     wire.Deg          `json:"turn_deg"`
	Instruction *seen.Instruction `json:"instruction,omitempty" doc:"how to turn there"`
}

// findInput is what is seen, as sent.
type findInput struct {
	JobID
	RawBody []byte `contentType:"application/json"`
}

// find says where the crank may stand by what is seen. Nothing is stored: that it was found is a happening of
// its own.
func (s *server) find(ctx context.Context, in *findInput) (*bodyOf[Found], error) {
	q, err := readBody[FindQuestion](in.RawBody)
	if err != nil {
		return nil, err
	}
	out := &bodyOf[Found]{}
	err = s.desk.with(ctx, in.ID, func(o *openJob) error {
		f, err := o.state.AsOf(s.clock()).Find(q.Seen.Core())
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

// foundView is the answer as it is sent; a place is named only where one is certain.
func foundView(f job.Found) Found {
	out := Found{Location: wire.LocationOf(f.Location), OneTurnOut: f.OneTurnOut, Doubts: wire.List(f.Doubts),
		Known: f.Known,
		Stop:  f.Next.Stop,
		Turn:  f.Next.Action == job.DoTurn, TurnDeg: wire.Deg(f.Next.Turn)}
	if f.Known {
		out.Crank = (*wire.Deg)(&f.Crank)
	}
	if f.Turn != nil {
		out.Instruction = &seen.Instruction{How: f.Turn.How, Until: f.Turn.Until}
	}
	return out
}
