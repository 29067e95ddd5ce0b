package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
)

func TestLeavingAValve(t *testing.T) {
	d := jobtest.SlackAt(t, "E1")
	leave := func(valve, reason string) job.Happening {
		return job.Happening{Act: job.LeftAsIs{Valve: valve, Reason: reason}}
	}
	d.Refused(leave("E1", " "), "Say why")
	d.Refused(leave("E1", "lunch"), "lock nut of E1 is slack")
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.Refused(leave("E1", "lunch"), "set and not read since")
	d.Feel("E1", 250, "drag")
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	d.Refused(leave("I1", "fine"), "I1 is not out of its limits")
	d.Do(leave("E1", " screw seized "))
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, "screw seized", e1.LeaveReason)
	assert.False(t, e1.Needs())
}
