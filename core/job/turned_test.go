package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func TestTurning(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.Turned{Stop: 0}}, "Choose the sequence first")
	d.Begin(sequence.RockingPairs)
	d.Refused(job.Happening{Act: job.Turned{Stop: 4}}, "no stop 4: this sequence has stops 0 to 3")
	d.Refused(job.Happening{Act: job.Turned{Stop: -1}}, "no stop -1")
	d.Do(job.Happening{Act: job.Turned{Stop: 2}})
	assert.Equal(t, 360*measure.Degree, d.Job.Crank.At)
	assert.Equal(t, 2, d.Job.Stop)
	d.Feel(d.Job.Here()[0], 300, "drag")
	d.Refused(job.Happening{Act: job.Turned{Stop: 3}}, "not kept")
}

func TestTheCrankStaysWhileANutIsSlack(t *testing.T) {
	d := jobtest.SlackAt(t, "E1")
	d.Refused(job.Happening{Act: job.Turned{Stop: 1}}, "lock nut of E1 is slack")
}
