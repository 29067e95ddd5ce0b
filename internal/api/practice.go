package api

import (
	"context"
	"crypto/rand"
	"encoding/binary"
	"encoding/json"
	"errors"
	"net/http"
	"strconv"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/people"
	"metronix/core/practice"
	"metronix/internal/seen"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// The practice engine is played here alone: what is hidden of it leaves the program with its score, once a run has
// ended, and not before.

// practiceRoutes are runs on a practice engine: begun, done act by act, ended, scored.
func (s *server) practiceRoutes(a huma.API) {
	huma.Get(
		a,
		"/api/v1/practice",
		s.practices,
		summary(
			"list-practice",
			"Runs on practice engines, the newest first: one's own; a tutor sees everybody's",
		),
	)
	huma.Post(
		a,
		"/api/v1/practice",
		s.startPractice,
		summary("start-practice", "Begin a run on an engine of the library, with gaps that are hidden"),
	)
	huma.Get(
		a,
		"/api/v1/practice/{id}",
		s.practice,
		summary("get-practice", "A run as it stands: what is believed, and what eyes see"),
	)
	huma.Post(
		a,
		"/api/v1/practice/{id}/hands",
		s.practiceHand,
		summary("add-practice-hand", "Do something to the practice engine by hand"),
	)
	huma.Post(
		a,
		"/api/v1/practice/{id}/happenings",
		s.practiceHappen,
		summary("add-practice-happening", "Say what was done, as at a real job"),
		strictly[wire.Happening](a),
	)
	huma.Post(
		a,
		"/api/v1/practice/{id}/end",
		s.endPractice,
		summary("end-practice", "End a run; its score tells what was hidden"),
	)
	huma.Get(
		a,
		"/api/v1/practice/{id}/score",
		s.practiceScore,
		summary("get-practice-score", "What a run that has ended came to"),
	)
}

// PracticeID names a run.
type PracticeID struct {
	ID string `path:"id" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// seesPractice says whether somebody may see a person's runs.
func seesPractice(v visitor, person string) bool {
	return v.open || v.person != nil && (v.person.ID == person || v.person.Role.May(people.Vouch))
}

func (p *playedRun) eyes() Eyes {
	e := Eyes{CrankDeg: wire.Deg(p.run.Engine.Crank()), Loose: []string{}}
	for _, at := range p.run.Engine.Firing() {
		e.FiringDeg = append(e.FiringDeg, wire.Deg(at))
	}
	for _, v := range p.run.Job.Valves {
		if p.run.Engine.Loose(v.Name) {
			e.Loose = append(e.Loose, v.Name)
		}
	}
	return e
}

func (s *server) practiceState(ctx context.Context, p *playedRun) seen.JobState {
	p.run.Job.Speaks = speaksTo(ctx)
	return seen.StateOf(seen.At{ID: p.stored.ID, Job: p.run.Job, List: p.run.Happenings(), Now: s.clock()})
}

// startPractice begins a run. Sent again under the same id it is the same run.
func (s *server) startPractice(ctx context.Context, in *bodyOf[NewPractice]) (*bodyOf[PracticeShort], error) {
	e, err := s.store.With(ctx).Engine(in.Body.EngineID)
	if err != nil {
		return nil, fault(err)
	}
	if in.Body.Card >= len(e.Sheet.Clearances) {
		return nil, located(
			http.StatusUnprocessableEntity,
			"This engine has no such clearance card.",
			wire.Fault{
				Location: "body.card",
				Value:    in.Body.Card,
				Message:  "This engine has no such clearance card.",
			},
		)
	}
	if card := e.Sheet.Clearances[in.Body.Card]; card.State != clearance.Cold {
		return nil, located(
			http.StatusUnprocessableEntity,
			"Practice is on a cold engine so far: choose a cold card.",
			wire.Fault{
				Location: "body.card",
				Value:    in.Body.Card,
				Message:  "Practice is on a cold engine so far: choose a cold card.",
			},
		)
	}
	sheet, err := wire.WriteSheet(e.Sheet)
	if err != nil {
		return nil, fault(err)
	}
	var seed [8]byte
	_, _ = rand.Read(seed[:]) // never errs (crypto/rand)
	var items []gauge.Item
	for _, l := range practiceLeaves() {
		items = append(items, gauge.Item{Leaf: l})
	}
	x := exercise{Sheet: sheet, Seed: strconv.FormatUint(binary.LittleEndian.Uint64(seed[:]), 16),
		From: seen.From{
			Card:    in.Body.Card,
			HotCard: -1,
			FeelMM:  wire.MM(clearance.DefaultFeel),
			Leaves:  wire.LeavesOf(items),
		}}
	set, err := x.setUp()
	if err != nil {
		return nil, fault(err)
	}
	if _, err := practice.Begin(set); err != nil {
		return nil, located(http.StatusUnprocessableEntity, wire.Sentence(err),
			wire.Fault{Location: "body.engine_id", Value: in.Body.EngineID, Message: wire.Sentence(err)})
	}
	text, err := json.Marshal(x)
	if err != nil {
		return nil, fault(err)
	}
	v := visitorOf(ctx)
	run := store.PracticeRun{
		ID:       in.Body.ID,
		Name:     v.name(),
		Engine:   e.Sheet.Name,
		Exercise: string(text),
		Began:    s.clock(),
	}
	if v.person != nil {
		run.Person = v.person.ID
	}
	if err := s.store.With(ctx).AddPractice(run); err != nil && !errors.Is(err, store.ErrExists) {
		return nil, fault(err)
	}
	return &bodyOf[PracticeShort]{
		PracticeShort{ID: run.ID, Name: run.Name, Engine: run.Engine, Began: run.Began},
	}, nil
}

// practice is a run as it stands.
func (s *server) practice(ctx context.Context, in *PracticeID) (*bodyOf[PracticeView], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	p, err := s.practiceOf(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	j := p.run.Job
	view := JobView{
		Vehicle: Vehicle{
			ID:         p.stored.ID,
			Name:       "Practice engine",
			Plate:      "practice",
			Counts:     "km",
			EngineName: p.stored.Engine,
			OnBoard:    true,
			Cards:      []seen.Card{},
		},
		Reason: "practice", Mechanic: p.stored.Name, GaugeName: "practice set", Card: seen.CardOf(j.Card, speaksTo(ctx)), HotCard: -1,
		Aim: string(
			clearance.AimNominal,
		), Rule: string(clearance.Workshop), FeelMM: wire.MM(clearance.DefaultFeel), CreatedAt: p.stored.Began,
		OnBoard: true, Screens: []Presence{}, Engine: engineView(j.Sheet), State: s.practiceState(ctx, p),
	}
	return &bodyOf[PracticeView]{PracticeView{view, p.eyes(), !p.stored.Ended.IsZero()}}, nil
}

// practiceHand does something by hand.
func (s *server) practiceHand(ctx context.Context, in *struct {
	PracticeID
	Body PracticeHand
}) (*bodyOf[PracticeAnswer], error) {
	hand, ok := in.Body.hand()
	if !ok {
		say := "One thing is done at a time: turn_deg, slide, loosen, screw or tighten."
		return nil, located(http.StatusUnprocessableEntity, say, wire.Fault{Location: "body", Message: say})
	}
	return s.practise(ctx, in.ID, practice.Entry{ID: in.Body.ID, Hand: hand}, practised{Hand: &in.Body})
}

// practiceHappen says something to the run's job.
func (s *server) practiceHappen(ctx context.Context, in *struct {
	PracticeID
	RawBody []byte `contentType:"application/json"`
}) (*bodyOf[PracticeAnswer], error) {
	h, faults := wire.ReadHappening(in.RawBody, s.clock())
	if err := unreadable(faults); err != nil {
		return nil, err
	}
	return s.practise(ctx, in.ID, practice.Entry{ID: h.ID, Said: h}, practised{Said: in.RawBody})
}

// practise does one thing and stores it before it is answered. The same sent again is answered with what is so.
func (s *server) practise(
	ctx context.Context,
	id string,
	n practice.Entry,
	body practised,
) (*bodyOf[PracticeAnswer], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	p, err := s.practiceOf(ctx, id)
	if err != nil {
		return nil, err
	}
	if v := visitorOf(ctx); !v.open && (v.person == nil || v.person.ID != p.stored.Person) {
		return nil, huma.Error403Forbidden("This is somebody else's run: look at it, and let him do it.")
	}
	if !p.stored.Ended.IsZero() {
		return nil, huma.Error409Conflict("This run has ended. Begin another one.")
	}
	for _, a := range p.run.List {
		if a.ID == n.ID {
			return &bodyOf[PracticeAnswer]{
				PracticeAnswer{State: s.practiceState(ctx, p), Eyes: p.eyes()},
			}, nil
		}
	}
	n.At = s.clock()
	n.Said.At = n.At
	felt, err := p.run.Do(n)
	var refusal *job.Refusal
	switch {
	case errors.As(err, &refusal):
		return nil, fault(err)
	case err != nil:
		return nil, located(
			http.StatusUnprocessableEntity,
			wire.Sentence(err),
			wire.Fault{Location: "body", Message: wire.Sentence(err)},
		)
	}
	text, err := json.Marshal(body)
	if err != nil {
		return nil, fault(err)
	}
	if err := s.store.With(ctx).AddPracticeAct(id, len(p.run.List)-1, store.PracticeAct{ID: n.ID, At: n.At, Body: string(text)}); err != nil {
		s.practised.Remove(id) // what is played is ahead of what is stored
		return nil, fault(err)
	}
	answer := PracticeAnswer{State: s.practiceState(ctx, p), Eyes: p.eyes()}
	if felt != nil {
		answer.Felt = &FeltView{Pull: felt.Pull}
	}
	return &bodyOf[PracticeAnswer]{answer}, nil
}

// endPractice ends a run, once.
func (s *server) endPractice(ctx context.Context, in *PracticeID) (*bodyOf[PracticeScore], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	p, err := s.practiceOf(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	if v := visitorOf(ctx); !v.open && v.person.ID != p.stored.Person {
		return nil, huma.Error403Forbidden("This is somebody else's run: he ends it.")
	}
	if p.stored.Ended.IsZero() {
		now, score := s.clock(), p.run.Score()
		came := store.PracticeEnd{Correct: score.Correct, Valves: len(score.Valves), Faults: len(score.Faults)}
		if err := s.store.With(ctx).EndPractice(in.ID, now, came); err != nil {
			return nil, fault(err)
		}
		p.stored.Ended, p.stored.Came = now, came
	}
	return &bodyOf[PracticeScore]{scoreView(p)}, nil
}

// practiceScore is the score of a run that has ended.
func (s *server) practiceScore(ctx context.Context, in *PracticeID) (*bodyOf[PracticeScore], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	p, err := s.practiceOf(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	if p.stored.Ended.IsZero() {
		return nil, huma.Error409Conflict("This run goes on: what is hidden is told when it has ended.")
	}
	return &bodyOf[PracticeScore]{scoreView(p)}, nil
}

// practices are one's own runs; a tutor's list is everybody's.
func (s *server) practices(ctx context.Context, _ *struct{}) (*bodyOf[[]PracticeShort], error) {
	const most = 100
	v := visitorOf(ctx)
	person := ""
	if v.person != nil {
		person = v.person.ID
	}
	runs, err := s.store.With(ctx).Practices(person, seesPractice(v, ""), most)
	if err != nil {
		return nil, fault(err)
	}
	list := []PracticeShort{}
	for _, r := range runs {
		short := PracticeShort{ID: r.ID, Name: r.Name, Engine: r.Engine, Began: r.Began, Ended: given(r.Ended)}
		if !r.Ended.IsZero() {
			short.Correct, short.Valves, short.Faults = &r.Came.Correct, r.Came.Valves, r.Came.Faults
		}
		list = append(list, short)
	}
	return &bodyOf[[]PracticeShort]{list}, nil
}
