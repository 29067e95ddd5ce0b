package job

import (
	"fmt"
	"slices"

	"metronix/core/around"
)

// TurningBy says by what the engine is turned in this job, where that is not the tool that its sheet names.
// What is laid out, what to mind while turning and what is undone at the end follow from it.
type TurningBy struct {
	plain
	Means around.Means
}

// Kind is "turning_by".
func (TurningBy) Kind() Kind { return "turning_by" }

func (a TurningBy) sound(*Job) error {
	if !slices.Contains(around.AllMeans(), a.Means) {
		return refuse("by", fmt.Sprintf("%q is no way to turn an engine that is known here.", a.Means))
	}
	return nil
}

func (a TurningBy) do(j *Job) { j.Turning = a.Means }
