package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/sequence"
)

func TestChoosingASequence(t *testing.T) {
	d := start(t, setup())
	d.refused(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: "unheard"}}}, "No school is called")
	d.refused(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.Own}}}, "no printed order")
	d.begin(sequence.RockingPairs)
	assert.Len(t, d.job.Plan.Stops, 4)
	d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.TwoStop}}})
	assert.Len(t, d.job.Plan.Stops, 2)
	assert.Equal(t, job.DoTurn, d.job.Next().Action)
}

// With a slack nut the sequence stays: that valve would be forgotten.
func TestTheSequenceStaysWhileANutIsSlack(t *testing.T) {
	d := slackAt(t, "E1")
	d.refused(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.TwoStop}}},
		"lock nut of E1 is slack")
}
