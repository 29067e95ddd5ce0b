package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/sequence"
)

func TestPicking(t *testing.T) {
	d := start(t, setup())
	d.refused(job.Happening{Act: job.Picked{Valve: "I1"}}, "Choose the sequence first")
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.do(job.Happening{Act: job.Picked{Valve: "I1"}})
	assert.Equal(t, "I1", d.job.Next().Valve)
	d.feel("I1", 220, "free")
	d.refused(job.Happening{Act: job.Picked{Valve: "E1"}}, "Finish I1 first")
}
