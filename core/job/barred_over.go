package job

// BarredOver is two full turns of the crank, before the check pass.
//
// Two turns of the crank are one of the cam: every follower goes over its lobe once and what was laid in
// oil or held by friction settles. Then every valve is read once more, and every lock nut is felt.
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
