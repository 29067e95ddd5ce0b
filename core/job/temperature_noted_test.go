package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/sequence"
)

func TestNotingATemperature(t *testing.T) {
	d := start(t, setup())
	d.do(job.Happening{Act: job.TemperatureNoted{EngineC: 80, AmbientC: 18}})
	assert.Equal(t, job.DoChooseWay, d.job.Next().Action, "it decides nothing")
	assert.Len(t, d.job.Temperatures, 1)
	d.refused(job.Happening{Act: job.TemperatureNoted{EngineC: 400, AmbientC: 18}},
		"not a temperature of this job")
	d.refused(job.Happening{Act: job.TemperatureNoted{EngineC: 20, AmbientC: -61}},
		"not a temperature of this job")
}

// Cold figures hold up to their limit: an engine found warmer shuts the gate that stood open.
func TestAWarmerEngineShutsTheGate(t *testing.T) {
	d := start(t, setup())
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.TemperatureNoted{EngineC: 60, AmbientC: 18}})
	assert.Equal(t, job.DoPrepare, d.job.Next().Action)
	assert.Contains(t, d.job.Closed, "60 °C")
}
