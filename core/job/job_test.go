package job_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

const um = measure.Micrometre

// feelAt is how a leaf feels at a minute.
func feelAt(d *jobtest.Driver, valve string, leaf measure.Length, feel clearance.Feel, minute float64) {
	d.Do(job.Happening{At: at(minute),
		Act: job.ReadingTaken{Valve: valve, Leaves: gauge.Straight(leaf * um), Feel: feel}})
}

func TestWholeJobWithTwoValvesOut(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	assert.Equal(t, job.DoChooseWay, d.Job.Next().Action)
	d.Begin(sequence.RockingPairs)
	gaps := map[string]measure.Length{"E3": 250, "I4": 300}
	turns, actions := d.Work(func(v string) measure.Length {
		state, _ := d.Job.Valve(v)
		if g, ok := gaps[v]; ok && state.Adjustments == 0 {
			return g
		}
		return jobtest.Nominal(v)
	})
	assert.Equal(t, job.Sign, d.Job.Phase())
	assert.True(t, d.Job.MayTake(), "one may be taken up again")
	assert.Equal(t, 2, actions[job.DoAdjust])
	assert.Equal(t, 2, actions[job.DoLock])
	assert.Zero(t, actions[job.DoBarOver], "going round once more gives each its two turns")
	assert.Equal(t, 8+2+8, actions[job.DoKeep], "as found, after adjusting, check pass")
	assert.Equal(t, (540+360+180+720)*measure.Degree, turns,
		"once round, on to 3 and 4, then two turns from 4, whose nut was tight last")

	e3, _ := d.Job.Valve("E3")
	assert.Equal(t, clearance.Tight, e3.AsFound.Judgement.Verdict)
	assert.Equal(t, 250*um, *e3.AsFound.Judgement.Estimate)
	assert.Equal(t, clearance.In, e3.Last.Judgement.Verdict)
	assert.True(t, e3.Verified)
	e1, _ := d.Job.Valve("E1")
	assert.Zero(t, e1.Adjustments, "a good valve is left alone")

	d.Refused(job.Happening{Act: job.Signed{By: "Tess"}}, "socket off the crank")
	d.Refused(job.Happening{Act: job.Signed{By: " ", ToolsOut: true}}, "who signs")
	d.Do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}})
	assert.Equal(t, job.Done, d.Job.Phase())
	assert.Empty(t, d.Job.CanUndo())
	d.Refused(job.Happening{Act: job.Undone{Target: d.List[len(d.List)-1].ID}}, "signed")
	d.Refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "signed")
}

func TestEveryValveInNeedsNoAdjusting(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.SumRule)
	_, actions := d.Work(jobtest.Nominal)
	assert.Equal(t, job.Sign, d.Job.Phase())
	assert.Zero(t, actions[job.DoAdjust]+actions[job.DoBarOver])
}

// What hurts a mechanic is refused in words.
func TestRefusalsOnTheBench(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.Turned{Stop: 0}}, "Choose the sequence")
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	d.Refused(job.Happening{Act: job.Turned{Stop: 0}}, "temperature")
	d.Refused(job.Happening{Act: job.Prepared{EngineC: 55.0, AmbientC: 18.0}},
		"cold figures, good up to 38 °C")
	d.Refused(job.Happening{Act: job.Prepared{EngineC: 900.0, AmbientC: 18.0}}, "not a temperature")
	d.Do(job.Happening{Act: job.Prepared{EngineC: 38.0, AmbientC: 18.0}})
	read := func(valve string) job.Happening {
		return job.Happening{Act: job.ReadingTaken{Valve: valve, Leaves: gauge.Straight(220 * um),
			Feel: clearance.Drag}}
	}
	d.Refused(read("I1"), "first stop")
	d.Refused(job.Happening{Act: job.Turned{Stop: 4}}, "no stop 4")
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(read("E4"), "is open here")
	d.Refused(read("E9"), "no valve")
	d.Refused(job.Happening{Act: job.ReadingTaken{Valve: "I1", Leaves: nil, Feel: clearance.Drag}},
		"0 leaves")
	d.Refused(job.Happening{Act: job.ReadingTaken{Valve: "I1", Leaves: gauge.Straight(-1),
		Feel: clearance.Drag}}, "not the thickness")
	d.Refused(job.Happening{Act: job.ReadingTaken{Valve: "I1", Leaves: gauge.Straight(220 * um),
		Feel: "soft"}}, "no feel")
	d.Refused(job.Happening{Act: job.Kept{Valve: "I1"}}, "no reading")
	d.Do(read("I1"))
	d.Refused(read("E1"), "Finish I1 first")
	d.Refused(job.Happening{Act: job.Turned{Stop: 1}}, "not kept")
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "as found before")
	d.Refused(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}}, "Finish I1 before signing")
	d.Refused(job.Happening{Act: job.BarredOver{}}, "come after")
	d.Refused(job.Happening{}, "does not say what was done")
	d.Refused(job.Happening{Act: job.Undone{Target: "h0"}}, "Something else happened")
}

func TestLooseNutHoldsTheCrank(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	tight := func(v string) measure.Length {
		if v == "E1" {
			return 200
		}
		return jobtest.Nominal(v)
	}
	d.ReadUntil(job.DoAdjust,
		func(v string) (measure.Length, clearance.Feel) { return tight(v), clearance.Drag })
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "Leave it alone")
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1"}})
	d.Refused(job.Happening{Act: job.Turned{Stop: 1}}, "lock nut of E1 is slack")
	d.Feel("E1", 300, clearance.Drag)
	d.Refused(job.Happening{Act: job.Kept{Valve: "E1"}}, "Lock it, then check again")
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "E1", Stop: 0}, d.Job.Next(),
		"locking moves the gap, so it is read again")
	d.Feel("E1", 260, clearance.Drag)
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	assert.Equal(t, job.DoAdjust, d.Job.Next().Action, "the nut moved it out: set it again")
	d.Refused(job.Happening{Act: job.LeftAsIs{Valve: "E1"}}, "Say why")
	d.Do(job.Happening{Act: job.LeftAsIs{Valve: "E1", Reason: "screw seized"}})
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, "screw seized", e1.LeaveReason)
	assert.Equal(t, job.Verify, d.Job.Phase())
	_, actions := d.Work(jobtest.Nominal)
	assert.Equal(t, 7, actions[job.DoKeep], "a valve left as it is is not checked")
}

func TestChangingTheWayKeepsReadings(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	for _, v := range []string{"E1", "I1"} {
		d.Feel(v, jobtest.Nominal(v), clearance.Drag)
		d.Do(job.Happening{Act: job.Kept{Valve: v}})
	}
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder,
		Order: sequence.Numerical}}})
	done, total := d.Job.Progress()
	assert.Equal(t, [2]int{2, 8}, [2]int{done, total})
	assert.Equal(t, 0, d.Job.Stop, "the crank stands where it stood")
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 1, Turn: 540 * measure.Degree}, d.Job.Next())
	d.Refused(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: "by_guess"}}}, "No school")
}

// 0.18 free and 0.30 won't go do not settle 0.20–0.24, and no other leaf is owned: the valve is set by a leaf
// or left, not read for ever.
func TestUndecidedWithoutALeafIsSet(t *testing.T) {
	s := jobtest.Setup()
	s.Owned = gauge.Set{{ID: gauge.ID{Marked: 180 * um}}, {ID: gauge.ID{Marked: 300 * um}}}
	d := jobtest.Start(t, s)
	d.Begin(sequence.RockingPairs)
	d.ReadUntil(job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		if v != "I1" {
			return jobtest.Nominal(v), clearance.Drag
		}
		state, _ := d.Job.Valve(v)
		if len(state.Round) == 0 {
			return 180, clearance.Free
		}
		return 300, clearance.WontGo
	})
	assert.Equal(t, "I1", d.Job.Next().Valve)
	i1, _ := d.Job.Valve("I1")
	assert.Equal(t, clearance.Undecided, i1.AsFound.Judgement.Verdict)
}

// What was kept though another leaf would have decided it is read with that leaf, not set.
func TestKeptUndecidedIsReadOn(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.OneCylinder)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Feel("I1", 200, clearance.Free)
	d.Do(job.Happening{Act: job.Kept{Valve: "I1"}})
	i1, _ := d.Job.Valve("I1")
	require.Equal(t, clearance.Undecided, i1.AsFound.Judgement.Verdict)
	d.Work(jobtest.Nominal)
	i1, _ = d.Job.Valve("I1")
	assert.Zero(t, i1.Adjustments)
	assert.Equal(t, clearance.In, i1.Last.Judgement.Verdict)
}

func TestHydraulicGearIsRefused(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Hydraulic}
	_, err := job.New(s)
	assert.ErrorContains(t, err, "zero clearance")
}

// Whatever happens, the state computed step by step is the state replayed from the list, and taking the last
// back restores what was before.
func TestReplayAndUndoAgree(t *testing.T) {
	t.Parallel()
	rapid.Check(t, func(t *rapid.T) {
		d := jobtest.Start(t, jobtest.Setup())
		d.Begin(sequence.RockingPairs)
		for range rapid.IntRange(1, 60).Draw(t, "steps") {
			before := summary(d.Job)
			h := job.Happening{Act: anyAct(t, d.Job.CanUndo())}
			taken := d.Try(h) == nil
			replayed, err := job.Replay(jobtest.Setup(), d.List)
			require.NoError(t, err)
			require.Equal(t, summary(d.Job), summary(replayed))
			if !taken {
				require.Equal(t, before, summary(d.Job))
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
	s := fmt.Sprintf("%v %v %v %v %v %v", j.Phase(), next, j.Crank.At, j.Stop, j.Way.School, j.CanUndo())
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
