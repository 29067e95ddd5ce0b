package api

import (
	"context"

	"metronix/internal/seen"
	"metronix/internal/wire"
)

// openingInput may ask for the rest alone.
type openingInput struct {
	JobID
	After string `query:"after" maxLength:"64" doc:"the newest happening that is known: only what came after it is sent, where there is such a one"`
}

// jobOpening is what a screen needs to judge a job without the program.
func (s *server) jobOpening(ctx context.Context, in *openingInput) (*bodyOf[seen.Opening], error) {
	out := &bodyOf[seen.Opening]{}
	err := s.desk.with(ctx, in.ID, func(o *openJob) error {
		shop, err := s.desk.supply(ctx, o)
		if err != nil {
			return err
		}
		shift, err := s.desk.learned(ctx, o)
		if err != nil {
			return err
		}
		out.Body, err = seen.OpeningOf(o.seenAt(shift, s.clock()), startOf(o.record), shop,
			wire.UnitsText(o.state.Speaks))
		out.Body = out.Body.Rest(o.list.Happenings, in.After)
		return err
	})
	if err != nil {
		return nil, fault(err)
	}
	return out, nil
}
