package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func TestLocating(t *testing.T) {
	rocks := []sequence.Sighting{{What: sequence.Rocking, Cylinder: 4}}
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.Located{Seen: rocks}}, "Choose the sequence first")
	d.Begin(sequence.RockingPairs)
	d.Refused(job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking,
		Cylinder: 9}}}}, "cannot be seen")
	d.Do(job.Happening{Act: job.Located{Seen: rocks}})
	assert.True(t, d.Job.Known())
	assert.Equal(t, measure.Angle(0), d.Job.Crank.At, "4 rocks as 1 fires")
}
