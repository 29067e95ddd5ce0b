package compute

import (
	"fmt"
	"math"
	"slices"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/core/sequence"
)

type checkSheetRequest struct {
	Sheet Node `json:"sheet"`
}

type checkSheetResponse struct {
	OK       bool      `json:"ok"`
	Problems []Fault   `json:"problems"`
	Warnings []Fault   `json:"warnings"`
	Assumed  []string  `json:"assumed"`
	Valves   []valveAt `json:"valves"`
}

type valveAt struct {
	Name      string `json:"name"`
	RowNumber int    `json:"row_number,omitempty"`
	Cylinder  int    `json:"cylinder"`
	Kind      string `json:"kind"`
}

func checkSheet(q checkSheetRequest) (checkSheetResponse, *Problem) {
	sheet, report := loadSheet(q.Sheet)
	r := checkSheetResponse{OK: len(report.Problems) == 0, Problems: list(report.Problems), Warnings: list(report.Warnings),
		Assumed: list(report.Assumed), Valves: []valveAt{}}
	if !r.OK {
		return r, nil
	}
	for _, v := range sheet.Valves() {
		r.Valves = append(r.Valves, valveAt{v.Name, v.RowNumber, v.Cylinder, v.Kind.String()})
	}
	return r, nil
}

// soundSheet refuses a request whose sheet has problems.
func soundSheet(n Node) (*engine.Sheet, *Problem) {
	sheet, report := loadSheet(n)
	if len(report.Problems) == 0 {
		return sheet, nil
	}
	faults := slices.Clone(report.Problems)
	for i := range faults {
		faults[i].Location = join("sheet", faults[i].Location)
	}
	return nil, refused(faults...)
}

type planRequest struct {
	Sheet          Node   `json:"sheet"`
	School         string `json:"school"`
	Direction      string `json:"direction,omitempty"`
	Order          string `json:"order,omitempty"`
	RequiredMargin *Deg   `json:"required_margin_deg,omitempty"`
	Stops          *int   `json:"stops,omitempty"`
	Positions      string `json:"positions,omitempty"`
}

type planResponse struct {
	School         string   `json:"school"`
	Applies        bool     `json:"applies"`
	Reason         string   `json:"reason"`
	Stops          []stop   `json:"stops"`
	TotalTurn      *Deg     `json:"total_turn_deg"`
	SmallestMargin *Deg     `json:"smallest_margin_deg"`
	Cautions       []string `json:"cautions"`
	Assumed        []string `json:"assumed"`
}

type stop struct {
	Crank Deg        `json:"crank_deg"`
	Turn  Deg        `json:"turn_deg"`
	Watch []sighting `json:"watch"`
	Set   []setValve `json:"set"`
}

type sighting struct {
	What     string `json:"what"`
	Cylinder int    `json:"cylinder,omitempty"`
	Valve    string `json:"valve,omitempty"`
	Mark     *Deg   `json:"mark_deg,omitempty"`
}

type setValve struct {
	Valve  string `json:"valve"`
	Margin Deg    `json:"margin_deg"`
}

// maxStops is more than any engine sheet can use: every valve at a stop of its own.
const maxStops = engine.MaxCylinders * engine.MaxValvesPerCylinder

func plan(q planRequest) (planResponse, *Problem) {
	sheet, problem := soundSheet(q.Sheet)
	if problem != nil {
		return planResponse{}, problem
	}
	var faults []Fault
	oneOf(&faults, "school", q.School, sequence.Schools()...)
	oneOf(&faults, "direction", q.Direction, "", sequence.Running, sequence.Back)
	oneOf(&faults, "order", q.Order, "", sequence.Turning, sequence.Numerical)
	oneOf(&faults, "positions", q.Positions, "", sequence.AnyPosition, sequence.MarksOnly)
	faults = append(faults, marginFault(q.RequiredMargin)...)
	stops := 0
	if q.Stops != nil {
		if stops = *q.Stops; stops < 1 || stops > maxStops {
			faults = append(faults, Fault{Location: "stops", Value: stops, Message: fmt.Sprintf("A plan has 1 to %d stops.", maxStops)})
		}
	}
	if len(faults) > 0 {
		return planResponse{}, refused(faults...)
	}
	p, err := sequence.Make(sheet, sequence.Request{Way: sequence.Way{School: sequence.School(q.School), Direction: sequence.Direction(q.Direction), Order: sequence.Order(q.Order), Positions: sequence.Positions(q.Positions), StopCount: stops}, RequiredMargin: (*measure.Angle)(q.RequiredMargin)})
	if err != nil {
		return planResponse{}, refused(Fault{Location: "direction", Message: err.Error(), Value: q.Direction})
	}
	return planAnswer(p), nil
}

func planAnswer(p sequence.Plan) planResponse {
	r := planResponse{School: string(p.School), Applies: p.Applies, Reason: p.Reason, Stops: []stop{},
		Cautions: list(p.Cautions), Assumed: list(p.Assumed)}
	if p.Applies {
		r.TotalTurn, r.SmallestMargin = (*Deg)(&p.TotalTurn), (*Deg)(&p.SmallestMargin)
	}
	for _, s := range p.Stops {
		out := stop{Crank: Deg(s.Crank), Turn: Deg(s.Turn), Watch: []sighting{}, Set: []setValve{}}
		for _, w := range s.Watch {
			out.Watch = append(out.Watch, sightingAnswer(w))
		}
		for _, v := range s.Set {
			out.Set = append(out.Set, setValve{v.Valve, Deg(v.Margin)})
		}
		r.Stops = append(r.Stops, out)
	}
	return r
}

func sightingAnswer(w sequence.Sighting) sighting {
	out := sighting{What: string(w.What), Cylinder: w.Cylinder, Valve: w.Valve}
	if w.What == sequence.Mark || w.What == sequence.Degrees {
		out.Mark = (*Deg)(&w.Mark)
	}
	return out
}

// oneOf refuses a word that is not among those allowed; an empty one stands for the default.
func oneOf[T ~string](faults *[]Fault, location, got string, allowed ...T) {
	if slices.Contains(allowed, T(got)) {
		return
	}
	words := ""
	for _, a := range allowed {
		if a != "" {
			words += fmt.Sprintf(" %s,", a)
		}
	}
	*faults = append(*faults, Fault{Location: location, Value: echo(got), Message: fmt.Sprintf("%q is not one of:%s.", echo(got), words[:len(words)-1])})
}

func marginFault(m *Deg) []Fault {
	if m == nil || (*m >= 0 && *m <= 300*Deg(measure.Degree)) {
		return nil
	}
	return []Fault{{Location: "required_margin_deg", Value: *m, Message: "A required margin is 0 to 300 degrees, commonly 20."}}
}

type compareRequest struct {
	Sheet          Node `json:"sheet"`
	RequiredMargin *Deg `json:"required_margin_deg,omitempty"`
}

type compareResponse struct {
	Schools  []schoolShort `json:"schools"`
	Frontier []best        `json:"frontier"`
}

type schoolShort struct {
	School         string `json:"school"`
	Applies        bool   `json:"applies"`
	Reason         string `json:"reason"`
	Stops          *int   `json:"stops"`
	TotalTurn      *Deg   `json:"total_turn_deg"`
	SmallestMargin *Deg   `json:"smallest_margin_deg"`
}

type best struct {
	Stops          int   `json:"stops"`
	SmallestMargin Deg   `json:"smallest_margin_deg"`
	Cranks         []Deg `json:"crank_deg"`
}

func compare(q compareRequest) (compareResponse, *Problem) {
	sheet, problem := soundSheet(q.Sheet)
	if problem != nil {
		return compareResponse{}, problem
	}
	if faults := marginFault(q.RequiredMargin); len(faults) > 0 {
		return compareResponse{}, refused(faults...)
	}
	c := sequence.Compare(sheet, (*measure.Angle)(q.RequiredMargin))
	r := compareResponse{Schools: []schoolShort{}, Frontier: []best{}}
	for _, p := range c.Schools {
		short := schoolShort{School: string(p.School), Applies: p.Applies, Reason: p.Reason}
		if p.Applies {
			stops, turn, margin := len(p.Stops), Deg(p.TotalTurn), Deg(p.SmallestMargin)
			short.Stops, short.TotalTurn, short.SmallestMargin = &stops, &turn, &margin
		}
		r.Schools = append(r.Schools, short)
	}
	for _, b := range c.Frontier {
		r.Frontier = append(r.Frontier, best{b.Stops, Deg(b.SmallestMargin), angles[Deg](b.Cranks)})
	}
	return r, nil
}

type settableRequest struct {
	Sheet          Node `json:"sheet"`
	Crank          Deg  `json:"crank_deg"`
	RequiredMargin *Deg `json:"required_margin_deg,omitempty"`
}

type settableResponse struct {
	Valves []standing `json:"valves"`
}

type standing struct {
	Valve        string  `json:"valve"`
	Theta        Deg     `json:"theta_deg"`
	Margin       Deg     `json:"margin_deg"`
	OpenFraction float64 `json:"open_fraction"`
	Settable     bool    `json:"settable"`
}

func settable(q settableRequest) (settableResponse, *Problem) {
	sheet, problem := soundSheet(q.Sheet)
	if problem != nil {
		return settableResponse{}, problem
	}
	faults := marginFault(q.RequiredMargin)
	if q.Crank < 0 || q.Crank >= Deg(measure.Cycle) {
		faults = append(faults, Fault{Location: "crank_deg", Value: q.Crank, Message: "A crank position is 0 to below 720 degrees."})
	}
	if len(faults) > 0 {
		return settableResponse{}, refused(faults...)
	}
	required := sheet.EffectiveMargin()
	if q.RequiredMargin != nil {
		required = measure.Angle(*q.RequiredMargin)
	}
	c, at := cycle.New(sheet), measure.Angle(q.Crank)
	r := settableResponse{Valves: []standing{}}
	for _, v := range c.Valves {
		margin := c.Margin(v, at)
		r.Valves = append(r.Valves, standing{
			Valve: v.Name, Theta: Deg(c.Theta(v.Cylinder, at)), Margin: Deg(margin),
			OpenFraction: math.Round(c.OpenFraction(v, at)*1e6) / 1e6, Settable: margin >= required,
		})
	}
	return r, nil
}
