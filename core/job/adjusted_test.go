package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestAdjusting(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "E1"}}, "Read every valve as found")

	d = jobtest.SlackAt(t, "E1")
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
