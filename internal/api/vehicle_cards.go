package api

import (
	"context"
	"strings"

	"metronix/core/engine"
	"metronix/internal/wire"
)

// OwnCards are the cards of one vehicle, whose cam was changed.
type OwnCards struct {
	Cards []wire.ClearanceCard `json:"cards" maxItems:"10"`
}

// ownCardsInput is a vehicle's own cards, all of them.
type ownCardsInput struct {
	VehicleID
	RawBody []byte `contentType:"application/json"`
}

// putCards stores a vehicle's own cards, checked as those of its engine's sheet are.
func (s *server) putCards(ctx context.Context, in *ownCardsInput) (*bodyOf[VehicleHistory], error) {
	body, err := readBody[OwnCards](in.RawBody)
	if err != nil {
		return nil, err
	}
	v, err := s.store.With(ctx).Vehicle(in.ID)
	if err != nil {
		return nil, fault(err)
	}
	e, err := s.store.With(ctx).Engine(v.EngineID)
	if err != nil {
		return nil, fault(err)
	}
	sheet := *e.Sheet
	sheet.Clearances = wire.CoreCards(body.Cards)
	var faults wire.Faults
	for _, p := range engine.Check(&sheet).Problems {
		if at, ok := strings.CutPrefix(p.Location, "clearances"); ok {
			faults = append(faults, wire.Fault{Location: "cards" + at, Message: p.Message})
		}
	}
	if len(faults) > 0 {
		return nil, unreadable(faults)
	}
	if err := s.store.With(ctx).SetCards(in.ID, sheet.Clearances); err != nil {
		return nil, fault(err)
	}
	return s.vehicleHistory(ctx, &in.VehicleID)
}
