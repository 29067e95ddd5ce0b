package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// A valve that has just the required margin is clear, and is read.
func TestAValveWithJustItsMargin(t *testing.T) {
	s := jobtest.Setup()
	p, err := sequence.Make(s.Sheet, sequence.Request{Way: sequence.Way{School: sequence.TwoStop}})
	require.NoError(t, err)
	require.True(t, p.Applies, p.Reason)
	s.Sheet.RequiredMargin = &p.SmallestMargin
	d := jobtest.Start(t, s)
	d.Begin(sequence.TwoStop)
	for stop := range p.Stops {
		d.Do(job.Happening{Act: job.Turned{Stop: stop}})
		require.Equal(t, stop, d.Job.Stop)
		for _, set := range p.Stops[stop].Set {
			v, _ := d.Job.Valve(set.Valve)
			assert.True(t, d.Job.Settable(v), v.Name)
			assert.False(t, d.Job.ByMaker(v), v.Name)
		}
	}
}

// By a maker's order a valve is worked on where it is printed, with a word where it is not clear there: just
// opening is no margin, and not open yet.
func TestAMakersStopAtTheEdge(t *testing.T) {
	s := jobtest.Setup()
	j, err := job.New(s)
	require.NoError(t, err)
	e1, _ := j.Cycle.Valve("E1")
	for off, says := range map[measure.Angle]string{0: "stands only 0° from", measure.Degree: "is still open here, 1°"} {
		s.Sheet.OwnSequence = []engine.OwnStop{
			{Crank: (j.Cycle.OpensAt(e1) + off).Wrap(), Set: enginetest.Names(s.Sheet)},
		}
		d := jobtest.Start(t, s)
		d.Begin(sequence.Own)
		d.Do(job.Happening{Act: job.Turned{Stop: 0}})
		v, _ := d.Job.Valve("E1")
		assert.True(t, d.Job.Settable(v))
		assert.True(t, d.Job.ByMaker(v))
		assert.Contains(t, d.Job.Caution(v), says)
	}
}

// A valve that is in gets another shim where the choice over the whole engine wants it; its own again is no
// change, and is refused as any good valve is that would be disturbed without a reason.
func TestAGoodValveGetsAnotherShimAndNotItsOwn(t *testing.T) {
	d := shimsRead(t, sequence.OneCylinder, nil, map[string]measure.Length{"I2": 120})
	v, _ := d.Job.Valve("E2")
	require.True(t, d.Job.Settable(v), "the last stop is that of cylinder 2")
	own := d.Try(job.Happening{Act: job.Adjusted{Valve: "E2", Shim: 2700 * um}})
	assert.Error(t, own)
	assert.NoError(t, d.Try(job.Happening{Act: job.Adjusted{Valve: "E2", Shim: 2650 * um}}))
}

// A good valve gives its shim to one that needs it, and takes another that serves it: but not one that was
// fitted in this job and found in, which nothing moves any more.
func TestAShimFittedHereStays(t *testing.T) {
	stock := []adjust.Count{{Shim: 2725 * um, N: 1}} // serves E2 (0.285), and not E3 (0.275)
	from := func(d *jobtest.Driver) string {
		plan, _ := d.Job.ChooseShims(nil, stock, adjust.FewestBought)
		for _, f := range plan.Fit {
			if f.Valve == "E3" {
				return f.From
			}
		}
		return ""
	}
	assert.Equal(t, "E2", from(shimsRead(t, sequence.OneCylinder, map[string]measure.Length{"E3": 2600},
		map[string]measure.Length{"E2": 310, "E3": 400})))
	d := shimsRead(t, sequence.OneCylinder, map[string]measure.Length{"E2": 2600, "E3": 2600},
		map[string]measure.Length{"E2": 410, "E3": 400})
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E2", Shim: 2700 * um}})
	d.Do(job.Happening{Act: job.DialRead{Valve: "E2", Gap: 310 * um, Uncertainty: 1 * um}})
	d.Do(job.Happening{Act: job.Kept{Valve: "E2"}})
	assert.Empty(t, from(d))
}
