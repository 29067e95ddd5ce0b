package bench_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// A mechanic's own shift as large as the aim leaves no gap to set, and a habit as wide as the limits is not
// aimed by.
func TestWhenThereIsAGapToSet(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.OneCylinder)
	v, _ := d.Job.Valve("I1")
	width := v.Limits.Window.Upper - v.Limits.Window.Lower
	pre, ok := bench.Advise(d.Job, adjust.Shift{Enough: true, Median: -20 * um, Spread: width - 1}).PreLock(v)
	assert.True(t, ok)
	assert.Equal(t, 240*um, pre)
	_, ok = bench.Advise(d.Job, adjust.Shift{Enough: true, Median: -20 * um, Spread: width}).PreLock(v)
	assert.False(t, ok)
	narrow := jobtest.Setup()
	fig := func(l measure.Length) clearance.Figure { return clearance.Figure{Metric: &l} }
	narrow.Card.Intake = clearance.Clearance{Nominal: fig(100 * um), Tolerance: fig(20 * um)}
	d = jobtest.Start(t, narrow)
	for shift, possible := range map[measure.Length]bool{100 * um: false, 99 * um: true} {
		d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder},
			Round: job.Round{OwnShift: &shift}}})
		v, _ := d.Job.Valve("I1")
		_, ok := bench.Advise(d.Job, adjust.Shift{}).PreLock(v)
		assert.Equal(t, possible, ok, shift)
	}
}

// The ladder shows up to four stacks of two unasked; and a stack that
// dragged is proved by stacks.
func TestTheStacksOfTheLadder(t *testing.T) {
	s := jobtest.Setup()
	s.Owned = jobtest.Owning(50, 70, 130, 145, 150, 155, 165, 250)
	d := jobtest.Start(t, s)
	d.Begin(sequence.OneCylinder)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	v, _ := d.Job.Valve("I1") // 0.20 to 0.24
	stacks := func() (list []string) {
		for _, r := range bench.Advise(d.Job, adjust.Shift{}).Ladder(v) {
			if len(r.Stack) > 1 {
				list = append(list, r.Stack.String())
			}
		}
		return list
	}
	unasked := len(stacks())
	assert.Equal(
		t,
		[]string{"0.15 + 0.05", "0.155 + 0.05", "0.165 + 0.05", "0.15 + 0.07"},
		stacks(),
		"0.225 would be a fifth",
	)
	d.Do(
		job.Happening{
			Act: job.ReadingTaken{Valve: "I1", Leaves: gauge.Straight(70*um, 145*um), Feel: "drag"},
		},
	)
	assert.Greater(t, len(stacks()), unasked, "with those that prove it")
}

// Judged by one leaf the nut is learned from sides: from the second valve that comes back tight the next is
// set with the leaf beside it, and one that came back twice says so (common practice).
func TestTheNutIsLearnedFromSides(t *testing.T) {
	s := jobtest.Setup()
	s.Rule = clearance.OneLeaf
	d := jobtest.Start(t, s)
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs},
		Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}}})
	d.Do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Feel("E1", 300, clearance.Free)
	set := func() {
		d.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Leaves: gauge.Straight(300 * um)}})
		d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
		d.Feel("E1", 300, clearance.WontGo)
	}
	set()
	e1, _ := d.Job.Valve("E1")
	none := bench.Advise(d.Job, adjust.Shift{})
	assert.Equal(t, 300*um, none.SetBy(e1).Thickness())
	assert.Empty(t, none.NutSays(e1))
	set()
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	require.Len(t, d.Job.LockPairs, 2)
	assert.Equal(
		t,
		295*um,
		*d.Job.LockPairs[0].AfterHigh,
		"it dragged before, and will not go: the leaf cancels",
	)
	e1, _ = d.Job.Valve("E1")
	twice := bench.Advise(d.Job, adjust.Shift{})
	assert.Equal(t, 310*um, twice.SetBy(e1).Thickness(), "a hair loose")
	assert.Equal(t, "Locking closes it, 2 times by now: set it with 0.31, then lock.", twice.NutSays(e1))
	// and so at the next valve, once two pairs have told the way
	i1, _ := d.Job.Valve("I1")
	var pairs []adjust.Pair
	for _, p := range d.Job.LockPairs {
		pairs = append(pairs, p.Pair)
	}
	hands := bench.Advise(d.Job, adjust.LearnShift(pairs, 0))
	assert.Equal(t, 230*um, hands.SetBy(i1).Thickness())
	assert.Equal(t, "Locking closes the gap in these hands: set it with 0.23, then lock.", hands.NutSays(i1))
	wide := bench.Advise(d.Job, adjust.Shift{Enough: true, Count: 5, Median: -20 * um, Spread: 60 * um})
	_, ok := wide.PreLock(i1)
	assert.False(t, ok, "a spread wider than the limits is not aimed by")
}
