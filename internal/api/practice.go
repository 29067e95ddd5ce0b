package api

import (
	"cmp"
	"context"
	"crypto/rand"
	"encoding/binary"
	"encoding/json"
	"errors"
	"net/http"
	"strconv"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
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
	huma.Get(a, "/api/v1/practice", s.practices, summary("list-practice", "Runs on practice engines, the newest first: one's own; a tutor sees everybody's"))
	huma.Post(a, "/api/v1/practice", s.startPractice, summary("start-practice", "Begin a run on an engine of the library, with gaps that are hidden"))
	huma.Get(a, "/api/v1/practice/{id}", s.practice, summary("get-practice", "A run as it stands: what is believed, and what eyes see"))
	huma.Post(a, "/api/v1/practice/{id}/hands", s.practiceHand, summary("add-practice-hand", "Do something to the practice engine by hand"))
	huma.Post(a, "/api/v1/practice/{id}/happenings", s.practiceHappen, summary("add-practice-happening", "Say what was done, as at a real job"),
		strictly[wire.Happening](a))
	huma.Post(a, "/api/v1/practice/{id}/end", s.endPractice, summary("end-practice", "End a run; its score tells what was hidden"))
	huma.Get(a, "/api/v1/practice/{id}/score", s.practiceScore, summary("get-practice-score", "What a run that has ended came to"))
}

// PracticeID names a run.
type PracticeID struct {
	ID string `path:"id" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// NewPractice is a run to begin.
type NewPractice struct {
	ID       string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	EngineID string `json:"engine_id" maxLength:"64" doc:"of the library"`
	Card     int    `json:"card" minimum:"0" doc:"index of the clearance card"`
}

// PracticeShort is a run in a list.
type PracticeShort struct {
	ID      string     `json:"id"`
	Name    string     `json:"name" doc:"whose it is; empty: nobody was set up"`
	Engine  string     `json:"engine"`
	Began   time.Time  `json:"began"`
	Ended   *time.Time `json:"ended,omitempty" doc:"absent: it goes on"`
	Correct *int       `json:"correct,omitempty" doc:"valves that ended right; absent until it has ended"`
	Valves  int        `json:"valves,omitempty"`
	Faults  int        `json:"faults,omitempty"`
}

// Eyes is what anybody sees of the practice engine.
type Eyes struct {
	CrankDeg wire.Deg `json:"crank_deg" doc:"0 to 720, as lobes and pulley show it"`
	Loose    []string `json:"loose" doc:"valves whose nut is not tight"`
}

// PracticeView is a run as it stands.
type PracticeView struct {
	View  JobView `json:"view" doc:"the job, as the bench shows one"`
	Eyes  Eyes    `json:"eyes"`
	Ended bool    `json:"ended"`
}

// PracticeHand is one thing done by hand: one of its kinds.
type PracticeHand struct {
	ID      string         `json:"id" minLength:"1" maxLength:"64"`
	TurnDeg float64        `json:"turn_deg,omitempty" minimum:"-720" maximum:"720" doc:"the crank, forwards or (below 0) back"`
	Slide   *PracticeSlide `json:"slide,omitempty"`
	Loosen  string         `json:"loosen,omitempty" maxLength:"20" doc:"the nut of this valve"`
	Screw   *PracticeScrew `json:"screw,omitempty"`
	Tighten string         `json:"tighten,omitempty" maxLength:"20" doc:"the nut of this valve"`
}

// PracticeSlide is a leaf or a stack that is slid in.
type PracticeSlide struct {
	Valve string `json:"valve" maxLength:"20"`
	wire.Stack
}

// PracticeScrew is a screw that is turned.
type PracticeScrew struct {
	Valve string  `json:"valve" maxLength:"20"`
	ByDeg float64 `json:"by_deg" minimum:"-1080" maximum:"1080" doc:"clockwise, or (below 0) back"`
}

// FeltView is what a leaf says to the hand.
type FeltView struct {
	Pull float64 `json:"pull" doc:"from 0, it falls through, over 0.5, it drags as it should, to 1, it does not enter"`
}

// PracticeAnswer is what is so after something was done.
type PracticeAnswer struct {
	State seen.JobState `json:"state"`
	Eyes  Eyes          `json:"eyes"`
	Felt  *FeltView     `json:"felt,omitempty" doc:"of a leaf that was slid in"`
}

// hand is what a body means; ok is false where it is none, or more than one.
func (h PracticeHand) hand() (practice.Hand, bool) {
	var list []practice.Hand
	if h.TurnDeg != 0 {
		list = append(list, practice.Turned{By: measure.FromDegrees(h.TurnDeg)})
	}
	if h.Slide != nil {
		list = append(list, practice.Slid{Valve: h.Slide.Valve, Leaves: h.Slide.Core()})
	}
	if h.Loosen != "" {
		list = append(list, practice.Loosened{Valve: h.Loosen})
	}
	if h.Screw != nil {
		list = append(list, practice.Screwed{Valve: h.Screw.Valve, By: measure.FromDegrees(h.Screw.ByDeg)})
	}
	if h.Tighten != "" {
		list = append(list, practice.Tightened{Valve: h.Tighten})
	}
	if len(list) != 1 {
		return nil, false
	}
	return list[0], true
}

// exercise is what is stored of an exercise: all that a run follows from.
type exercise struct {
	Sheet json.RawMessage `json:"sheet"`
	From  seen.From       `json:"from"`
	Seed  string          `json:"seed"`
}

// practiceLeaves is the set that lies beside the practice engine, by hundredths of a millimetre (our own).
func practiceLeaves() (set gauge.Set) {
	for m := measure.Length(5); m <= 60; m++ {
		set = append(set, gauge.Leaf{ID: gauge.ID{Marked: m * 10 * measure.Micrometre}})
	}
	return set
}

// setUp is the exercise as the core knows it.
func (x exercise) setUp() (practice.Exercise, error) {
	sheet, faults := wire.ReadStoredSheet(x.Sheet)
	if len(faults) > 0 {
		return practice.Exercise{}, errors.New("the exercise's sheet does not read: " + faults[0].Message)
	}
	seed, err := strconv.ParseUint(x.Seed, 16, 64)
	if err != nil {
		return practice.Exercise{}, errors.New("the exercise has no seed")
	}
	setup, err := job.Start{Sheet: sheet, Card: x.From.Card, HotCard: -1, Aim: clearance.Aim(x.From.Aim), Rule: clearance.Rule(x.From.Rule),
		Owned: gauge.Owned(x.From.Leaves.Core()), Feel: measure.Length(x.From.FeelMM)}.Setup()
	return practice.Exercise{Setup: setup, Seed: seed}, err
}

// practised is what is stored of an entry: the body of what came.
type practised struct {
	Hand *PracticeHand   `json:"hand,omitempty"`
	Said json.RawMessage `json:"said,omitempty"`
}

// entry reads what was stored.
func entryOf(a store.PracticeAct) (n practice.Entry, err error) {
	var body practised
	n = practice.Entry{ID: a.ID, At: a.At}
	if err := json.Unmarshal([]byte(a.Body), &body); err != nil {
		return n, err
	}
	if body.Hand != nil {
		hand, ok := body.Hand.hand()
		if !ok {
			return n, errors.New("it is no hand")
		}
		n.Hand = hand
		return n, nil
	}
	said, faults := wire.ReadHappening(body.Said, a.At)
	if len(faults) > 0 {
		return n, errors.New(faults[0].Message)
	}
	n.Said = said
	return n, nil
}

// playedRun is a run played up to now.
type playedRun struct {
	stored store.PracticeRun
	run    *practice.Run
}

// mostPractised is how many runs stay played in memory; any other is played again when it is asked for.
const mostPractised = 30

// practiceOf is a run that whoever asks may see: his own, or anybody's for a tutor. s.practising is held.
func (s *server) practiceOf(ctx context.Context, id string) (*playedRun, error) {
	p, ok := s.practised.Get(id)
	if !ok {
		stored, acts, err := s.store.With(ctx).Practice(id)
		if err != nil {
			return nil, fault(err)
		}
		run, err := replayed(stored, acts)
		if err != nil {
			return nil, fault(err)
		}
		p = &playedRun{stored, run}
		s.practised.Add(id, p)
	}
	if !seesPractice(visitorOf(ctx), p.stored.Person) {
		return nil, fault(store.ErrNotFound)
	}
	return p, nil
}

// replayed plays a stored run.
func replayed(stored store.PracticeRun, acts []store.PracticeAct) (*practice.Run, error) {
	var x exercise
	if err := json.Unmarshal([]byte(stored.Exercise), &x); err != nil {
		return nil, err
	}
	set, err := x.setUp()
	if err != nil {
		return nil, err
	}
	list := make([]practice.Entry, len(acts))
	for i, a := range acts {
		if list[i], err = entryOf(a); err != nil {
			return nil, err
		}
	}
	return practice.Replay(set, list)
}

// seesPractice says whether somebody may see a person's runs.
func seesPractice(v visitor, person string) bool {
	return v.open || v.person != nil && (v.person.ID == person || v.person.Role.May(people.Vouch))
}

func (p *playedRun) eyes() Eyes {
	e := Eyes{CrankDeg: wire.Deg(p.run.Engine.Crank()), Loose: []string{}}
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
		return nil, located(http.StatusUnprocessableEntity, "This engine has no such clearance card.",
			wire.Fault{Location: "body.card", Value: in.Body.Card, Message: "This engine has no such clearance card."})
	}
	if card := e.Sheet.Clearances[in.Body.Card]; card.State != clearance.Cold {
		return nil, located(http.StatusUnprocessableEntity, "Practice is on a cold engine so far: choose a cold card.",
			wire.Fault{Location: "body.card", Value: in.Body.Card, Message: "Practice is on a cold engine so far: choose a cold card."})
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
		From: seen.From{Card: in.Body.Card, HotCard: -1, FeelMM: wire.MM(clearance.DefaultFeel), Leaves: wire.LeavesOf(items)}}
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
	run := store.PracticeRun{ID: in.Body.ID, Name: v.name(), Engine: e.Sheet.Name, Exercise: string(text), Began: s.clock()}
	if v.person != nil {
		run.Person = v.person.ID
	}
	if err := s.store.With(ctx).AddPractice(run); err != nil && !errors.Is(err, store.ErrExists) {
		return nil, fault(err)
	}
	return &bodyOf[PracticeShort]{PracticeShort{ID: run.ID, Name: run.Name, Engine: run.Engine, Began: run.Began}}, nil
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
		Vehicle: Vehicle{ID: p.stored.ID, Name: "Practice engine", Plate: "practice", Counts: "km", EngineName: p.stored.Engine, OnBoard: true, Cards: []seen.Card{}},
		Reason:  "practice", Mechanic: p.stored.Name, GaugeName: "practice set", Card: seen.CardOf(j.Card, speaksTo(ctx)), HotCard: -1,
		Aim: string(clearance.AimNominal), Rule: string(clearance.Workshop), FeelMM: wire.MM(clearance.DefaultFeel), CreatedAt: p.stored.Began,
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
func (s *server) practise(ctx context.Context, id string, n practice.Entry, body practised) (*bodyOf[PracticeAnswer], error) {
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
			return &bodyOf[PracticeAnswer]{PracticeAnswer{State: s.practiceState(ctx, p), Eyes: p.eyes()}}, nil
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
		return nil, located(http.StatusUnprocessableEntity, wire.Sentence(err), wire.Fault{Location: "body", Message: wire.Sentence(err)})
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
	now := s.clock()
	if err := s.store.With(ctx).EndPractice(in.ID, now); err != nil {
		return nil, fault(err)
	}
	if p.stored.Ended.IsZero() {
		p.stored.Ended = now
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
	s.practising.Lock()
	defer s.practising.Unlock()
	list := []PracticeShort{}
	for _, r := range runs {
		short := PracticeShort{ID: r.ID, Name: r.Name, Engine: r.Engine, Began: r.Began, Ended: given(r.Ended)}
		if !r.Ended.IsZero() {
			if p, err := s.practiceOf(ctx, r.ID); err == nil {
				score := p.run.Score()
				short.Correct, short.Valves, short.Faults = &score.Correct, len(score.Valves), len(score.Faults)
			}
		}
		list = append(list, short)
	}
	return &bodyOf[[]PracticeShort]{list}, nil
}

// PracticeScore is what a run came to, with what was hidden.
type PracticeScore struct {
	ID      string           `json:"id"`
	Name    string           `json:"name"`
	Engine  string           `json:"engine"`
	Ended   time.Time        `json:"ended"`
	Valves  []PracticeResult `json:"valves"`
	Faults  []PracticeFault  `json:"faults" doc:"the gravest first"`
	TurnDeg wire.Deg         `json:"turn_deg" doc:"of the crank, whichever way"`
	Leaves  int              `json:"leaves" doc:"that were taken in hand"`
	TookS   float64          `json:"took_s"`
	Signed  bool             `json:"signed"`
	Correct int              `json:"correct" doc:"valves that ended in their limits and are believed to be"`
}

// PracticeResult is one valve.
type PracticeResult struct {
	Valve      string   `json:"valve"`
	Kind       string   `json:"kind" enum:"intake,exhaust"`
	FoundMM    wire.MM  `json:"found_mm" doc:"truly, as a leaf finds it"`
	LeftMM     wire.MM  `json:"left_mm"`
	BelievedMM *wire.MM `json:"believed_mm" nullable:"true" doc:"null: no figure was kept"`
	LowerMM    wire.MM  `json:"lower_mm"`
	UpperMM    wire.MM  `json:"upper_mm"`
	Verdict    string   `json:"verdict" doc:"as it was judged; empty: it was not"`
	Truly      string   `json:"truly" enum:"in,tight,loose"`
	Disturbed  bool     `json:"disturbed" doc:"its screw was turned"`
}

// PracticeFault is something that a good mechanic would point out.
type PracticeFault struct {
	Slip  string `json:"slip"`
	Valve string `json:"valve" doc:"empty: at none"`
	Says  string `json:"says"`
}

func scoreView(p *playedRun) PracticeScore {
	s := p.run.Score()
	out := PracticeScore{ID: p.stored.ID, Name: p.stored.Name, Engine: p.stored.Engine, Ended: p.stored.Ended, Valves: []PracticeResult{}, Faults: []PracticeFault{},
		TurnDeg: wire.Deg(s.Turned), Leaves: s.Leaves, TookS: s.Took.Seconds(), Signed: s.Signed, Correct: s.Correct}
	kinds := map[string]string{}
	for _, v := range p.run.Job.Valves {
		kinds[v.Name] = v.Kind.String()
	}
	for _, v := range s.Valves {
		r := PracticeResult{Valve: v.Valve, Kind: kinds[v.Valve], FoundMM: wire.MM(v.Found), LeftMM: wire.MM(v.Left), LowerMM: wire.MM(v.Window.Lower),
			UpperMM: wire.MM(v.Window.Upper), Verdict: string(v.Verdict), Truly: cmp.Or(string(v.Truly), "in"), Disturbed: v.Disturbed}
		if v.Believed != nil {
			mm := wire.MM(*v.Believed)
			r.BelievedMM = &mm
		}
		out.Valves = append(out.Valves, r)
	}
	for _, f := range s.Faults {
		out.Faults = append(out.Faults, PracticeFault{string(f.Slip), f.Valve, wire.Sentence(errors.New(f.String()))})
	}
	return out
}
