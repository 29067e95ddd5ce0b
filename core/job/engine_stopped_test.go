package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/around"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestHotFiguresHoldFromWhenTheEngineStopped(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.EngineStopped{}}, "Choose the sequence first")

	d = hotJob(t)
	d.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action, "its temperature is still to be taken")
	d.Do(job.Happening{At: at(2), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	until, ok := d.Job.HotUntil()
	require.True(t, ok)
	assert.Equal(t, at(10), until, "ten minutes from shut-off (common practice), not from the thermometer")
}

// What was found of the crank between the shut-off and the thermometer stands: the engine did not run
// between.
func TestTakingTheTemperatureAfterTheStopLosesNothing(t *testing.T) {
	d := hotJob(t)
	d.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: at(0.5), Act: job.Located{Seen: []sequence.Sighting{
		{What: sequence.Mark}, {What: sequence.Rocking, Cylinder: 4}}}})
	d.Do(job.Happening{At: at(1), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	assert.True(t, d.Job.Known())

	// nor does the tick of the warm run, once it was said that the engine is shut off; before, it ran
	for _, said := range []bool{true, false} {
		d = hotJob(t)
		if said {
			d.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
		}
		d.Do(job.Happening{At: at(0.5), Act: job.Located{Seen: []sequence.Sighting{
			{What: sequence.Mark}, {What: sequence.Rocking, Cylinder: 4}}}})
		d.Do(job.Happening{At: at(0.6), Act: job.TaskMarked{Task: "hot_run"}})
		assert.Equal(t, said, d.Job.Known())
	}

	// later it is warm outside and past its ten minutes, or was run again, which is to be said
	d = hotJob(t)
	d.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: at(0.5), Act: job.Located{Seen: []sequence.Sighting{
		{What: sequence.Mark}, {What: sequence.Rocking, Cylinder: 4}}}})
	d.Refused(
		job.Happening{At: at(11.7), Act: job.Prepared{EngineC: 85, AmbientC: 20}},
		"shut off 11 min ago",
	)
	d.Do(job.Happening{At: at(60), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: at(61), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	assert.False(t, d.Job.Known())
	until, _ := d.Job.HotUntil()
	assert.Equal(t, at(70), until)

	// a thermometer alone says that it was run at some time before
	d = hotJob(t)
	d.Do(job.Happening{At: at(0.5), Act: job.Located{Seen: []sequence.Sighting{
		{What: sequence.Mark}, {What: sequence.Rocking, Cylinder: 4}}}})
	d.Do(job.Happening{At: at(1), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	assert.False(t, d.Job.Known())
}

// A second warm-up begins the ten minutes anew, and the crank is to be found again; what was read stays.
func TestASecondWarmUp(t *testing.T) {
	d := hotJob(t)
	d.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: at(1), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	d.Do(job.Happening{At: at(2), Act: job.Turned{Stop: 0}})
	assert.Equal(t, at(2), d.Job.StopSince)
	d.Feel("E1", 300, clearance.Drag)
	d.Do(job.Happening{At: at(3), Act: job.Kept{Valve: "E1"}})
	d.Do(job.Happening{At: at(30), Act: job.EngineStopped{}})
	until, _ := d.Job.HotUntil()
	assert.Equal(t, at(40), until)
	assert.False(t, d.Job.Known())
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action, "how warm it is now was not said yet")
	e1, _ := d.Job.Valve("E1")
	require.NotNil(t, e1.Last)
	assert.False(t, e1.Last.Stale)
}

// The ten minutes of a second warm-up count from its own shut-off, however long the thermometer takes; the
// first one's gate shut for being too late changes nothing of that.
func TestTheSecondWarmUpCountsFromItsOwnStop(t *testing.T) {
	d := hotJob(t)
	d.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: at(1), Act: job.Prepared{EngineC: 85, AmbientC: 20}})
	d.Do(job.Happening{At: at(2), Act: job.Turned{Stop: 0}})
	feelAt(d, "E1", 300, clearance.Drag, 11)
	d.Do(job.Happening{At: at(11), Act: job.Kept{Valve: "E1"}})
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action, "too late: the gate is shut")
	d.Do(job.Happening{At: at(25), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: at(34), Act: job.Prepared{EngineC: 85, AmbientC: 20}})
	until, ok := d.Job.HotUntil()
	require.True(t, ok)
	assert.Equal(t, at(35), until)
	d.Do(job.Happening{At: at(34), Act: job.Turned{Stop: 0}})
	feelAt(d, "E1", 300, clearance.Drag, 43)
	d.Do(job.Happening{At: at(43), Act: job.Kept{Valve: "E1"}})
	e1, _ := d.Job.Valve("E1")
	assert.True(t, e1.Last.Stale, "18 minutes after shut-off")
}

// A tap about its heat does not begin the ten minutes anew while they run, and loses the crank.
func TestTheThermometerDoesNotPutTheClockOn(t *testing.T) {
	d := hotJob(t)
	d.Do(job.Happening{At: at(0), Act: job.Prepared{EngineC: 85, AmbientC: 20}})
	d.Do(job.Happening{At: at(1), Act: job.Turned{Stop: 0}})
	d.Do(job.Happening{At: at(9), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	until, _ := d.Job.HotUntil()
	assert.Equal(t, at(10), until)
	assert.False(t, d.Job.Known())
}

// A reading that waited to be sent is of the engine as it was: of a cold one after a warm-up, of a hot one
// before.
func TestAReadingCountsOnlyInItsOwnWarmth(t *testing.T) {
	s := jobtest.Setup()
	hot := jobtest.Card(clearance.Hot, 220, 300)
	s.Hot = &hot
	d := jobtest.Start(t, s)
	d.Begin(sequence.RockingPairs)
	d.Work(jobtest.Nominal)
	since := d.List[len(d.List)-1].ID
	d.Do(job.Happening{At: at(0), Act: job.Signed{By: "Tess", ToolsOut: true}})
	d.Do(job.Happening{At: at(1), Act: job.WentHot{}})
	d.Do(job.Happening{At: at(2), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: at(3), Act: job.Prepared{EngineC: 85, AmbientC: 20}})
	late := job.ReadingTaken{
		Valve:     "E1",
		Leaves:    gauge.Straight(300 * um),
		Feel:      clearance.Drag,
		MadeThere: true,
	}
	d.Refused(job.Happening{At: at(4), Since: since, Act: late}, "warmer or colder")
}

// Every valve done and the engine run to listen: one that is taken up again is not read warm against cold
// figures.
func TestTheEngineRanAndAValveIsTakenUpAgain(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Work(jobtest.Nominal)
	d.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	assert.Equal(t, job.DoSign, d.Job.Next().Action)
	read := job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(300 * um), Feel: clearance.Drag}
	d.Refused(job.Happening{At: at(1), Act: read}, "temperature first")
	d.Refused(
		job.Happening{At: at(1), Act: job.Adjusted{Valve: "E1", Reason: "to the aim"}},
		"temperature first",
	)
	d.Do(job.Happening{At: at(1), Act: job.Picked{Valve: "E1"}})
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action)
	d.Refused(job.Happening{At: at(2), Act: read}, "temperature first")
	d.Do(job.Happening{At: at(200), Act: job.Prepared{EngineC: 20, AmbientC: 18}})
	assert.Equal(t, job.DoTurn, d.Job.Next().Action, "its crank is to be found again")
}

func TestAColdJobAfterTheEngineRan(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Do(job.Happening{Act: job.EngineStopped{}})
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action)
	assert.Contains(t, d.Job.Closed, "The engine ran")
	assert.False(t, d.Job.Known())
}

// With every valve done nothing is measured any more: the job is signed, warm or not.
func TestTheEngineRanBeforeSigning(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Work(jobtest.Nominal)
	d.Do(job.Happening{Act: job.EngineStopped{}})
	assert.Equal(t, job.DoSign, d.Job.Next().Action)
	assert.False(t, d.Job.Known())
}

// The mechanic's own word about the nut holds until five pairs have taught it better.
func TestOwnWordAboutTheLockNut(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	own := -30 * um
	d.Refused(job.Happening{Act: job.RoundChosen{Round: job.Round{OwnShift: new(300 * um)}}}, "up to 0.20 mm")
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs},
		Round: job.Round{Going: job.SetAsYouGo, OwnShift: &own}}})
	e1, _ := d.Job.Valve("E1")
	pre, ok := bench.Advise(d.Job, adjust.Shift{}).PreLock(e1)
	require.True(t, ok)
	assert.Equal(t, 330*um, pre, "0.30 and the 0.03 that the nut takes")
	pre, _ = bench.Advise(d.Job, adjust.Shift{Enough: true, Count: 5, Median: -10 * um}).PreLock(e1)
	assert.Equal(t, 310*um, pre, "what was learned wins")
	// choosing another sequence leaves it
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.TwoStop}}})
	pre, _ = bench.Advise(d.Job, adjust.Shift{}).PreLock(e1)
	assert.Equal(t, 330*um, pre)
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, OwnShift: new(0 * um)}}})
	_, ok = bench.Advise(d.Job, adjust.Shift{}).PreLock(e1)
	assert.False(t, ok, "the screw is held still")
}

// What was made safe is not any more once the engine ran: its key was in and its battery on (common
// practice). It is asked again before hands come near, once, and the tick on the sheet stands.
func TestARunAsksAgainWhetherItIsSafe(t *testing.T) {
	d := hotJob(t)
	asked := func() bool { return d.Job.MakeSafe(d.Job.Next()) }
	d.Do(job.Happening{At: at(0), Act: job.TaskMarked{Task: around.SafeStep}})
	d.Do(job.Happening{At: at(1), Act: job.EngineStopped{}})
	assert.False(t, asked(), "its temperature is next, and nothing is touched for that")
	d.Do(job.Happening{At: at(2), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	assert.True(t, asked())
	assert.True(t, d.Job.Marked(around.SafeStep).Marked)
	d.Do(job.Happening{At: at(2.2), Act: job.TaskMarked{Task: around.SafeStep}})
	assert.False(t, asked())

	// run warm again, with valves touched since
	d.Do(job.Happening{At: at(3), Act: job.Turned{Stop: 0}})
	d.Do(job.Happening{At: at(4), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: at(5), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	assert.True(t, asked())
}

// Any valve may be taken up while the engine is worked on and once every one is done, and none before or
// after.
func TestWhenAnyValveMayBeTaken(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	assert.False(t, d.Job.MayTake())
	d.Refused(job.Happening{Act: job.Picked{Valve: "I1"}}, "Choose the sequence first")
	d = hotJob(t)
	assert.False(t, d.Job.MayTake())
	d.Do(job.Happening{At: at(2), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	assert.True(t, d.Job.MayTake())
}
