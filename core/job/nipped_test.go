package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
)

// Nip, torque, read again; where the nut cannot be torqued while the screw is held, by feel is the record.
// Common practice.
func TestLockingInTwoStages(t *testing.T) {
	d := goingRound(t, jobtest.Setup())
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, Locking: job.InTwoGoes}}})
	d.Refused(job.Happening{Act: job.Nipped{Valve: "E1"}}, "was not slackened")
	d.Do(sure("E1", 260, clearance.Drag))
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1"}})
	d.Do(job.Happening{Act: job.Nipped{Valve: "E1"}})
	assert.Equal(t, job.Next{Action: job.DoLock, Valve: "E1"}, d.Job.Next(), "nipped is not tight")
	d.Refused(job.Happening{Act: job.Nipped{Valve: "E1"}}, "is nipped already")
	d.Refused(job.Happening{Act: job.Turned{Stop: 1}}, "nut of E1 is slack")
	d.Do(sure("E1", 300, clearance.Drag)) // felt once more between the two
	d.Refused(job.Happening{Act: job.Locked{Valve: "E1", By: "luck"}}, "no way of tightening")
	d.Do(job.Happening{Act: job.Locked{Valve: "E1", By: job.ByFeel}})
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, job.ByFeel, e1.LockedBy)
	assert.False(t, e1.Nipped)
	d.Do(sure("E1", 300, clearance.Drag))
	assert.Equal(t, "I1", d.Job.Next().Valve)
	d.Refused(job.Happening{Act: job.RoundChosen{Round: job.Round{Locking: "thrice"}}}, "nip_then_torque")
}
