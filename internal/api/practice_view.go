package api

import (
	"cmp"
	"errors"
	"time"

	"metronix/core/measure"
	"metronix/core/practice"
	"metronix/internal/seen"
	"metronix/internal/wire"
)

// NewPractice is a run to begin.
type NewPractice struct {
	ID       string `json:"id" minLength:"8" maxLength:"64" pattern:"^[A-Za-z0-9_-]+$"`
	EngineID string `json:"engine_id" maxLength:"64" doc:"of the library"`
	Card     int    `json:"card" minimum:"0" doc:"index of the clearance card"`
}

// PracticeShort is a run in a list.
type PracticeShort struct {
	ID      string     `json:"id"`
	Name    string     `json:"name" doc:"whose it is; empty: nobody was set up"`
	Engine  string     `json:"engine"`
	Began   time.Time  `json:"began"`
	Ended   *time.Time `json:"ended,omitempty" doc:"absent: it goes on"`
	Correct *int       `json:"correct,omitempty" doc:"valves that ended right; absent until it has ended"`
	Valves  int        `json:"valves,omitempty"`
	Faults  int        `json:"faults,omitempty"`
}

// Eyes is what anybody sees of the practice engine.
type Eyes struct {
	CrankDeg  wire.Deg   `json:"crank_deg" doc:"0 to 720, as lobes and pulley show it"`
	Loose     []string   `json:"loose" doc:"valves whose nut is not tight"`
	FiringDeg []wire.Deg `json:"firing_deg" doc:"before which the crank is heavy: the firing top dead centres of the cylinders"`
}

// PracticeView is a run as it stands.
type PracticeView struct {
	View  JobView `json:"view" doc:"the job, as the bench shows one"`
	Eyes  Eyes    `json:"eyes"`
	Ended bool    `json:"ended"`
}

// PracticeHand is one thing done by hand: one of its kinds.
type PracticeHand struct {
	ID      string         `json:"id" minLength:"1" maxLength:"64"`
	TurnDeg float64        `json:"turn_deg,omitempty" minimum:"-720" maximum:"720" doc:"the crank, forwards or (below 0) back"`
	Slide   *PracticeSlide `json:"slide,omitempty"`
	Loosen  string         `json:"loosen,omitempty" maxLength:"20" doc:"the nut of this valve"`
	Screw   *PracticeScrew `json:"screw,omitempty"`
	Tighten string         `json:"tighten,omitempty" maxLength:"20" doc:"the nut of this valve"`
}

// PracticeSlide is a leaf or a stack that is slid in.
type PracticeSlide struct {
	Valve string `json:"valve" maxLength:"20"`
	wire.Stack
}

// PracticeScrew is a screw that is turned.
type PracticeScrew struct {
	Valve string  `json:"valve" maxLength:"20"`
	ByDeg float64 `json:"by_deg" minimum:"-1080" maximum:"1080" doc:"clockwise, or (below 0) back"`
}

// FeltView is what a leaf says to the hand.
type FeltView struct {
	Pull float64 `json:"pull" doc:"from 0, it falls through, over 0.5, it drags as it should, to 1, it does not enter"`
}

// PracticeAnswer is what is so after something was done.
type PracticeAnswer struct {
	State seen.JobState `json:"state"`
	Eyes  Eyes          `json:"eyes"`
	Felt  *FeltView     `json:"felt,omitempty" doc:"of a leaf that was slid in"`
}

// hand is what a body means; ok is false where it is none, or more than one.
func (h PracticeHand) hand() (practice.Hand, bool) {
	var list []practice.Hand
	if h.TurnDeg != 0 {
		list = append(list, practice.Turned{By: measure.FromDegrees(h.TurnDeg)})
	}
	if h.Slide != nil {
		list = append(list, practice.Slid{Valve: h.Slide.Valve, Leaves: h.Slide.Core()})
	}
	if h.Loosen != "" {
		list = append(list, practice.Loosened{Valve: h.Loosen})
	}
	if h.Screw != nil {
		list = append(list, practice.Screwed{Valve: h.Screw.Valve, By: measure.FromDegrees(h.Screw.ByDeg)})
	}
	if h.Tighten != "" {
		list = append(list, practice.Tightened{Valve: h.Tighten})
	}
	if len(list) != 1 {
		return nil, false
	}
	return list[0], true
}

// PracticeScore is what a run came to, with what was hidden.
type PracticeScore struct {
	ID      string           `json:"id"`
	Name    string           `json:"name"`
	Engine  string           `json:"engine"`
	Ended   time.Time        `json:"ended"`
	Valves  []PracticeResult `json:"valves"`
	Faults  []PracticeFault  `json:"faults" doc:"the gravest first"`
	TurnDeg wire.Deg         `json:"turn_deg" doc:"of the crank, whichever way"`
	Leaves  int              `json:"leaves" doc:"that were taken in hand"`
	TookS   float64          `json:"took_s"`
	Signed  bool             `json:"signed"`
	Correct int              `json:"correct" doc:"valves that ended in their limits and are believed to be"`
}

// PracticeResult is one valve.
type PracticeResult struct {
	Valve      string   `json:"valve"`
	Kind       string   `json:"kind" enum:"intake,exhaust"`
	FoundMM    wire.MM  `json:"found_mm" doc:"truly, as a leaf finds it"`
	LeftMM     wire.MM  `json:"left_mm"`
	BelievedMM *wire.MM `json:"believed_mm" nullable:"true" doc:"null: no figure was kept"`
	LowerMM    wire.MM  `json:"lower_mm"`
	UpperMM    wire.MM  `json:"upper_mm"`
	Verdict    string   `json:"verdict" doc:"as it was judged; empty: it was not"`
	Truly      string   `json:"truly" enum:"in,tight,loose"`
	Disturbed  bool     `json:"disturbed" doc:"its screw was turned"`
}

// PracticeFault is something that a good mechanic would point out.
type PracticeFault struct {
	Slip  string `json:"slip"`
	Valve string `json:"valve" doc:"empty: at none"`
	Says  string `json:"says"`
}

func scoreView(p *playedRun) PracticeScore {
	s := p.run.Score()
	out := PracticeScore{
		ID:     p.stored.ID,
		Name:   p.stored.Name,
		Engine: p.stored.Engine,
		Ended:  p.stored.Ended,
		Valves: []PracticeResult{},
		Faults: []PracticeFault{},
		TurnDeg: wire.Deg(
			s.Turned,
		),
		Leaves:  s.Leaves,
		TookS:   s.Took.Seconds(),
		Signed:  s.Signed,
		Correct: s.Correct,
	}
	kinds := map[string]string{}
	for _, v := range p.run.Job.Valves {
		kinds[v.Name] = v.Kind.String()
	}
	for _, v := range s.Valves {
		r := PracticeResult{
			Valve:   v.Valve,
			Kind:    kinds[v.Valve],
			FoundMM: wire.MM(v.Found),
			LeftMM:  wire.MM(v.Left),
			LowerMM: wire.MM(v.Window.Lower),
			UpperMM: wire.MM(
				v.Window.Upper,
			),
			Verdict:   string(v.Verdict),
			Truly:     cmp.Or(string(v.Truly), "in"),
			Disturbed: v.Disturbed,
		}
		if v.Believed != nil {
			mm := wire.MM(*v.Believed)
			r.BelievedMM = &mm
		}
		out.Valves = append(out.Valves, r)
	}
	for _, f := range s.Faults {
		out.Faults = append(
			out.Faults,
			PracticeFault{string(f.Slip), f.Valve, wire.Sentence(errors.New(f.String()))},
		)
	}
	return out
}
