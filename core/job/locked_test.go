package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
)

func TestLocking(t *testing.T) {
	d := jobtest.SlackAt(t, "E1")
	d.Refused(job.Happening{Act: job.Locked{Valve: "I1"}}, "The lock nut of I1 was not slackened")
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, job.NutTight, e1.Stage)
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "E1", Stop: d.Job.Stop}, d.Job.Next(),
		"the nut may have moved the gap")
}
