package job

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

// do writes the temperature down. One that is past the gate shuts it again: cold figures on an engine that is
// warming are wrong, whoever passed it.
func (a TemperatureNoted) do(j *Job) {
	j.Temperatures = append(j.Temperatures, Temperature{j.now, a.EngineC, a.AmbientC})
	if gate := j.gate(a.EngineC, a.AmbientC); gate != "" && j.Prepared && j.Override == "" {
		j.shut(gate)
	}
}
