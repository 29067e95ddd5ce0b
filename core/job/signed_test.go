package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/sequence"
)

func TestSigning(t *testing.T) {
	sign := func(by string, out bool) job.Happening {
		return job.Happening{Act: job.Signed{By: by,
			ToolsOut: out}}
	}
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.refused(sign("Tess", true), "not finished")
	d.work(nominal)
	d.refused(sign("", true), "who signs")
	d.refused(sign("Tess", false), "Account for all tools and leaves")
	d.do(sign(" Tess ", true))
	assert.Equal(t, "Tess", d.job.SignedBy)
	assert.Equal(t, job.Done, d.job.Phase())
	d.refused(job.Happening{Act: job.Doubted{}}, "What is signed stays as it is")
}
