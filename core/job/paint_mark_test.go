package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Cylinder 1 first, with a mark painted opposite the zero mark, serves half-turn engines (common practice).
func TestAMarkIsPaintedForTheHalfTurns(t *testing.T) {
	paint := func(school sequence.School, marks ...measure.Angle) string {
		s := setup()
		sheet := *s.Sheet
		sheet.Marks = marks
		s.Sheet = &sheet
		d := start(t, s)
		d.begin(school)
		d.do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.ReadOnly}}})
		assert.Empty(t, d.job.PaintMark(d.job.Next()), "where the crank stands is not known yet")
		d.do(job.Happening{Act: job.Turned{Stop: 0}})
		d.readUntil(t, job.DoTurn,
			func(valve string) (measure.Length, clearance.Feel) { return nominal(valve), clearance.Drag })
		return d.job.PaintMark(d.job.Next())
	}
	assert.Contains(t, paint(sequence.RockingPairs), "opposite its zero mark")
	assert.Empty(t, paint(sequence.RockingPairs, 0, 180*measure.Degree), "it has one")
	assert.Empty(t, paint(sequence.TwoStop), "both stops are at the zero mark")
	assert.Empty(t, paint(sequence.ExhaustOpen), "its stops are no half turns")
}
