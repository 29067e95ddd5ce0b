package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// slackAt is a job whose only valve out of limits is being set: its nut is slack.
func slackAt(t *testing.T, valve string) *jobtest.Driver {
	t.Helper()
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.ReadUntil(job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		if v == valve {
			return jobtest.Nominal(v) - 60, "drag"
		}
		return jobtest.Nominal(v), "drag"
	})
	require.Equal(t, valve, d.Job.Next().Valve)
	d.Do(job.Happening{Act: job.Adjusted{Valve: valve}})
	return d
}

func TestAdjusting(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "E1"}}, "Read every valve as found")

	d = slackAt(t, "E1")
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, job.NutLoose, e1.Stage)
	assert.Equal(t, 1, e1.Adjustments)
	assert.Equal(t, job.DoLock, d.Job.Next().Action)
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "Finish E1 first")
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.Feel("E1", 300, "drag")
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "disturbing a good valve is a risk")
}
