package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/sequence"
)

func TestKeeping(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "E1 has no reading to keep")
	d.feel("E1", 280, "wont_go")
	d.feel("E1", 300, "free")
	d.refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "cannot all be true")
	d.do(job.Happening{Act: job.Withdrawn{Valve: "E1", Index: 1}})
	d.do(job.Happening{Act: job.Kept{Valve: "E1"}})
	e1, _ := d.job.Valve("E1")
	assert.Equal(t, clearance.Tight, e1.AsFound.Judgement.Verdict)
	assert.Empty(t, e1.Round)
	assert.Equal(t, "I1", d.job.Next().Valve)
}

func TestNothingIsKeptWithASlackNut(t *testing.T) {
	d := slackAt(t, "E1")
	d.feel("E1", 300, "drag")
	d.refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "slack. Lock it, then check again")
}
