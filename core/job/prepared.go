package job

import "strings"

// Prepared passes the temperature gate, °C, or overrides it with a written reason. A hot engine has run, and
// so has a cold one whose gate was shut because it was found warmer: where its crank stands is not known any
// more. What was found of it since the engine was said to be shut off stands. Hot figures whose ten minutes
// from the shut-off are over are refused: that it is still warm outside says nothing of its valves.
//
// Cold figures hold up to the temperature that their card says, hot ones from operating temperature on and
// for ten minutes. Outside of that a clearance is another one, by a few hundredths, in a direction that
// depends on the materials; so the gate is refused with the figure that it wants, unless a reason is
// written. The reason stands on the sheet with its temperatures, for each pass apart.
type Prepared struct {
	plain
	EngineC, AmbientC float64
	Reason            string // why the gate is passed all the same; empty: it is not overridden
}

// Kind is "prepared".
func (Prepared) Kind() Kind { return "prepared" }

func (a Prepared) sound(j *Job) error { return soundTemperatures(a.EngineC, a.AmbientC, j.Speaks) }

// may asks the thermometer, unless a reason passes the gate all the same; the reason shows on the sheet.
func (a Prepared) may(j *Job, _ string) error {
	if j.Way.School == "" {
		return refuse("kind", "Choose the sequence first.")
	}
	if strings.TrimSpace(a.Reason) != "" {
		return nil
	}
	if gate := j.gate(a.EngineC, a.AmbientC); gate != "" {
		return refuse("engine_c", gate)
	}
	return j.tooLate("engine_c")
}

// do writes the temperature down and opens the gate.
func (a Prepared) do(j *Job) {
	j.Temperatures = append(j.Temperatures, Temperature{j.now, a.EngineC, a.AmbientC})
	j.pass()
	j.EngineC, j.AmbientC = a.EngineC, a.AmbientC
	if j.gate(a.EngineC, a.AmbientC) != "" {
		j.overrides(strings.TrimSpace(a.Reason), &a.EngineC)
	}
}

func (Prepared) moves() bool { return true }
