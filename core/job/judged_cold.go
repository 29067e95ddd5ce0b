package job

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"metronix/core/clearance"
)

// JudgedCold passes the temperature gate of cold figures without a thermometer, by what many go by: it stood
// overnight, it stood so many hours, or radiator, block and manifold are cool to the hand (common practice).
//
// It is recorded as what it is, with the ambient temperature where that is known, and never as a figure of
// the engine's. A thermometer or a probe is the better way, and both are offered beside it. Figures that want
// a stone-cold engine take a night alone; hot figures take no judgement, for they need a figure and a clock.
type JudgedCold struct {
	plain
	By       ColdBy
	Hours    float64  // that it stood, for ByHours; above 0, at most MostHours
	Helped   []string // by what it was helped to cool: HelpFan, HelpCover
	AmbientC *float64 // nil: not known
}

// ColdBy is what an engine is judged cold by.
type ColdBy string

// It stood overnight, it stood so many hours, it is cool to the hand.
const (
	ByNight ColdBy = "overnight"
	ByHours ColdBy = "hours"
	ByHand  ColdBy = "hand"
)

// What helps an engine to cool: a fan before it, its cover off.
const (
	HelpFan   = "fan"
	HelpCover = "cover_off"
)

// MostHours is the longest standing that is told in hours: beyond it is overnight and more (from memory).
const MostHours = 72

// Kind is "judged_cold".
func (JudgedCold) Kind() Kind { return "judged_cold" }

func (a JudgedCold) sound(j *Job) error {
	if !slices.Contains([]ColdBy{ByNight, ByHours, ByHand}, a.By) {
		return refuse("by", fmt.Sprintf("%q is no way to judge it: %s, %s or %s.", a.By, ByNight, ByHours,
			ByHand))
	}
	if a.By == ByHours && !(a.Hours > 0 && a.Hours <= MostHours) || a.By != ByHours && a.Hours != 0 {
		return refuse("hours", fmt.Sprintf("Say how many hours it stood: above 0, at most %d.", MostHours))
	}
	for i, h := range a.Helped {
		if h != HelpFan && h != HelpCover {
			return refuse(fmt.Sprintf("helped[%d]", i),
				fmt.Sprintf("%q is not known here: %s or %s.", h, HelpFan,
					HelpCover))
		}
	}
	if a.AmbientC != nil {
		return soundTemperatures(*a.AmbientC, *a.AmbientC, j.Speaks)
	}
	return nil
}

func (a JudgedCold) may(j *Job, _ string) error {
	switch {
	case j.Way.School == "":
		return refuse("kind", "Choose the sequence first.")
	case j.Card.State != clearance.Cold:
		return refuse("kind", "These are hot figures: they need the engine's temperature and a clock.")
	case j.Card.StoneCold && a.By != ByNight:
		return refuse("by", "These figures want a stone-cold engine: let it stand overnight, or measure it.")
	}
	return nil
}

func (a JudgedCold) do(j *Job) {
	if j.Closed != "" {
		j.lose()
	}
	j.Prepared, j.PreparedAt, j.Judged = true, j.now, &a
	j.Closed, j.Override, j.putBack = "", "", false
}

func (JudgedCold) moves() bool { return true }

// String says it in words: "stood 6 h, fan running, cover off".
func (a JudgedCold) String() string {
	parts := []string{map[ColdBy]string{ByNight: "stood overnight",
		ByHand:  "radiator, block and manifold cool to the hand",
		ByHours: fmt.Sprintf("stood %v h", math.Round(a.Hours*10)/10)}[a.By]}
	for _, h := range a.Helped {
		parts = append(parts, map[string]string{HelpFan: "fan running", HelpCover: "cover off"}[h])
	}
	return strings.Join(parts, ", ")
}
