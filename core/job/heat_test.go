package job_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

var (
	noon = jobtest.Noon
	at   = jobtest.At
)

func hotJob(t *testing.T) *jobtest.Driver {
	s := jobtest.Setup()
	s.Card = jobtest.Card(clearance.Hot, 220, 300)
	d := jobtest.Start(t, s)
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	return d
}

func TestGatesAndTheirOverride(t *testing.T) {
	d := hotJob(t)
	d.Refused(job.Happening{At: noon, Act: job.Prepared{EngineC: 25.0, AmbientC: 20.0}}, "good from 60 °C")
	d.Do(job.Happening{At: noon,
		Act: job.Prepared{EngineC: 25.0, AmbientC: 20.0, Reason: "engine cannot be run"}})
	assert.Equal(t, "engine cannot be run", d.Job.Override)
	_, ok := d.Job.HotUntil()
	assert.False(t, ok)

	cold := jobtest.Setup()
	cold.Card.StoneCold = true
	d = jobtest.Start(t, cold)
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	d.Refused(job.Happening{At: noon, Act: job.Prepared{EngineC: 30.0, AmbientC: 20.0}},
		"stone cold is within 5 °C")
	d.Refused(job.Happening{At: noon, Act: job.Prepared{EngineC: 45.0, AmbientC: 43.0}}, "good up to 38 °C")
	d.Do(job.Happening{At: noon, Act: job.Prepared{EngineC: 25.0, AmbientC: 20.0, Reason: "not needed"}})
	assert.Empty(t, d.Job.Override, "nothing was overridden")
	// a clock put right blocks nothing
	d.Do(job.Happening{At: noon.Add(-time.Hour), Act: job.TemperatureNoted{EngineC: 24.0, AmbientC: 20.0}})
	d.Refused(job.Happening{At: noon, Act: job.TemperatureNoted{EngineC: 500.0, AmbientC: 20.0}},
		"not a temperature")
}

// Halving of the difference every ten minutes: 100 to 60 in 20, so 38 is log₂(40/18)·10 minutes on. By hand.
func TestCoolingForecast(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	for i, c := range []float64{90, 100, 60} { // heat soak first: the rise is forgotten
		d.Do(job.Happening{At: at(float64(i) * 10), Act: job.TemperatureNoted{EngineC: c, AmbientC: 20.0}})
	}
	cooling, since, ok := d.Job.Cooling()
	require.True(t, ok)
	assert.True(t, cooling.Reachable)
	assert.Equal(t, at(10), since)
	assert.InDelta(t, 11.52, cooling.Minutes, 0.005)
}

// A hot pass holds for ten minutes (common practice): a later reading is stale, the engine is warmed again
// and the valve offered again.
func TestStaleReadingsAreOfferedAgain(t *testing.T) {
	d := hotJob(t)
	d.Do(job.Happening{At: noon, Act: job.Prepared{EngineC: 80.0, AmbientC: 20.0}})
	until, ok := d.Job.HotUntil()
	require.True(t, ok)
	assert.Equal(t, at(10), until)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	read := func(valve string, leaf measure.Length, minute float64) {
		d.Do(job.Happening{At: at(minute),
			Act: job.ReadingTaken{Valve: valve, Leaves: gauge.Straight(leaf * um), Feel: clearance.Drag}})
		d.Do(job.Happening{At: at(minute), Act: job.Kept{Valve: valve}})
	}
	read("E1", 300, 9)
	read("I1", 220, 11)
	i1, _ := d.Job.Valve("I1")
	assert.True(t, i1.Last.Stale)
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action, "too late: warm it up again")
	d.Do(job.Happening{At: at(30), Act: job.Prepared{EngineC: 82.0, AmbientC: 20.0}})
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 0}, d.Job.Next(),
		"the engine has run: its crank must be found again")
	assert.False(t, d.Job.Crank.Known)
	d.Do(job.Happening{At: at(30), Act: job.Turned{Stop: 0}})
	read("I1", 220, 31)
	i1, _ = d.Job.Valve("I1")
	assert.False(t, i1.Last.Stale)
}

// A hot engine started cold is not finished until its hot pass is signed; what was found and left cold stays.
func TestProvisionalColdStart(t *testing.T) {
	s := jobtest.Setup()
	hot := jobtest.Card(clearance.Hot, 240, 320)
	s.Hot = &hot
	d := jobtest.Start(t, s)
	d.Begin(sequence.RockingPairs)
	nominal := func(intake, exhaust measure.Length) func(string) measure.Length {
		return func(valve string) measure.Length {
			if valve[0] == 'I' {
				return intake
			}
			return exhaust
		}
	}
	d.Work(nominal(220, 300))
	d.Do(job.Happening{At: noon, Act: job.Signed{By: "Tess", ToolsOut: true}})
	assert.Equal(t, job.AwaitHot, d.Job.Phase())
	assert.Equal(t, job.DoGoHot, d.Job.Next().Action)
	d.Refused(job.Happening{Act: job.Turned{Stop: 0}}, "signed")
	d.Do(job.Happening{At: at(60), Act: job.WentHot{}})
	assert.Equal(t, clearance.Hot, d.Job.Card.State)
	assert.Equal(t, "Tess", d.Job.Cold.By)
	e1, _ := d.Job.Valve("E1")
	assert.Nil(t, e1.Last)
	assert.Equal(t, 300*um, *e1.ColdLeft.Judgement.Estimate)
	assert.Equal(t, 320*um, e1.Limits.Nominal)
	assert.False(t, d.Job.Crank.Known, "the engine has run")
	d.Do(job.Happening{At: at(61), Act: job.Prepared{EngineC: 80.0, AmbientC: 20.0}})
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 0}, d.Job.Next())
	d.Do(job.Happening{At: at(61), Act: job.Undone{Target: d.Job.CanUndo()}})
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action, "undo works in the hot pass")
	d.Do(job.Happening{At: at(61), Act: job.Prepared{EngineC: 80.0, AmbientC: 20.0}})
	d.Work(nominal(240, 320))
	d.Do(job.Happening{At: at(65), Act: job.Signed{By: "Tess", ToolsOut: true}})
	assert.Equal(t, job.Done, d.Job.Phase())
	replayed, err := job.Replay(s, d.List)
	require.NoError(t, err)
	assert.Equal(t, job.Done, replayed.Phase())
	s.Hot, s.Card = &s.Card, hot
	_, err = job.New(s)
	assert.ErrorContains(t, err, "provisional start is cold")
}

// A reading is as old as itself: made in time and kept later it is not stale; made before it was sent it
// counts when it was made; and where the client's word for that cannot be right, it counts when it arrived,
// in doubt.
func TestAHotReadingIsTimedByItself(t *testing.T) {
	reading := func(minute, done float64) (*jobtest.Driver, job.Happening) {
		d := hotJob(t)
		d.Do(job.Happening{At: noon, Act: job.Prepared{EngineC: 80.0, AmbientC: 20.0}})
		d.Do(job.Happening{At: at(1), Act: job.Turned{Stop: 0}})
		return d, job.Happening{At: at(minute), DoneAt: at(done),
			Act: job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(300 * um), Feel: clearance.Drag}}
	}
	for name, want := range map[string]struct {
		arrived, done, kept float64
		stale, doubt        bool
	}{
		"kept late":             {2, 2, 12, false, false},
		"sent late":             {25, 3, 25, false, false},
		"done late":             {25, 24, 25, true, false},
		"done before it turned": {25, -30, 25, true, true},
		"done in the future":    {5, 60, 6, false, true},
	} {
		d, h := reading(want.arrived, want.done)
		d.Do(h)
		d.Do(job.Happening{At: at(want.kept), Act: job.Kept{Valve: "E1"}})
		e1, _ := d.Job.Valve("E1")
		assert.Equal(t, want.stale, e1.Last.Stale, name)
		assert.Equal(t, want.doubt, e1.Last.TimeDoubtful, name)
	}
}

// A cold job is not gone on with at 90 °C, and the engine that is that hot has run: its crank must be found
// again.
func TestATemperatureAboveTheGateShutsIt(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Do(job.Happening{Act: job.TemperatureNoted{EngineC: 90.0, AmbientC: 20.0}})
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action)
	assert.Contains(t, d.Job.Closed, "good up to 38 °C")
	d.Refused(job.Happening{Act: job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(300 * um),
		Feel: clearance.Drag}}, "temperature")
	d.Do(job.Happening{Act: job.Prepared{EngineC: 30.0, AmbientC: 20.0}})
	assert.Equal(t, job.Next{Action: job.DoTurn, Stop: 0}, d.Job.Next())
	assert.False(t, d.Job.Crank.Known)
}

// An override holds for its own time: once the gate is passed without one the hot clock runs again, and the
// reason stays on record.
func TestAnOverrideDoesNotSwitchTheClockOffForGood(t *testing.T) {
	d := hotJob(t)
	d.Do(job.Happening{At: noon, Act: job.Prepared{EngineC: 50.0, AmbientC: 20.0, Reason: "gauge is slow"}})
	d.Do(job.Happening{At: at(1), Act: job.Prepared{EngineC: 85.0, AmbientC: 20.0}})
	until, ok := d.Job.HotUntil()
	assert.True(t, ok)
	assert.Equal(t, at(11), until)
	assert.Empty(t, d.Job.Override)
	require.Len(t, d.Job.Overrides, 1)
	assert.Equal(t, "gauge is slow", d.Job.Overrides[0].Reason)
}

// The clock put back in a hot pass: how long ago the engine was shut off is not known, so what is read counts
// as too late.
func TestAClockPutBackMakesHotReadingsStale(t *testing.T) {
	d := hotJob(t)
	d.Do(job.Happening{At: at(60), Act: job.Prepared{EngineC: 80.0, AmbientC: 20.0}})
	d.Do(job.Happening{At: at(61), Act: job.Turned{Stop: 0}})
	d.Do(job.Happening{At: at(12),
		Act: job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(300 * um), Feel: clearance.Drag}})
	d.Do(job.Happening{At: at(12), Act: job.Kept{Valve: "E1"}})
	e1, _ := d.Job.Valve("E1")
	assert.True(t, e1.Last.Stale)
}
