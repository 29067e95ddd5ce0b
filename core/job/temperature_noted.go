package job

import (
	"fmt"

	"metronix/core/measure"
	"metronix/core/thermal"
)

// TemperatureNoted writes the engine's temperature and that of its surroundings down, °C, while the engine
// cools or warms. One that does not suit the card any more shuts a gate that stands open without an override.
//
// From two such readings the wait until the gate opens is forecast (see thermal). Nothing else changes by
// writing a temperature down: it is no step of the work and never refused, whatever the state of the job,
// short of a figure that no thermometer shows.
type TemperatureNoted struct {
	plain
	EngineC, AmbientC float64
}

// Kind is "temperature".
func (TemperatureNoted) Kind() Kind { return "temperature" }

func (a TemperatureNoted) sound(j *Job) error {
	return soundTemperatures(a.EngineC, a.AmbientC, j.Speaks)
}

func (a TemperatureNoted) do(j *Job) {
	j.Temperatures = append(j.Temperatures, Temperature{j.now, a.EngineC, a.AmbientC})
	if gate := j.gate(a.EngineC, a.AmbientC); gate != "" && j.Prepared && j.Override == "" {
		j.shut(gate)
	}
}

// minHereC is the coldest an engine or a workshop may be said to be, °C (from memory: below the coldest place
// where anybody works on engines a figure was mistyped).
const minHereC = -60.0

func soundTemperatures(engineC, ambientC float64, speaks measure.Units) error {
	for _, t := range []struct {
		field string
		c     float64
	}{{"engine_c", engineC}, {"ambient_c", ambientC}} {
		if !thermal.Possible(t.c) || t.c < minHereC {
			return refuse(t.field, fmt.Sprintf("%s is not a temperature of this job: %s to %s.",
				speaks.Temperature(t.c), speaks.Temperature(minHereC), speaks.Temperature(thermal.MaxC)))
		}
	}
	return nil
}
