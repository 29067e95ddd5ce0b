package job_test

import (
	"metronix/core/bench"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/sequence"
)

func TestHotFiguresHoldFromWhenTheEngineStopped(t *testing.T) {
	d := start(t, setup())
	d.refused(job.Happening{Act: job.EngineStopped{}}, "Choose the sequence first")

	d = hotJob(t)
	d.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	assert.Equal(t, job.DoPrepare, d.job.Next().Action, "its temperature is still to be taken")
	d.do(job.Happening{At: at(2), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	until, ok := d.job.HotUntil()
	require.True(t, ok)
	assert.Equal(t, at(10), until, "ten minutes from shut-off (common practice), not from the thermometer")
}

// What was found of the crank between the shut-off and the thermometer stands: the engine did not run
// between.
func TestTakingTheTemperatureAfterTheStopLosesNothing(t *testing.T) {
	d := hotJob(t)
	d.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.do(job.Happening{At: at(0.5), Act: job.Located{Seen: []sequence.Sighting{
		{What: sequence.Mark}, {What: sequence.Rocking, Cylinder: 4}}}})
	d.do(job.Happening{At: at(1), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	assert.True(t, d.job.Known())

	// nor does the tick of the warm run, once it was said that the engine is shut off; before, it ran
	for _, said := range []bool{true, false} {
		d = hotJob(t)
		if said {
			d.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
		}
		d.do(job.Happening{At: at(0.5), Act: job.Located{Seen: []sequence.Sighting{
			{What: sequence.Mark}, {What: sequence.Rocking, Cylinder: 4}}}})
		d.do(job.Happening{At: at(0.6), Act: job.TaskMarked{Task: "hot_run"}})
		assert.Equal(t, said, d.job.Known())
	}

	// later it is warm outside and past its ten minutes, or was run again, which is to be said
	d = hotJob(t)
	d.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.do(job.Happening{At: at(0.5), Act: job.Located{Seen: []sequence.Sighting{
		{What: sequence.Mark}, {What: sequence.Rocking, Cylinder: 4}}}})
	d.refused(job.Happening{At: at(11.7), Act: job.Prepared{EngineC: 85, AmbientC: 20}}, "shut off 11 min ago")
	d.do(job.Happening{At: at(60), Act: job.EngineStopped{}})
	d.do(job.Happening{At: at(61), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	assert.False(t, d.job.Known())
	until, _ := d.job.HotUntil()
	assert.Equal(t, at(70), until)

	// a thermometer alone says that it was run at some time before
	d = hotJob(t)
	d.do(job.Happening{At: at(0.5), Act: job.Located{Seen: []sequence.Sighting{
		{What: sequence.Mark}, {What: sequence.Rocking, Cylinder: 4}}}})
	d.do(job.Happening{At: at(1), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	assert.False(t, d.job.Known())
}

// A second warm-up begins the ten minutes anew, and the crank is to be found again; what was read stays.
func TestASecondWarmUp(t *testing.T) {
	d := hotJob(t)
	d.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.do(job.Happening{At: at(1), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	d.do(job.Happening{At: at(2), Act: job.Turned{Stop: 0}})
	assert.Equal(t, at(2), d.job.StopSince)
	d.feel("E1", 300, clearance.Drag)
	d.do(job.Happening{At: at(3), Act: job.Kept{Valve: "E1"}})
	d.do(job.Happening{At: at(30), Act: job.EngineStopped{}})
	until, _ := d.job.HotUntil()
	assert.Equal(t, at(40), until)
	assert.False(t, d.job.Known())
	assert.Equal(t, job.DoPrepare, d.job.Next().Action, "how warm it is now was not said yet")
	e1, _ := d.job.Valve("E1")
	require.NotNil(t, e1.Last)
	assert.False(t, e1.Last.Stale)
}

// The ten minutes of a second warm-up count from its own shut-off, however long the thermometer takes; the
// first one's gate shut for being too late changes nothing of that.
func TestTheSecondWarmUpCountsFromItsOwnStop(t *testing.T) {
	d := hotJob(t)
	d.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.do(job.Happening{At: at(1), Act: job.Prepared{EngineC: 85, AmbientC: 20}})
	d.do(job.Happening{At: at(2), Act: job.Turned{Stop: 0}})
	d.feelAt("E1", 300, clearance.Drag, 11)
	d.do(job.Happening{At: at(11), Act: job.Kept{Valve: "E1"}})
	assert.Equal(t, job.DoPrepare, d.job.Next().Action, "too late: the gate is shut")
	d.do(job.Happening{At: at(25), Act: job.EngineStopped{}})
	d.do(job.Happening{At: at(34), Act: job.Prepared{EngineC: 85, AmbientC: 20}})
	until, ok := d.job.HotUntil()
	require.True(t, ok)
	assert.Equal(t, at(35), until)
	d.do(job.Happening{At: at(34), Act: job.Turned{Stop: 0}})
	d.feelAt("E1", 300, clearance.Drag, 43)
	d.do(job.Happening{At: at(43), Act: job.Kept{Valve: "E1"}})
	e1, _ := d.job.Valve("E1")
	assert.True(t, e1.Last.Stale, "18 minutes after shut-off")
}

// A tap about its heat does not begin the ten minutes anew while they run, and loses the crank.
func TestTheThermometerDoesNotPutTheClockOn(t *testing.T) {
	d := hotJob(t)
	d.do(job.Happening{At: at(0), Act: job.Prepared{EngineC: 85, AmbientC: 20}})
	d.do(job.Happening{At: at(1), Act: job.Turned{Stop: 0}})
	d.do(job.Happening{At: at(9), Act: job.Prepared{EngineC: 82, AmbientC: 20}})
	until, _ := d.job.HotUntil()
	assert.Equal(t, at(10), until)
	assert.False(t, d.job.Known())
}

// A reading that waited to be sent is of the engine as it was: of a cold one after a warm-up, of a hot one
// before.
func TestAReadingCountsOnlyInItsOwnWarmth(t *testing.T) {
	s := setup()
	hot := card(clearance.Hot, 220, 300)
	s.Hot = &hot
	d := start(t, s)
	d.begin(sequence.RockingPairs)
	d.work(nominal)
	since := d.list[len(d.list)-1].ID
	d.do(job.Happening{At: at(0), Act: job.Signed{By: "Tess", ToolsOut: true}})
	d.do(job.Happening{At: at(1), Act: job.WentHot{}})
	d.do(job.Happening{At: at(2), Act: job.EngineStopped{}})
	d.do(job.Happening{At: at(3), Act: job.Prepared{EngineC: 85, AmbientC: 20}})
	late := job.ReadingTaken{
		Valve:     "E1",
		Leaves:    gauge.Straight(300 * um),
		Feel:      clearance.Drag,
		MadeThere: true,
	}
	d.refused(job.Happening{At: at(4), Since: since, Act: late}, "warmer or colder")
}

// Every valve done and the engine run to listen: one that is taken up again is not read warm against cold
// figures.
func TestTheEngineRanAndAValveIsTakenUpAgain(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.work(nominal)
	d.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	assert.Equal(t, job.DoSign, d.job.Next().Action)
	read := job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(300 * um), Feel: clearance.Drag}
	d.refused(job.Happening{At: at(1), Act: read}, "temperature first")
	d.refused(
		job.Happening{At: at(1), Act: job.Adjusted{Valve: "E1", Reason: "to the aim"}},
		"temperature first",
	)
	d.do(job.Happening{At: at(1), Act: job.Picked{Valve: "E1"}})
	assert.Equal(t, job.DoPrepare, d.job.Next().Action)
	d.refused(job.Happening{At: at(2), Act: read}, "temperature first")
	d.do(job.Happening{At: at(200), Act: job.Prepared{EngineC: 20, AmbientC: 18}})
	assert.Equal(t, job.DoTurn, d.job.Next().Action, "its crank is to be found again")
}

func TestAColdJobAfterTheEngineRan(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.do(job.Happening{Act: job.EngineStopped{}})
	assert.Equal(t, job.DoPrepare, d.job.Next().Action)
	assert.Contains(t, d.job.Closed, "The engine ran")
	assert.False(t, d.job.Known())
}

// With every valve done nothing is measured any more: the job is signed, warm or not.
func TestTheEngineRanBeforeSigning(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.work(nominal)
	d.do(job.Happening{Act: job.EngineStopped{}})
	assert.Equal(t, job.DoSign, d.job.Next().Action)
	assert.False(t, d.job.Known())
}

// The mechanic's own word about the nut holds until five pairs have taught it better.
func TestOwnWordAboutTheLockNut(t *testing.T) {
	d := start(t, setup())
	own := -30 * um
	d.refused(job.Happening{Act: job.RoundChosen{Round: job.Round{OwnShift: new(300 * um)}}}, "up to 0.20 mm")
	d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs},
		Round: job.Round{Going: job.SetAsYouGo, OwnShift: &own}}})
	e1, _ := d.job.Valve("E1")
	pre, ok := bench.Advise(d.job, adjust.Shift{}).PreLock(e1)
	require.True(t, ok)
	assert.Equal(t, 330*um, pre, "0.30 and the 0.03 that the nut takes")
	pre, _ = bench.Advise(d.job, adjust.Shift{Enough: true, Count: 5, Median: -10 * um}).PreLock(e1)
	assert.Equal(t, 310*um, pre, "what was learned wins")
	// choosing another sequence leaves it
	d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.TwoStop}}})
	pre, _ = bench.Advise(d.job, adjust.Shift{}).PreLock(e1)
	assert.Equal(t, 330*um, pre)
	d.do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, OwnShift: new(0 * um)}}})
	_, ok = bench.Advise(d.job, adjust.Shift{}).PreLock(e1)
	assert.False(t, ok, "the screw is held still")
}
