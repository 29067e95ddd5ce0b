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

// Who signed does not countersign, however the name is written.
func TestTheSignerIsAnotherPersonThanTheCountersigner(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.OneCylinder)
	d.work(nominal)
	d.do(job.Happening{Act: job.Signed{By: "Tess Ardal", ToolsOut: true}})
	for _, name := range []string{"Tess Ardal", " tess  ARDAL ", "Tess\u200b Ardal", "Te\u00adss Ardal\u2060", "Tess\u00a0Ardal"} {
		d.refused(job.Happening{Act: job.Countersigned{By: name}}, "Another person than the one who signed")
	}
	d.do(job.Happening{Act: job.Countersigned{By: "June Halloway"}})
}
