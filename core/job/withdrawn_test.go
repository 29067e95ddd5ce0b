package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestWithdrawingOneReading(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(job.Happening{Act: job.Withdrawn{Valve: "E1"}}, "E1 has no reading 1")
	d.Feel("E1", 280, "free")
	d.Feel("E1", 300, "drag")
	d.Refused(job.Happening{Act: job.Withdrawn{Valve: "E1", Index: 2}}, "E1 has no reading 3")
	d.Do(job.Happening{Act: job.Withdrawn{Valve: "E1", Index: 0}})
	e1, _ := d.Job.Valve("E1")
	assert.Len(t, e1.Round, 1)
	assert.Equal(t, 300*um, e1.Round[0].Stack.Thickness())
}
