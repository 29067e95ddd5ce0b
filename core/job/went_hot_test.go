package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/sequence"
)

func TestGoingHot(t *testing.T) {
	s := setup()
	hot := card(clearance.Hot, 240, 320)
	s.Hot = &hot
	d := start(t, s)
	d.begin(sequence.RockingPairs)
	d.refused(job.Happening{Act: job.WentHot{}}, "after the cold start is signed")
	d.work(nominal)
	d.do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}})
	assert.Equal(t, job.DoGoHot, d.job.Next().Action)
	d.do(job.Happening{Act: job.WentHot{}})
	assert.Equal(t, job.DoPrepare, d.job.Next().Action, "it is warmed first")
	assert.False(t, d.job.Known(), "it has run: nobody knows where it stopped")
	e1, _ := d.job.Valve("E1")
	assert.Nil(t, e1.Last)
	assert.NotNil(t, e1.ColdLeft, "what was left cold is not forgotten")
	assert.Equal(t, 320*um, e1.Limits.Nominal)
}
