package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/sequence"
)

// Where the sheet forbids it the crank is turned back for a reason alone, for this job, with its cautions.
func TestTurningBackForAReason(t *testing.T) {
	back := job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder, Direction: sequence.Back}}
	d := start(t, setup())
	d.refused(job.Happening{Act: back}, "must not be turned back")
	back.BackReason = " gears, no tensioner "
	d.do(job.Happening{Act: back})
	assert.Equal(t, "gears, no tensioner", d.job.BackReason)
	assert.Contains(t, d.job.Plan.Cautions[len(d.job.Plan.Cautions)-1], "does not allow turning back")
	d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}}})
	assert.Empty(t, d.job.BackReason, "forward again")
	set := setup()
	set.Card.State = clearance.Hot
	hot := start(t, set)
	hot.do(job.Happening{Act: back})
	_, ok := hot.job.HotForecast()
	assert.True(t, ok, "what is allowed is foreseen too")
}
