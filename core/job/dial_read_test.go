package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func TestReadingByDial(t *testing.T) {
	dial := func(gap, doubt measure.Length) job.Happening {
		return job.Happening{Act: job.DialRead{Valve: "E1", Gap: gap, Uncertainty: doubt}}
	}
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.refused(dial(-1, 0), "not a valve clearance")
	d.refused(dial(6*measure.Millimetre, 0), "Is the unit right?")
	d.refused(dial(300*um, -1), "uncertainty of a dial indicator")
	d.refused(dial(300*um, 200*um), "uncertainty of a dial indicator")
	d.do(dial(0, 0))
	e1, _ := d.job.Valve("E1")
	assert.Equal(t, clearance.Tight, d.job.Judge(e1).Verdict, "no gap at all is a reading")
	assert.Equal(t, clearance.DialUncertainty, e1.Round[0].Dial.Uncertainty,
		"where none is said, the usual one")
}
