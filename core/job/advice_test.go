package job_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// The leaf to set by is the one nearest the aim; with six pairs that locking closed by 20 µm it is that much
// thicker, so that the valve is at its aim once locked (aim − median shift).
func TestSettingByACorrectedLeaf(t *testing.T) {
	d := slackAt(t, "E1")
	e1, _ := d.Job.Valve("E1")
	plain := bench.Advise(d.Job, adjust.Shift{})
	assert.Equal(t, "0.30", plain.SetBy(e1).String())
	_, known := plain.PreLock(e1)
	assert.False(t, known)

	var pairs []adjust.Pair
	for range 6 {
		pairs = append(pairs, adjust.Pair{Before: 300 * um, After: 280 * um})
	}
	learned := bench.Advise(d.Job, adjust.LearnShift(pairs, 0))
	assert.Equal(t, "0.32", learned.SetBy(e1).String())
	pre, known := learned.PreLock(e1)
	assert.True(t, known)
	assert.Equal(t, 320*um, pre)
}

// The ladder holds every leaf once, thinnest first; those about the limits are shown, and so is the one that
// is advised, however far off it lies; a leaf of the other kind of valve is told from the rest.
func TestTheLadder(t *testing.T) {
	s := jobtest.Setup()
	s.Owned = jobtest.Owning(220, 300, 450, 900)
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	e1, _ := d.Job.Valve("E1")
	names := func(rungs []bench.Rung, of func(bench.Rung) bool) (list []string) {
		for _, r := range rungs {
			if of(r) {
				list = append(list, r.Stack.String())
			}
		}
		return list
	}
	rungs := bench.Advise(d.Job, adjust.Shift{}).Ladder(e1)
	all := func(bench.Rung) bool { return true }
	near := func(r bench.Rung) bool { return r.Near }
	assert.Equal(t, []string{"0.22", "0.30", "0.45", "0.90"}, names(rungs, all))
	assert.Equal(t, []string{"0.22", "0.30", "0.45"}, names(rungs, near))
	assert.Equal(t, []string{"0.30"}, names(rungs, func(r bench.Rung) bool { return r.SetBy && r.InWindow }))
	assert.Equal(t, []string{"0.22"},
		names(rungs, func(r bench.Rung) bool { return r.Other != nil && *r.Other == engine.Intake }))

	d.Feel("E1", 900, "wont_go")
	assert.Equal(t, []string{"0.22", "0.30", "0.45", "0.90"},
		names(bench.Advise(d.Job, adjust.Shift{}).Ladder(e1), near), "one that was tried is shown")
}

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
	d.ReadUntil(job.DoTurn, func(v string) (measure.Length, clearance.Feel) { return jobtest.Nominal(v), "drag" })
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
	d := slackAt(t, "E1")
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
