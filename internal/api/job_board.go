package api

import (
	"cmp"
	"context"
	"encoding/json"
	"time"

	"metronix/core/job"
	"metronix/core/sequence"
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
	CoverBy    *time.Time `json:"cover_by,omitempty" doc:"until when the cover has to be on over open sealant"`
	StartFrom  *time.Time `json:"start_from,omitempty" doc:"before when the engine must not run: sealant cures"`
	Done       int        `json:"done"`
	Total      int        `json:"total"`
	Now        Now        `json:"now"`
	SignedBy   string     `json:"signed_by"`
	Valves     []ValveDot `json:"valves"`
	Stops      int        `json:"stops"`
	School     string     `json:"school"`
	Title      string     `json:"title" doc:"the name of the sequence on this engine; empty: not chosen yet"`
	Direction  string     `json:"direction" enum:",running,back" doc:"which way the crank is turned; empty: not chosen yet"`
	Brief      string     `json:"brief" doc:"what is next, in a line"`
	Quiet      string     `json:"quiet" doc:"the same once so long passed that the crank has to be confirmed"`
	CrankKnown bool       `json:"crank_known"`
	Waits      string     `json:"waits" doc:"what the open vehicle waits for; empty: nothing"`
	Damaged    string     `json:"damaged" doc:"why this job cannot be opened; empty: it can"`
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
		out.Body = append(out.Body, onBoard(on, s.clock()))
	}
	return out, nil
}

// onBoard is a job as it was derived last, at a time: by then its crank may have to be confirmed. One that
// cannot be opened says so.
func onBoard(on store.OnBoard, now time.Time) JobShort {
	nothing := Now{Action: string(job.DoNothing), Ladder: []Rung{}, Here: []string{}}
	short := JobShort{ID: on.ID, Valves: []ValveDot{}, Now: nothing, Phase: string(job.ChooseWay)}
	if err := json.Unmarshal([]byte(on.Short), &short); err != nil && on.Damaged == "" {
		on.Damaged = "What the board knew of it does not read."
	}
	short.Damaged = on.Damaged
	if short.CrankKnown && job.NeedsConfirming(short.TouchedAt, now) {
		short.CrankKnown = false
		short.Brief = cmp.Or(short.Quiet, short.Brief)
	}
	return short
}

func jobShort(r store.Job, j *job.Job, touched time.Time) JobShort {
	short := JobShort{
		ID: r.ID, Vehicle: r.Vehicle.Name, Plate: r.Vehicle.Plate, EngineName: r.Sheet.Name,
		Mechanic: cmp.Or(j.Hand(), r.Mechanic), Waits: j.Waits.Waiting(),
		Reason: r.Reason, CreatedAt: r.CreatedAt, TouchedAt: touched, Phase: string(j.Phase()),
		Now:   nowView(j),
		Brief: j.Brief(), Quiet: j.AsOf(touched.Add(job.ConfirmAfter + time.Second)).Brief(),
		SignedBy: j.SignedBy,
		Valves:   []ValveDot{}, Stops: len(j.Plan.Stops), School: string(j.Way.School), CrankKnown: j.Known(),
	}
	short.CoverBy, short.StartFrom = clocks(j)
	short.Done, short.Total = j.Progress()
	if c := coolingView(j); c != nil && j.Phase() == job.Prepare {
		short.ReadyAt = c.ReadyAt
	}
	if j.Way.School != "" {
		short.Direction = string(cmp.Or(j.Way.Direction, sequence.Running))
		short.Title = j.Way.School.Title(j.Sheet)
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

// OnBoard says whether a job or a vehicle is shown.
type OnBoard struct {
	OnBoard bool `json:"on_board"`
}

type boardInput struct {
	JobID
	Body OnBoard
}

func (s *server) putOnBoard(ctx context.Context, in *boardInput) (*bodyOf[OnBoard], error) {
	if err := s.store.With(ctx).PutOffBoard(in.ID, !in.Body.OnBoard); err != nil {
		return nil, fault(err)
	}
	return &bodyOf[OnBoard]{in.Body}, nil
}
