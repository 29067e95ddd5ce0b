package api

import (
	"context"

	"metronix/core/engine"
	"metronix/internal/wire"
)

// UsualEngine is an arrangement of cylinders as it is commonly met.
type UsualEngine struct {
	Layout      string         `json:"layout"       enum:"inline,vee,flat,other"`
	FiringOrder []int          `json:"firing_order"`
	Patterns    []UsualPattern `json:"patterns"                                  doc:"how its valves commonly stand"`
}

// UsualPattern is how the valves of every bank commonly stand.
type UsualPattern struct {
	Says  string      `json:"says"`
	Banks []wire.Bank `json:"banks" doc:"as in an engine sheet"`
}

// UsualEngines are the arrangements of so many cylinders, to make an engine from in a few taps.
type UsualEngines struct {
	Engines []UsualEngine `json:"engines"`
	Source  string        `json:"source"  doc:"where the arrangements come from"`
}

// usualInput is how many cylinders an engine has.
type usualInput struct {
	Cylinders int `query:"cylinders" minimum:"1" maximum:"16" required:"true"`
}

// usualEngines are what an engine of so many cylinders is made from by tapping; none is chosen for anybody.
func usualEngines(ctx context.Context, in *usualInput) (*bodyOf[UsualEngines], error) {
	out := UsualEngines{Engines: []UsualEngine{}, Source: engine.UsualSource}
	for _, u := range engine.Usuals(in.Cylinders) {
		usual := UsualEngine{Layout: string(u.Layout), FiringOrder: u.Order, Patterns: []UsualPattern{}}
		for _, p := range u.Rows() {
			usual.Patterns = append(usual.Patterns, UsualPattern{p.Says, wire.BanksOf(p.Banks)})
		}
		out.Engines = append(out.Engines, usual)
	}
	return &bodyOf[UsualEngines]{out}, nil
}
