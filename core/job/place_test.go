package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/engine/enginetest"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Back from lunch: cylinder 1 rocks, so cylinder 4 may be read (common practice).
func TestFoundAgainAfterABreak(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Do(job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 1}}}})
	assert.Equal(t, sequence.Range{From: 348 * measure.Degree, To: 372 * measure.Degree}, d.Job.Place)
	assert.Equal(t, measure.Turn, d.Job.Crank.At)
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "I4", Stop: 2}, d.Job.Next())
	e1, _ := d.Job.Valve("E1")
	assert.False(t, d.Job.Settable(e1), "cylinder 1 rocks")
	assert.ElementsMatch(t, []string{"I4", "E4"}, d.Job.Here())
}

func TestBetweenStopsWhatIsClearMayBeReadAndTheNearestStopComesNext(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.FullLift, Valve: "E4"}}}})
	assert.Equal(t, -1, d.Job.Stop,
		"E4 peaks at 610, between cylinder 2's firing at 540 and cylinder 1's at 720")
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 0, Turn: 110 * measure.Degree}, d.Job.Next())
	assert.Contains(t, d.Job.Here(), "E1", "the rule of nine's partner of E4 (common practice)")
	assert.NotContains(t, d.Job.Here(), "E4")
	d.Do(job.Happening{Act: job.Picked{Valve: "E1"}})
	assert.Equal(t, job.DoRead, d.Job.Next().Action)
}

func TestOneTurnOutIsNamed(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.OneCylinder)
	mark, rocking := sequence.Sighting{What: sequence.Mark}, sequence.Sighting{What: sequence.Rocking,
		Cylinder: 1}
	f, err := d.Job.Find([]sequence.Sighting{mark, rocking})
	require.NoError(t, err)
	assert.Contains(t, f.OneTurnOut, "One turn out")
	f, err = d.Job.Find([]sequence.Sighting{mark, {What: sequence.Loose, Valve: "I1"},
		{What: sequence.Loose, Valve: "E1"}})
	require.NoError(t, err)
	assert.Empty(t, f.OneTurnOut)
	assert.True(t, f.Known)
	assert.Equal(t, "E1", f.Next.Valve)
	f, err = d.Job.Find([]sequence.Sighting{mark})
	require.NoError(t, err)
	assert.Empty(t, f.OneTurnOut, "not told yet")
	assert.False(t, f.Known)
}

func TestLocatingIsRefusedWithItsReason(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	seen := func(list ...sequence.Sighting) job.Happening {
		return job.Happening{Act: job.Located{Seen: list}}
	}
	d.Refused(seen(sequence.Sighting{What: sequence.Mark}), "2 places")
	d.Refused(seen(), "anywhere within 720°")
	d.Refused(seen(sequence.Sighting{What: sequence.Rocking, Cylinder: 1},
		sequence.Sighting{What: sequence.Rocking, Cylinder: 4}), "cannot both be")
	d.Refused(seen(sequence.Sighting{What: sequence.Rocking, Cylinder: 7}), "no cylinder 7")
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Feel("E1", 300, clearance.Drag)
	d.Do(seen(sequence.Sighting{What: sequence.Rocking, Cylinder: 4}))
	e1, _ := d.Job.Valve("E1")
	assert.Len(t, e1.Round, 1, "cylinder 1 fires: what was read there stands")
	d.Do(seen(sequence.Sighting{What: sequence.Rocking, Cylinder: 1}))
	e1, _ = d.Job.Valve("E1")
	assert.Empty(t, e1.Round, "read on its lobe: it does not count")
}

// A flat four with order 1-4-3-2 turned back half a turn at a time is set 1, 2, 3, 4: common practice.
func TestTurningBackLeadsBackwards(t *testing.T) {
	flat := jobtest.Setup()
	flat.Sheet = enginetest.Inline([]int{1, 4, 3, 2}, "EIIEEIIE")
	flat.Sheet.MayTurnBack = true
	d := jobtest.Start(t, flat)
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder,
		Direction: sequence.Back}}})
	d.Do(job.Happening{Act: job.Prepared{EngineC: 20.0, AmbientC: 20.0}})
	var order []string
	for range 4 {
		next := d.Job.Next()
		require.Equal(t, job.DoTurn, next.Action)
		if len(order) > 0 {
			assert.Equal(t, 180*measure.Degree, next.Turn)
		}
		d.Do(job.Happening{Act: job.Turned{Stop: next.Stop}})
		for _, name := range d.Job.Here() {
			order = append(order, name)
			nominal := measure.Length(220)
			if name[0] == 'E' {
				nominal = 300
			}
			d.Feel(name, nominal, clearance.Drag)
			d.Do(job.Happening{Act: job.Kept{Valve: name}})
		}
	}
	assert.Equal(t, []string{"E1", "I1", "I2", "E2", "E3", "I3", "I4", "E4"}, order)
}
