package api

import (
	"context"
	"encoding/json"
	"metronix/core/practice"
	"metronix/internal/wire"

	"github.com/danielgtaylor/huma/v2"
)

// ended is a run that has ended; what is hidden of one that goes on is not told. s.practising is held.
func (s *server) ended(ctx context.Context, id string) (*playedRun, error) {
	p, err := s.practiceOf(ctx, id)
	if err == nil && p.stored.Ended.IsZero() {
		err = huma.Error409Conflict("This run goes on: what is hidden is told when it has ended.")
	}
	return p, err
}

// practiceScore is the score of a run that has ended.
func (s *server) practiceScore(ctx context.Context, in *PracticeID) (*bodyOf[PracticeScore], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	p, err := s.ended(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	return &bodyOf[PracticeScore]{scoreView(p)}, nil
}

// practiceActs are what was done in a run that has ended, act by act.
func (s *server) practiceActs(ctx context.Context, in *PracticeID) (*bodyOf[[]PracticeAct], error) {
	s.practising.Lock()
	defer s.practising.Unlock()
	p, err := s.ended(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	_, stored, err := s.store.With(ctx).Practice(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	done, err := practice.Trace(p.run.Exercise(), p.run.List)
	if err != nil {
		return nil, fault(err)
	}
	list := []PracticeAct{}
	for i, d := range done {
		var body practised
		if err := json.Unmarshal([]byte(stored[i].Body), &body); err != nil {
			return nil, fault(err)
		}
		act := PracticeAct{
			AfterS:   d.After.Seconds(),
			Hand:     body.Hand,
			Said:     body.Said,
			CrankDeg: wire.Deg(d.Crank),
			Valve:    d.On(),
			GapMM: wire.MM(
				d.Gap,
			),
			Clear:     d.Clear,
			KickedDeg: wire.Deg(d.Kicked),
			Faults:    faultsView(d.Faults),
		}
		if d.Felt != nil {
			act.Felt = &FeltView{Pull: d.Felt.Pull, Went: practice.Went(d.Felt.Pull)}
		}
		list = append(list, act)
	}
	return &bodyOf[[]PracticeAct]{list}, nil
}
