package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func TestTurning(t *testing.T) {
	d := start(t, setup())
	d.refused(job.Happening{Act: job.Turned{Stop: 0}}, "Choose the sequence first")
	d.begin(sequence.RockingPairs)
	d.refused(job.Happening{Act: job.Turned{Stop: 4}}, "no stop 4: this sequence has stops 0 to 3")
	d.refused(job.Happening{Act: job.Turned{Stop: -1}}, "no stop -1")
	d.do(job.Happening{Act: job.Turned{Stop: 2}})
	assert.Equal(t, 360*measure.Degree, d.job.Crank)
	assert.Equal(t, 2, d.job.Stop)
	d.feel(d.job.Here()[0], 300, "drag")
	d.refused(job.Happening{Act: job.Turned{Stop: 3}}, "not kept")
}

func TestTheCrankStaysWhileANutIsSlack(t *testing.T) {
	d := slackAt(t, "E1")
	d.refused(job.Happening{Act: job.Turned{Stop: 1}}, "lock nut of E1 is slack")
}
