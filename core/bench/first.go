package bench

import (
	"fmt"
	"slices"
	"strings"

	"metronix/core/adjust"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/job"
)

// FirstLeaves names the leaves to lay on top, one a kind of valve: "first to hand 0.22 (intake), 0.30
// (exhaust)"; empty where the set has none to begin with.
func FirstLeaves(j *job.Job) string {
	advice := Advise(j, adjust.Shift{})
	var list []string
	for _, kind := range []engine.Kind{engine.Intake, engine.Exhaust} {
		i := slices.IndexFunc(j.Valves, func(v *job.ValveState) bool { return v.Kind == kind })
		if i < 0 {
			continue
		}
		if first := advice.first(j.Valves[i]); first != nil {
			list = append(list, fmt.Sprintf("%s (%s)", first, kind))
		}
	}
	if len(list) == 0 {
		return ""
	}
	text := "first to hand " + strings.Join(list, ", ")
	if slices.ContainsFunc(j.Owned, func(l gauge.Leaf) bool { return l.Angled }) {
		text += "; the angled ones where a straight leaf does not lie flat"
	}
	return text
}
