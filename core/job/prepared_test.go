package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestPassingTheGate(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Refused(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}}, "Choose the sequence first")
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	d.Refused(job.Happening{Act: job.Prepared{EngineC: 60, AmbientC: 18}}, "Let it cool")
	d.Refused(job.Happening{Act: job.Prepared{EngineC: 60, AmbientC: 18, Reason: "  "}}, "Let it cool")
	d.Do(job.Happening{Act: job.Prepared{EngineC: 60, AmbientC: 18, Reason: " the owner waits "}})
	assert.Equal(t, "the owner waits", d.Job.Override)
	assert.Len(t, d.Job.Overrides, 1)
	d.Do(job.Happening{Act: job.Prepared{EngineC: 20, AmbientC: 18}})
	assert.Empty(t, d.Job.Override, "passed by itself now")
	assert.Len(t, d.Job.Overrides, 1, "and yet it was once overridden")
}
