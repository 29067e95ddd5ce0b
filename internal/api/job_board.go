package api

import (
	"cmp"
	"context"
	"time"

	"metronix/core/engine"
	"metronix/core/job"
	"metronix/internal/store"
)

// JobShort is a job on the board.
type JobShort struct {
	ID         string     `json:"id"`
	Vehicle    string     `json:"vehicle"`
	Plate      string     `json:"plate" doc:"with the workshop that it is of, where several were gathered"`
	EngineName string     `json:"engine_name"`
	Mechanic   string     `json:"mechanic"`
	Reason     string     `json:"reason"`
	CreatedAt  time.Time  `json:"created_at"`
	TouchedAt  time.Time  `json:"touched_at"`
	Phase      string     `json:"phase" enum:"choose_way,prepare,as_found,adjust,verify,sign,await_hot,done"`
	ReadyAt    *time.Time `json:"ready_at,omitempty" doc:"when a cooling engine may be worked on"`
	CoverBy    *time.Time `json:"cover_by,omitempty" doc:"until when the cover has to be on over open sealant"`
	StartFrom  *time.Time `json:"start_from,omitempty" doc:"before when the engine must not run: sealant cures"`
	Done       int        `json:"done"`
	Total      int        `json:"total"`
	Now        NowShort   `json:"now"`
	SignedBy   string     `json:"signed_by"`
	Valves     []ValveDot `json:"valves"`
	Stops      int        `json:"stops"`
	School     string     `json:"school"`
	Title      string     `json:"title" doc:"the name of the sequence on this engine; empty: not chosen yet"`
	Direction  string     `json:"direction" enum:",running,back" doc:"which way the crank is turned; empty: not chosen yet"`
	Brief      string     `json:"brief" doc:"what is next, in a line"`
	CrankKnown bool       `json:"crank_known"`
	Waits      string     `json:"waits" doc:"what the open vehicle waits for; empty: nothing"`
	Damaged    string     `json:"damaged" doc:"why this job cannot be opened; empty: it can"`
}

// NowShort is what is next, and at which valve.
type NowShort struct {
	Action string `json:"action" enum:"choose_way,prepare,turn,free,read,keep,adjust,lock,bar_over,sign,go_hot,done"`
	Valve  string `json:"valve" doc:"empty: at none"`
}

// ValveDot is one valve on the board's small head.
type ValveDot struct {
	Name    string `json:"name"`
	Kind    string `json:"kind" enum:"intake,exhaust"`
	Verdict string `json:"verdict" doc:"of the last kept reading; empty: none"`
}

// BoardQuery narrows what the board lists.
type BoardQuery struct {
	Open     string `query:"open" enum:"yes,no,all" default:"all" doc:"jobs that are not signed for good; those that are; all"`
	OffBoard bool   `query:"off_board" doc:"those taken off the board instead"`
	Limit    int    `query:"limit" minimum:"1" maximum:"500" default:"200"`
	Offset   int    `query:"offset" minimum:"0" maximum:"10000000"`
}

// BoardPage is a part of the board.
type BoardPage struct {
	Total int64 `header:"X-Total-Count" doc:"how many there are in all"`
	Body  []JobShort
}

// jobs is a page of the board, from rows that were derived when the jobs last changed: no job is opened to
// list it.
func (s *server) jobs(ctx context.Context, in *BoardQuery) (*BoardPage, error) {
	q := store.BoardQuery{OffBoard: in.OffBoard, Limit: in.Limit, Offset: in.Offset}
	if in.Open != "all" {
		q.Open = new(in.Open == "yes")
	}
	list, total, err := s.store.With(ctx).Board(q)
	if err != nil {
		return nil, fault(err)
	}
	out := &BoardPage{Total: total, Body: []JobShort{}}
	for _, on := range list {
		short := onBoard(on, s.clock())
		if place := s.places.name(on.ID); place != "" {
			short.Plate += " · " + place
		}
		out.Body = append(out.Body, short)
	}
	return out, nil
}

// onBoard is a job as it was derived last, at a time: by then its crank may have to be confirmed. One that
// cannot be opened says so.
func onBoard(on store.OnBoard, now time.Time) JobShort {
	d, g := on.Derived, on.Derived.Glance
	next, known := g.AsOf(d.TouchedAt, now)
	short := JobShort{ID: on.ID, Vehicle: d.Vehicle, Plate: d.Plate, EngineName: d.Engine,
		Mechanic: cmp.Or(
			g.Hand,
			on.Mechanic,
		), Reason: on.Reason, CreatedAt: on.CreatedAt, TouchedAt: d.TouchedAt,
		Phase: string(cmp.Or(g.Phase, job.ChooseWay)), ReadyAt: given(g.ReadyAt), CoverBy: given(g.CoverBy),
		StartFrom: given(g.StartFrom), Done: g.Done, Total: g.Total,
		Now:      NowShort{string(cmp.Or(next.Action, job.DoNothing)), next.Valve},
		SignedBy: g.SignedBy, Valves: []ValveDot{}, Stops: g.Stops, School: string(g.School), Direction: string(g.Direction),
		Brief: next.String(), CrankKnown: known, Waits: g.Waits.Waiting(), Damaged: on.Damaged}
	if g.School != "" {
		short.Title = g.School.TitleFor(len(g.Valves))
	}
	for _, v := range g.Valves {
		short.Valves = append(
			short.Valves,
			ValveDot{v.Valve, engine.KindOf(v.Valve).String(), string(v.Verdict)},
		)
	}
	return short
}

// given is a time; nil where there is none.
func given(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}

// OnBoard says whether a job or a vehicle is shown.
type OnBoard struct {
	OnBoard bool `json:"on_board"`
}

// boardInput says whether a job stands on the board.
type boardInput struct {
	JobID
	Body OnBoard
}

// putOnBoard takes a job off the board or brings it back, which changes nothing in it.
func (s *server) putOnBoard(ctx context.Context, in *boardInput) (*bodyOf[OnBoard], error) {
	if err := s.store.With(ctx).PutOffBoard(in.ID, !in.Body.OnBoard); err != nil {
		return nil, fault(err)
	}
	s.desk.news.tell(change{job: in.ID})
	return &bodyOf[OnBoard]{in.Body}, nil
}
