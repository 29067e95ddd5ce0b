package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/job"
	"metronix/core/sequence"
)

// Most judge hot by the fan, the needle or the hose (common practice): it is taken as the mechanic's word,
// after the engine was said to be stopped, from which the ten minutes count.
func TestJudgedHot(t *testing.T) {
	d := hotJob(t)
	fan := job.JudgedHot{How: job.ByFan, RanMin: 20, Note: "fan twice"}
	d.refused(job.Happening{At: at(0), Act: fan}, "when the engine was stopped")
	d.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.refused(job.Happening{At: at(1), Act: job.JudgedHot{How: "smell"}}, "no way to judge")
	d.refused(job.Happening{At: at(1), Act: job.JudgedHot{How: job.ByHose, RanMin: -1}}, "how many minutes")
	d.do(job.Happening{At: at(3), Act: fan})
	until, ok := d.job.HotUntil()
	require.True(t, ok)
	assert.Equal(t, at(10), until, "from the engine's stopping, not from a tap about its heat")
	assert.Equal(t, job.AsFound, d.job.Phase())
	assert.Equal(t, "the fan had cut in, ran 20 min, fan twice", d.job.JudgedHot.String())
	assert.Empty(t, d.job.Temperatures, "no figure is invented")

	late := hotJob(t)
	late.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	late.refused(job.Happening{At: at(12), Act: fan}, "shut off 12 min ago")
	late.do(job.Happening{At: at(20), Act: job.EngineStopped{}})
	late.do(job.Happening{At: at(21), Act: fan})
	until, _ = late.job.HotUntil()
	assert.Equal(t, at(30), until)

	anyway := hotJob(t)
	anyway.do(job.Happening{At: at(0), Act: job.JudgedHot{How: job.ByOther, Reason: "it cannot be run"}})
	assert.Equal(t, "it cannot be run", anyway.job.Override)
	_, ok = anyway.job.HotUntil()
	assert.False(t, ok, "no clock runs")

	cold := start(t, setup())
	cold.do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	cold.do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	cold.refused(job.Happening{At: at(1), Act: fan}, "These are cold figures")
}
