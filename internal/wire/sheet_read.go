package wire

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/measure"
)

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
	c.Clearances = CoreCards(s.Clearances)
	if s.OwnSequence != nil {
		c.OwnSequence = []engine.OwnStop{}
	}
	for _, o := range s.OwnSequence {
		c.OwnSequence = append(c.OwnSequence, engine.OwnStop{Crank: measure.Angle(o.Crank), Set: o.Set})
	}
	c.CheckTurns, c.VariableLift = s.CheckTurns, s.VariableLift
	for _, sign := range s.Signs {
		c.Signs = append(c.Signs, engine.Sign{ID: sign.ID, Where: sign.Where, Text: sign.Text,
			At: angles[measure.Angle](sign.At), Period: measure.Angle(sign.Period), Doubtful: sign.Doubtful})
	}
	for _, step := range s.StripList {
		c.StripList = append(c.StripList, engine.StripStep{Text: step.Text, Fastener: step.Fastener,
			SocketMM: step.Socket, Note: step.Note})
	}
	if f := s.Closing; f != nil {
		c.Closing = &engine.Closing{Pattern: engine.Pattern(f.Pattern), Rounds: f.Rounds,
			Torque: engine.Torque{Nm: f.Torque, LbfFt: f.TorqueLbfFt}, SealantPoints: f.SealantPoints,
			OpenMinutes: f.OpenMinutes, CureMinutes: f.CureMinutes,
			Gasket: engine.Gasket(f.Gasket), Bolts: f.Bolts}
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
	return &engine.Adjuster{Kind: gear.Kind(a.Kind), Pitch: measure.Length(a.Pitch), Ratio: a.Ratio,
		Eccentricity: measure.Length(a.Eccentricity), Locknut: engine.Torque{Nm: a.Locknut,
			LbfFt: a.LocknutLbfFt},
		Thread: engine.Thread(a.Thread),
		Closes: gear.Way(a.Closes)}
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
		s.Adjuster = &Adjuster{string(a.Kind), MM(a.Pitch), a.Ratio, MM(a.Eccentricity), a.Locknut.Nm,
			a.Locknut.LbfFt, string(a.Thread), string(a.Closes)}
	}
	if t := c.TurningPoint; t != nil {
		s.TurningPoint = &TurningPoint{t.Where, t.SocketMM}
	}
	s.Clearances = CardsOf(c.Clearances)
	for _, o := range c.OwnSequence {
		s.OwnSequence = append(s.OwnSequence, OwnStop{Deg(o.Crank), o.Set})
	}
	s.CheckTurns, s.VariableLift = c.CheckTurns, c.VariableLift
	if len(c.Signs) > 0 {
		s.Signs = SignsOf(c.Signs)
	}
	for _, step := range c.StripList {
		s.StripList = append(s.StripList, StripStep{step.Text, step.Fastener, step.SocketMM, step.Note})
	}
	if f := c.Closing; f != nil {
		s.Closing = &Closing{string(f.Pattern), f.Rounds, f.Torque.Nm, f.Torque.LbfFt, f.SealantPoints,
			f.OpenMinutes,
			f.CureMinutes, string(f.Gasket), f.Bolts}
	}
	return s
}

// SignsOf writes the signs of a sheet; the list is never null.
func SignsOf(list []engine.Sign) []Sign {
	out := []Sign{}
	for _, s := range list {
		out = append(out, Sign{s.ID, s.Where, s.Text, angles[Deg](s.At), Deg(s.Period), s.Doubtful})
	}
	return out
}

func clearanceFromCore(c clearance.Clearance) Clearance {
	return Clearance{
		Nominal: (*MM)(c.Nominal.Metric), Tolerance: (*MM)(c.Tolerance.Metric), Lower: (*MM)(
			c.Lower.Metric), Upper: (*MM)(c.Upper.Metric),
		NominalIn: (*IN)(c.Nominal.Imperial), ToleranceIn: (*IN)(c.Tolerance.Imperial), LowerIn: (*IN)(
			c.Lower.Imperial), UpperIn: (*IN)(c.Upper.Imperial),
	}
}
