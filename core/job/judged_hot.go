package job

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"metronix/core/clearance"
)

// JudgedHot passes the temperature gate of hot figures without a thermometer, by what many go by: the fan has
// cut in, the needle stands in its place, or the top hose is hot and hard (common practice).
//
// It is the mechanic's word and recorded as such, never as a figure. It is taken after [EngineStopped] of the
// same warm-up, because the ten minutes count from there and never from a tap about the heat; and not once
// they are over. The needle shows the coolant, and oil and valve gear lag behind it, so how many minutes it
// ran is asked, and may be left out. With a reason the gate is passed all the same, and no clock runs.
type JudgedHot struct {
	plain
	How    HotBy
	RanMin float64 // that it ran before it was shut off, minutes, at most MostRanMin; 0: not said
	Note   string  // in the mechanic's words; empty: nothing
	Reason string  // why the gate is passed all the same; empty: it is not overridden
}

// HotBy is what an engine is judged hot by.
type HotBy string

// The fan cut in, the needle stands where it stands when hot, the top hose is hot and hard, or something
// else: an air-cooled engine has none of the three.
const (
	ByFan    HotBy = "fan"
	ByNeedle HotBy = "needle"
	ByHose   HotBy = "hose"
	ByOther  HotBy = "other"
)

// MostRanMin is the longest run that is told, minutes (from memory: half a day of driving).
const MostRanMin = 720

// Kind is "judged_hot".
func (JudgedHot) Kind() Kind { return "judged_hot" }

func (a JudgedHot) sound(*Job) error {
	switch {
	case !slices.Contains([]HotBy{ByFan, ByNeedle, ByHose, ByOther}, a.How):
		return refuse(
			"how",
			fmt.Sprintf("%q is no way to judge it: %s, %s, %s or %s.", a.How, ByFan, ByNeedle,
				ByHose, ByOther),
		)
	case !(a.RanMin >= 0 && a.RanMin <= MostRanMin):
		return refuse("ran_min", fmt.Sprintf("Say how many minutes it ran: 0 to %d.", MostRanMin))
	case len([]rune(a.Note)) > mostNote:
		return refuse("note", fmt.Sprintf("At most %d characters.", mostNote))
	}
	return nil
}

// may wants to know first when the engine was stopped: the ten minutes count from there and not from the tap.
func (a JudgedHot) may(j *Job, _ string) error {
	switch {
	case j.Way.School == "":
		return refuse("kind", "Choose the sequence first.")
	case j.Card.State != clearance.Hot:
		return refuse("kind", "These are cold figures: let the engine cool, and judge it cold.")
	case strings.TrimSpace(a.Reason) != "":
		return nil
	case j.StoppedAt.IsZero():
		return refuse("kind", "Say first when the engine was stopped: the ten minutes count from there.")
	case j.passedIn == j.epoch && j.Closed != "":
		return refuse("kind", "The engine has cooled since. Run it warm again, and say when it stops.")
	}
	return j.tooLate("kind")
}

// do opens the gate; past the ten minutes only as an override.
func (a JudgedHot) do(j *Job) {
	over := j.StoppedAt.IsZero() || j.now.After(j.StoppedAt.Add(HotFor))
	j.pass()
	j.JudgedHot = &a
	if reason := strings.TrimSpace(a.Reason); reason != "" && over {
		j.overrides(reason, nil)
	}
}

func (JudgedHot) moves() bool { return true }

// String says it in words: "the fan had cut in, ran 20 min".
func (a JudgedHot) String() string {
	parts := []string{map[HotBy]string{ByFan: "the fan had cut in", ByNeedle: "the needle stood in its place",
		ByHose: "the top hose was hot and hard", ByOther: "by other signs"}[a.How]}
	if a.RanMin > 0 {
		parts = append(parts, fmt.Sprintf("ran %v min", math.Round(a.RanMin*10)/10))
	}
	if note := strings.TrimSpace(a.Note); note != "" {
		parts = append(parts, note)
	}
	return strings.Join(parts, ", ")
}
