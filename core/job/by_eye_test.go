package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// overhead is the plain four with its cam in sight, begun and standing at its first stop, cylinder 4 rocking.
func overhead(t *testing.T, kind gear.Kind) *jobtest.Driver {
	s := jobtest.Setup()
	sheet := *s.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: kind, Pitch: measure.Millimetre}
	s.Sheet = &sheet
	d := jobtest.Start(t, s)
	d.Begin(sequence.RockingPairs)
	return d
}

// Turned by eye a valve is taken by its own lobe or by a cylinder that rocks, whatever the sequence has next;
// while only its lobe is known to point away no degrees are told, and the next stop is told by its sign.
func TestAValveIsTakenByEye(t *testing.T) {
	d := overhead(t, gear.ScrewValveEnd)
	e3, _ := d.Job.Valve("E3")
	_, known := d.Job.ClearIn(e3)
	assert.False(t, known, "nobody knows where it stands")
	assert.Empty(t, d.Job.ComesClear())
	assert.Equal(t, []sequence.Sighting{{What: sequence.LobeAway, Valve: "E3"}, {What: sequence.Rocking, Cylinder: 4},
		{What: sequence.Rocking, Cylinder: 2}}, d.Job.TakenBy(e3),
		"while 4 rocks a four has I1, E1, I2 and E3 clear (common practice); cylinder 3 fires as 2 rocks")
	away := []sequence.Sighting{{What: sequence.LobeAway, Valve: "E3"}}
	d.Refused(job.Happening{Act: job.Located{Seen: away}}, "look at one thing more")
	d.Refused(job.Happening{Act: job.Located{Seen: away, Take: "E1"}}, "E1 may be open by that")
	d.Refused(job.Happening{Act: job.Located{Seen: away, Take: "E9"}}, "no valve of this engine")

	d.Do(job.Happening{Act: job.Located{Seen: away, Take: "E3"}})
	assert.True(t, d.Job.Known())
	assert.False(t, d.Job.Sure())
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "E3", Stop: -1}, d.Job.Next())
	d.Do(sure("E3", 300, clearance.Drag))
	e3, _ = d.Job.Valve("E3")
	require.NotNil(t, e3.AsFound)
	next := d.Job.Next()
	assert.Equal(t, job.DoTurn, next.Action)
	assert.Zero(t, next.Turn, "told by its sign")
	says, _ := d.Job.Instruction()
	assert.Equal(t, "Turn the crank", says.How)
	d.Do(job.Happening{Act: job.Turned{Stop: next.Stop}})
	assert.True(t, d.Job.Sure(), "a narrow sign was seen")
	assert.NotEmpty(t, d.Job.ComesClear())

	rocks := job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 2}}, Take: "I3"}
	d.Do(job.Happening{Act: rocks})
	assert.Equal(t, "I3", d.Job.Next().Valve)
	assert.True(t, d.Job.Sure())
}

// With the cam in the block its lobes are not seen; and what a maker's order sets off the middle of its base
// circle is come to by its stop.
func TestWhereLobesAreNotSeen(t *testing.T) {
	for _, kind := range []gear.Kind{gear.ScrewPushrodEnd, gear.ThreadedTappet, gear.CentreNut} {
		g, _ := gear.Of(kind)
		assert.False(t, g.CamSeen(), kind)
	}
	d := overhead(t, gear.ScrewPushrodEnd)
	e3, _ := d.Job.Valve("E3")
	assert.Equal(t, sequence.Rocking, d.Job.TakenBy(e3)[0].What)
}

// A valve comes clear where it has shut by the required margin, and is not yet a degree before; the nearest
// are told first (by geometry).
func TestWhatComesClearNext(t *testing.T) {
	d := overhead(t, gear.ScrewValveEnd)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	for _, v := range d.Job.Valves {
		in, ok := d.Job.ClearIn(v)
		require.True(t, ok, v.Name)
		if d.Job.Settable(v) {
			assert.Zero(t, in)
			continue
		}
		there := (d.Job.Crank.At + in).Wrap()
		assert.GreaterOrEqual(t, d.Job.Cycle.Margin(v.Valve, there), d.Job.Sheet.EffectiveMargin(), v.Name)
		assert.Less(t, d.Job.Cycle.Margin(v.Valve, there-measure.Degree), d.Job.Sheet.EffectiveMargin(), v.Name)
	}
	list := d.Job.ComesClear()
	require.Len(t, list, 3)
	assert.LessOrEqual(t, list[0].In, list[1].In)
	assert.LessOrEqual(t, list[1].In, list[2].In)
}
