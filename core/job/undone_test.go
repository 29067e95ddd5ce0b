package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestTakingBack(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.Undone{Target: "h0"}}, "nothing to take back")
	d.Begin(sequence.RockingPairs)
	d.Refused(job.Happening{Act: job.Undone{Target: "h0"}}, "Something else happened since")
	require.Equal(t, "h1", d.Job.CanUndo())
	d.Do(job.Happening{Act: job.Undone{Target: "h1"}})
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action)
	assert.Equal(t, "h0", d.Job.CanUndo(), "one after another, back to the beginning")
}
