package compute

import (
	"math"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/wire"
)

// This file is the operations on an engine sheet and its sequences.

type checkSheetRequest struct {
	Sheet wire.UnreadSheet `json:"sheet"`
}

type checkSheetResponse struct {
	OK       bool        `json:"ok"`
	Problems wire.Faults `json:"problems"`
	Warnings wire.Faults `json:"warnings"`
	Assumed  []string    `json:"assumed"`
	Valves   []valveAt   `json:"valves"`
}

type valveAt struct {
	Name      string `json:"name"`
	RowNumber int    `json:"row_number,omitempty"`
	Cylinder  int    `json:"cylinder"`
	Kind      string `json:"kind" enum:"intake,exhaust"`
}

func checkSheet(q checkSheetRequest) (checkSheetResponse, *wire.Problem) {
	sheet, report := q.Sheet.Load()
	r := checkSheetResponse{OK: len(report.Problems) == 0, Problems: wire.List(report.Problems),
		Warnings: wire.List(report.Warnings), Assumed: wire.List(report.Assumed), Valves: []valveAt{}}
	if !r.OK {
		return r, nil
	}
	for _, v := range sheet.Valves() {
		r.Valves = append(r.Valves, valveAt{v.Name, v.RowNumber, v.Cylinder, v.Kind.String()})
	}
	return r, nil
}

// OfEngine is what requests about a sheet have in common.
type OfEngine struct {
	Sheet          wire.UnreadSheet `json:"sheet"`
	RequiredMargin *wire.Deg        `json:"required_margin_deg,omitempty" doc:"0 to 300; absent: as the sheet says, else 20"`
}

// sound gives the sheet and the margin asked for, nil where none is, or the problem with either.
func (q OfEngine) sound() (*engine.Sheet, *measure.Angle, *wire.Problem) {
	sheet, report := q.Sheet.Load()
	if len(report.Problems) > 0 {
		return nil, nil, wire.Refused(report.Problems.In("sheet")...)
	}
	return sheet, (*measure.Angle)(q.RequiredMargin), nil
}

// maxMargin is wider than any closed interval of a cam can be asked to be (from memory), degrees.
const maxMargin = 300

func (q OfEngine) marginFault(f *wire.Faults) {
	if m := q.RequiredMargin; m != nil && (*m < 0 || *m > wire.Deg(maxMargin*measure.Degree)) {
		f.Add("required_margin_deg", *m, "A required margin is 0 to %d degrees, commonly 20.", maxMargin)
	}
}

type planRequest struct {
	OfEngine
	wire.Way
	Stops *int `json:"stops,omitempty" minimum:"1" maximum:"80" doc:"for fewest_stops: the best plan of so many"`
}

// maxStops is more than any engine sheet can use: every valve at a stop of its own.
const maxStops = engine.MaxCylinders * engine.MaxValvesPerCylinder

func plan(q planRequest) (wire.Plan, *wire.Problem) {
	sheet, margin, problem := q.sound()
	if problem != nil {
		return wire.Plan{}, problem
	}
	var faults wire.Faults
	q.Way.Faults(&faults)
	q.marginFault(&faults)
	stops := stopsAsked(q.Stops, &faults)
	if len(faults) > 0 {
		return wire.Plan{}, wire.Refused(faults...)
	}
	p, problem := made(sheet, sequence.Request{Way: q.Way.Core(stops), RequiredMargin: margin})
	if problem != nil {
		return wire.Plan{}, problem
	}
	return wire.PlanOf(p), nil
}

// stopsAsked is for how many stops a plan is asked; 0: the fewest.
func stopsAsked(stops *int, faults *wire.Faults) int {
	if stops == nil {
		return 0
	}
	if *stops < 1 || *stops > maxStops {
		faults.Add("stops", *stops, "A plan has 1 to %d stops.", maxStops)
	}
	return *stops
}

// made makes a plan, or says that the engine must not be turned so.
func made(sheet *engine.Sheet, q sequence.Request) (sequence.Plan, *wire.Problem) {
	p, err := sequence.Make(sheet, q)
	if err != nil {
		return p, wire.Refused(wire.Fault{Location: "direction", Value: string(q.Direction),
			Message: err.Error()})
	}
	return p, nil
}

type compareRequest struct{ OfEngine }

type compareResponse struct {
	Schools  []schoolShort `json:"schools"`
	Frontier []wire.Best   `json:"frontier"`
}

type schoolShort struct {
	School         string    `json:"school"`
	Applies        bool      `json:"applies"`
	Reason         string    `json:"reason"`
	Stops          *int      `json:"stops"`
	TotalTurn      *wire.Deg `json:"total_turn_deg" nullable:"true"`
	SmallestMargin *wire.Deg `json:"smallest_margin_deg" nullable:"true"`
}

func compare(q compareRequest) (compareResponse, *wire.Problem) {
	sheet, margin, problem := q.sound()
	if problem != nil {
		return compareResponse{}, problem
	}
	var faults wire.Faults
	if q.marginFault(&faults); len(faults) > 0 {
		return compareResponse{}, wire.Refused(faults...)
	}
	c := sequence.Compare(sheet, margin)
	r := compareResponse{Schools: []schoolShort{}, Frontier: wire.FrontierOf(c.Frontier)}
	for _, p := range c.Schools {
		whole := wire.PlanOf(p)
		short := schoolShort{whole.School, whole.Applies, whole.Reason, nil, whole.TotalTurn,
			whole.SmallestMargin}
		if p.Applies {
			short.Stops = new(len(p.Stops))
		}
		r.Schools = append(r.Schools, short)
	}
	return r, nil
}

type settableRequest struct {
	OfEngine
	Crank wire.Deg `json:"crank_deg"`
}

type settableResponse struct {
	Valves []standing `json:"valves"`
}

type standing struct {
	Valve        string   `json:"valve"`
	Theta        wire.Deg `json:"theta_deg"`
	Margin       wire.Deg `json:"margin_deg"`
	OpenFraction float64  `json:"open_fraction"`
	Settable     bool     `json:"settable"`
}

func settable(q settableRequest) (settableResponse, *wire.Problem) {
	sheet, margin, problem := q.sound()
	if problem != nil {
		return settableResponse{}, problem
	}
	var faults wire.Faults
	q.marginFault(&faults)
	if q.Crank < 0 || q.Crank >= wire.Deg(measure.Cycle) {
		faults.Add("crank_deg", q.Crank, "A crank position is 0 to below 720 degrees.")
	}
	if len(faults) > 0 {
		return settableResponse{}, wire.Refused(faults...)
	}
	required := sheet.EffectiveMargin()
	if margin != nil {
		required = *margin
	}
	c, at := cycle.New(sheet), measure.Angle(q.Crank)
	r := settableResponse{Valves: []standing{}}
	for _, v := range c.Valves {
		margin := c.Margin(v, at)
		r.Valves = append(r.Valves, standing{
			Valve: v.Name, Theta: wire.Deg(c.Theta(v.Cylinder, at)), Margin: wire.Deg(margin),
			OpenFraction: math.Round(c.OpenFraction(v, at)*1e6) / 1e6, Settable: margin >= required,
		})
	}
	return r, nil
}
