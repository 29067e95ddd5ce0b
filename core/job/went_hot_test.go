package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestGoingHot(t *testing.T) {
	s := jobtest.Setup()
	hot := jobtest.Card(clearance.Hot, 240, 320)
	s.Hot = &hot
	d := jobtest.Start(t, s)
	d.Begin(sequence.RockingPairs)
	d.Refused(job.Happening{Act: job.WentHot{}}, "after the cold start is signed")
	d.Work(jobtest.Nominal)
	d.Do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}})
	assert.Equal(t, job.DoGoHot, d.Job.Next().Action)
	d.Do(job.Happening{Act: job.WentHot{}})
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action, "it is warmed first")
	assert.False(t, d.Job.Known(), "it has run: nobody knows where it stopped")
	e1, _ := d.Job.Valve("E1")
	assert.Nil(t, e1.Last)
	assert.NotNil(t, e1.ColdLeft, "what was left cold is not forgotten")
	assert.Equal(t, 320*um, e1.Limits.Nominal)
}
