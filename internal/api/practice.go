package api

import (
	"context"
	"encoding/json"
	"errors"
	"math"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/job"
	"metronix/core/people"
	"metronix/core/practice"
	"metronix/core/rehearse"
	"metronix/core/sequence"
	"metronix/internal/seen"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// The practice engine is played here alone: what is hidden of it leaves the program with its score, once a
// run has ended, and not before.

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
	huma.Get(
		a,
		"/api/v1/practice/{id}/shims",
		s.practiceShims,
		summary("get-practice-shims", "The choice of shims over a practice engine, as at a real job"),
	)
	huma.Get(a, "/api/v1/practice/{id}/ways", s.practiceWays,
		summary("get-practice-ways", "The sequences of a practice engine"))
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
	huma.Get(
		a,
		"/api/v1/practice/{id}/acts",
		s.practiceActs,
		summary(
			"list-practice-acts",
			"What was done in a run that has ended, act by act, with what was hidden",
		),
	)
	s.exerciseRoutes(a)
	s.drillRoutes(a)
	s.learnerRoutes(a)
	s.studyRoutes(a)
}

// PracticeID names a run.
type PracticeID struct {
	ID string `path:"id" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
}

// seesPractice says whether somebody may see a person's runs.
func seesPractice(v visitor, person string) bool {
	return v.open || v.person != nil && (v.person.ID == person || v.person.Role.May(people.Vouch))
}

func (p *playedRun) eyes(now time.Time) Eyes {
	e := p.run.Engine
	engineC, ambientC := e.Heat(now)
	eyes := Eyes{CrankDeg: wire.Deg(e.Crank()), Loose: []string{}, Open: []OpenPart{}, Tool: e.Tool(),
		Kicks: p.of.PlugsIn, EngineC: toTenth(engineC), AmbientC: toTenth(ambientC)}
	for _, at := range e.Firing() {
		eyes.FiringDeg = append(eyes.FiringDeg, wire.Deg(at))
	}
	open := e.Open()
	for _, v := range p.run.Job.Valves {
		if e.Loose(v.Name) {
			eyes.Loose = append(eyes.Loose, v.Name)
		}
		if part, is := open[v.Name]; is {
			eyes.Open = append(eyes.Open, OpenPart{v.Name, part})
		}
	}
	if e.Shimmed() {
		eyes.Shims = &ShimTray{Bare: wire.List(e.Bare()), TrayMM: wire.Millimetres(e.Tray()),
			SizesMM: wire.Millimetres(practice.ShimSizes())}
	}
	if p.run.Exercise().Hot {
		eyes.Stopped = &p.stored.Began
	}
	return eyes
}

// toTenth is a temperature as a thermometer shows it.
func toTenth(c float64) float64 { return math.Round(c*10) / 10 }

func (s *server) practiceState(ctx context.Context, p *playedRun) seen.JobState {
	p.run.Job.Speaks = speaksTo(ctx)
	return seen.StateOf(seen.At{ID: p.stored.ID, Job: p.run.Job, List: p.run.Happenings(), Now: s.clock()})
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
	out := PracticeView{
		View: JobView{
			Vehicle: Vehicle{ID: p.stored.ID, Name: "Practice engine", Plate: "practice", Counts: "km",
				EngineName: p.stored.Engine, OnBoard: true, Cards: []seen.Card{}},
			Reason: "practice", Mechanic: p.stored.Name, GaugeName: "practice set", Card: seen.CardOf(j.Card, speaksTo(ctx)), HotCard: -1,
			Aim: string(
				clearance.AimNominal,
			), Rule: string(clearance.Workshop), FeelMM: wire.MM(clearance.DefaultFeel),
			CreatedAt: p.stored.Began, OnBoard: true, Screens: []Presence{}, Engine: engineView(j.Sheet), State: s.practiceState(ctx, p),
		},
		Eyes:     p.eyes(s.clock()),
		Ended:    !p.stored.Ended.IsZero(),
		Began:    p.stored.Began,
		Aid:      p.of.Aid,
		Exercise: p.of.Name,
		Says:     p.of.Says,
		Minutes:  p.of.Minutes,
		Claims:   claimsView(p.run),
		LeavesMM: []wire.MM{},
		Ways:     waysToGo(j.Sheet),
	}
	if p.of.Left != nil {
		out.Left = p.of.Left.Says
	}
	for _, l := range p.of.Leaves() {
		out.LeavesMM = append(out.LeavesMM, wire.MM(l.True()))
	}
	return &bodyOf[PracticeView]{out}, nil
}

// practiceShims is the choice of shims from what was entered in a run.
func (s *server) practiceShims(ctx context.Context, in *struct {
	PracticeID
	ShimsWish
}) (*bodyOf[JobShims], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	p, err := s.practiceOf(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	return &bodyOf[JobShims]{chosenShims(p.run.Job, in.ShimsWish, nil)}, nil
}

// practiceWays compares as for a job by its card; nothing of what is hidden goes into it.
func (s *server) practiceWays(ctx context.Context, in *struct {
	PracticeID
	WaysQuery
}) (*bodyOf[Ways], error) {
	s.practising.Lock()
	p, err := s.practiceOf(ctx, in.ID)
	s.practising.Unlock()
	if err != nil {
		return nil, err
	}
	setup := p.run.Exercise().Setup
	return waysOf(setup.Sheet, in.WaysQuery, rehearse.Rehearsing{Round: in.WaysQuery.round(), Card: &setup.Card})
}

// waysToGo are the sequences that go round an engine.
func waysToGo(sheet *engine.Sheet) []WayToGo {
	list := []WayToGo{}
	for _, school := range sequence.Schools() {
		plan, err := sequence.Make(sheet, sequence.Request{Way: sequence.Way{School: school}})
		if err == nil && plan.Applies {
			list = append(list, WayToGo{string(school), school.Title(sheet)})
		}
	}
	return list
}

// practiceHand does something by hand.
func (s *server) practiceHand(ctx context.Context, in *struct {
	PracticeID
	Body PracticeHand
}) (*bodyOf[PracticeAnswer], error) {
	hand, ok := in.Body.hand()
	if !ok {
		say := "One thing is done at a time: turn_deg, take_off, slide, loosen, screw, tighten, rock, dial, take_shim, fit_shim or claim."
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

// practise does one thing and stores it before it is answered. The same sent again is answered with what is
// so.
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
			return &bodyOf[PracticeAnswer]{s.practiceAnswer(ctx, p, practice.Answer{})}, nil
		}
	}
	n.At = s.clock()
	if _, stopped := n.Said.Act.(job.EngineStopped); stopped && p.run.Exercise().Hot {
		n.At = p.stored.Began // it was then, whenever it is said
	}
	n.Said.At = n.At
	if body.Hand != nil && !body.Hand.Anyway && p.of.Aid == string(practice.Watched) {
		if err := warned(p.run.Warns(n.Hand)); err != nil {
			return nil, err
		}
	}
	done, err := p.run.Do(n)
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
	return &bodyOf[PracticeAnswer]{s.practiceAnswer(ctx, p, done)}, nil
}

// practiceAnswer is what is so after something was done.
func (s *server) practiceAnswer(ctx context.Context, p *playedRun, done practice.Answer) PracticeAnswer {
	answer := PracticeAnswer{State: s.practiceState(ctx, p), Eyes: p.eyes(s.clock()), MovedDeg: wire.Deg(done.Moved),
		KickedDeg: wire.Deg(done.Kicked), Claims: claimsView(p.run)}
	answer.Play, answer.DialMM = done.Play, (*wire.MM)(done.Dial)
	if done.Shim != nil {
		answer.Shim = &FoundShim{wire.MM(done.Shim.Stamped), wire.MM(done.Shim.Measured)}
	}
	if done.Felt != nil {
		answer.Felt = &FeltView{Pull: done.Felt.Pull}
	}
	return answer
}

// practiceWarning is the type of a problem that says what would go wrong: the same with anyway is done.
const practiceWarning = "urn:metronix:practice_warning"

// warned is the problem that whoever looks on speaks of; nil: he is silent.
func warned(list []string) error {
	if len(list) == 0 {
		return nil
	}
	m := problemModel(http.StatusConflict, strings.Join(list, " "))
	m.Type = practiceWarning
	return m
}

// endPractice ends a run, once.
func (s *server) endPractice(ctx context.Context, in *struct {
	PracticeID
	Anyway bool `query:"anyway" doc:"it was said what is missing, and it is ended all the same"`
}) (*bodyOf[PracticeScore], error) {
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
		if p.of.Aid == string(practice.Watched) && !in.Anyway {
			if err := warned(p.run.WarnsEnd()); err != nil {
				return nil, err
			}
		}
		now, score := s.clock(), p.run.Score()
		came := store.PracticeEnd{
			Correct: score.Correct,
			Valves:  len(score.Valves),
			Faults:  len(score.Faults),
		}
		if err := s.store.With(ctx).EndPractice(in.ID, now, came); err != nil {
			return nil, fault(err)
		}
		p.stored.Ended, p.stored.Came = now, came
	}
	return &bodyOf[PracticeScore]{scoreView(p)}, nil
}

// practices are one's own runs; a tutor's list is everybody's.
func (s *server) practices(ctx context.Context, _ *struct{}) (*bodyOf[[]PracticeShort], error) {
	const most = 100
	v := visitorOf(ctx)
	runs, err := s.store.With(ctx).Practices(v.id(), seesPractice(v, ""), most)
	if err != nil {
		return nil, fault(err)
	}
	list := []PracticeShort{}
	for _, r := range runs {
		list = append(list, shortOf(r))
	}
	return &bodyOf[[]PracticeShort]{list}, nil
}
