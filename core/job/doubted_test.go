package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/sequence"
)

func TestDoubting(t *testing.T) {
	d := start(t, setup())
	d.refused(job.Happening{Act: job.Doubted{}}, "Choose the sequence first")
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.feel("E1", 300, "drag")
	d.do(job.Happening{Act: job.Doubted{}})
	assert.False(t, d.job.Known())
	e1, _ := d.job.Valve("E1")
	assert.Empty(t, e1.Round, "it is not known where that was read")
}
