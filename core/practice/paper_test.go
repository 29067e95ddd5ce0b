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
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/practice"
)

func exercised(t *testing.T, x practice.Exercise) *learner {
	t.Helper()
	l := &learner{t: t, now: time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)}
	x.Setup, x.Began = jobtest.Setup(), l.now
	if x.Hot {
		x.Setup.Card.State = clearance.Hot
	}
	x.Setup.Owned = every(5, 60)
	run, err := practice.Begin(x)
	require.NoError(t, err)
	l.run = run
	return l
}

// every is a set of leaves by hundredths of a millimetre.
func every(from, to int) (set gauge.Set) {
	for h := from; h <= to; h++ {
		set = append(set, gauge.Plain(measure.Length(h)*10*um))
	}
	return set
}

// goesTo turns the crank to where a valve is furthest from its lobe.
func (l *learner) goesTo(valve string) {
	c := cycle.New(l.run.Exercise().Setup.Sheet)
	v, ok := c.Valve(valve)
	require.True(l.t, ok, valve)
	l.turnsTo(c.DeepestAt(v))
}

// gauges goes up the leaves until one does not go in, and says how thick the last was that did, and whether
// it dragged.
func (l *learner) gauges(valve string) (gap measure.Length) {
	for h := measure.Length(5); h <= 60; h++ {
		f := l.hand(practice.Slid{Valve: valve, Leaves: gauge.Straight(h * 10 * um)})
		if f.Feel != clearance.Free {
			return h * 10 * um
		}
	}
	l.t.Fatalf("%s has no gap that a leaf reads", valve)
	return 0
}

// byHand does a valve as a mechanic does who needs no bench: reads it, sets it where it is out, locks, reads
// again, and writes down what he holds of it.
func (l *learner) byHand(valve string) {
	v, _ := l.run.Job.Valve(valve)
	w := v.Limits.Window
	middle := (w.Lower + w.Upper) / 20 * 10 / um / 10 * 10 * um
	verdict := func(gap measure.Length) clearance.Verdict {
		switch {
		case gap <= w.Lower-10*um:
			return clearance.Tight
		case gap > w.Upper:
			return clearance.Loose
		}
		return clearance.In
	}
	l.goesTo(valve)
	is := verdict(l.gauges(valve))
	for range 6 {
		if is == clearance.In {
			break
		}
		if _, err := l.does(practice.Entry{Hand: practice.Loosened{Valve: valve}}); err != nil {
			l.hand(practice.Claimed{Valve: valve, Is: is, Left: err.Error()})
			return
		}
		for range 200 {
			f := l.hand(practice.Slid{Valve: valve, Leaves: gauge.Straight(middle)})
			if f.Pull > 0.3 && f.Pull < 0.7 {
				break
			}
			by := 7 * measure.Degree
			if f.Pull >= 0.5 {
				by = -by
			}
			l.hand(practice.Screwed{Valve: valve, By: by})
		}
		l.hand(practice.Tightened{Valve: valve})
		is = verdict(l.gauges(valve))
	}
	l.hand(practice.Claimed{Valve: valve, Is: is})
}

// A mechanic who needs no bench passes an examination on any engine: nothing is held against him that he
// could have known. His leaves are a hundredth apart, so a gap is his to within one.
func TestWhoNeedsNoBench(t *testing.T) {
	for seed := range seeds() / 4 {
		l := exercised(t, practice.Exercise{Seed: seed, Aid: practice.Examination})
		for _, v := range l.run.Job.Valves {
			l.byHand(v.Name)
		}
		l.hand(practice.TookOff{})
		s := l.run.Score()
		for _, f := range s.Faults {
			require.Contains(
				t,
				[]practice.Slip{practice.WrongLeaf, practice.OutLeft, practice.LeftOut},
				f.Slip,
				"seed %d: %s",
				seed,
				f,
			)
		}
		require.GreaterOrEqual(t, s.Correct, len(s.Valves)-1, "seed %d", seed)
		if seed < 3 {
			best := l.run.Best()
			require.NotNil(t, best)
			assert.Less(t, best.Turn, s.Turned, "he goes valve by valve, and turns more than any school")
		}
	}
}

// Where nothing leads, each slip is seen too.
func TestSlipsOnPaper(t *testing.T) {
	in := map[string]measure.Length{"E1": 300 * um, "E2": 300 * um, "E3": 300 * um, "E4": 300 * um,
		"I1": 200 * um, "I2": 200 * um, "I3": 200 * um, "I4": 200 * um}
	v, _ := exercised(t, practice.Exercise{}).run.Job.Valve("E1")
	w := v.Limits.Window
	for name := range in {
		if name[0] == 'E' {
			in[name] = (w.Lower + w.Upper) / 2
		}
	}
	i, _ := exercised(t, practice.Exercise{}).run.Job.Valve("I1")
	for name := range in {
		if name[0] == 'I' {
			in[name] = (i.Limits.Window.Lower + i.Limits.Window.Upper) / 2
		}
	}
	exam := func(change func(*practice.Exercise)) *learner {
		x := practice.Exercise{Aid: practice.Examination, Gaps: in}
		if change != nil {
			change(&x)
		}
		return exercised(t, x)
	}
	at := func(l *learner, slip practice.Slip) (valves []string) {
		for _, f := range l.run.Score().Faults {
			if f.Slip == slip {
				valves = append(valves, f.Valve)
			}
		}
		return valves
	}
	claims := func(l *learner, valve string, is clearance.Verdict) { l.hand(practice.Claimed{Valve: valve, Is: is}) }

	l := exam(nil)
	claims(l, "E1", clearance.In)
	assert.Equal(t, []string{"E1"}, at(l, practice.NotFelt))
	l.goesTo("E2")
	l.hand(practice.Slid{Valve: "E2", Leaves: gauge.Straight(100 * um)})
	claims(l, "E2", clearance.In)
	assert.Equal(
		t,
		[]string{"E2"},
		at(l, practice.WrongLeaf),
		"that a thin leaf is free says nothing of the upper limit",
	)
	claims(l, "E2", clearance.Loose)
	assert.Equal(t, []string{"E2"}, at(l, practice.Misjudged))
	l.gauges("E2")
	claims(l, "E2", clearance.In)
	assert.Empty(t, append(at(l, practice.Misjudged), at(l, practice.WrongLeaf)...), "what is written last counts")
	assert.Equal(t, []string{""}, at(l, practice.ToolLeft))
	l.hand(practice.TookOff{})
	assert.Empty(t, at(l, practice.ToolLeft))
	assert.Equal(
		t,
		[]string{"E3", "E4", "I1", "I2", "I3", "I4"},
		slices.Sorted(slices.Values(at(l, practice.Forgotten))),
	)

	l = exam(nil)
	c := cycle.New(l.run.Exercise().Setup.Sheet)
	e1, _ := c.Valve("E1")
	l.turnsTo(c.PeakAt(e1))
	f := l.hand(practice.Slid{Valve: "E1", Leaves: gauge.Straight(100 * um)})
	assert.Equal(t, clearance.WontGo, f.Feel, "its lobe holds it open")
	claims(l, "E1", clearance.Tight)
	assert.Equal(t, []string{"E1"}, at(l, practice.OffBase))

	l = exam(func(x *practice.Exercise) {
		x.Gaps = map[string]measure.Length{"E1": w.Upper + 80*um}
		x.Nuts = []practice.BadNut{{Valve: "E1", How: practice.Seized}, {Valve: "E2", How: practice.Stiff}}
		x.Wear = []practice.Worn{
			{Kind: practice.WornTip, Valve: "E3"},
			{Kind: practice.FlatLobe, Valve: "E4"},
		}
	})
	l.byHand("E1")
	res := result(l, "E1")
	assert.Equal(t, "the nut of E1 is seized: it does not come loose", res.LeftBecause)
	assert.NotContains(t, at(l, practice.OutLeft), "E1", "known to be out, and why it was left")
	l.goesTo("E2")
	l.hand(practice.Loosened{Valve: "E2"})
	a, err := l.does(practice.Entry{Hand: practice.Screwed{Valve: "E2", By: 3 * measure.Degree}})
	require.NoError(t, err)
	assert.Zero(t, a.Moved, "it sticks")
	a, err = l.does(practice.Entry{Hand: practice.Screwed{Valve: "E2", By: 20 * measure.Degree}})
	require.NoError(t, err)
	assert.InDelta(t, 20, a.Moved.Degrees(), 4)
	assert.NotEqual(t, 20.0, a.Moved.Degrees(), "and jumps")
	l.byHand("E3")
	assert.Equal(
		t,
		[]string{"E3"},
		at(l, practice.WearMissed),
		"it reads small, and nobody noted why it ticks",
	)
	assert.Positive(t, result(l, "E3").Dip)
	l.hand(practice.Claimed{Valve: "E3", Is: clearance.In, Worn: true})
	assert.Empty(t, at(l, practice.WearMissed))
	e4, _ := c.Valve("E4")
	l.turnsTo(c.PeakAt(e4))
	assert.InDelta(t, 0.65, l.run.Engine.Open()["E4"], 1e-9, "eyes see that it opens by less")

	l = exam(
		func(x *practice.Exercise) { x.Limit = time.Minute; x.Counts = []practice.Slip{practice.OverTime} },
	)
	l.goesTo("E1")
	l.now = l.now.Add(2 * time.Minute)
	l.hand(practice.TookOff{})
	assert.Equal(t, []practice.Slip{practice.OverTime}, []practice.Slip{l.run.Score().Faults[0].Slip})
	assert.Len(t, l.run.Score().Faults, 1, "no other slip counts here")
	l = exam(func(x *practice.Exercise) { x.Limit = time.Minute; x.Counts = []practice.Slip{practice.OverTime} })
	l.now = l.now.Add(2 * time.Minute)
	l.hand(practice.TookOff{})
	assert.Len(t, l.run.Score().Faults, 1, "it counts from the beginning, not from what was done first")
}

func result(l *learner, valve string) practice.Result {
	for _, v := range l.run.Score().Valves {
		if v.Valve == valve {
			return v
		}
	}
	return practice.Result{}
}

// A hot engine cools: its gaps open, and after ten minutes what is read or set is said to be late.
func TestAHotEngineCools(t *testing.T) {
	x := practice.Exercise{
		Aid:  practice.Examination,
		Hot:  true,
		Gaps: map[string]measure.Length{"E1": 250 * um},
	}
	l := exercised(t, x)
	l.goesTo("E1")
	assert.InDelta(t, 250, float64(l.gauges("E1")/um), 10)
	assert.Empty(t, l.run.Warns(practice.Slid{Valve: "E1", Leaves: gauge.Straight(250 * um)}))
	l.now = l.now.Add(11 * time.Minute)
	later := l.gauges("E1")
	assert.Greater(
		t,
		later,
		260*um,
		"60 µm wider when cold, by 1 − e^(−11/25) of that after 11 minutes: 21 µm",
	)
	assert.NotEmpty(t, l.run.Warns(practice.Slid{Valve: "E1", Leaves: gauge.Straight(250 * um)}))
	slips := []practice.Slip{}
	for _, f := range l.run.Score().Faults {
		if f.Valve == "E1" {
			slips = append(slips, f.Slip)
		}
	}
	assert.Contains(t, slips, practice.TooLate)
}

// With the plugs in, a crank that is let go before a firing top dead centre is thrown back; on it, past it
// and turned back it stands.
func TestCompressionKicks(t *testing.T) {
	l := exercised(t, practice.Exercise{Plugs: true, Crank: new(measure.Angle)})
	turns := func(deg float64) practice.Answer {
		a, err := l.does(practice.Entry{Hand: practice.Turned{By: measure.FromDegrees(deg)}})
		require.NoError(t, err)
		return a
	}
	assert.Zero(t, turns(100).Kicked)
	assert.InDelta(t, 17.5, turns(60).Kicked.Degrees(), 7.5, "20° before the next one")
	assert.InDelta(t, 160-17.5, l.run.Engine.Crank().Degrees(), 7.5)
	l.turnsTo(180 * measure.Degree)
	assert.Equal(t, 180.0, l.run.Engine.Crank().Degrees(), "it stands on its dead centre")
	assert.Zero(t, turns(-20).Kicked)
	free := exercised(t, practice.Exercise{Crank: new(measure.Angle)})
	free.turnsTo(160 * measure.Degree)
	assert.Equal(t, 160.0, free.run.Engine.Crank().Degrees(), "with the plugs out it stands anywhere")
}

// Whoever looks on speaks before something goes wrong, of what he sees and what was felt; where nothing
// would, he is silent. He knows nothing that is hidden: on two engines on which the same was felt he says the
// same.
func TestWhatIsSaidBefore(t *testing.T) {
	l := exercised(t, practice.Exercise{Aid: practice.Watched, Seed: 5})
	c := cycle.New(l.run.Exercise().Setup.Sheet)
	e1, _ := c.Valve("E1")
	warned := func(h practice.Hand, says string) {
		t.Helper()
		list := l.run.Warns(h)
		require.NotEmpty(t, list, says)
		assert.Contains(t, fmt.Sprint(list), says)
	}
	l.turnsTo(c.PeakAt(e1))
	warned(practice.Slid{Valve: "E1", Leaves: gauge.Straight(250 * um)}, "E1’s lobe is not clear here")
	l.goesTo("E1")
	assert.Empty(t, l.run.Warns(practice.Slid{Valve: "E1", Leaves: gauge.Straight(250 * um)}))
	warned(practice.Claimed{Valve: "E1", Is: clearance.In}, "No leaf was in E1")
	gap := l.gauges("E1")
	for _, is := range []clearance.Verdict{clearance.In, clearance.Tight, clearance.Loose} {
		w, _ := l.run.Job.Valve("E1")
		if (gap >= w.Limits.Window.Lower && gap <= w.Limits.Window.Upper) != (is == clearance.In) {
			if len(l.run.Warns(practice.Claimed{Valve: "E1", Is: is})) > 0 {
				warned(practice.Claimed{Valve: "E1", Is: is}, "does not carry")
			}
		}
	}
	l.hand(practice.Loosened{Valve: "E1"})
	warned(practice.Turned{By: 90 * measure.Degree}, "The nut of E1 is loose")
	warned(practice.Claimed{Valve: "E1", Is: clearance.In}, "The nut of E1 is loose")
	l.hand(practice.Screwed{Valve: "E1", By: 30 * measure.Degree})
	l.hand(practice.Tightened{Valve: "E1"})
	warned(practice.Claimed{Valve: "E1", Is: clearance.In}, "not read again since its nut was tight")
	assert.Len(t, l.run.WarnsEnd(), 2, "the tool, and valves of which nothing is written down")

	_, err := l.does(practice.Entry{Said: job.Happening{Act: job.Kept{Valve: "E1"}}})
	assert.ErrorContains(t, err, "write down")
	guided := exercised(t, practice.Exercise{})
	_, err = guided.does(practice.Entry{Hand: practice.Claimed{Valve: "E1", Is: clearance.In}})
	assert.ErrorContains(t, err, "the bench judges")

	one, other := exercised(
		t,
		practice.Exercise{Aid: practice.Watched, Seed: 1},
	), exercised(
		t,
		practice.Exercise{Aid: practice.Watched, Seed: 2},
	)
	for _, of := range []*learner{one, other} {
		of.goesTo("E2")
		of.hand(practice.Slid{Valve: "E2", Leaves: gauge.Straight(50 * um)})
	}
	for _, h := range []practice.Hand{practice.Claimed{Valve: "E2", Is: clearance.In}, practice.Loosened{Valve: "E2"}, practice.Turned{By: measure.Degree}} {
		assert.Equal(t, one.run.Warns(h), other.run.Warns(h))
	}
}

// A run is looked at afterwards act by act, with what was hidden.
func TestTheTrace(t *testing.T) {
	l := exercised(t, practice.Exercise{Aid: practice.Examination, Seed: 9})
	l.byHand("E1")
	acts, err := practice.Trace(l.run.Exercise(), l.run.List)
	require.NoError(t, err)
	require.Len(t, acts, len(l.run.List))
	last := acts[len(acts)-1]
	assert.Equal(t, result(l, "E1").Left, last.Gap)
	assert.Equal(t, l.run.Engine.Crank(), last.Crank)
	assert.Equal(t, l.run.List[len(acts)-1].At.Sub(l.run.List[0].At), last.After)
	for _, a := range acts {
		if _, slid := a.Hand.(practice.Slid); slid {
			assert.NotNil(t, a.Felt)
			assert.True(t, a.Clear)
		}
	}
}

func degrees(d float64) measure.Angle { return measure.FromDegrees(d) }
