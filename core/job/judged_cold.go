package job

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"metronix/core/around"
	"metronix/core/clearance"
)

// JudgedCold passes the temperature gate of cold figures without a thermometer, by what many go by: it stood
// overnight, it stood so many hours, or radiator, block and manifold are cool to the hand (common practice).
//
// It is recorded as what it is, with the ambient temperature where that is known, and never as a figure of
// the engine's. A thermometer or a probe is the better way, and both are offered beside it. Figures that want
// a stone-cold engine take a night, or hours of standing, by the mechanic's word; a hand does not tell five
// degrees. What cannot be is refused: a night, or more hours than went by, since this engine was last known
// to be warm. Hot figures are judged by [JudgedHot]. With a reason the gate is passed all the same.
type JudgedCold struct {
	plain
	By       ColdBy
	Hours    float64  // that it stood, for ByHours; above 0, at most MostHours
	Helped   []string // by what it was helped to cool: HelpFan, HelpCover
	AmbientC *float64 // nil: not known
	Reason   string   // why the gate is passed all the same; empty: it is not overridden
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

// shortestNight is the least standing that passes for a night (from memory).
const shortestNight = 6 * time.Hour

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

// may refuses what cannot be, by what is known of this engine; a reason passes it all the same, and shows.
func (a JudgedCold) may(j *Job, _ string) error {
	switch {
	case j.Way.School == "":
		return refuse("kind", "Choose the sequence first.")
	case j.Card.State != clearance.Cold:
		return refuse("kind", "These are hot figures: judge the engine hot, or take its temperature.")
	case strings.TrimSpace(a.Reason) != "":
		return nil
	}
	field, why := a.cannotBe(j)
	if why == "" {
		return nil
	}
	return refuse(field, why)
}

// cannotBe says what speaks against a judgement, and which field is at fault; empty: nothing.
func (a JudgedCold) cannotBe(j *Job) (field, why string) {
	warm := j.warmAt()
	stood := j.now.Sub(warm)
	switch {
	case j.Card.StoneCold && a.By == ByHand:
		return "by", "These figures want a stone-cold engine, and a hand does not tell five degrees: let it " +
			"stand overnight or for hours, or measure it."
	case warm.IsZero():
	case a.By == ByNight && stood < shortestNight:
		return "by", "The engine was warm " + around.Minutes(stood.Truncate(time.Minute)) +
			" ago: it did not stand overnight since."
	case a.By == ByHours && a.Hours > (stood+clockSlack).Hours():
		return "hours", fmt.Sprintf("The engine was warm %s ago: it did not stand for %v h since.",
			around.Minutes(stood.Truncate(time.Minute)), math.Round(a.Hours*10)/10)
	}
	return "", ""
}

// do opens the gate. It counts as overridden only where something spoke against it.
func (a JudgedCold) do(j *Job) {
	_, against := a.cannotBe(j)
	j.pass()
	j.Judged = &a
	if reason := strings.TrimSpace(a.Reason); reason != "" && against != "" {
		j.overrides(reason, nil)
	}
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
