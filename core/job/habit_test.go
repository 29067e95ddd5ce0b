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

// What a mechanic does again: the sequence and the round, never which valves, no reason to turn back, and
// turning back only where the engine may turn back (common practice).
func TestWhatIsDoneAgain(t *testing.T) {
	chosen := func(s job.Setup, w job.WayChosen) *job.Job {
		d := jobtest.Start(t, s)
		d.Do(job.Happening{Act: w})
		return d.Job
	}
	next := func(s job.Setup) *job.Job {
		j, err := job.New(s)
		assert.NoError(t, err)
		return j
	}
	way := job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs, Direction: sequence.Back},
		BackReason: "no tensioner",
		Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckNone, Scope: []string{"E1"},
			Locking: job.InTwoGoes, OwnShift: new(measure.Length(-20_000)), CheckTurns: 4}}
	was := chosen(jobtest.Setup(), way)
	again, ok := was.Again(next(jobtest.Setup()))
	assert.True(t, ok)
	assert.Equal(t, job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs, Direction: sequence.Running},
		Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckNone, CheckTurns: 4}}, again)

	free := jobtest.Setup()
	sheet := *free.Sheet
	sheet.MayTurnBack = true
	free.Sheet = &sheet
	again, _ = was.Again(next(free))
	assert.Equal(t, sequence.Back, again.Direction, "where it may turn back")

	newCam := jobtest.Setup()
	newCam.NewCam = true
	again, _ = was.Again(next(newCam))
	assert.Equal(t, job.CheckSetOnes, again.Check, "its valves settle")
	again, _ = chosen(newCam, way).Again(next(jobtest.Setup()))
	assert.Equal(t, job.CheckSetOnes, again.Check, "no check then is no habit")

	nothing, err := job.New(jobtest.Setup())
	assert.NoError(t, err)
	_, ok = nothing.Again(next(jobtest.Setup()))
	assert.False(t, ok, "nothing was chosen")
}

// The word of the nut is of a kind of adjuster and its thread.
func TestTheNutsWordIsOfItsThread(t *testing.T) {
	with := func(a engine.Adjuster) job.Setup {
		s := jobtest.Setup()
		sheet := *s.Sheet
		sheet.Adjuster = &a
		s.Sheet = &sheet
		return s
	}
	fine := engine.Adjuster{Kind: gear.ScrewValveEnd, Pitch: measure.Millimetre, Locknut: engine.Torque{Nm: 14}}
	d := jobtest.Start(t, with(fine))
	shift := measure.Length(-30_000)
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs},
		Round: job.Round{Locking: job.InTwoGoes, OwnShift: &shift}}})
	coarse, other := fine, fine
	coarse.Pitch = 1250 * measure.Micrometre
	other.Kind = gear.ScrewPushrodEnd
	for want, a := range map[bool][]engine.Adjuster{true: {fine}, false: {coarse, other}} {
		for _, a := range a {
			next, err := job.New(with(a))
			assert.NoError(t, err)
			locking, got, ok := d.Job.NutAgain(next)
			assert.Equal(t, want, ok)
			if ok {
				assert.Equal(t, job.InTwoGoes, locking)
				assert.Equal(t, shift, *got)
			}
		}
	}
}

// With a leaf for each aim and none past the limits on both sides one leaf is the rule; a leaf past each
// proves what is out (common practice).
func TestLeavesThatTellSidesAlone(t *testing.T) {
	serves := func(leaves ...measure.Length) bool {
		s := jobtest.Setup()
		s.Owned = jobtest.Owning(leaves...)
		j, err := job.New(s)
		assert.NoError(t, err)
		return j.OneLeafServes()
	}
	assert.True(t, serves(220, 300))
	assert.False(t, serves(180, 220, 260, 300, 340))
	assert.False(t, serves(100, 500), "there is none for the aim")
}
