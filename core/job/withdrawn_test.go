package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/sequence"
)

func TestWithdrawingOneReading(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.refused(job.Happening{Act: job.Withdrawn{Valve: "E1"}}, "E1 has no reading 1")
	d.feel("E1", 280, "free")
	d.feel("E1", 300, "drag")
	d.refused(job.Happening{Act: job.Withdrawn{Valve: "E1", Index: 2}}, "E1 has no reading 3")
	d.do(job.Happening{Act: job.Withdrawn{Valve: "E1", Index: 0}})
	e1, _ := d.job.Valve("E1")
	assert.Len(t, e1.Round, 1)
	assert.Equal(t, 300*um, e1.Round[0].Stack.Thickness())
}
