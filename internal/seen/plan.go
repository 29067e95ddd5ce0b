package seen

import (
	"cmp"

	"metronix/core/engine"
	"metronix/core/sequence"
	"metronix/internal/wire"
)

// PlanView is the stops of a sequence with what is shown of it.
type PlanView struct {
	wire.Plan
	Stops       []StopView `json:"stops"`
	Title       string     `json:"title" doc:"the name of the sequence on this engine"`
	HowTo       string     `json:"how_to" doc:"how it is done, in one line"`
	Order       string     `json:"order" enum:"turning,numerical"`
	Direction   string     `json:"direction" enum:"running,back"`
	Positions   string     `json:"positions" enum:"any,marks"`
	StopCount   int        `json:"stop_count" doc:"asked for; 0: the fewest that reach the required margin"`
	MarksDeg    []wire.Deg `json:"marks_deg" doc:"where the pulley must be seen to stand, after a TDC mark"`
	UnmarkedDeg []wire.Deg `json:"unmarked_deg" doc:"those of them that this pulley has no mark for"`
	Costs       *Costs     `json:"costs,omitempty" doc:"what the job takes by the round asked for; absent where none was"`
}

// Costs are what a job takes by a sequence and a round, played through before it is begun.
type Costs struct {
	AllIn Cost `json:"all_in" doc:"with every valve in its limits"`
	Out   Cost `json:"some_out" doc:"with so many out of them"`
	Count int  `json:"out_count"`
}

// Cost is the work from the crank at the first stop to the offer to sign.
type Cost struct {
	Turn        wire.Deg `json:"turn_deg" doc:"before the check round"`
	CheckTurn   wire.Deg `json:"check_turn_deg" doc:"for the check round"`
	LeafChanges int      `json:"leaf_changes"`
	Gestures    int      `json:"gestures" doc:"taps or keys"`
}

// StopView is a stop with how it is spoken of.
type StopView struct {
	wire.Stop
	Valves   []string `json:"valves" doc:"those that are worked on there"`
	How      string   `json:"how" doc:"how to turn here from the stop before"`
	Until    string   `json:"until" doc:"what to turn the crank until"`
	Standing string   `json:"standing" doc:"what is so at the stop, beginning with a capital"`
	Why      string   `json:"why" doc:"why these valves may be worked on there, for a learner"`
	HowToSee string   `json:"how_to_see" doc:"how to tell it from its look-alike a turn away"`
}

func PlanOf(p sequence.Plan, s *engine.Sheet) PlanView {
	v := PlanView{Plan: wire.PlanOf(p), Title: p.School.Title(s), HowTo: p.School.HowTo(),
		Order:     string(cmp.Or(p.Order, sequence.Turning)),
		Direction: string(cmp.Or(p.Direction, sequence.Running)), Positions: string(cmp.Or(p.Positions,
			sequence.AnyPosition)),
		StopCount: p.StopCount, Stops: []StopView{}, MarksDeg: wire.Degrees(
			p.MarksNeeded()), UnmarkedDeg: []wire.Deg{}}
	for _, m := range p.MarksNeeded() {
		if !sequence.Marked(s, m) {
			v.UnmarkedDeg = append(v.UnmarkedDeg, wire.Deg(m))
		}
	}
	for i, st := range p.Stops {
		stop := StopView{Stop: v.Plan.Stops[i], Valves: []string{}, How: p.How(i), Until: st.Until(),
			Standing: st.Standing(), HowToSee: st.HowToSee(), Why: p.Why(i)}
		for _, set := range st.Set {
			stop.Valves = append(stop.Valves, set.Valve)
		}
		v.Stops = append(v.Stops, stop)
	}
	return v
}
