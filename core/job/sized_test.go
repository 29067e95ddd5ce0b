package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func TestWritingDownAShim(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Refused(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2600 * um}}, "no shims")
	s := jobtest.Setup()
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	d = jobtest.Start(t, s)
	d.Begin(sequence.RockingPairs)
	d.Refused(job.Happening{Act: job.Sized{Valve: "E1"}}, "not the thickness of a shim")
	d.Refused(job.Happening{Act: job.Sized{Valve: "E1", Shim: 21 * measure.Millimetre}},
		"not the thickness of a shim")
	d.Do(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2600 * um}})
	d.Do(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2650 * um}})
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, 2650*um, e1.Shim, "the later word counts")
	d.Refused(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2650 * um, Stamped: 2560 * um * 10}},
		"not the thickness")
	d.Refused(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2650 * um, Stamped: 2540 * um}},
		"one of them is mistyped")
	d.Do(job.Happening{Act: job.Sized{Valve: "E1", Shim: 2650 * um, Stamped: 2680 * um}})
	e1, _ = d.Job.Valve("E1")
	assert.Equal(t, []measure.Length{2650 * um, 2680 * um}, []measure.Length{e1.Shim, e1.Stamped},
		"both are kept")
}
