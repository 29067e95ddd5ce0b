package record_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/record"
	"metronix/core/sequence"
)

// What was not read, and why, is told as it is: out of this job, slackened and not set, left in the cold
// pass.
func TestWhatTheSheetTells(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	assert.Equal(t, "not taken", record.Of(d.Job).Warmth())
	assert.Equal(t, "not chosen", record.Of(d.Job).Walk())
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs},
		Round: job.Round{Going: job.FreeFirst, Scope: []string{"E1", "I1"}, Check: job.CheckNone,
			KindFirst: job.ExhaustFirst, ToAim: job.AllToAim}}})
	assert.Equal(
		t,
		"Rocking pairs, as the crank turns; slacken all first, no check, all to the aim, exhausts first, "+
			"2 of 8 valves",
		record.Of(d.Job).Walk(),
	)
	d.Do(job.Happening{Act: job.JudgedCold{By: job.ByHand, AmbientC: new(18.0)}})
	assert.Equal(
		t,
		"judged cold: radiator, block and manifold cool to the hand, ambient 18 °C (64.4 °F)",
		record.Of(d.Job).Warmth(),
	)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Do(job.Happening{Act: job.Freed{Valve: "E1"}})
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, "slackened before any was set, nothing was found, not set", record.Of(d.Job).Done(e1))
	e2, _ := d.Job.Valve("E2")
	assert.Equal(t, "not of this job", record.Of(d.Job).Done(e2))
	i1, _ := d.Job.Valve("I1")
	assert.Equal(t, "not read", record.Of(d.Job).Done(i1))
}

// Each pass has its own line: the cold one's override and reasons do not stand in the hot one.
func TestEachPassIsToldApart(t *testing.T) {
	s := jobtest.Setup()
	hot := jobtest.Card(clearance.Hot, 220, 300)
	s.Hot = &hot
	d := jobtest.Start(t, s)
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	d.Do(
		job.Happening{
			At:  jobtest.At(0),
			Act: job.Prepared{EngineC: 45, AmbientC: 20, Reason: "the owner waits"},
		},
	)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Feel("E1", 200, clearance.WontGo)
	d.Do(job.Happening{Act: job.LeftAsIs{Valve: "E1", Reason: "seized"}})
	d.Work(jobtest.Nominal)
	d.Do(job.Happening{At: jobtest.At(30), Act: job.Signed{By: "Tess", ToolsOut: true}})
	d.Do(job.Happening{At: jobtest.At(60), Act: job.WentHot{}})
	d.Do(job.Happening{At: jobtest.At(61), Act: job.EngineStopped{}})
	d.Do(job.Happening{At: jobtest.At(62), Act: job.JudgedHot{How: job.ByNeedle, RanMin: 15}})
	assert.Equal(t, "judged hot: the needle stood in its place, ran 15 min", record.Of(d.Job).Warmth())
	assert.Equal(
		t,
		"engine 45 °C (113 °F), ambient 20 °C (68 °F); passed all the same at 45 °C (113 °F): the owner waits",
		record.Of(d.Job).ColdWarmth(),
	)
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, "left as it was in the cold pass: seized, not read", record.Of(d.Job).Done(e1))
}
