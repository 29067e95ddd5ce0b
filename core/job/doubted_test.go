package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestDoubting(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.Doubted{}}, "Choose the sequence first")
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Feel("E1", 300, "drag")
	d.Do(job.Happening{Act: job.Doubted{}})
	assert.False(t, d.Job.Known())
	e1, _ := d.Job.Valve("E1")
	assert.Empty(t, e1.Round, "it is not known where that was read")
}
