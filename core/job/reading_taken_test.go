package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/sequence"
)

func TestReadingByLeaf(t *testing.T) {
	read := func(valve string, feel clearance.Feel, leaves ...gauge.ID) job.Happening {
		return job.Happening{Act: job.ReadingTaken{Valve: valve, Leaves: leaves, Feel: feel}}
	}
	leaf := gauge.Straight(300 * um)
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.refused(read("E1", "drag", leaf...), "Find the first stop")
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.refused(read("E1", "soft", leaf...), "no feel: free, drag, drag_light, drag_firm or wont_go")
	d.refused(read("E1", "drag"), "0 leaves: one to 3")
	d.refused(read("E1", "drag", gauge.Straight(100*um, 100*um, 50*um, 50*um)...), "4 leaves")
	d.refused(read("E1", "drag", gauge.Straight(0)...), "not the thickness of a feeler leaf")
	d.refused(read("E4", "drag", leaf...), "is open here")
	d.do(read("E1", "drag", leaf...))
	e1, _ := d.job.Valve("E1")
	assert.Equal(t, 300*um, *d.job.Judge(e1).Estimate)
	assert.Equal(t, job.DoKeep, d.job.Next().Action)
}
