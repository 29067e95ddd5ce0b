package job_test

import (
	"errors"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

const um = measure.Micrometre

func setup() job.Setup {
	figure := func(l measure.Length) clearance.Figure { return clearance.Figure{Metric: &l} }
	stated := func(nominal measure.Length) clearance.Clearance {
		return clearance.Clearance{Nominal: figure(nominal * um), Tolerance: figure(20 * um)}
	}
	owned := gauge.Set{}
	for m := measure.Length(100); m <= 400; m += 10 {
		owned = append(owned, owning(m)...)
	}
	return job.Setup{Sheet: enginetest.Four(), Owned: owned, Feel: clearance.DefaultFeel,
		Card: clearance.Card{Source: "test card", State: clearance.Cold, Intake: stated(220),
			Exhaust: stated(300)}}
}

// owning is a gauge set of plain leaves, in micrometres.
func owning(leaves ...measure.Length) (set gauge.Set) {
	for _, m := range leaves {
		set = append(set, gauge.Leaf{ID: gauge.ID{Marked: m * um}})
	}
	return set
}

// driver sends happenings with ids of their own and keeps the list.
type driver struct {
	t    require.TestingT
	job  *job.Job
	list []job.Happening
}

func start(t require.TestingT, s job.Setup) *driver {
	j, err := job.New(s)
	require.NoError(t, err)
	return &driver{t: t, job: j}
}

func (d *driver) try(h job.Happening) error {
	h.ID = fmt.Sprintf("h%d", len(d.list))
	j, err := d.job.Take(h)
	if err == nil {
		d.job, d.list = j, append(d.list, h)
	}
	return err
}

func (d *driver) do(h job.Happening) {
	require.NoError(d.t, d.try(h))
}

// feelAt is feel at a minute.
func (d *driver) feelAt(valve string, leaf measure.Length, feel clearance.Feel, minute float64) {
	d.do(job.Happening{At: at(minute),
		Act: job.ReadingTaken{Valve: valve, Leaves: gauge.Straight(leaf * um), Feel: feel}})
}

func (d *driver) refused(h job.Happening, says string) {
	before := d.job.Next()
	err := d.try(h)
	var r *job.Refusal
	require.True(d.t, errors.As(err, &r), "%v", err)
	assert.Contains(d.t, r.Message, says)
	assert.Equal(d.t, before, d.job.Next(), "a refusal changes nothing")
}

func (d *driver) begin(school sequence.School) {
	d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: school}}})
	d.do(job.Happening{Act: job.Prepared{EngineC: 19.0, AmbientC: 18.0}})
}

func (d *driver) feel(valve string, leaf measure.Length, feel clearance.Feel) {
	d.do(job.Happening{Act: job.ReadingTaken{Valve: valve, Leaves: gauge.Straight(leaf * um), Feel: feel}})
}

// readUntil reads, keeps and turns until an action is asked for.
func (d *driver) readUntil(t *testing.T, until job.Action,
	feel func(valve string) (measure.Length, clearance.Feel)) {
	t.Helper()
	for range 200 {
		switch n := d.job.Next(); n.Action {
		case until:
			return
		case job.DoTurn:
			d.do(job.Happening{Act: job.Turned{Stop: n.Stop}})
		case job.DoRead:
			leaf, f := feel(n.Valve)
			d.feel(n.Valve, leaf, f)
		case job.DoKeep:
			d.do(job.Happening{Act: job.Kept{Valve: n.Valve}})
		}
	}
	t.Fatalf("%s is never asked for: %+v", until, d.job.Next())
}

// work follows what Next says until it is time to sign; gap gives the dragging leaf of each valve when it is
// read.
func (d *driver) work(gap func(valve string) measure.Length) (turns measure.Angle,
	actions map[job.Action]int) {
	actions = map[job.Action]int{}
	for range 300 {
		n := d.job.Next()
		actions[n.Action]++
		switch n.Action {
		case job.DoTurn:
			turns += n.Turn
			d.do(job.Happening{Act: job.Turned{Stop: n.Stop}})
		case job.DoRead:
			d.feel(n.Valve, gap(n.Valve), clearance.Drag)
		case job.DoKeep:
			d.do(job.Happening{Act: job.Kept{Valve: n.Valve}})
		case job.DoAdjust:
			d.do(job.Happening{Act: job.Adjusted{Valve: n.Valve}})
		case job.DoLock:
			d.do(job.Happening{Act: job.Locked{Valve: n.Valve}})
		case job.DoBarOver:
			d.do(job.Happening{Act: job.BarredOver{}})
		default:
			return turns, actions
		}
	}
	d.t.Errorf("the job never comes to an end: %+v", d.job.Next())
	return turns, actions
}

func nominal(valve string) measure.Length {
	if valve[0] == 'I' {
		return 220
	}
	return 300
}

func TestWholeJobWithTwoValvesOut(t *testing.T) {
	d := start(t, setup())
	assert.Equal(t, job.DoChooseWay, d.job.Next().Action)
	d.begin(sequence.RockingPairs)
	gaps := map[string]measure.Length{"E3": 250, "I4": 300}
	turns, actions := d.work(func(v string) measure.Length {
		state, _ := d.job.Valve(v)
		if g, ok := gaps[v]; ok && state.Adjustments == 0 {
			return g
		}
		return nominal(v)
	})
	assert.Equal(t, job.Sign, d.job.Phase())
	assert.Equal(t, 2, actions[job.DoAdjust])
	assert.Equal(t, 2, actions[job.DoLock])
	assert.Equal(t, 1, actions[job.DoBarOver])
	assert.Equal(t, 8+2+8, actions[job.DoKeep], "as found, after adjusting, check pass")
	assert.Equal(t, (540+360+180+540)*measure.Degree, turns,
		"once round, on to 3 and 4, then from 4 once more round")

	e3, _ := d.job.Valve("E3")
	assert.Equal(t, clearance.Tight, e3.AsFound.Judgement.Verdict)
	assert.Equal(t, 250*um, *e3.AsFound.Judgement.Estimate)
	assert.Equal(t, clearance.In, e3.Last.Judgement.Verdict)
	assert.True(t, e3.Verified)
	e1, _ := d.job.Valve("E1")
	assert.Zero(t, e1.Adjustments, "a good valve is left alone")

	d.refused(job.Happening{Act: job.Signed{By: "Tess"}}, "socket off the crank")
	d.refused(job.Happening{Act: job.Signed{By: " ", ToolsOut: true}}, "who signs")
	d.do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}})
	assert.Equal(t, job.Done, d.job.Phase())
	assert.Empty(t, d.job.CanUndo())
	d.refused(job.Happening{Act: job.Undone{Target: d.list[len(d.list)-1].ID}}, "signed")
	d.refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "signed")
}

func TestEveryValveInNeedsNoAdjusting(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.SumRule)
	_, actions := d.work(nominal)
	assert.Equal(t, job.Sign, d.job.Phase())
	assert.Zero(t, actions[job.DoAdjust]+actions[job.DoBarOver])
}

// What hurts a mechanic is refused in words.
func TestRefusalsOnTheBench(t *testing.T) {
	d := start(t, setup())
	d.refused(job.Happening{Act: job.Turned{Stop: 0}}, "Choose the sequence")
	d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	d.refused(job.Happening{Act: job.Turned{Stop: 0}}, "temperature")
	d.refused(job.Happening{Act: job.Prepared{EngineC: 55.0, AmbientC: 18.0}},
		"cold figures, good up to 38 °C")
	d.refused(job.Happening{Act: job.Prepared{EngineC: 900.0, AmbientC: 18.0}}, "not a temperature")
	d.do(job.Happening{Act: job.Prepared{EngineC: 38.0, AmbientC: 18.0}})
	read := func(valve string) job.Happening {
		return job.Happening{Act: job.ReadingTaken{Valve: valve, Leaves: gauge.Straight(220 * um),
			Feel: clearance.Drag}}
	}
	d.refused(read("I1"), "first stop")
	d.refused(job.Happening{Act: job.Turned{Stop: 4}}, "no stop 4")
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.refused(read("E4"), "is open here")
	d.refused(read("E9"), "no valve")
	d.refused(job.Happening{Act: job.ReadingTaken{Valve: "I1", Leaves: nil, Feel: clearance.Drag}},
		"0 leaves")
	d.refused(job.Happening{Act: job.ReadingTaken{Valve: "I1", Leaves: gauge.Straight(-1),
		Feel: clearance.Drag}}, "not the thickness")
	d.refused(job.Happening{Act: job.ReadingTaken{Valve: "I1", Leaves: gauge.Straight(220 * um),
		Feel: "soft"}}, "no feel")
	d.refused(job.Happening{Act: job.Kept{Valve: "I1"}}, "no reading")
	d.do(read("I1"))
	d.refused(read("E1"), "Finish I1 first")
	d.refused(job.Happening{Act: job.Turned{Stop: 1}}, "not kept")
	d.refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "as found before")
	d.refused(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}}, "Finish I1 before signing")
	d.refused(job.Happening{Act: job.BarredOver{}}, "come after")
	d.refused(job.Happening{}, "does not say what was done")
	d.refused(job.Happening{Act: job.Undone{Target: "h0"}}, "Something else happened")
}

func TestLooseNutHoldsTheCrank(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	tight := func(v string) measure.Length {
		if v == "E1" {
			return 200
		}
		return nominal(v)
	}
	d.readUntil(t, job.DoAdjust,
		func(v string) (measure.Length, clearance.Feel) { return tight(v), clearance.Drag })
	d.refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "Leave it alone")
	d.do(job.Happening{Act: job.Adjusted{Valve: "E1"}})
	d.refused(job.Happening{Act: job.Turned{Stop: 1}}, "lock nut of E1 is slack")
	d.feel("E1", 300, clearance.Drag)
	d.refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "Lock it, then check again")
	d.do(job.Happening{Act: job.Locked{Valve: "E1"}})
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "E1", Stop: 0}, d.job.Next(),
		"locking moves the gap, so it is read again")
	d.feel("E1", 260, clearance.Drag)
	d.do(job.Happening{Act: job.Kept{Valve: "E1"}})
	assert.Equal(t, job.DoAdjust, d.job.Next().Action, "the nut moved it out: set it again")
	d.refused(job.Happening{Act: job.LeftAsIs{Valve: "E1"}}, "Say why")
	d.do(job.Happening{Act: job.LeftAsIs{Valve: "E1", Reason: "screw seized"}})
	e1, _ := d.job.Valve("E1")
	assert.Equal(t, "screw seized", e1.LeaveReason)
	assert.Equal(t, job.Verify, d.job.Phase())
	_, actions := d.work(nominal)
	assert.Equal(t, 7, actions[job.DoKeep], "a valve left as it is is not checked")
}

func TestChangingTheWayKeepsReadings(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	for _, v := range []string{"E1", "I1"} {
		d.feel(v, nominal(v), clearance.Drag)
		d.do(job.Happening{Act: job.Kept{Valve: v}})
	}
	d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder,
		Order: sequence.Numerical}}})
	done, total := d.job.Progress()
	assert.Equal(t, [2]int{2, 8}, [2]int{done, total})
	assert.Equal(t, 0, d.job.Stop, "the crank stands where it stood")
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 1, Turn: 540 * measure.Degree}, d.job.Next())
	d.refused(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: "by_guess"}}}, "No school")
}

// 0.18 free and 0.30 won't go do not settle 0.20–0.24, and no other leaf is owned: the valve is set by a leaf
// or left, not read for ever.
func TestUndecidedWithoutALeafIsSet(t *testing.T) {
	s := setup()
	s.Owned = gauge.Set{{ID: gauge.ID{Marked: 180 * um}}, {ID: gauge.ID{Marked: 300 * um}}}
	d := start(t, s)
	d.begin(sequence.RockingPairs)
	d.readUntil(t, job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		if v != "I1" {
			return nominal(v), clearance.Drag
		}
		state, _ := d.job.Valve(v)
		if len(state.Round) == 0 {
			return 180, clearance.Free
		}
		return 300, clearance.WontGo
	})
	assert.Equal(t, "I1", d.job.Next().Valve)
	i1, _ := d.job.Valve("I1")
	assert.Equal(t, clearance.Undecided, i1.AsFound.Judgement.Verdict)
}

// What was kept though another leaf would have decided it is read with that leaf, not set.
func TestKeptUndecidedIsReadOn(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.OneCylinder)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.feel("I1", 200, clearance.Free)
	d.do(job.Happening{Act: job.Kept{Valve: "I1"}})
	i1, _ := d.job.Valve("I1")
	require.Equal(t, clearance.Undecided, i1.AsFound.Judgement.Verdict)
	d.work(nominal)
	i1, _ = d.job.Valve("I1")
	assert.Zero(t, i1.Adjustments)
	assert.Equal(t, clearance.In, i1.Last.Judgement.Verdict)
}

func TestHydraulicGearIsRefused(t *testing.T) {
	s := setup()
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Hydraulic}
	_, err := job.New(s)
	assert.ErrorContains(t, err, "zero clearance")
}

// Whatever happens, the state computed step by step is the state replayed from the list, and taking the last
// back restores what was before.
func TestReplayAndUndoAgree(t *testing.T) {
	t.Parallel()
	rapid.Check(t, func(t *rapid.T) {
		d := start(t, setup())
		d.begin(sequence.RockingPairs)
		for range rapid.IntRange(1, 60).Draw(t, "steps") {
			before := summary(d.job)
			h := job.Happening{Act: anyAct(t, d.job.CanUndo())}
			taken := d.try(h) == nil
			replayed, err := job.Replay(setup(), d.list)
			require.NoError(t, err)
			require.Equal(t, summary(d.job), summary(replayed))
			if !taken {
				require.Equal(t, before, summary(d.job))
				continue
			}
			if _, undone := h.Act.(job.Undone); !undone {
				undone, err := replayed.Take(job.Happening{ID: "undo",
					Act: job.Undone{Target: replayed.CanUndo()}})
				require.NoError(t, err)
				require.Equal(t, before, summary(undone))
			}
		}
	})
}

func summary(j *job.Job) (said string) {
	next := j.Next()
	if next.Shim != nil {
		defer func(step job.ShimStep) { said += fmt.Sprint(" ", step) }(*next.Shim)
		next.Shim = nil
	}
	s := fmt.Sprintf("%v %v %v %v %v %v", j.Phase(), next, j.Crank, j.Stop, j.Way.School, j.CanUndo())
	for _, v := range j.Valves {
		s += fmt.Sprintf(" | %s %d %q %v %v %q %v", v.Name, len(v.Round), v.Stage, v.Adjustments, v.Verified,
			v.LeaveReason, v.Last != nil)
	}
	return s
}

// anyAct is an act of any kind that may or may not make sense where it stands.
func anyAct(t *rapid.T, target string) job.Act {
	valve := rapid.SampledFrom([]string{"E1", "I1", "E3", "I3"}).Draw(t, "valve")
	leaf := measure.Length(rapid.SampledFrom([]int{200, 220, 250, 300}).Draw(t, "leaf"))
	feel := rapid.SampledFrom([]clearance.Feel{clearance.Drag, clearance.Free, clearance.WontGo}).Draw(t,
		"feel")
	shim := measure.Length(rapid.IntRange(0, 2).Draw(t, "shim")) * 1000 * um
	return rapid.SampledFrom([]job.Act{
		job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder}},
		job.TemperatureNoted{EngineC: 20, AmbientC: 20},
		job.Prepared{EngineC: 20, AmbientC: 20, Reason: "r"},
		job.Turned{Stop: rapid.IntRange(-1, 4).Draw(t, "stop")},
		job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 2}}},
		job.Doubted{},
		job.Picked{Valve: valve},
		job.ReadingTaken{Valve: valve, Leaves: gauge.Straight(leaf * um), Feel: feel},
		job.DialRead{Valve: valve, Gap: 200 * um},
		job.Withdrawn{Valve: valve},
		job.Sized{Valve: valve, Shim: shim},
		job.Kept{Valve: valve},
		job.Adjusted{Valve: valve, Shim: shim,
			From: rapid.SampledFrom([]string{"", "I1", "E3"}).Draw(t, "from")},
		job.Locked{Valve: valve},
		job.LeftAsIs{Valve: valve, Reason: "r"},
		job.BarredOver{},
		job.Undone{Target: target},
		job.Signed{By: "b", ToolsOut: true},
		job.WentHot{},
	}).Draw(t, "act")
}
