package wire

import (
	"metronix/core/sequence"
)

// Way is a sequence as it is asked for: a school, and how the engine may be turned and stopped.
type Way struct {
	School    string `json:"school" maxLength:"32"`
	Direction string `json:"direction,omitempty" enum:",running,back"`
	Order     string `json:"order,omitempty" enum:",turning,numerical"`
	Positions string `json:"positions,omitempty" enum:",any,marks"`
}

// Core is the way as the core knows it, with a number of stops, 0 for as few as reach the margin.
func (w Way) Core(stops int) sequence.Way {
	return sequence.Way{School: sequence.School(w.School), Order: sequence.Order(w.Order),
		Direction: sequence.Direction(w.Direction), Positions: sequence.Positions(w.Positions),
		StopCount: stops}
}

// WayOf writes a way of the core.
func WayOf(w sequence.Way) Way {
	return Way{string(w.School), string(w.Direction), string(w.Order), string(w.Positions)}
}

// Faults notes the words of a way that there are not.
func (w Way) Faults(f *Faults) {
	OneOf(f, "school", w.School, sequence.Schools()...)
	OneOf(f, "direction", w.Direction, "", sequence.Running, sequence.Back)
	OneOf(f, "order", w.Order, "", sequence.Turning, sequence.Numerical)
	OneOf(f, "positions", w.Positions, "", sequence.AnyPosition, sequence.MarksOnly)
}

// Plan is the stops of a sequence; a plan that does not apply has none and null figures.
type Plan struct {
	School         string   `json:"school"`
	Applies        bool     `json:"applies"`
	Reason         string   `json:"reason" doc:"why it does not apply"`
	Stops          []Stop   `json:"stops"`
	TotalTurn      *Deg     `json:"total_turn_deg" nullable:"true"`
	SmallestMargin *Deg     `json:"smallest_margin_deg" nullable:"true"`
	Cautions       []string `json:"cautions"`
	Assumed        []string `json:"assumed"`
}

// Stop is one place of the crank, and the valves that are worked on there.
type Stop struct {
	Crank Deg        `json:"crank_deg"`
	Turn  Deg        `json:"turn_deg" doc:"from the stop before it"`
	Watch Seen       `json:"watch" doc:"what is seen there, the sequence's own sign first"`
	Set   []SetValve `json:"set"`
}

// SetValve is a valve worked on at a stop.
type SetValve struct {
	Valve  string `json:"valve"`
	Margin Deg    `json:"margin_deg" doc:"how far it stands from opening and closing"`
}

// PlanOf writes a plan.
func PlanOf(p sequence.Plan) Plan {
	out := Plan{School: string(p.School), Applies: p.Applies, Reason: p.Reason, Stops: []Stop{},
		Cautions: List(p.Cautions), Assumed: List(p.Assumed)}
	if p.Applies {
		out.TotalTurn, out.SmallestMargin = (*Deg)(&p.TotalTurn), (*Deg)(&p.SmallestMargin)
	}
	for _, s := range p.Stops {
		stop := Stop{Deg(s.Crank), Deg(s.Turn), SeenOf(s.Watch), []SetValve{}}
		for _, v := range s.Set {
			stop.Set = append(stop.Set, SetValve{v.Valve, Deg(v.Margin)})
		}
		out.Stops = append(out.Stops, stop)
	}
	return out
}

// Best is the best plan of a number of stops.
type Best struct {
	Stops          int   `json:"stops"`
	SmallestMargin Deg   `json:"smallest_margin_deg"`
	Cranks         []Deg `json:"crank_deg"`
}

// FrontierOf writes the best plan of each number of stops.
func FrontierOf(list []sequence.Best) []Best {
	out := []Best{}
	for _, b := range list {
		out = append(out, Best{b.Stops, Deg(b.SmallestMargin), Degrees(b.Cranks)})
	}
	return out
}
