package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestPicking(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.Picked{Valve: "I1"}}, "Choose the sequence first")
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Do(job.Happening{Act: job.Picked{Valve: "I1"}})
	assert.Equal(t, "I1", d.Job.Next().Valve)
	d.Feel("I1", 220, "free")
	d.Refused(job.Happening{Act: job.Picked{Valve: "E1"}}, "Finish I1 first")
}
