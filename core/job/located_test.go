package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func TestLocating(t *testing.T) {
	rocks := []sequence.Sighting{{What: sequence.Rocking, Cylinder: 4}}
	d := start(t, setup())
	d.refused(job.Happening{Act: job.Located{Seen: rocks}}, "Choose the sequence first")
	d.begin(sequence.RockingPairs)
	d.refused(job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking,
		Cylinder: 9}}}}, "cannot be seen")
	d.do(job.Happening{Act: job.Located{Seen: rocks}})
	assert.True(t, d.job.Known())
	assert.Equal(t, measure.Angle(0), d.job.Crank, "4 rocks as 1 fires")
}
