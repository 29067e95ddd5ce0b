package api

import (
	"context"
	"encoding/json"
	"errors"
	"strconv"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/practice"
	"metronix/internal/seen"
	"metronix/internal/store"
	"metronix/internal/wire"
)

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
	setup, err := job.Start{
		Sheet:   sheet,
		Card:    x.From.Card,
		HotCard: -1,
		Aim:     clearance.Aim(x.From.Aim),
		Rule:    clearance.Rule(x.From.Rule),
		Owned:   gauge.Owned(x.From.Leaves.Core()),
		Feel:    measure.Length(x.From.FeelMM),
	}.Setup()
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
