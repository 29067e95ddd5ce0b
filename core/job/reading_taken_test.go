package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestReadingByLeaf(t *testing.T) {
	read := func(valve string, feel clearance.Feel, leaves ...gauge.ID) job.Happening {
		return job.Happening{Act: job.ReadingTaken{Valve: valve, Leaves: leaves, Feel: feel}}
	}
	leaf := gauge.Straight(300 * um)
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Refused(read("E1", "drag", leaf...), "Find the first stop")
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(read("E1", "soft", leaf...), "no feel: free, drag, drag_light, drag_firm or wont_go")
	d.Refused(read("E1", "drag"), "0 leaves: one to 3")
	d.Refused(read("E1", "drag", gauge.Straight(100*um, 100*um, 50*um, 50*um)...), "4 leaves")
	d.Refused(read("E1", "drag", gauge.Straight(0)...), "not the thickness of a feeler leaf")
	d.Refused(read("E4", "drag", leaf...), "is open here")
	d.Do(read("E1", "drag", leaf...))
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, 300*um, *d.Job.Judge(e1).Estimate)
	assert.Equal(t, job.DoKeep, d.Job.Next().Action)
}
