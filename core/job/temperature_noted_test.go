package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

func TestNotingATemperature(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Do(job.Happening{Act: job.TemperatureNoted{EngineC: 80, AmbientC: 18}})
	assert.Equal(t, job.DoChooseWay, d.Job.Next().Action, "it decides nothing")
	assert.Len(t, d.Job.Temperatures, 1)
	d.Refused(job.Happening{Act: job.TemperatureNoted{EngineC: 400, AmbientC: 18}},
		"not a temperature of this job")
	d.Refused(job.Happening{Act: job.TemperatureNoted{EngineC: 20, AmbientC: -61}},
		"not a temperature of this job")
}

// Cold figures hold up to their limit: an engine found warmer shuts the gate that stood open.
func TestAWarmerEngineShutsTheGate(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.TemperatureNoted{EngineC: 60, AmbientC: 18}})
	assert.Equal(t, job.DoPrepare, d.Job.Next().Action)
	assert.Contains(t, d.Job.Closed, "60 °C")
}
