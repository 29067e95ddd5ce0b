package job

import (
	"fmt"
	"slices"

	"metronix/core/around"
)

// ToolMoved counts a tool out, or back.
//
// A spanner left on the crank breaks a wrist, and a leaf left in the head ruins an engine: what was counted
// out is asked back by its name before the engine is started and before the job is signed.
type ToolMoved struct {
	plain
	Tool string
	Back bool // it is back; false: it is taken out
}

// Kind is "tool".
func (ToolMoved) Kind() Kind { return "tool" }

func (a ToolMoved) sound(j *Job) error {
	if !slices.ContainsFunc(j.Around().Tools(), func(t around.Tool) bool { return t.ID == a.Tool }) {
		return refuse("tool", fmt.Sprintf("%q is no tool of this job.", a.Tool))
	}
	return nil
}

func (a ToolMoved) do(j *Job) {
	j.Move(a.Tool, !a.Back)
}
