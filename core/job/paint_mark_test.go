package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Cylinder 1 first, with a mark painted opposite the zero mark, serves half-turn engines (common practice).
func TestAMarkIsPaintedForTheHalfTurns(t *testing.T) {
	paint := func(school sequence.School, marks ...measure.Angle) string {
		s := jobtest.Setup()
		sheet := *s.Sheet
		sheet.Marks = marks
		s.Sheet = &sheet
		d := jobtest.Start(t, s)
		d.Begin(school)
		d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.ReadOnly}}})
		assert.Empty(t, d.Job.PaintMark(d.Job.Next()), "where the crank stands is not known yet")
		d.Do(job.Happening{Act: job.Turned{Stop: 0}})
		d.ReadUntil(
			job.DoTurn,
			func(valve string) (measure.Length, clearance.Feel) { return jobtest.Nominal(valve), clearance.Drag },
		)
		return d.Job.PaintMark(d.Job.Next())
	}
	assert.Contains(t, paint(sequence.RockingPairs), "opposite its zero mark")
	assert.Empty(t, paint(sequence.RockingPairs, 0, 180*measure.Degree), "it has one")
	assert.Empty(t, paint(sequence.TwoStop), "both stops are at the zero mark")
	assert.Empty(t, paint(sequence.ExhaustOpen), "its stops are no half turns")
}
