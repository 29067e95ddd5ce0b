package job

import "metronix/core/clearance"

// EngineStopped says that the engine ran and was shut off just now: after a warm-up, before or in the hot
// pass, or after a road test.
//
// From here the hot figures hold for their ten minutes (common practice), whenever its temperature is taken;
// a second warm-up begins them anew. Where the crank stands is not known any more. A cold job has to judge
// the temperature again, for the engine is warm. It is never refused for what is unfinished: that it ran is
// so.
type EngineStopped struct{ plain }

// Kind is "engine_stopped".
func (EngineStopped) Kind() Kind { return "engine_stopped" }

func (EngineStopped) may(j *Job, _ string) error {
	if j.Way.School == "" {
		return refuse("kind", "Choose the sequence first.")
	}
	return nil
}

func (EngineStopped) do(j *Job) {
	j.lose()
	if j.Card.State == clearance.Hot {
		j.StoppedAt, j.putBack = j.now, false
		return
	}
	if j.Prepared && j.Phase() != Sign { // with every valve done nothing is measured any more
		j.shut("The engine ran. Let it cool, and judge its temperature again.")
	}
}

func (EngineStopped) moves() bool { return true }
