package job_test

import (
	"errors"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func coded(t *testing.T, err error, code string) {
	t.Helper()
	var r *job.Refusal
	require.True(t, errors.As(err, &r), "%v", err)
	assert.Equal(t, code, r.Code, r.Message)
}

// One tap says that the crank may have been turned: nothing is read before it is found again, and a reading
// not kept does not count.
func TestACrankInDoubtIsFoundAgain(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.Doubted{}}, "Choose the sequence")
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 1}})
	d.Feel("E3", 300, clearance.Drag)
	d.Do(job.Happening{Act: job.Doubted{}})
	e3, _ := d.Job.Valve("E3")
	assert.Empty(t, e3.Round)
	d.Refused(job.Happening{Act: job.ReadingTaken{Valve: "E3", Leaves: gauge.Straight(300 * um),
		Feel: clearance.Drag}}, "Find the first stop")
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 1}, d.Job.Next(), "back to the valve in hand")
	d.Do(job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 2}}}})
	assert.Equal(t, 1, d.Job.Stop)
}

// After six hours without an entry the place is to be confirmed by a sign of cam speed: a bare crank mark
// does not do (common practice).
func TestAfterANightThePlaceIsConfirmed(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{At: noon, Act: job.Turned{Stop: 0}})
	assert.True(t, d.Job.AsOf(noon.Add(6*time.Hour)).Known())
	morning := noon.Add(6*time.Hour + time.Second)
	there := d.Job.AsOf(morning)
	assert.False(t, there.Known())
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 0, Confirm: true}, there.Next())
	since, ok := there.ToConfirm()
	assert.True(t, ok)
	assert.Equal(t, noon, since)
	read := job.Happening{At: morning,
		Act: job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(300 * um), Feel: clearance.Drag}}
	d.Refused(read, "Confirm where the crank stands")
	assert.True(t, d.Job.Known(), "a refusal changes nothing")
	d.Refused(job.Happening{At: morning, Act: job.Located{Seen: []sequence.Sighting{{What: sequence.Mark}}}},
		"2 places")
	d.Do(job.Happening{At: morning, Act: job.TemperatureNoted{EngineC: 20.0, AmbientC: 20.0}})
	assert.False(t, d.Job.Known(), "another entry does not confirm it")
	d.Do(job.Happening{At: morning,
		Act: job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 4}}}})
	d.Do(read)
}

// A stale screen must not turn a crank that somebody else has moved, nor read a valve at a place where it
// stands no more.
func TestAStaleScreen(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	old := d.List[len(d.List)-1].ID
	taken := job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(300 * um), Feel: clearance.Drag}
	reading := job.Happening{Since: old, Act: taken}
	d.Do(job.Happening{Since: old, Act: job.Turned{Stop: 1}})
	coded(t, d.Try(job.Happening{Since: old, Act: job.Turned{Stop: 1}}), job.CrankMoved)
	coded(t, d.Try(job.Happening{Since: "nobody", Act: job.Turned{Stop: 1}}), job.CrankMoved)
	coded(t, d.Try(reading), job.CrankMoved)

	taken.MadeThere = true // read at stop 0, and told so
	reading.Act = taken
	d.Do(reading)
	e1, _ := d.Job.Valve("E1")
	assert.Len(t, e1.Round, 1)
	assert.Equal(t, job.Next{Action: job.DoKeep, Valve: "E1", Stop: 1}, d.Job.Next(),
		"it needs no turning back")
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	coded(t, d.Try(reading), job.KeptSince)

	taken.Valve = "E4"
	err := d.Try(job.Happening{Since: old, Act: taken})
	require.ErrorContains(t, err, "not known to be clear")

	target := d.List[len(d.List)-1].ID
	d.Do(job.Happening{Act: job.Undone{Target: target}})
	coded(t, d.Try(reading), job.KeptSince)
}

func itoa(n int) string { return string(rune('0'+n/10)) + string(rune('0'+n%10)) }

// The nut is locked and the crank moved before the valve is read again: the job leads back to its stop, and
// says only what is so.
func TestLockedAndTurnedAwayLeadsBack(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.ReadUntil(job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		return map[bool]measure.Length{true: 250, false: jobtest.Nominal(v)}[v == "E3"], clearance.Drag
	})
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E3"}})
	d.Do(job.Happening{Act: job.Locked{Valve: "E3"}})
	d.Do(job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 1}}}})
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 1, Turn: 540 * measure.Degree}, d.Job.Next(),
		"from 360 on to 180")
	d.Do(job.Happening{Act: job.Picked{Valve: "E4"}}) // free to do something else here
	d.Do(job.Happening{Act: job.Turned{Stop: 1}})
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "E3", Stop: 1}, d.Job.Next())

	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	d.Do(job.Happening{Act: job.Doubted{}})
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 1}, d.Job.Next())
}

// A nut that is slack when the crank is found elsewhere: back to its stop and no other, then it is locked.
func TestASlackNutIsLedBackTo(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.ReadUntil(job.DoAdjust, func(v string) (measure.Length, clearance.Feel) {
		return map[bool]measure.Length{true: 250, false: jobtest.Nominal(v)}[v == "E3"], clearance.Drag
	})
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E3"}})
	d.Refused(job.Happening{Act: job.Turned{Stop: 2}}, "slack")
	d.Do(job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 1}}}})
	d.Refused(job.Happening{Act: job.Turned{Stop: 3}}, "slack")
	assert.Equal(t, 1, d.Job.Next().Stop)
	d.Do(job.Happening{Act: job.Turned{Stop: 1}})
	assert.Equal(t, job.DoLock, d.Job.Next().Action)
}

// A maker's printed order that is accepted is workable to its end, with its caution: at its own stops its
// valves are worked on though the geometry would not set them there.
func TestTheMakersOrderIsWorkable(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.OwnSequence = []engine.OwnStop{
		{Crank: 115 * measure.Degree, Set: []string{"I1", "E1", "I2", "E3"}}, {Crank: 475 * measure.Degree,
			Set: []string{"I3", "I4", "E2", "E4"}}}
	d := jobtest.Start(t, s)
	d.Begin(sequence.Own)
	require.NotEmpty(t, d.Job.Plan.Cautions)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	e1, _ := d.Job.Valve("E1")
	assert.True(t, d.Job.ByMaker(e1), "E1 opens at 128: 13° on, where 20° are required")
	assert.Contains(t, d.Job.Caution(e1), "E1 stands only 13° from its opening or closing here")
	i2, _ := d.Job.Valve("I2")
	assert.Empty(t, d.Job.Caution(i2))
	_, actions := d.Work(jobtest.Nominal)
	assert.Equal(t, job.Sign, d.Job.Phase())
	assert.Equal(t, 8, actions[job.DoKeep])
	i4, _ := d.Job.Valve("I4")
	d.Do(job.Happening{Act: job.Located{Seen: []sequence.Sighting{{What: sequence.FullLift, Valve: "I4"}}}})
	assert.False(t, d.Job.Settable(i4), "only at its own stop")
}

// What would be signed over: a reading that is not kept, a valve that was moved and not read again, a check
// made before the two full turns.
func TestNothingIsSignedOver(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Work(jobtest.Nominal)
	d.Do(job.Happening{Act: job.Picked{Valve: "E2"}}) // a doubtful valve is read again at the end
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "E2", Stop: 3}, d.Job.Next())
	d.Feel("E2", 100, clearance.WontGo)
	d.Refused(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}},
		"Finish E2 before signing: its reading is not kept")
	assert.Equal(t, job.DoKeep, d.Job.Next().Action)
	d.Do(job.Happening{Act: job.Kept{Valve: "E2"}})
	assert.Equal(t, job.DoAdjust, d.Job.Next().Action)
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E2"}})
	d.Refused(job.Happening{Act: job.LeftAsIs{Valve: "E2", Reason: "lunch"}}, "nut of E2 is slack")
	d.Do(job.Happening{Act: job.Locked{Valve: "E2"}})
	d.Refused(job.Happening{Act: job.LeftAsIs{Valve: "E2", Reason: "lunch"}}, "set and not read since")
	d.Feel("E2", 300, clearance.Drag)
	d.Do(job.Happening{Act: job.Kept{Valve: "E2"}})
	d.Feel("E2", 300, clearance.Drag)
	d.Refused(job.Happening{Act: job.BarredOver{}}, "Finish E2 before the two full turns")
	d.Do(job.Happening{Act: job.Withdrawn{Valve: "E2", Index: 0}})
	d.Do(job.Happening{Act: job.BarredOver{}})
	e2, _ := d.Job.Valve("E2")
	assert.False(t, e2.Verified)
}

// As found stays as found: a valve that is read again in the check pass does not change it, though another
// was set once more meanwhile.
func TestAsFoundStaysThroughTheCheckPass(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	out := func(v string) measure.Length {
		return map[bool]measure.Length{true: 250,
			false: jobtest.Nominal(v)}[v == "E3"]
	}
	d.ReadUntil(job.DoAdjust,
		func(v string) (measure.Length, clearance.Feel) { return out(v), clearance.Drag })
	setE3 := func() {
		d.Do(job.Happening{Act: job.Adjusted{Valve: "E3"}})
		d.Do(job.Happening{Act: job.Locked{Valve: "E3"}})
		d.Feel("E3", 300, clearance.Drag)
		d.Do(job.Happening{Act: job.Kept{Valve: "E3"}})
	}
	setE3()
	d.Do(job.Happening{Act: job.BarredOver{}})
	d.ReadUntil(job.DoAdjust,
		func(v string) (measure.Length, clearance.Feel) { return out(v), clearance.Drag })
	setE3()
	d.Do(job.Happening{Act: job.Picked{Valve: "I3"}})
	d.Feel("I3", 230, clearance.Drag)
	d.Do(job.Happening{Act: job.Kept{Valve: "I3"}})
	i3, _ := d.Job.Valve("I3")
	assert.Equal(t, 220*um, *i3.AsFound.Judgement.Estimate)
	assert.Equal(t, 230*um, *i3.Last.Judgement.Estimate)
}

// What was accepted once replays, whatever today's rules say of it; and a job that was open when the rules
// changed has its crank unknown.
func TestWhatWasAcceptedOnceReplays(t *testing.T) {
	list := []job.Happening{
		{ID: "a", Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}},
		{ID: "b", Act: job.Prepared{EngineC: 90.0, AmbientC: 0.0}}, // far above the gate
		{ID: "c", Act: job.Turned{Stop: 0}},
		// on its lobe
		{ID: "d", Act: job.ReadingTaken{Valve: "E4", Leaves: gauge.Straight(300 * um), Feel: clearance.Drag}},
		{ID: "e", Act: job.Kept{Valve: "E4"}},
	}
	for i := range list {
		list[i].Rules = 1
	}
	j, err := job.Replay(jobtest.Setup(), list)
	require.NoError(t, err)
	e4, _ := j.Valve("E4")
	assert.NotNil(t, e4.Last)
	assert.False(t, j.Crank.Known)
	assert.Equal(t, job.DoTurn, j.Next().Action)
	j, err = j.Take(job.Happening{ID: "f", Act: job.Turned{Stop: 0}})
	require.NoError(t, err)
	assert.True(t, j.Crank.Known)
	j, err = j.Take(job.Happening{ID: "g", Act: job.Undone{Target: "f"}})
	require.NoError(t, err)
	assert.False(t, j.Crank.Known, "back under the old rules it is unknown again")

	list[3].Act = job.Picked{Valve: "E9"}
	_, err = job.Replay(jobtest.Setup(), list)
	assert.ErrorContains(t, err, "happening d")
}

// A stored list that no job could have taken still replays without a panic, or says what does not fit.
func TestNonsenseReplaysWithoutPanic(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := jobtest.Setup()
		if rapid.Bool().Draw(t, "shims") {
			s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
		}
		hot := jobtest.Card(clearance.Hot, 240, 320)
		if rapid.Bool().Draw(t, "provisional") {
			s.Hot = &hot
		}
		list := []job.Happening{{ID: "way",
			Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}}}
		for i := range rapid.IntRange(1, 40).Draw(t, "n") {
			list = append(list, job.Happening{ID: "n" + itoa(i), Rules: rapid.IntRange(0, 2).Draw(t, "rules"),
				Act: anyAct(t, "n"+itoa(i-1))})
		}
		j, err := job.Replay(s, list)
		if err == nil {
			j.Next()
			j.Progress()
			j.Here()
			j.ChooseShims(nil, nil, adjust.FewestBought)
		}
	})
}
