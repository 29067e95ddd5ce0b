package job_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func card(state clearance.State, intake, exhaust measure.Length) clearance.Card {
	stated := func(nominal measure.Length) clearance.Clearance {
		nominal, tolerance := nominal*um, 20*um
		return clearance.Clearance{Nominal: clearance.Figure{Metric: &nominal}, Tolerance: clearance.Figure{Metric: &tolerance}}
	}
	return clearance.Card{Source: "test card", State: state, Intake: stated(intake), Exhaust: stated(exhaust)}
}

var noon = time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)

func at(minute float64) time.Time { return noon.Add(time.Duration(minute * float64(time.Minute))) }

func hotJob(t *testing.T) *driver {
	s := setup()
	s.Card = card(clearance.Hot, 220, 300)
	d := start(t, s)
	d.do(job.Happening{Kind: job.WayChosen, Way: sequence.Way{School: sequence.RockingPairs}})
	return d
}

func TestGatesAndTheirOverride(t *testing.T) {
	d := hotJob(t)
	d.refused(job.Happening{Kind: job.Prepared, At: noon, EngineC: 25, AmbientC: 20}, "good from 60 °C")
	d.do(job.Happening{Kind: job.Prepared, At: noon, EngineC: 25, AmbientC: 20, Reason: "engine cannot be run"})
	assert.Equal(t, "engine cannot be run", d.job.Override)
	_, ok := d.job.HotUntil()
	assert.False(t, ok)

	cold := setup()
	cold.Card.StoneCold = true
	d = start(t, cold)
	d.do(job.Happening{Kind: job.WayChosen, Way: sequence.Way{School: sequence.RockingPairs}})
	d.refused(job.Happening{Kind: job.Prepared, At: noon, EngineC: 30, AmbientC: 20}, "stone cold is within 5 °C")
	d.refused(job.Happening{Kind: job.Prepared, At: noon, EngineC: 45, AmbientC: 43}, "good up to 38 °C")
	d.do(job.Happening{Kind: job.Prepared, At: noon, EngineC: 25, AmbientC: 20, Reason: "not needed"})
	assert.Empty(t, d.job.Override, "nothing was overridden")
	d.refused(job.Happening{Kind: job.Thermal, At: noon.Add(-time.Hour), EngineC: 24, AmbientC: 20}, "older than the one before")
	d.refused(job.Happening{Kind: job.Thermal, At: noon, EngineC: 500, AmbientC: 20}, "not a temperature")
}

// Halving of the difference every ten minutes: 100 to 60 in 20, so 38 is log₂(40/18)·10 minutes on. By hand.
func TestCoolingForecast(t *testing.T) {
	d := start(t, setup())
	d.do(job.Happening{Kind: job.WayChosen, Way: sequence.Way{School: sequence.RockingPairs}})
	for i, c := range []float64{90, 100, 60} { // heat soak first: the rise is forgotten
		d.do(job.Happening{Kind: job.Thermal, At: at(float64(i) * 10), EngineC: c, AmbientC: 20})
	}
	cooling, since, ok := d.job.Cooling()
	require.True(t, ok)
	assert.True(t, cooling.Reachable)
	assert.Equal(t, at(10), since)
	assert.InDelta(t, 11.52, cooling.Minutes, 0.005)
}

// A hot pass holds for ten minutes (common practice): a later reading is stale, the engine is warmed again and the valve offered again.
func TestStaleReadingsAreOfferedAgain(t *testing.T) {
	d := hotJob(t)
	d.do(job.Happening{Kind: job.Prepared, At: noon, EngineC: 80, AmbientC: 20})
	until, ok := d.job.HotUntil()
	require.True(t, ok)
	assert.Equal(t, at(10), until)
	d.do(job.Happening{Kind: job.Turned, Stop: 0})
	read := func(valve string, leaf measure.Length, minute float64) {
		d.do(job.Happening{Kind: job.ReadingHad, At: at(minute), Valve: valve, Leaves: []measure.Length{leaf * um}, Feel: clearance.Drag})
		d.do(job.Happening{Kind: job.Kept, At: at(minute), Valve: valve})
	}
	read("E1", 300, 9)
	read("I1", 220, 11)
	i1, _ := d.job.Valve("I1")
	assert.True(t, i1.Last.Stale)
	assert.Equal(t, job.DoPrepare, d.job.Next().Action, "too late: warm it up again")
	d.do(job.Happening{Kind: job.Prepared, At: at(30), EngineC: 82, AmbientC: 20})
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "I1", Stop: 0}, d.job.Next())
	read("I1", 220, 31)
	i1, _ = d.job.Valve("I1")
	assert.False(t, i1.Last.Stale)
}

// A hot engine started cold is not finished until its hot pass is signed; what was found and left cold stays.
func TestProvisionalColdStart(t *testing.T) {
	s := setup()
	hot := card(clearance.Hot, 240, 320)
	s.Hot = &hot
	d := start(t, s)
	d.begin(sequence.RockingPairs)
	nominal := func(intake, exhaust measure.Length) func(string) measure.Length {
		return func(valve string) measure.Length {
			if valve[0] == 'I' {
				return intake
			}
			return exhaust
		}
	}
	d.work(nominal(220, 300))
	d.do(job.Happening{Kind: job.Signed, At: noon, By: "Tess", ToolsOut: true})
	assert.Equal(t, job.AwaitHot, d.job.Phase())
	assert.Equal(t, job.DoGoHot, d.job.Next().Action)
	d.refused(job.Happening{Kind: job.Turned, Stop: 0}, "signed")
	d.do(job.Happening{Kind: job.WentHot, At: at(60)})
	assert.Equal(t, clearance.Hot, d.job.Card.State)
	assert.Equal(t, "Tess", d.job.Cold.By)
	e1, _ := d.job.Valve("E1")
	assert.Nil(t, e1.Last)
	assert.Equal(t, 300*um, *e1.ColdLeft.Judgement.Estimate)
	assert.Equal(t, 320*um, e1.Limits.Nominal)
	d.do(job.Happening{Kind: job.Prepared, At: at(61), EngineC: 80, AmbientC: 20})
	d.work(nominal(240, 320))
	d.do(job.Happening{Kind: job.Signed, At: at(65), By: "Tess", ToolsOut: true})
	assert.Equal(t, job.Done, d.job.Phase())
	replayed, err := job.Replay(s, d.list)
	require.NoError(t, err)
	assert.Equal(t, job.Done, replayed.Phase())
	s.Hot, s.Card = &s.Card, hot
	_, err = job.New(s)
	assert.ErrorContains(t, err, "provisional start is cold")
}
