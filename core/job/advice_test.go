package job_test

import (
	"testing"
	"time"

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

// What is said of turning has its direction everywhere (a job turned backwards once said "on" on the board
// and "back" on the bench).
func TestTheInstructionHasItsDirection(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.MayTurnBack = true
	d := jobtest.Start(t, s)
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder,
		Direction: sequence.Back}}})
	assert.Equal(t, "Take the engine’s temperature", d.Job.Brief().String())
	d.Do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	assert.Equal(t, "Turn the crank until cylinder 1 is at firing TDC", d.Job.Brief().String())
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	assert.Equal(t, "Read E1", d.Job.Brief().String())
	d.ReadUntil(
		job.DoTurn,
		func(v string) (measure.Length, clearance.Feel) { return jobtest.Nominal(v), "drag" },
	)
	turn, ok := d.Job.Instruction()
	require.True(t, ok)
	assert.Equal(t, job.Instruction{How: "Turn back 180°", Until: "cylinder 2 is at firing TDC"}, turn)
	assert.Equal(t, []int{0}, d.Job.Finished())
}

// Keeping goes on to the next valve of the stop that waits, and says so before it does.
func TestKeepingSaysWhatComesThen(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.OneCylinder)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	assert.Empty(t, d.Job.Then(d.Job.Next()), "nothing to keep yet")
	d.Feel("E1", 300, "drag")
	assert.Equal(t, "I1", d.Job.Then(d.Job.Next()))
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	d.Feel("I1", 220, "drag")
	assert.Empty(t, d.Job.Then(d.Job.Next()), "it was the last one here")
}

// After a night the line for those who look on is to confirm the crank, and says by what; before it, what is
// next.
func TestTheBriefAfterANight(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Do(job.Happening{At: noon, Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	d.Do(job.Happening{At: noon, Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	d.Do(job.Happening{At: noon, Act: job.Turned{Stop: 0}})
	assert.Equal(t, "Read E1", d.Job.AsOf(noon.Add(job.ConfirmAfter)).Brief().String())
	assert.Equal(t, "Confirm that cylinder 4 rocks",
		d.Job.AsOf(noon.Add(job.ConfirmAfter+time.Second)).Brief().String())
}

// A shimmed engine is worked over at once: the brief names no single valve to set.
func TestTheBriefOfAShimmedEngine(t *testing.T) {
	d := jobtest.SlackAt(t, "E1")
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	assert.Equal(t, "Set E1", d.Job.Brief().String())
	s := jobtest.Setup()
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	d = jobtest.Start(t, s)
	d.Begin(sequence.RockingPairs)
	d.ReadUntil(job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		if v == "E1" {
			return jobtest.Nominal(v) - 60, "drag"
		}
		return jobtest.Nominal(v), "drag"
	})
	assert.Equal(t, "Choose the shims", d.Job.Brief().String())
}
