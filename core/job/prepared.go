package job

import (
	"slices"
	"strings"
	"time"

	"metronix/core/clearance"
)

// Prepared passes the temperature gate, °C, or overrides it with a written reason. A hot engine has run, and
// so has a cold one whose gate was shut because it was found warmer: where its crank stands is not known any
// more. What was found of it since the engine was said to be shut off stands, while hot figures hold.
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

func (a Prepared) may(j *Job, _ string) error {
	if j.Way.School == "" {
		return refuse("kind", "Choose the sequence first.")
	}
	if gate := j.gate(a.EngineC, a.AmbientC); gate != "" && strings.TrimSpace(a.Reason) == "" {
		return refuse("engine_c", gate)
	}
	return nil
}

func (a Prepared) do(j *Job) {
	if j.Closed != "" || j.now.After(j.StoppedAt.Add(hotFor())) {
		j.StoppedAt = time.Time{} // it cooled, and was warmed anew
	}
	if j.Card.State == clearance.Hot && j.StoppedAt.IsZero() || j.Closed != "" {
		j.lose()
	}
	j.Temperatures = append(j.Temperatures, Temperature{j.now, a.EngineC, a.AmbientC})
	j.Prepared, j.PreparedAt, j.EngineC, j.AmbientC, j.Judged = true, j.now, a.EngineC, a.AmbientC, nil
	j.Closed, j.Override, j.putBack = "", "", false
	if j.gate(a.EngineC, a.AmbientC) != "" {
		j.Override = strings.TrimSpace(a.Reason)
		j.Overrides = append(slices.Clone(j.Overrides), Override{j.Override, a.EngineC, j.Cold != nil, j.now})
	}
}

func (Prepared) moves() bool { return true }
