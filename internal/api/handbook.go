package api

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/practice"
	"metronix/core/rehearse"
	"metronix/core/sequence"
	"metronix/internal/exercise"
	"metronix/internal/seen"
	"metronix/internal/wire"
)

// Handbook is all that its pages are drawn of, on made-up engines of ours. Every sentence of it is one of the
// bench, the score or the drills: it is had by doing, here, what it tells of.
type Handbook struct {
	Pages []HandbookPage `json:"pages"`
	Ways  Ways           `json:"ways" doc:"the schools on an example engine"`
	Drag  HandbookDrag   `json:"drag"`
	Gears []wire.Gear    `json:"gears"`
	Heat  HandbookHeat   `json:"heat"`
	Wrong HandbookWrong  `json:"wrong"`
}

// HandbookPage is one page, which ends in its drills.
type HandbookPage struct {
	ID     string          `json:"id"`
	Title  string          `json:"title"`
	Drills []HandbookDrill `json:"drills"`
}

// HandbookDrill is one of them.
type HandbookDrill struct {
	Item  string `json:"item"`
	Title string `json:"title"`
}

// HandbookDrag is one leaf in gaps from wide to narrow, and what some readings come to.
type HandbookDrag struct {
	Says     string          `json:"says"`
	Leaf     string          `json:"leaf"`
	Gaps     []HandbookGap   `json:"gaps" doc:"from wide to narrow"`
	LimitsMM []wire.MM       `json:"limits_mm" doc:"lower and upper"`
	Verdicts []HandbookTried `json:"verdicts"`
}

// HandbookGap is how the leaf goes in one gap.
type HandbookGap struct {
	GapMM wire.MM `json:"gap_mm"`
	Pull  float64 `json:"pull" doc:"0: it falls through; 1: it does not go in"`
	Feel  string  `json:"feel" enum:"free,drag,drag_light,drag_firm,wont_go"`
}

// HandbookTried is what was felt, what it comes to, and what the bench says then.
type HandbookTried struct {
	Felt      []seen.Reading `json:"felt"`
	Judgement seen.Judgement `json:"judgement"`
	Says      seen.Headline  `json:"says"`
}

// HandbookHeat is when cold and hot figures hold.
type HandbookHeat struct {
	Asks     string             `json:"asks"`
	Cases    []HandbookCase     `json:"cases"`
	Refusals []string           `json:"refusals" doc:"what the bench says where they do not"`
	Readings []seen.HeatReading `json:"readings" doc:"of an engine that cools"`
	Cooling  *seen.Cooling      `json:"cooling,omitempty"`
	GateC    *wire.Celsius      `json:"gate_c,omitempty"`
}

// HandbookCase is something that is met with, what it comes to, and why.
type HandbookCase struct {
	Says  string `json:"says"`
	Comes string `json:"comes"`
	Why   string `json:"why"`
}

// HandbookWrong is what goes wrong, and what stands at a valve and comes next.
type HandbookWrong struct {
	Slips []HandbookSlip `json:"slips" doc:"the gravest first"`
	Nexts []HandbookCase `json:"nexts"`
	Turns []HandbookTurn `json:"turns" doc:"how what is watched is told from its look-alike a turn away"`
}

// HandbookSlip is one slip: what the score says of it, and what is said before, where it can be seen coming.
type HandbookSlip struct {
	Slip string `json:"slip"`
	Says string `json:"says"`
	Warn string `json:"warn" doc:"empty: nobody can see it coming"`
}

// HandbookTurn is one sign to watch.
type HandbookTurn struct {
	Until string `json:"until"`
	How   string `json:"how"`
}

// handbookRoutes is the handbook as data; its pages have it built in.
func (s *server) handbookRoutes(a huma.API) {
	book := sync.OnceValues(NewHandbook)
	huma.Get(a, "/api/v1/handbook", func(context.Context, *struct{}) (*bodyOf[Handbook], error) {
		made, err := book()
		if err != nil {
			return nil, fault(err)
		}
		return &bodyOf[Handbook]{made}, nil
	}, summary("get-handbook", "All that the handbook tells, and draws"))
}

// The made-up exercises whose engines and cards the handbook shows.
const (
	handbookCold = "ours-2-four-some-right"
	handbookHot  = "ours-4-ten-minutes-hot"
)

// handbookDay is when its examples happen.
var handbookDay = time.Date(2026, time.January, 5, 8, 0, 0, 0, time.UTC)

// NewHandbook does all that the handbook tells of, and writes down what is said.
func NewHandbook() (b Handbook, err error) {
	_, by, err := exercise.Ours()
	if err != nil {
		return b, err
	}
	cold, err := by[handbookCold].Practised(1, handbookDay)
	if err != nil {
		return b, err
	}
	hot, err := by[handbookHot].Practised(1, handbookDay)
	if err != nil {
		return b, err
	}
	for _, p := range practice.Pages() {
		page := HandbookPage{ID: p.ID, Title: p.Title, Drills: []HandbookDrill{}}
		for _, item := range p.Drills {
			page.Drills = append(page.Drills, HandbookDrill{string(item), item.Title()})
		}
		b.Pages = append(b.Pages, page)
	}
	ways, err := waysOf(cold.Setup.Sheet, WaysQuery{Direction: "running", Positions: "any"},
		rehearse.Rehearsing{Card: &cold.Setup.Card})
	if err != nil {
		return b, err
	}
	b.Ways, b.Gears, b.Wrong = ways.Body, wire.Gears(), wrongOf()
	var errs [2]error
	b.Drag, errs[0] = dragOf(cold.Setup)
	b.Heat, errs[1] = heatOf(cold.Setup, hot.Setup)
	return b, errors.Join(errs[:]...)
}

// playedThrough is a job to which all that happened in order.
func playedThrough(setup job.Setup, acts ...job.Act) (*job.Job, error) {
	j, err := job.New(setup)
	for n := 0; n < len(acts) && err == nil; n++ {
		at := handbookDay.Add(time.Duration(n) * time.Minute)
		j, err = j.Take(job.Happening{ID: fmt.Sprintf("handbook-%d", n), At: at, Act: acts[n]})
	}
	return j, err
}

// begins is how a job of the handbook begins: by the schools' most common way round, up to its first stop.
func begins(setup job.Setup) []job.Act {
	return []job.Act{job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}},
		job.Prepared{EngineC: coldRoomC, AmbientC: coldRoomC}, job.Turned{Stop: 0}}
}

// coldRoomC is how warm it is where the handbook's engine stood overnight, °C (our own figure).
const coldRoomC = 17

// dragOf slides one leaf into gaps of all widths, and judges some readings.
func dragOf(setup job.Setup) (d HandbookDrag, err error) {
	const um = measure.Micrometre
	j, err := playedThrough(setup, begins(setup)...)
	if err != nil {
		return d, err
	}
	v, _ := j.Valve(j.Next().Valve)
	w, nominal := v.Limits.Window, v.Limits.Nominal
	leaf := func(near measure.Length) gauge.Leaf {
		return slices.MinFunc(setup.Owned, func(a, b gauge.Leaf) int {
			return int((a.True() - near).Abs() - (b.True() - near).Abs())
		})
	}
	middle := leaf(nominal)
	d = HandbookDrag{Says: practice.HowItDrags, Leaf: gauge.Stack{middle}.String(),
		LimitsMM: []wire.MM{wire.MM(w.Lower), wire.MM(w.Upper)}}
	for gap := middle.True() + 12*um; gap >= middle.True()-12*um; gap -= um {
		f := practice.Goes(gap, middle.True())
		d.Gaps = append(d.Gaps, HandbookGap{wire.MM(gap), f.Pull, string(f.Feel)})
	}
	type felt struct {
		leaf gauge.Leaf
		feel clearance.Feel
	}
	below, above := leaf(w.Lower-20*um), leaf(w.Upper+20*um)
	for _, tried := range [][]felt{
		{{middle, clearance.Drag}},
		{{leaf(w.Upper), clearance.Drag}},
		{{leaf(w.Upper), clearance.Free}},
		{{above, clearance.Drag}},
		{{leaf(w.Lower), clearance.WontGo}, {below, clearance.Drag}},
		{{middle, clearance.Free}, {below, clearance.WontGo}},
	} {
		acts := begins(setup)
		for _, f := range tried {
			acts = append(acts, job.ReadingTaken{Valve: v.Name, Leaves: []gauge.ID{f.leaf.ID}, Feel: f.feel})
		}
		j, err := playedThrough(setup, acts...)
		if err != nil {
			return d, err
		}
		state := seen.StateOf(seen.At{ID: "handbook", Job: j, Now: handbookDay})
		at := slices.IndexFunc(state.Valves, func(s seen.ValveState) bool { return s.Name == v.Name })
		d.Verdicts = append(d.Verdicts, HandbookTried{state.Valves[at].Round, *state.Valves[at].Judgement, state.Now.Says})
	}
	return d, nil
}

// heatOf tries cold and hot figures on engines that do not suit them, and lets one cool.
func heatOf(cold, hot job.Setup) (h HandbookHeat, err error) {
	h.Asks, h.Cases = practice.TwoCards, handbookCases(practice.Heats())
	way := job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}}
	for _, wrong := range []struct {
		setup job.Setup
		c     float64
	}{{cold, 74}, {hot, 41}} {
		j, err := playedThrough(wrong.setup, way)
		if err != nil {
			return h, err
		}
		_, refused := j.Take(job.Happening{ID: "handbook-gate", At: handbookDay,
			Act: job.Prepared{EngineC: wrong.c, AmbientC: coldRoomC}})
		if refused == nil {
			return h, fmt.Errorf("%v °C was taken", wrong.c)
		}
		h.Refusals = append(h.Refusals, refused.Error())
	}
	h.Refusals = append(h.Refusals, practice.TooLate.Warning(""))
	j, err := job.New(cold)
	for n, c := range []float64{74, 63, 54} {
		if err == nil {
			j, err = j.Take(job.Happening{ID: fmt.Sprintf("handbook-%d", n),
				At: handbookDay.Add(time.Duration(n) * 12 * time.Minute), Act: job.TemperatureNoted{EngineC: c, AmbientC: coldRoomC}})
		}
	}
	if err != nil {
		return h, err
	}
	state := seen.StateOf(seen.At{ID: "handbook", Job: j, Now: handbookDay.Add(24 * time.Minute)})
	h.Readings, h.Cooling, h.GateC = state.Readings, state.Cooling, state.GateC
	return h, nil
}

// wrongOf are all slips, and what is told from its look-alike.
func wrongOf() HandbookWrong {
	w := HandbookWrong{Nexts: handbookCases(practice.Nexts())}
	for _, s := range practice.Slips() {
		f := practice.Fault{Slip: s, Valve: "E3", By: 30 * measure.Micrometre, Off: 30 * measure.Degree}
		w.Slips = append(w.Slips, HandbookSlip{string(s), wire.Sentence(errors.New(f.String())), s.Warning(f.Valve)})
	}
	for _, s := range []sequence.Sighting{
		{What: sequence.TDCFiring, Cylinder: 1}, {What: sequence.Rocking, Cylinder: 4}, {What: sequence.Mark},
		{What: sequence.FullLift, Valve: "E1"}, {What: sequence.Opening, Valve: "E1"}, {What: sequence.LobeAway, Valve: "I1"},
	} {
		w.Turns = append(w.Turns, HandbookTurn{wire.Sentence(errors.New(s.Until())), s.HowToSee()})
	}
	return w
}

// handbookCases are cases as they are shown.
func handbookCases(list []practice.Case) (out []HandbookCase) {
	for _, c := range list {
		out = append(out, HandbookCase(c))
	}
	return out
}
