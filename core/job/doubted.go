package job

// Doubted is what anybody may say at any time: the crank may have been turned, and its place must be found
// again.
//
// A helper leans on a spanner, somebody moves the car in gear: whoever thinks so may say so, and it is
// better said once too often. Nothing read is lost. Readings made before it were made at a place that was
// known then.
type Doubted struct{ plain }

// Kind is "doubted".
func (Doubted) Kind() Kind { return "doubted" }

func (Doubted) may(j *Job, _ string) error {
	if j.Way.School == "" {
		return refuse("kind", "Choose the sequence first.")
	}
	return nil
}

// do forgets where the crank stands, and the readings that were not kept with it.
func (Doubted) do(j *Job) { j.lose() }

func (Doubted) moves() bool { return true }
