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

// checkSheetRequest is a sheet that need not be one: this operation says why not.
type checkSheetRequest struct {
	Sheet wire.UnreadSheet `json:"sheet"`
}

// checkSheetResponse is what is wrong, what is odd, and what was taken as usual because the sheet does not
// say; its valves where nothing is wrong.
type checkSheetResponse struct {
	OK       bool        `json:"ok"`
	Problems wire.Faults `json:"problems"`
	Warnings wire.Faults `json:"warnings"`
	Assumed  []string    `json:"assumed"`
	Valves   []valveAt   `json:"valves"`
}

// valveAt is a valve by its name, its number along the row where it is counted so, and its cylinder.
type valveAt struct {
	Name      string `json:"name"`
	RowNumber int    `json:"row_number,omitempty"`
	Cylinder  int    `json:"cylinder"`
	Kind      string `json:"kind" enum:"intake,exhaust"`
}

// checkSheet reads a sheet as the library would and stores nothing.
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

// marginFault refuses a margin that would leave no valve to be set.
func (q OfEngine) marginFault(f *wire.Faults) {
	if m := q.RequiredMargin; m != nil && (*m < 0 || *m > wire.Deg(maxMargin*measure.Degree)) {
		f.Add("required_margin_deg", *m, "A required margin is 0 to %d degrees, commonly 20.", maxMargin)
	}
}

// planRequest asks for the stops of one school on an engine, in an order and a direction.
type planRequest struct {
	OfEngine
	wire.Way
	Stops *int `json:"stops,omitempty" minimum:"1" maximum:"80" doc:"for fewest_stops: the best plan of so many"`
}

// maxStops is more than any engine sheet can use: every valve at a stop of its own.
const maxStops = engine.MaxCylinders * engine.MaxValvesPerCylinder

// plan gives them in the order they are turned to, or says why the school does not suit this engine; that is
// an answer and no error.
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

// compareRequest asks for every school of one engine.
type compareRequest struct{ OfEngine }

// compareResponse is the schools with what each costs, and the best plan for every number of stops: no plan
// of that many has a larger smallest margin.
type compareResponse struct {
	Schools  []schoolShort `json:"schools"`
	Frontier []wire.Best   `json:"frontier"`
}

// schoolShort is one school: stops, degrees turned, and the smallest margin of any of its valves.
type schoolShort struct {
	School         string    `json:"school"`
	Applies        bool      `json:"applies"`
	Reason         string    `json:"reason"`
	Stops          *int      `json:"stops"`
	TotalTurn      *wire.Deg `json:"total_turn_deg" nullable:"true"`
	SmallestMargin *wire.Deg `json:"smallest_margin_deg" nullable:"true"`
}

// compare plans by every school.
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

// settableRequest is a crank position, degrees of two turns after the first cylinder's firing.
type settableRequest struct {
	OfEngine
	Crank wire.Deg `json:"crank_deg"`
}

// settableResponse is every valve as it stands there.
type settableResponse struct {
	Valves []standing `json:"valves"`
}

// standing is one valve: how far the crank is from its middle, how far from its opening or closing, how far
// open it is, and whether it may be set.
type standing struct {
	Valve        string   `json:"valve"`
	Theta        wire.Deg `json:"theta_deg"`
	Margin       wire.Deg `json:"margin_deg"`
	OpenFraction float64  `json:"open_fraction"`
	Settable     bool     `json:"settable"`
}

// settable holds each valve's margin against the required one: that of the request, else of the sheet.
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
