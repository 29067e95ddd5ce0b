package wire

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"

	"metronix/core/clearance"
	"metronix/core/engine"
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
	dto := wireOf[*Sheet](s)
	dto.Format = SheetFormat
	data, err := json.MarshalIndent(dto, "", "  ")
	return append(data, '\n'), err
}

// BanksOf are the banks of a sheet as they are sent.
func BanksOf(banks []engine.Bank) []Bank { return wireOf[[]Bank](banks) }

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
	sheet := coreOf[*engine.Sheet](&dto)
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

// notObject says that a text is JSON and no object, which no sheet is.
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
			i, err := strconv.Atoi(step)
			if err != nil || i < 0 || i >= len(at) {
				return false
			}
			n = at[i]
		default:
			return false
		}
	}
	return true
}

// The sheet's mirror, and with it those of its parts.
func init() { mirrored[Sheet, engine.Sheet]() }

// Core is an adjuster as the core knows it.
func (a Adjuster) Core() *engine.Adjuster {
	c := coreOf[engine.Adjuster](a)
	return &c
}

// Core is a clearance as the core knows it.
func (c Clearance) Core() clearance.Clearance { return coreOf[clearance.Clearance](c) }

// SignsOf writes the signs of a sheet; the list is never null.
func SignsOf(list []engine.Sign) []Sign { return List(wireOf[[]Sign](list)) }
