package practice_test

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/practice"
)

// shimmed begins an examination on a four with shims.
func shimmed(t *testing.T, seed uint64) *atShims {
	t.Helper()
	run, err := practice.Begin(practice.Exercise{Setup: withShims(), Seed: seed, Aid: practice.Examination})
	require.NoError(t, err)
	return &atShims{t: t, run: run}
}

// withShims is the usual four with shims in place of screws.
func withShims() job.Setup {
	setup := jobtest.Setup()
	sheet := *setup.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	setup.Sheet = &sheet
	return setup
}

// puts is the valve that he sees to first where another may be tried: every other time, and once; empty:
// none.
func (l *learner) puts(valve string) string {
	if l.later[valve] || len(l.run.List)%2 == 1 {
		return ""
	}
	for _, s := range l.run.Job.Steps() {
		if s.Valve != "" && s.Valve != valve {
			return s.Valve
		}
	}
	return ""
}

// shims does what the bench says of one: it is taken out and its size said, or another is laid in.
func (l *learner) shims(n job.Next) {
	l.t.Helper()
	j := l.run.Job
	v, _ := j.Valve(n.Valve)
	takes := func(valve string) *practice.FoundShim {
		if slices.Contains(l.run.Engine.Bare(), valve) {
			return nil
		}
		a, err := l.does(practice.Entry{Hand: practice.TookShim{Valve: valve}})
		require.NoError(l.t, err, valve)
		return a.Shim
	}
	switch {
	case v.Shim == 0 && !v.Out && !j.Settable(v): // he does not know it: it is turned to
		l.says(job.Picked{Valve: n.Valve})
	case v.Shim == 0 && !v.Out:
		is := takes(n.Valve)
		said := job.Sized{Valve: n.Valve, Shim: is.Measured}
		if is.Stamped != is.Measured {
			said.Stamped = is.Stamped
		}
		l.says(said)
		if next := l.run.Job.Next(); next.Shim == nil || next.Valve != n.Valve {
			l.hand(practice.FittedShim{Valve: n.Valve, Size: is.Measured})
		}
	case n.Shim == nil && j.ShimToTry(n.Valve) > 0 && !j.Settable(v):
		l.says(job.Picked{Valve: n.Valve})
	case n.Shim == nil && j.ShimToTry(n.Valve) > 0 && l.puts(n.Valve) != "":
		l.says(job.Picked{Valve: l.puts(n.Valve)})
		require.NotEqual(l.t, n.Valve, l.run.Job.Next().Valve, "the others come first")
		l.later[n.Valve] = true
	case n.Shim == nil && j.ShimToTry(n.Valve) > 0: // none surely serves it: it is tried, and read
		takes(n.Valve)
		size := j.ShimToTry(n.Valve)
		l.hand(practice.FittedShim{Valve: n.Valve, Size: size})
		l.says(job.Adjusted{Valve: n.Valve, Shim: size})
	case n.Shim == nil:
		l.says(job.LeftAsIs{Valve: n.Valve, Reason: "no shim serves it"})
	default:
		takes(n.Valve)
		if n.Shim.From != "" {
			takes(n.Shim.From)
		}
		l.hand(practice.FittedShim{Valve: n.Valve, Size: n.Shim.Shim})
		l.says(job.Adjusted{Valve: n.Valve, Shim: n.Shim.Shim, From: n.Shim.From, StandIn: n.Shim.Do == job.FitStandIn})
	}
}

// Who follows the bench on an engine with shims ends as on one with screws: every gap in its window but for
// leaf and feel, no shim left out, nothing held against him, whatever is stamped on them; and whoever says
// what is stamped, where a micrometer says another, is told.
func TestWhoFollowsTheBenchOnShims(t *testing.T) {
	wrong, right, changed := 0, 0, 0
	for seed := range seeds() {
		l := learns(t, withShims(), seed)
		l.goesRound()
		s := l.run.Score()
		require.True(t, s.Signed, "seed %d", seed)
		require.Empty(t, s.Faults, "seed %d", seed)
		for _, v := range s.Valves {
			slack := clearance.DefaultFeel + 6*um // his drag, and four deviations of the hand of 1.5 µm
			require.LessOrEqual(t, v.Left, v.Window.Upper+slack, "seed %d: %s", seed, v.Valve)
			require.GreaterOrEqual(t, v.Left, v.Window.Lower-slack, "seed %d: %s", seed, v.Valve)
			require.Equal(t, clearance.In, v.Verdict)
			if right++; v.Truly != clearance.In {
				wrong++
			}
			if v.Disturbed {
				changed++
			}
		}
		best := l.run.Best()
		require.NotNil(t, best)
		require.Positive(t, best.Turn)
	}
	assert.Less(t, float64(wrong), 0.05*float64(right), "believed to be in, and not: %d of %d", wrong, right)
	assert.Positive(t, changed)
	t.Run("a stamp", whoTrustsAStamp)
}

// whoTrustsAStamp says what is stamped where a micrometer says another, and is told.
func whoTrustsAStamp(t *testing.T) {
	for seed := range uint64(60) {
		l := learns(t, withShims(), seed)
		for l.run.Job.Next().Action != job.DoAdjust && l.acts() {
			continue
		}
		n := l.run.Job.Next()
		if n.Action != job.DoAdjust { // all of it was in
			continue
		}
		if v, _ := l.run.Job.Valve(n.Valve); !l.run.Job.Settable(v) {
			l.says(job.Picked{Valve: n.Valve})
			require.Equal(t, job.DoTurn, l.run.Job.Next().Action, "it is turned to")
			l.acts()
			require.Equal(t, n.Valve, l.run.Job.Next().Valve)
		}
		a, err := l.does(practice.Entry{Hand: practice.TookShim{Valve: n.Valve}})
		require.NoError(t, err)
		l.says(job.Sized{Valve: n.Valve, Shim: a.Shim.Stamped})
		l.hand(practice.FittedShim{Valve: n.Valve, Size: a.Shim.Measured})
		said := slices.ContainsFunc(l.run.Score().Faults, func(f practice.Fault) bool {
			return f.Slip == practice.WrongShim && f.Valve == n.Valve && f.By == a.Shim.Stamped-a.Shim.Measured
		})
		assert.Equal(t, a.Shim.Stamped != a.Shim.Measured, said, "seed %d", seed)
	}
}

// atShims is somebody who works on it.
type atShims struct {
	t   *testing.T
	run *practice.Run
}

func (a *atShims) try(h practice.Hand) (practice.Answer, error) {
	n := len(a.run.List)
	return a.run.Do(practice.Entry{ID: fmt.Sprint("act-", n), At: time.Unix(int64(n*20), 0), Hand: h})
}

func (a *atShims) does(h practice.Hand) practice.Answer {
	a.t.Helper()
	got, err := a.try(h)
	require.NoError(a.t, err)
	return got
}

// clear says whether eyes see a valve's lobe far enough away.
func (a *atShims) clear(valve string) bool {
	sheet := a.run.Exercise().Setup.Sheet
	c := cycle.New(sheet)
	v, _ := c.Valve(valve)
	return c.Margin(v, a.run.Engine.Crank()) >= sheet.EffectiveMargin()
}

// gap is what the leaves tell of a valve's gap: the thickest that is free and the thinnest that does not go,
// halved, or the one that drags.
func (a *atShims) gap(valve string) measure.Length {
	a.t.Helper()
	owned := a.run.Exercise().Setup.Owned
	leaves := slices.SortedFunc(slices.Values(owned), func(x, y gauge.Leaf) int { return int(x.True() - y.True()) })
	low := measure.Length(0)
	for _, l := range leaves {
		f := a.does(practice.Slid{Valve: valve, Leaves: []gauge.ID{l.ID}}).Felt
		switch {
		case f.Feel.Drags():
			return l.True()
		case f.Feel == clearance.WontGo:
			return (low + l.True()) / 2
		}
		low = l.True()
	}
	return low
}

// round is who goes round it as one should: reads, takes out what is out, measures it, lays in what serves,
// reads again.
func (a *atShims) round() {
	a.t.Helper()
	for _, v := range a.run.Job.Valves {
		for !a.clear(v.Name) {
			a.does(practice.Turned{By: 30 * measure.Degree})
		}
		w, gap := v.Limits.Window, a.gap(v.Name)
		if gap < w.Lower || gap > w.Upper {
			found := a.does(practice.TookShim{Valve: v.Name}).Shim
			want := found.Measured + gap - (w.Lower+w.Upper)/2
			sizes := append(a.run.Engine.Tray(), practice.ShimSizes()...)
			size := slices.MinFunc(sizes, func(x, y measure.Length) int { return int((x - want).Abs() - (y - want).Abs()) })
			a.does(practice.FittedShim{Valve: v.Name, Size: size})
			gap = a.gap(v.Name)
		}
		is := clearance.In
		if gap < w.Lower {
			is = clearance.Tight
		} else if gap > w.Upper {
			is = clearance.Loose
		}
		a.does(practice.Claimed{Valve: v.Name, Is: is})
	}
	a.does(practice.TookOff{})
}

// Somebody who measures each shim that he takes out brings every valve into its limits, on two hundred
// engines, and nothing is held against him; one in some of the shims is not as it is marked, so that who
// trusts the mark does not.
func TestShimsByWhoMeasures(t *testing.T) {
	wrong := 0
	for seed := range uint64(200) {
		a := shimmed(t, seed)
		a.round()
		s := a.run.Score()
		for _, f := range s.Faults {
			t.Errorf("seed %d: %s", seed, f)
		}
		assert.Equal(t, len(s.Valves), s.Correct, "seed %d", seed)
		for _, n := range a.run.List {
			if took, ok := n.Hand.(practice.TookShim); ok {
				again := shimmed(t, seed)
				for !again.clear(took.Valve) {
					again.does(practice.Turned{By: 30 * measure.Degree})
				}
				if f := again.does(practice.TookShim{Valve: took.Valve}).Shim; f.Stamped != f.Measured {
					wrong++
					assert.Less(t, f.Measured, f.Stamped)
				}
			}
		}
	}
	assert.Positive(t, wrong)
}

// A shim that is thicker by so much makes its gap narrower by so much (geometry of a bucket).
func TestAThickerShim(t *testing.T) {
	a := shimmed(t, 4)
	for !a.clear("E1") {
		a.does(practice.Turned{By: 30 * measure.Degree})
	}
	before := a.gap("E1")
	found := a.does(practice.TookShim{Valve: "E1"}).Shim
	_, err := a.try(practice.Slid{Valve: "E1", Leaves: []gauge.ID{{Marked: 100 * um}}})
	assert.ErrorContains(t, err, "there is no shim in E1")
	assert.Equal(t, []measure.Length{found.Measured}, a.run.Engine.Tray())
	_, err = a.try(practice.FittedShim{Valve: "E1", Size: 2013 * um})
	assert.ErrorContains(t, err, "there is no shim of 2.013")
	a.does(practice.FittedShim{Valve: "E1", Size: found.Measured})
	assert.InDelta(t, float64(before), float64(a.gap("E1")), float64(12*um), "the same shim again")
	a.does(practice.TookShim{Valve: "E1"})
	thinner := measure.Length(0) // the next size below
	for _, size := range practice.ShimSizes() {
		if size < found.Measured {
			thinner = size
		}
	}
	a.does(practice.FittedShim{Valve: "E1", Size: thinner})
	assert.InDelta(t, float64(before+found.Measured-thinner), float64(a.gap("E1")), float64(15*um))
}

// What is loose rocks, what its lobe lifts does not; the wider the gap the more; a dip in a worn tip is heard
// though no leaf finds it.
func TestRocking(t *testing.T) {
	play := func(gap measure.Length, wear ...practice.Worn) float64 {
		setup := jobtest.Setup()
		crank := 0 * measure.Degree
		run, err := practice.Begin(practice.Exercise{Setup: setup, Seed: 5, Gaps: map[string]measure.Length{"E1": gap}, Wear: wear, Crank: &crank})
		require.NoError(t, err)
		a, err := run.Do(practice.Entry{ID: "rocked", Hand: practice.Rocked{Valve: "E1"}})
		require.NoError(t, err)
		return *a.Play
	}
	assert.Greater(t, play(300*um), 1.5*play(150*um))
	assert.Greater(t, play(300*um, practice.Worn{Kind: practice.WornTip, Valve: "E1"}), play(300*um))
	a := shimmed(t, 1)
	v, _ := cycle.New(a.run.Exercise().Setup.Sheet).Valve("E1")
	for cycle.New(a.run.Exercise().Setup.Sheet).Margin(v, a.run.Engine.Crank()) >= 0 {
		a.does(practice.Turned{By: 30 * measure.Degree})
	}
	assert.Zero(t, *a.does(practice.Rocked{Valve: "E1"}).Play)
	_, err := a.try(practice.Rocked{Valve: "E9"})
	assert.Error(t, err)
}

// A dial tells the gap that a valve runs with, to its doubt, also where a leaf bridges a dip; what it carries
// may be written down, and that a worn one is loose by it though no leaf finds it is no misjudgement.
func TestADialAtAWornTip(t *testing.T) {
	setup := jobtest.Setup()
	crank := 0 * measure.Degree
	for _, worn := range [][]practice.Worn{nil, {{Kind: practice.WornTip, Valve: "E1"}}} {
		run, err := practice.Begin(practice.Exercise{Setup: setup, Seed: 8, Aid: practice.Examination, Crank: &crank,
			Gaps: map[string]measure.Length{"E1": 310 * um}, Wear: worn})
		require.NoError(t, err)
		a := &atShims{t: t, run: run}
		for !a.clear("E1") {
			a.does(practice.Turned{By: 30 * measure.Degree})
		}
		leaf, dial := a.gap("E1"), *a.does(practice.Dialled{Valve: "E1"}).Dial
		is := clearance.In
		if dial > 320*um {
			is = clearance.Loose
		}
		a.does(practice.Claimed{Valve: "E1", Is: is, Worn: len(worn) > 0})
		if len(worn) == 0 {
			assert.InDelta(t, float64(leaf), float64(dial), float64(16*um))
			assert.Equal(t, clearance.In, is)
		} else {
			assert.Greater(t, dial, leaf+20*um)
			assert.Equal(t, clearance.Loose, is)
		}
		for _, f := range run.Score().Faults {
			assert.NotEqual(t, "E1", f.Valve, f)
		}
	}
}

// With a shim out the crank is not turned, and nothing is left bare; a lobe that presses does not let go;
// there is no nut.
func TestAShimLeftOut(t *testing.T) {
	a := shimmed(t, 11)
	for !a.clear("I2") {
		a.does(practice.Turned{By: 30 * measure.Degree})
	}
	a.does(practice.TookShim{Valve: "I2"})
	assert.Contains(t, a.run.Warns(practice.Turned{By: measure.Degree}), "There is no shim in I2: lay one in before the crank is turned.")
	assert.Contains(t, a.run.WarnsEnd(), "There is no shim in I2.")
	_, err := a.try(practice.TookShim{Valve: "I2"})
	assert.ErrorContains(t, err, "there is no shim in I2")
	_, err = a.try(practice.Loosened{Valve: "I2"})
	assert.ErrorContains(t, err, "no nut")
	a.does(practice.Turned{By: 30 * measure.Degree})
	for {
		_, err = a.try(practice.TookShim{Valve: "E1"})
		if err != nil {
			break
		}
		a.does(practice.FittedShim{Valve: "E1", Size: a.run.Engine.Tray()[0]})
		a.does(practice.Turned{By: 30 * measure.Degree})
	}
	assert.ErrorContains(t, err, "presses on its shim")
	var slips []practice.Slip
	for _, f := range a.run.Score().Faults {
		slips = append(slips, f.Slip)
	}
	assert.Contains(t, slips, practice.NoShim)
}
