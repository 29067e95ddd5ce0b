package job

// Doubted is what anybody may say at any time: the crank may have been turned, and its place must be found
// again.
type Doubted struct{ plain }

// Kind is "doubted".
func (Doubted) Kind() Kind { return "doubted" }

func (Doubted) may(j *Job, _ string) error {
	if j.Way.School == "" {
		return refuse("kind", "Choose the sequence first.")
	}
	return nil
}

func (Doubted) do(j *Job) { j.lose() }

func (Doubted) moves() bool { return true }
