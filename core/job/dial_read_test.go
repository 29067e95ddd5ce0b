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

func TestReadingByDial(t *testing.T) {
	dial := func(gap, doubt measure.Length) job.Happening {
		return job.Happening{Act: job.DialRead{Valve: "E1", Gap: gap, Uncertainty: doubt}}
	}
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(dial(-1, 0), "not a valve clearance")
	d.Refused(dial(6*measure.Millimetre, 0), "Is the unit right?")
	d.Refused(dial(300*um, -1), "uncertainty of a dial indicator")
	d.Refused(dial(300*um, 200*um), "uncertainty of a dial indicator")
	d.Do(dial(0, 0))
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, clearance.Tight, d.Job.Judge(e1).Verdict, "no gap at all is a reading")
	assert.Equal(t, clearance.DialUncertainty, e1.Round[0].Dial.Uncertainty,
		"where none is said, the usual one")
}
