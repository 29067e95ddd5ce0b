// Package enginetest builds sheets for tests: plain engines by firing order and rows.
package enginetest

import (
	"metronix/core/engine"
	"metronix/core/measure"
)

// Inline is an engine in line with one head and one row of valves, front to rear, evenly firing.
func Inline(order []int, row string) *engine.Sheet {
	cylinders := make([]int, len(order))
	for i := range cylinders {
		cylinders[i] = i + 1
	}
	return &engine.Sheet{
		Name: "test engine", Cylinders: len(order), FiringOrder: order, Rotation: engine.Clockwise,
		Layout: engine.Inline,
		Banks: []engine.Bank{{Name: "head", Cylinders: cylinders,
			Rows: []engine.Row{{Side: engine.Left, Valves: row}}}},
	}
}

// Four is the plain four: 1-3-4-2, eight valves in the palindromic row.
func Four() *engine.Sheet { return Inline([]int{1, 3, 4, 2}, "EIIEEIIE") }

// Crossflow is an engine in line with two rows: intakes on the left, exhausts on the right, per valves of
// each a cylinder.
func Crossflow(order []int, intakes, exhausts string) *engine.Sheet {
	s := Inline(order, "")
	s.Banks[0].Rows = []engine.Row{{Side: engine.Left, Valves: intakes},
		{Side: engine.Right, Valves: exhausts}}
	return s
}

// Degrees writes a list of angles in degrees.
func Degrees(list ...float64) []measure.Angle {
	angles := make([]measure.Angle, len(list))
	for i, deg := range list {
		angles[i] = measure.FromDegrees(deg)
	}
	return angles
}

// Timing is a cam card in whole degrees: intake opens before and closes after, exhaust opens before and
// closes after.
func Timing(ivo, ivc, evo, evc int) *engine.ValveTiming {
	deg := func(d int) measure.Angle { return measure.Angle(d) * measure.Degree }
	return &engine.ValveTiming{IVO: deg(ivo), IVC: deg(ivc), EVO: deg(evo), EVC: deg(evc)}
}

// Names are the valves of a sheet, in its order.
func Names(s *engine.Sheet) (list []string) {
	for _, v := range s.Valves() {
		list = append(list, v.Name)
	}
	return list
}
