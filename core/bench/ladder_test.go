package bench_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// The leaf to set by is the one nearest the aim; with six pairs that locking closed by 20 µm it is that much
// thicker, so that the valve is at its aim once locked (aim − median shift).
func TestSettingByACorrectedLeaf(t *testing.T) {
	d := jobtest.SlackAt(t, "E1")
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

// The leaf to begin with is the aim's own, so that a valve that is as it was wanted is known by one touch,
// though its doubt may reach over a limit.
func TestTheFirstLeafIsTheAims(t *testing.T) {
	fig := func(l measure.Length) clearance.Figure { return clearance.Figure{Metric: &l} }
	first := func(lower, upper, nominal measure.Length, leaves ...measure.Length) string {
		s := jobtest.Setup()
		s.Card.Intake = clearance.Clearance{
			Nominal: fig(nominal * um),
			Lower:   fig(lower * um),
			Upper:   fig(upper * um),
		}
		s.Owned = jobtest.Owning(leaves...)
		j, err := job.New(s)
		require.NoError(t, err)
		v, _ := j.Valve("I1")
		for _, r := range bench.Advise(j, adjust.Shift{}).Ladder(v) {
			if r.First {
				return r.Stack.String()
			}
		}
		return ""
	}
	assert.Equal(t, "0.205", first(200, 240, 210, 205, 225), "0.205 reaches below, and is the aim's all the same")
	assert.Equal(t, "0.235", first(200, 240, 230, 215, 235), "0.235 reaches above")
	assert.Equal(t, "0.21", first(190, 250, 210, 210, 225))
}

// A stack of two is offered unasked where no single leaf lies within twice the feel of it: 0.010 each way.
func TestWhichStacksAreUseful(t *testing.T) {
	has := func(leaves ...measure.Length) bool {
		s := jobtest.Setup()
		s.Owned = jobtest.Owning(leaves...)
		j, err := job.New(s)
		require.NoError(t, err)
		v, _ := j.Valve("I1") // 0.20 to 0.24
		for _, r := range bench.Advise(j, adjust.Shift{}).Ladder(v) {
			if r.Stack.Thickness() == 230*um && !r.SetBy {
				return true
			}
		}
		return false
	}
	assert.True(t, has(70, 160, 219, 300), "0.219 is 0.011 off")
	assert.False(t, has(70, 160, 220, 300), "0.220 is just 0.010 off")
	assert.False(t, has(70, 160, 220, 240, 300), "0.240 is so too")
}

func TestAngledLeavesAreLaidOutToo(t *testing.T) {
	s := jobtest.Setup()
	s.Owned = append(slices.Clone(s.Owned), gauge.Leaf{ID: gauge.ID{Marked: 220 * um, Angled: true}})
	assert.Contains(
		t,
		bench.FirstLeaves(jobtest.Start(t, s).Job),
		"the angled ones where a straight leaf does not lie flat",
	)
}

// The leaf to begin with is the one that settles most valves: its drag is surely in, and nearest the aim.
func TestTheFirstLeaf(t *testing.T) {
	first := func(set job.Setup) (out []string) {
		d := jobtest.Start(t, set)
		d.Begin(sequence.RockingPairs)
		d.Do(job.Happening{Act: job.Turned{Stop: 0}})
		e1, _ := d.Job.Valve("E1")
		for _, r := range bench.Advise(d.Job, adjust.Shift{}).Ladder(e1) {
			if r.First {
				out = append(out, r.Stack.String())
			}
		}
		return out
	}
	set := jobtest.Setup()
	assert.Equal(t, []string{"0.30"}, first(set))
	set.Owned = gauge.Set{{ID: gauge.ID{Marked: 280 * um}}, {ID: gauge.ID{Marked: 310 * um}}}
	assert.Equal(t, []string{"0.31"}, first(set), "0.28 would be close to its limit")
	set.Owned = gauge.Set{{ID: gauge.ID{Marked: 350 * um}}, {ID: gauge.ID{Marked: 100 * um}},
		{ID: gauge.ID{Marked: 200 * um}}}
	assert.Equal(t, []string{"0.20 + 0.10"}, first(set),
		"no single leaf lies within the limits: the stack to set by")
}
