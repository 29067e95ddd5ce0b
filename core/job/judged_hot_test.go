package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

// Most judge hot by the fan, the needle or the hose (common practice): it is taken as the mechanic's word,
// after the engine was said to be stopped, from which the ten minutes count.
func TestJudgedHot(t *testing.T) {
	d := hotJob(t)
	fan := job.JudgedHot{How: job.ByFan, RanMin: 20, Note: "fan twice"}
	d.Refused(job.Happening{At: at(0), Act: fan}, "when the engine was stopped")
	d.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	d.Refused(job.Happening{At: at(1), Act: job.JudgedHot{How: "smell"}}, "no way to judge")
	d.Refused(job.Happening{At: at(1), Act: job.JudgedHot{How: job.ByHose, RanMin: -1}}, "how many minutes")
	d.Do(job.Happening{At: at(3), Act: fan})
	until, ok := d.Job.HotUntil()
	require.True(t, ok)
	assert.Equal(t, at(10), until, "from the engine's stopping, not from a tap about its heat")
	assert.Equal(t, job.AsFound, d.Job.Phase())
	assert.Equal(t, "the fan had cut in, ran 20 min, fan twice", d.Job.JudgedHot.String())
	assert.Empty(t, d.Job.Temperatures, "no figure is invented")

	late := hotJob(t)
	late.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	late.Refused(job.Happening{At: at(12), Act: fan}, "shut off 12 min ago")
	late.Do(job.Happening{At: at(20), Act: job.EngineStopped{}})
	late.Do(job.Happening{At: at(21), Act: fan})
	until, _ = late.Job.HotUntil()
	assert.Equal(t, at(30), until)

	anyway := hotJob(t)
	anyway.Do(job.Happening{At: at(0), Act: job.JudgedHot{How: job.ByOther, Reason: "it cannot be run"}})
	assert.Equal(t, "it cannot be run", anyway.Job.Override)
	_, ok = anyway.Job.HotUntil()
	assert.False(t, ok, "no clock runs")

	cold := jobtest.Start(t, jobtest.Setup())
	cold.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	cold.Do(job.Happening{At: at(0), Act: job.EngineStopped{}})
	cold.Refused(job.Happening{At: at(1), Act: fan}, "These are cold figures")
}
