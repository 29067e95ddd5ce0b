package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// slackAt is a job whose only valve out of limits is being set: its nut is slack.
func slackAt(t *testing.T, valve string) *driver {
	t.Helper()
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.readUntil(t, job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		if v == valve {
			return nominal(v) - 60, "drag"
		}
		return nominal(v), "drag"
	})
	require.Equal(t, valve, d.job.Next().Valve)
	d.do(job.Happening{Act: job.Adjusted{Valve: valve}})
	return d
}

func TestAdjusting(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.refused(job.Happening{Act: job.Adjusted{Valve: "E1"}}, "Read every valve as found")

	d = slackAt(t, "E1")
	e1, _ := d.job.Valve("E1")
	assert.Equal(t, job.NutLoose, e1.Stage)
	assert.Equal(t, 1, e1.Adjustments)
	assert.Equal(t, job.DoLock, d.job.Next().Action)
	d.refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "Finish E1 first")
	d.do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.feel("E1", 300, "drag")
	d.do(job.Happening{Act: job.Kept{Valve: "E1"}})
	d.refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "disturbing a good valve is a risk")
}
