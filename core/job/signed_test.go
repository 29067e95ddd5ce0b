package job_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestSigning(t *testing.T) {
	sign := func(by string, out bool) job.Happening {
		return job.Happening{Act: job.Signed{By: by,
			ToolsOut: out}}
	}
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Refused(sign("Tess", true), "not finished")
	d.Work(jobtest.Nominal)
	d.Refused(sign("", true), "who signs")
	d.Refused(sign("Tess", false), "Account for all tools and leaves")
	d.Do(sign(" Tess ", true))
	assert.Equal(t, "Tess", d.Job.SignedBy)
	assert.Equal(t, job.Done, d.Job.Phase())
	d.Refused(job.Happening{Act: job.Doubted{}}, "What is signed stays as it is")
	last := d.List[len(d.List)-1].At
	d.Refused(job.Happening{Act: job.Doubted{}, DoneAt: last.Add(-time.Minute), At: last.Add(time.Minute)}, "amend the sheet")
}

// Who signed does not countersign, however the name is written.
func TestTheSignerIsAnotherPersonThanTheCountersigner(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.OneCylinder)
	d.Work(jobtest.Nominal)
	d.Do(job.Happening{Act: job.Signed{By: "Tess Ardal", ToolsOut: true}})
	for _, name := range []string{"Tess Ardal", " tess  ARDAL ", "Tess\u200b Ardal", "Te\u00adss Ardal\u2060", "Tess\u00a0Ardal"} {
		d.Refused(job.Happening{Act: job.Countersigned{By: name}}, "Another person than the one who signed")
	}
	d.Do(job.Happening{Act: job.Countersigned{By: "June Halloway"}})
}
