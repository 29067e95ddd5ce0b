package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/record"
	"metronix/core/sequence"
)

// Play felt by hand orders the work at a stop, none first, and does nothing else: the walk, the scope and
// every verdict are what they are without it (common practice).
func TestPlayByHandOrdersTheWork(t *testing.T) {
	d := goingRound(t, jobtest.Setup())
	here := d.Job.Here()
	last := here[len(here)-1]
	d.Do(job.Happening{Act: job.PlayFelt{Valve: here[0], Play: job.SomePlay}})
	assert.Equal(t, here[0], d.Job.Next().Valve)
	d.Do(job.Happening{Act: job.PlayFelt{Valve: last, Play: job.NoPlay}})
	assert.Equal(t, last, d.Job.Next().Valve, "none first")
	assert.Equal(t, last+" had no play by hand, tight or held open: look there first.", d.Job.Triage())
	d.Refused(job.Happening{Act: job.PlayFelt{Valve: last, Play: "plenty"}}, "is no play")
	d.Refused(job.Happening{Act: job.PlayFelt{Valve: "E4", Play: job.NoPlay}}, "E4")
	v, _ := d.Job.Valve(last)
	nominal := v.Limits.Nominal
	d.Do(sure(last, nominal/1000, clearance.Drag))
	v, _ = d.Job.Valve(last)
	assert.Equal(t, clearance.In, v.Last.Judgement.Verdict, "a leaf judges, a hand does not")
	assert.Empty(t, d.Job.Triage(), "it was looked at")
	d.Refused(job.Happening{Act: job.PlayFelt{Valve: last, Play: job.NoPlay}}, "a leaf tells more than a hand")
	assert.Contains(t, record.Of(d.Job).Done(v), "no play by hand")
	d.Do(job.Happening{Act: job.PlayFelt{Valve: here[0], Play: job.NotFelt}})

	s := jobtest.Setup()
	part := jobtest.Start(t, s)
	part.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs},
		Round: job.Round{Going: job.SetAsYouGo, Scope: []string{"E1", "I1"}}}})
	part.Do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	part.Do(job.Happening{Act: job.Turned{Stop: 0}})
	part.Do(job.Happening{Act: job.PlayFelt{Valve: "E1", Play: job.MuchPlay}})
	assert.Contains(t, part.Job.Triage(), "The valves that this job leaves out may stand like them.")
	assert.Equal(t, []string{"E1", "I1"}, part.Job.Scope, "the scope stays")
}
