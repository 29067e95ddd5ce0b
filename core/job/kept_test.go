package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestKeeping(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "E1 has no reading to keep")
	d.Feel("E1", 280, "wont_go")
	d.Feel("E1", 300, "free")
	d.Refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "cannot all be true")
	d.Do(job.Happening{Act: job.Withdrawn{Valve: "E1", Index: 1}})
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, clearance.Tight, e1.AsFound.Judgement.Verdict)
	assert.Empty(t, e1.Round)
	assert.Equal(t, "I1", d.Job.Next().Valve)
}

func TestNothingIsKeptWithASlackNut(t *testing.T) {
	d := jobtest.SlackAt(t, "E1")
	d.Feel("E1", 300, "drag")
	d.Refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "slack. Lock it, then check again")
}
