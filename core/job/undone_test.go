package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/job"
	"metronix/core/sequence"
)

func TestTakingBack(t *testing.T) {
	d := start(t, setup())
	d.refused(job.Happening{Act: job.Undone{Target: "h0"}}, "nothing to take back")
	d.begin(sequence.RockingPairs)
	d.refused(job.Happening{Act: job.Undone{Target: "h0"}}, "Something else happened since")
	require.Equal(t, "h1", d.job.CanUndo())
	d.do(job.Happening{Act: job.Undone{Target: "h1"}})
	assert.Equal(t, job.DoPrepare, d.job.Next().Action)
	assert.Equal(t, "h0", d.job.CanUndo(), "one after another, back to the beginning")
}
