package job

import "strings"

// Signed ends a job, or its cold pass where a hot one follows.
//
// A tool on the crank breaks a wrist at the first turn of the starter, and a leaf left in the head ruins
// an engine; so signing asks for both by name, and is refused without them. It is refused as well while
// any valve waits to be read, set or checked: a valve may be left out of its limits with a reason, never
// forgotten.
type Signed struct {
	plain
	By       string // who signs
	ToolsOut bool   // every tool and leaf was counted out, and the socket is off the crank
}

// Kind is "signed".
func (Signed) Kind() Kind { return "signed" }

func (a Signed) may(j *Job, _ string) error {
	if err := j.nothingBegun("signing"); err != nil {
		return err
	}
	switch {
	case j.Phase() != Sign:
		return refuse("kind", "The job is not finished: valves are waiting to be read, adjusted or checked.")
	case strings.TrimSpace(a.By) == "":
		return refuse("by", "Say who signs.")
	case !a.ToolsOut:
		return refuse("tools_out",
			"Account for all tools and leaves, and take the socket off the crank, before signing.")
	}
	return nil
}

func (a Signed) do(j *Job) { j.SignedBy, j.SignedAt = strings.TrimSpace(a.By), j.now }
