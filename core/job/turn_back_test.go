package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/rehearse"
	"metronix/core/sequence"
)

// Where the sheet forbids it the crank is turned back for a reason alone, for this job, with its cautions.
func TestTurningBackForAReason(t *testing.T) {
	back := job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder, Direction: sequence.Back}}
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: back}, "must not be turned back")
	back.BackReason = " gears, no tensioner "
	d.Do(job.Happening{Act: back})
	assert.Equal(t, "gears, no tensioner", d.Job.BackReason)
	assert.Contains(t, d.Job.Plan.Cautions[len(d.Job.Plan.Cautions)-1], "does not allow turning back")
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}}})
	assert.Empty(t, d.Job.BackReason, "forward again")
	set := jobtest.Setup()
	set.Card.State = clearance.Hot
	hot := jobtest.Start(t, set)
	hot.Do(job.Happening{Act: back})
	_, ok := rehearse.Forecast(hot.Job)
	assert.True(t, ok, "what is allowed is foreseen too")
}
