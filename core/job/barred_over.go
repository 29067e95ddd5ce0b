package job

// BarredOver is two full turns of the crank, before the check pass.
type BarredOver struct{ plain }

// Kind is "barred_over".
func (BarredOver) Kind() Kind { return "barred_over" }

func (BarredOver) may(j *Job, _ string) error {
	if j.Phase() != Verify {
		return refuse("kind", "The two turns come after every valve is adjusted and locked.")
	}
	return j.nothingBegun("the two turns")
}

func (BarredOver) do(j *Job) { j.barred, j.checked = true, true }

func (BarredOver) moves() bool { return true }
