package job

import (
	"slices"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// PaintMark says that a mark is to be painted on the pulley before the crank leaves its zero mark, and where:
// the stops of the sequence are half turns, and the pulley has no mark for every other one (common practice).
// Empty where it has, or the crank does not stand at zero.
func (j *Job) PaintMark(n Next) string {
	half := func(crank measure.Angle) bool { return crank.Wrap()%measure.Turn == measure.Turn/2 }
	switch {
	case n.Action != DoTurn || !j.Sure() || j.Crank.At.Wrap()%measure.Turn != 0,
		slices.ContainsFunc(j.Sheet.EffectiveMarks(), half),
		!slices.ContainsFunc(j.Plan.Stops, func(s sequence.Stop) bool { return half(s.Crank) }),
		slices.ContainsFunc(j.Plan.Stops,
			func(s sequence.Stop) bool { return s.Crank.Wrap()%(measure.Turn/2) != 0 }):
		return ""
	}
	return "Paint a mark on the pulley opposite its zero mark: every other stop is shown by it."
}
