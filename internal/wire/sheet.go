package wire

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/measure"
)

// SheetFormat is the format name and version that an engine sheet carries.
const SheetFormat = "metronix.engine/1"

// Sheet is the engine sheet on the wire, the open format metronix.engine/1. Its tags are the published schema
// (EngineSchema) and the one in the OpenAPI document; what is read is held against engine.Check, which knows
// more and says it in a mechanic's words.
type Sheet struct {
	Format         string          `json:"format" enum:"metronix.engine/1"`
	Name           string          `json:"name" minLength:"1" maxLength:"120"`
	Cylinders      int             `json:"cylinders" minimum:"1" maximum:"16"`
	FiringOrder    []int           `json:"firing_order" minItems:"1" maxItems:"16" uniqueItems:"true" nullable:"false"`
	FiringAngles   []Deg           `json:"firing_angles_deg,omitempty" minItems:"1" maxItems:"16" nullable:"false"`
	Rotation       string          `json:"rotation" enum:"clockwise,anticlockwise"`
	MayTurnBack    bool            `json:"may_turn_back"`
	Layout         string          `json:"layout" enum:"inline,vee,flat,other"`
	Banks          []Bank          `json:"banks" minItems:"1" nullable:"false"`
	Timing         *Timing         `json:"valve_timing,omitempty"`
	RequiredMargin *Deg            `json:"required_margin_deg,omitempty" minimum:"0" maximum:"300"`
	Marks          []Deg           `json:"marks_deg,omitempty" minItems:"1" uniqueItems:"true" nullable:"false"`
	Adjuster       *Adjuster       `json:"adjuster,omitempty"`
	TurningPoint   *TurningPoint   `json:"turning_point,omitempty"`
	Clearances     []ClearanceCard `json:"clearances,omitempty" nullable:"false"`
	OwnSequence    []OwnStop       `json:"own_sequence,omitempty" nullable:"false"`
}

// TransformSchema states the limits of what the lists hold, which tags cannot say.
func (Sheet) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"firing_angles_deg":   "When each cylinder of the order fires, rising from 0; left out for even firing.",
		"rotation":            "The running direction seen from the front.",
		"may_turn_back":       "Whether the crank may be turned against the running direction.",
		"required_margin_deg": "How far a valve must stand from opening and closing; 20 where left out, 40 for a card quoted at a lift.",
		"marks_deg":           "Marks on the pulley after a TDC mark, repeated every turn; the TDC mark alone where left out.",
		"own_sequence":        "The maker's printed order.",
	})
	between(s.Properties["firing_order"].Items, 1, engine.MaxCylinders)
	below(s.Properties["firing_angles_deg"].Items, 720)
	below(s.Properties["marks_deg"].Items, 360)
	return s
}

// Bank is one head of a sheet.
type Bank struct {
	Name        string `json:"name"`
	Angle       Deg    `json:"angle_deg,omitempty" minimum:"-180" maximum:"180"`
	Cylinders   []int  `json:"cylinders" minItems:"1" uniqueItems:"true" nullable:"false"`
	IntakePorts string `json:"intake_ports,omitempty" enum:"left,right"`
	Rows        []Row  `json:"rows" minItems:"1" maxItems:"2" nullable:"false"`
}

// TransformSchema states what a cylinder's number may be.
func (Bank) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"angle_deg":    "Lean from upright, seen from the front, clockwise positive.",
		"cylinders":    "Front to rear.",
		"intake_ports": "Seen from the rear of the engine looking to its front.",
	})
	between(s.Properties["cylinders"].Items, 1, engine.MaxCylinders)
	return s
}

// Row is one line of valves.
type Row struct {
	Side   string `json:"side" enum:"left,right"`
	Valves string `json:"valves" pattern:"^[IE]+$"`
}

// TransformSchema says what the fields mean.
func (Row) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"side":   "Seen from the rear of the engine looking to its front.",
		"valves": "Front to rear: I intake, E exhaust, equally many a cylinder.",
	})
	return s
}

// Timing is the cam card.
type Timing struct {
	IVO           Deg     `json:"ivo_btdc_deg" minimum:"-60" maximum:"150"`
	IVC           Deg     `json:"ivc_abdc_deg" minimum:"-60" maximum:"150"`
	EVO           Deg     `json:"evo_bbdc_deg" minimum:"-60" maximum:"150"`
	EVC           Deg     `json:"evc_atdc_deg" minimum:"-60" maximum:"150"`
	IntakeCentre  *Deg    `json:"intake_centre_atdc_deg,omitempty"`
	ExhaustCentre *Deg    `json:"exhaust_centre_btdc_deg,omitempty"`
	AtLift        float64 `json:"at_lift_mm,omitempty" minimum:"0" maximum:"5"`
}

// Adjuster is how the gap is changed.
type Adjuster struct {
	Kind         string  `json:"kind"`
	Pitch        MM      `json:"pitch_mm,omitempty" minimum:"0" maximum:"5"`
	Ratio        float64 `json:"ratio,omitempty" minimum:"0" maximum:"5"`
	Eccentricity MM      `json:"eccentricity_mm,omitempty" minimum:"0" maximum:"10"`
	Locknut      float64 `json:"locknut_torque_nm,omitempty" minimum:"0" maximum:"500"`
	Thread       string  `json:"thread,omitempty" enum:"right,left"`
	Closes       string  `json:"closes,omitempty" enum:"in,out"`
}

// TransformSchema names the kinds, as the core has them.
func (Adjuster) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"thread": "The hand of the thread; left out for right-hand.",
		"closes": "Which way an unusual gear closes, against the rule of its kind.",
	})
	for _, kind := range engine.AdjusterKinds() {
		s.Properties["kind"].Enum = append(s.Properties["kind"].Enum, string(kind))
	}
	return s
}

// TurningPoint is where the crank is turned.
type TurningPoint struct {
	Where  string  `json:"where" maxLength:"120"`
	Socket float64 `json:"socket_mm,omitempty" minimum:"0" maximum:"100"`
}

// ClearanceCard is a clearance card.
type ClearanceCard struct {
	Source     string    `json:"source" minLength:"1"`
	State      string    `json:"state" enum:"cold,hot"`
	Date       string    `json:"date,omitempty" maxLength:"120"`
	Remark     string    `json:"remark,omitempty" maxLength:"400"`
	StoneCold  bool      `json:"stone_cold,omitempty"`
	MaxEngineC *float64  `json:"max_engine_c,omitempty" minimum:"-40" maximum:"200"`
	Intake     Clearance `json:"intake"`
	Exhaust    Clearance `json:"exhaust"`
}

// TransformSchema says what the fields mean.
func (ClearanceCard) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	describe(s, map[string]string{
		"date":       "of the source, as written there",
		"stone_cold": "the engine must stand within 5 °C of its surroundings",
	})
	return s
}

// Clearance is a stated clearance: nominal, nominal with tolerance, or lower and upper; in millimetres, in
// inches, or in both.
type Clearance struct {
	Nominal     *MM `json:"nominal_mm,omitempty"`
	Tolerance   *MM `json:"tolerance_mm,omitempty"`
	Lower       *MM `json:"lower_mm,omitempty"`
	Upper       *MM `json:"upper_mm,omitempty"`
	NominalIn   *IN `json:"nominal_in,omitempty"`
	ToleranceIn *IN `json:"tolerance_in,omitempty"`
	LowerIn     *IN `json:"lower_in,omitempty"`
	UpperIn     *IN `json:"upper_in,omitempty"`
}

// TransformSchema says how a clearance is stated.
func (Clearance) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	s.Description = "Nominal, nominal with tolerance, or lower and upper; in millimetres, in inches, or in both " +
		"(which may differ by at most 0.0127 mm)."
	return s
}

// OwnStop is a stop of the maker's printed order.
type OwnStop struct {
	Crank Deg      `json:"crank_deg"`
	Set   []string `json:"set" nullable:"false"`
}

// TransformSchema states where a crank may stand and how a valve is called.
func (OwnStop) TransformSchema(_ huma.Registry, s *huma.Schema) *huma.Schema {
	below(s.Properties["crank_deg"], 720)
	s.Properties["set"].Items.Pattern = "^[IE][0-9]{1,2}[a-e]?$"
	return s
}

// ReadSheet decodes and checks a sheet file. Faults hold everything wrong with it, located within the sheet.
func ReadSheet(data []byte) (*engine.Sheet, Faults) {
	sheet, report := LookAtSheet(data)
	if len(report.Problems) > 0 {
		return nil, report.Problems
	}
	return sheet, nil
}

// ReadStoredSheet decodes a sheet that was found sound when it was stored. What today's check would refuse,
// and that day's did not, does not keep it from being read.
func ReadStoredSheet(data []byte) (*engine.Sheet, Faults) {
	sheet, report := LookAtSheet(data)
	var faults Faults
	for _, f := range report.Problems {
		if !engine.StricterSince(f.Location) {
			faults = append(faults, f)
		}
	}
	if len(faults) > 0 {
		return nil, faults
	}
	return sheet, nil
}

// LookAtSheet decodes a sheet as far as it can be and reports everything at once. The sheet is nil where the
// data is none.
func LookAtSheet(data []byte) (*engine.Sheet, SheetReport) {
	n, err := Parse(data)
	if err != nil {
		return nil, SheetReport{Problems: Faults{{Location: "", Message: fmt.Sprintf("This is no engine "+
			"sheet: %s.", err)}}}
	}
	return LoadSheet(n)
}

// WriteSheet encodes a sheet as a file.
func WriteSheet(s *engine.Sheet) ([]byte, error) {
	data, err := json.MarshalIndent(fromCore(s), "", "  ")
	return append(data, '\n'), err
}

// SheetReport is engine.Report with the decoder's faults in front.
type SheetReport struct {
	Problems Faults
	Warnings Faults
	Assumed  []string
}

// LoadSheet decodes leniently, so that the check sees as much as can be seen, and reports everything at once.
func LoadSheet(n Node) (*engine.Sheet, SheetReport) {
	dto, faults := Decode[Sheet](n)
	if dto.Format != SheetFormat && !faultAt(faults, "format") && !notObject(n) {
		faults.Add("format", dto.Format, "This program reads %s.", SheetFormat)
	}
	sheet := dto.core()
	if notObject(n) {
		return nil, SheetReport{Problems: Faults{{Location: "",
			Message: "An engine sheet is an object, not " + kindOf(n) + "."}}}
	}
	report := engine.Check(sheet)
	out := SheetReport{Problems: faults, Assumed: report.Assumed}
	for _, p := range report.Problems {
		if !faultAt(faults, p.Location) {
			out.Problems = append(out.Problems,
				Fault{Location: inTheirUnit(n, p.Location), Message: p.Message})
		}
	}
	for _, w := range report.Warnings {
		out.Warnings = append(out.Warnings, Fault{Location: w.Location, Message: w.Message})
	}
	return sheet, out
}

// UnreadSheet is a sheet in a request, sound or not, still to be read.
type UnreadSheet struct{ node Node }

// Load reads it, as LoadSheet does.
func (u UnreadSheet) Load() (*engine.Sheet, SheetReport) { return LoadSheet(u.node) }

// Schema is that of a sheet; in the reading of requests it allows anything, since Load says more and better.
func (UnreadSheet) Schema(r huma.Registry) *huma.Schema {
	if r == published.Registry {
		return &huma.Schema{}
	}
	return r.Schema(reflect.TypeFor[Sheet](), true, "")
}

func notObject(n Node) bool { _, ok := n.(object); return !ok }

// faultAt says that the decoder already found fault with a place or with something inside or around it.
func faultAt(faults Faults, location string) bool {
	for _, f := range faults {
		if f.Location == location || strings.HasPrefix(location, f.Location+".") ||
			strings.HasPrefix(location, f.Location+"[") ||
			strings.HasPrefix(f.Location, location+".") || strings.HasPrefix(f.Location, location+"[") {
			return true
		}
	}
	return false
}

// inTheirUnit points a clearance fault at the inch field where only that one was given.
func inTheirUnit(n Node, location string) string {
	if at, ok := strings.CutSuffix(location, "_mm"); ok && !has(n, location) && has(n, at+"_in") {
		return at + "_in"
	}
	return location
}

// has says whether a path such as clearances[0].intake.nominal_mm is present.
func has(n Node, path string) bool {
	for _, step := range strings.FieldsFunc(path,
		func(r rune) bool { return r == '.' || r == '[' || r == ']' }) {
		switch at := n.(type) {
		case object:
			next, ok := at.values[step]
			if !ok {
				return false
			}
			n = next
		case []Node:
			var i int
			if _, err := fmt.Sscan(step, &i); err != nil || i < 0 || i >= len(at) {
				return false
			}
			n = at[i]
		default:
			return false
		}
	}
	return true
}

func (s Sheet) core() *engine.Sheet {
	c := &engine.Sheet{
		Name: s.Name, Cylinders: s.Cylinders, FiringOrder: s.FiringOrder, FiringAngles: angles[measure.Angle](
			s.FiringAngles),
		Rotation: engine.Rotation(s.Rotation), MayTurnBack: s.MayTurnBack, Layout: engine.Layout(s.Layout),
		RequiredMargin: (*measure.Angle)(s.RequiredMargin), Marks: angles[measure.Angle](s.Marks),
	}
	for _, b := range s.Banks {
		bank := engine.Bank{Name: b.Name, Angle: measure.Angle(b.Angle), Cylinders: b.Cylinders,
			IntakePorts: engine.Side(b.IntakePorts)}
		for _, r := range b.Rows {
			bank.Rows = append(bank.Rows, engine.Row{Side: engine.Side(r.Side), Valves: r.Valves})
		}
		c.Banks = append(c.Banks, bank)
	}
	if t := s.Timing; t != nil {
		c.Timing = &engine.ValveTiming{IVO: measure.Angle(t.IVO), IVC: measure.Angle(t.IVC),
			EVO: measure.Angle(t.EVO), EVC: measure.Angle(t.EVC),
			IntakeCentre: (*measure.Angle)(t.IntakeCentre), ExhaustCentre: (*measure.Angle)(
				t.ExhaustCentre), AtLiftMM: t.AtLift}
	}
	if a := s.Adjuster; a != nil {
		c.Adjuster = a.Core()
	}
	if t := s.TurningPoint; t != nil {
		c.TurningPoint = &engine.TurningPoint{Where: t.Where, SocketMM: t.Socket}
	}
	for _, card := range s.Clearances {
		c.Clearances = append(c.Clearances,
			clearance.Card{Source: card.Source, State: clearance.State(card.State),
				Date: card.Date, Remark: card.Remark, StoneCold: card.StoneCold, MaxEngineC: card.MaxEngineC,
				Intake: card.Intake.Core(), Exhaust: card.Exhaust.Core()})
	}
	if s.OwnSequence != nil {
		c.OwnSequence = []engine.OwnStop{}
	}
	for _, o := range s.OwnSequence {
		c.OwnSequence = append(c.OwnSequence, engine.OwnStop{Crank: measure.Angle(o.Crank), Set: o.Set})
	}
	return c
}

// angles changes a list between the wire and the core; nil stays nil.
func angles[To, From ~int64](list []From) []To {
	if list == nil {
		return nil
	}
	out := make([]To, len(list))
	for i, a := range list {
		out[i] = To(a)
	}
	return out
}

func (a Adjuster) Core() *engine.Adjuster {
	return &engine.Adjuster{Kind: engine.AdjusterKind(a.Kind), Pitch: measure.Length(a.Pitch), Ratio: a.Ratio,
		Eccentricity: measure.Length(a.Eccentricity), LocknutNm: a.Locknut, Thread: engine.Thread(a.Thread),
		Closes: engine.Way(a.Closes)}
}

func (c Clearance) Core() clearance.Clearance {
	figure := func(mm *MM, in *IN) clearance.Figure {
		return clearance.Figure{Metric: (*measure.Length)(mm), Imperial: (*measure.Length)(in)}
	}
	return clearance.Clearance{
		Nominal: figure(c.Nominal, c.NominalIn), Tolerance: figure(c.Tolerance, c.ToleranceIn),
		Lower: figure(c.Lower, c.LowerIn), Upper: figure(c.Upper, c.UpperIn),
	}
}

func fromCore(c *engine.Sheet) Sheet {
	s := Sheet{
		Format: SheetFormat, Name: c.Name, Cylinders: c.Cylinders, FiringOrder: c.FiringOrder,
		FiringAngles: angles[Deg](c.FiringAngles),
		Rotation:     string(c.Rotation), MayTurnBack: c.MayTurnBack, Layout: string(c.Layout),
		RequiredMargin: (*Deg)(c.RequiredMargin), Marks: angles[Deg](c.Marks),
	}
	for _, b := range c.Banks {
		bank := Bank{Name: b.Name, Angle: Deg(b.Angle), Cylinders: b.Cylinders,
			IntakePorts: string(b.IntakePorts)}
		for _, r := range b.Rows {
			bank.Rows = append(bank.Rows, Row{string(r.Side), r.Valves})
		}
		s.Banks = append(s.Banks, bank)
	}
	if t := c.Timing; t != nil {
		s.Timing = &Timing{Deg(t.IVO), Deg(t.IVC), Deg(t.EVO), Deg(t.EVC), (*Deg)(t.IntakeCentre),
			(*Deg)(t.ExhaustCentre), t.AtLiftMM}
	}
	if a := c.Adjuster; a != nil {
		s.Adjuster = &Adjuster{string(a.Kind), MM(a.Pitch), a.Ratio, MM(a.Eccentricity), a.LocknutNm,
			string(a.Thread), string(a.Closes)}
	}
	if t := c.TurningPoint; t != nil {
		s.TurningPoint = &TurningPoint{t.Where, t.SocketMM}
	}
	for _, card := range c.Clearances {
		s.Clearances = append(s.Clearances,
			ClearanceCard{card.Source, string(card.State), card.Date, card.Remark, card.StoneCold,
				card.MaxEngineC, clearanceFromCore(card.Intake), clearanceFromCore(card.Exhaust)})
	}
	for _, o := range c.OwnSequence {
		s.OwnSequence = append(s.OwnSequence, OwnStop{Deg(o.Crank), o.Set})
	}
	return s
}

func clearanceFromCore(c clearance.Clearance) Clearance {
	return Clearance{
		Nominal: (*MM)(c.Nominal.Metric), Tolerance: (*MM)(c.Tolerance.Metric), Lower: (*MM)(
			c.Lower.Metric), Upper: (*MM)(c.Upper.Metric),
		NominalIn: (*IN)(c.Nominal.Imperial), ToleranceIn: (*IN)(c.Tolerance.Imperial), LowerIn: (*IN)(
			c.Lower.Imperial), UpperIn: (*IN)(c.Upper.Imperial),
	}
}
