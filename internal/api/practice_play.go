package api

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strconv"

	"metronix/core/practice"
	"metronix/internal/exercise"
	"metronix/internal/seen"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// keptExercise is what is stored of an exercise: all that a run follows from.
type keptExercise struct {
	Exercise *exercise.Exercise `json:"exercise,omitempty"`
	Seed     string             `json:"seed"` // hexadecimal

	// of runs from before there were exercises: the engine and its card alone
	Sheet json.RawMessage `json:"sheet,omitempty"`
	From  *seen.From      `json:"from,omitempty"`
}

// of is the exercise, whenever it was stored.
func (k keptExercise) of() exercise.Exercise {
	if k.Exercise != nil {
		return *k.Exercise
	}
	x := exercise.Exercise{Sheet: k.Sheet, Told: exercise.Told{Aid: string(practice.Guided)}}
	if k.From != nil {
		x.Card = k.From.Card
	}
	return x
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
	of     exercise.Exercise
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
		if p, err = replayed(stored, acts); err != nil {
			return nil, fault(err)
		}
		s.practised.Add(id, p)
	}
	if !seesPractice(visitorOf(ctx), p.stored.Person) {
		return nil, fault(store.ErrNotFound)
	}
	return p, nil
}

// exerciseOf reads what a run follows from.
func exerciseOf(r store.PracticeRun) (x exercise.Exercise, p practice.Exercise, err error) {
	var kept keptExercise
	if err := json.Unmarshal([]byte(r.Exercise), &kept); err != nil {
		return x, p, err
	}
	seed, err := strconv.ParseUint(kept.Seed, 16, 64)
	if err != nil {
		return x, p, errors.New("the exercise has no seed")
	}
	x = kept.of()
	p, err = x.Practised(seed, r.Began)
	return x, p, err
}

// replayed plays a stored run.
func replayed(stored store.PracticeRun, acts []store.PracticeAct) (*playedRun, error) {
	of, x, err := exerciseOf(stored)
	if err != nil {
		return nil, err
	}
	list := make([]practice.Entry, len(acts))
	for i, a := range acts {
		if list[i], err = entryOf(a); err != nil {
			return nil, fmt.Errorf("what was done as the %d. does not read: %w", i+1, err)
		}
	}
	run, err := practice.Replay(x, list)
	return &playedRun{stored, of, run}, err
}
