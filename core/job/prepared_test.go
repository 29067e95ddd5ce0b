package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/sequence"
)

func TestPassingTheGate(t *testing.T) {
	d := start(t, setup())
	d.refused(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}}, "Choose the sequence first")
	d.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	d.refused(job.Happening{Act: job.Prepared{EngineC: 60, AmbientC: 18}}, "Let it cool")
	d.refused(job.Happening{Act: job.Prepared{EngineC: 60, AmbientC: 18, Reason: "  "}}, "Let it cool")
	d.do(job.Happening{Act: job.Prepared{EngineC: 60, AmbientC: 18, Reason: " the owner waits "}})
	assert.Equal(t, "the owner waits", d.job.Override)
	assert.Len(t, d.job.Overrides, 1)
	d.do(job.Happening{Act: job.Prepared{EngineC: 20, AmbientC: 18}})
	assert.Empty(t, d.job.Override, "passed by itself now")
	assert.Len(t, d.job.Overrides, 1, "and yet it was once overridden")
}
