package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestChoosingASequence(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: "unheard"}}}, "No school is called")
	d.Refused(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.Own}}}, "no printed order")
	d.Begin(sequence.RockingPairs)
	assert.Len(t, d.Job.Plan.Stops, 4)
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.TwoStop}}})
	assert.Len(t, d.Job.Plan.Stops, 2)
	assert.Equal(t, job.DoTurn, d.Job.Next().Action)
}

// With a slack nut the sequence stays: that valve would be forgotten.
func TestTheSequenceStaysWhileANutIsSlack(t *testing.T) {
	d := jobtest.SlackAt(t, "E1")
	d.Refused(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.TwoStop}}},
		"lock nut of E1 is slack")
}
