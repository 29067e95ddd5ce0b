package api

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"metronix/core/practice"
	"metronix/internal/exercise"
	"metronix/internal/store"
	"metronix/internal/wire"
	"net/http"
	"strconv"
)

// chosen is the exercise that a run is to be begun on: one that is named, or an engine of the library by a
// card.
func (s *server) chosen(ctx context.Context, n NewPractice) (x exercise.Exercise, err error) {
	if n.ExerciseID != "" {
		return s.exercise(ctx, n.ExerciseID)
	}
	e, err := s.store.With(ctx).Engine(n.EngineID)
	if err != nil {
		return x, fault(err)
	}
	if n.Card >= len(e.Sheet.Clearances) {
		say := "This engine has no such clearance card."
		return x, located(
			http.StatusUnprocessableEntity,
			say,
			wire.Fault{Location: "body.card", Value: n.Card, Message: say},
		)
	}
	sheet, err := wire.WriteSheet(e.Sheet)
	if err != nil {
		return x, fault(err)
	}
	return exercise.Exercise{Sheet: sheet, Told: exercise.Told{Card: n.Card, Aid: string(practice.Guided)}}, nil
}

// startPractice begins a run. Sent again under the same id it is the same run.
func (s *server) startPractice(ctx context.Context, in *bodyOf[NewPractice]) (*bodyOf[PracticeShort], error) {
	x, err := s.chosen(ctx, in.Body)
	if err != nil {
		return nil, err
	}
	x.Aid = cmp.Or(in.Body.Aid, x.Aid)
	v, now, seed := visitorOf(ctx), s.clock(), x.SeedOf()
	set, err := x.Practised(seed, now)
	if err != nil {
		return nil, fault(err)
	}
	if _, err := practice.Begin(set); err != nil {
		at := wire.Fault{Location: "body.engine_id", Value: in.Body.EngineID, Message: wire.Sentence(err)}
		if in.Body.ExerciseID != "" {
			at.Location, at.Value = "body.exercise_id", in.Body.ExerciseID
		}
		return nil, located(http.StatusUnprocessableEntity, wire.Sentence(err), at)
	}
	text, err := json.Marshal(keptExercise{Exercise: &x, Seed: strconv.FormatUint(seed, 16)})
	if err != nil {
		return nil, fault(err)
	}
	run := store.PracticeRun{
		ID:       in.Body.ID,
		Person:   v.id(),
		Name:     v.name(),
		Engine:   set.Setup.Sheet.Name,
		Exercise: string(text),
		Began:    now,
	}
	if err := s.store.With(ctx).AddPractice(run); err != nil && !errors.Is(err, store.ErrExists) {
		return nil, fault(err)
	}
	return &bodyOf[PracticeShort]{shortOf(run)}, nil
}

// shortOf is a run in a list.
func shortOf(r store.PracticeRun) PracticeShort {
	short := PracticeShort{
		ID:     r.ID,
		Name:   r.Name,
		Engine: r.Engine,
		Aid:    string(practice.Guided),
		Began:  r.Began,
		Ended:  given(r.Ended),
	}
	var kept keptExercise
	if err := json.Unmarshal([]byte(r.Exercise), &kept); err == nil && kept.Exercise != nil {
		short.Exercise, short.Aid = kept.Exercise.Name, kept.Exercise.Aid
	}
	if !r.Ended.IsZero() {
		short.Correct, short.Valves, short.Faults = &r.Came.Correct, r.Came.Valves, r.Came.Faults
	}
	return short
}
