package record

import (
	"cmp"
	"fmt"
	"strings"

	"metronix/core/job"
	"metronix/core/sequence"
)

// This file is what a job's sheet says of it in words. It is composed here once, and printed, shown and
// written to files alike.

// Warmth is how warm the engine was in the pass at hand, by what that is known, and why its temperature gate
// was passed all the same where it was.
func (j Told) Warmth() string { return j.warmthOf(j.Heat, j.Cold != nil) }

// ColdWarmth is the same of the provisional cold pass; empty before the hot one began.
func (j Told) ColdWarmth() string {
	if j.Cold == nil {
		return ""
	}
	return j.warmthOf(j.ColdHeat, false)
}

func (j Told) warmthOf(h job.Heat, hot bool) string {
	var parts []string
	switch {
	case h.Judged != nil:
		parts = append(parts, "judged cold: "+h.Judged.String())
		if a := h.Judged.AmbientC; a != nil {
			parts = append(parts, "ambient "+j.Speaks.Temperature(*a))
		}
	case h.JudgedHot != nil:
		parts = append(parts, "judged hot: "+h.JudgedHot.String())
	case h.Measured():
		parts = append(parts, "engine "+j.Speaks.Temperature(h.EngineC), "ambient "+
			j.Speaks.Temperature(h.AmbientC))
	default:
		parts = append(parts, "not taken")
	}
	text := strings.Join(parts, ", ")
	for _, o := range h.Overrides {
		switch {
		case o.Hot != hot:
		case o.EngineC == nil:
			text += "; passed all the same: " + o.Reason
		default:
			text += fmt.Sprintf("; passed all the same at %s: %s", j.Speaks.Temperature(*o.EngineC), o.Reason)
		}
	}
	return text
}

// Walk is the sequence of the job, its order, its round, what was checked, and which valves it was about.
func (j Told) Walk() string {
	if j.Way.School == "" {
		return "not chosen"
	}
	order := "as the crank turns"
	if j.Way.Order == sequence.Numerical {
		order = "by number"
	}
	goes := []string{map[job.Going]string{job.SetAsYouGo: "set as you go", job.ReadFirst: "read all first",
		job.ReadOnly: "read only", job.FreeFirst: "slacken all first"}[cmp.Or(j.Going, job.ReadFirst)]}
	if j.Going != job.ReadOnly {
		goes = append(
			goes,
			map[job.Check]string{job.CheckAll: "check all", job.CheckSetOnes: "check those set",
				job.CheckNone: "no check"}[j.Checks()],
		)
	}
	if j.ToAim == job.AllToAim {
		goes = append(goes, "all to the aim")
	}
	switch j.KindFirst {
	case job.ExhaustFirst:
		goes = append(goes, "exhausts first")
	case job.IntakeFirst:
		goes = append(goes, "intakes first")
	}
	if n := len(j.Scope); n > 0 && n < len(j.Valves) {
		goes = append(goes, fmt.Sprintf("%d of %d valves", n, len(j.Valves)))
	}
	text := j.Way.School.Title(j.Sheet) + ", " + order + "; " + strings.Join(goes, ", ")
	if j.BackReason != "" {
		text += "; turned back against the sheet: " + j.BackReason
	}
	return text
}

// Done is what was done to a valve in this job: "set, nut to its torque, checked".
func (j Told) Done(v *job.ValveState) string {
	var parts []string
	if play := map[job.Play]string{job.NoPlay: "no play", job.SomePlay: "some play", job.MuchPlay: "much play"}[v.Play]; play != "" {
		parts = append(parts, play+" by hand")
	}
	if v.Freed {
		parts = append(parts, "slackened before any was set, nothing was found")
	}
	if v.SetFor != "" {
		parts = append(parts, "set though in ("+v.SetFor+")")
	}
	if v.ColdReason != "" {
		parts = append(parts, "left as it was in the cold pass: "+v.ColdReason)
	}
	parts = append(parts, outcome(v))
	if v.LockedBy != "" {
		parts = append(
			parts,
			map[job.LockedBy]string{job.ByTorque: "nut to its torque", job.ByFeel: "nut by feel"}[v.LockedBy],
		)
	}
	if v.Shim > 0 {
		shim := "shim " + v.Shim.String()
		if v.Stamped > 0 {
			shim += " (stamped " + v.Stamped.String() + ")"
		}
		parts = append(parts, shim)
	}
	if v.Verified {
		parts = append(parts, "checked")
	}
	return strings.Join(parts, ", ")
}

func outcome(v *job.ValveState) string {
	switch {
	case v.LeaveReason != "" && v.Last == nil:
		return "not read: " + v.LeaveReason
	case v.LeaveReason != "":
		return "left as it is: " + v.LeaveReason
	case v.Adjustments > 1:
		return fmt.Sprintf("set %d times", v.Adjustments)
	case v.Adjustments == 1:
		return "set"
	case v.Outside:
		return "not of this job"
	case v.Last == nil && v.Freed:
		return "not set"
	case v.Last == nil:
		return "not read"
	case v.IsOut():
		return "left as it was found"
	}
	return "left alone"
}
