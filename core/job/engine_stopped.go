package job

// EngineStopped says that the engine ran and was shut off just now: after a warm-up, before or in the hot
// pass, or after a road test.
//
// From here the hot figures hold for their ten minutes (common practice), however its heat is judged then; a
// second warm-up begins them anew. Where the crank stands is not known any more, and the temperature gate has
// to be passed for the engine as it is now: a cold job waits until it has cooled. With every valve done
// nothing is measured any more and it may be signed; a valve that is taken up again asks for the gate first.
// It is never refused for what is unfinished: that it ran is so.
type EngineStopped struct{ plain }

// Kind is "engine_stopped".
func (EngineStopped) Kind() Kind { return "engine_stopped" }

func (EngineStopped) may(j *Job, _ string) error {
	if j.Way.School == "" {
		return refuse("kind", "Choose the sequence first.")
	}
	return nil
}

// do begins a new epoch of heat from now: the ten minutes run.
func (EngineStopped) do(j *Job) { j.ran(j.now) }

func (EngineStopped) moves() bool { return true }
