package job

import (
	"cmp"
	"fmt"

	"metronix/core/clearance"
	"metronix/core/measure"
)

// DialRead is a gap read off a dial indicator.
//
// It is the way out where a worn hollow in a rocker's pad makes a leaf bridge it and read small, and where
// no leaf reaches. One such figure settles a valve, to within its uncertainty.
type DialRead struct {
	plain
	Valve       string
	Gap         measure.Length // 0 to MaxGap
	Uncertainty measure.Length // 0: not said, and then clearance.DialUncertainty
	MadeThere   bool           // as that of ReadingTaken
	KeepSure    bool           // as that of ReadingTaken
}

// Kind is "dial".
func (DialRead) Kind() Kind { return "dial" }

// On is its valve.
func (a DialRead) On() string { return a.Valve }

// MaxGap is the widest gap that a dial indicator may show here (from memory: the widest clearance in the
// trade is below 0.7 mm, and an adjuster let right out leaves a few millimetres).
const MaxGap = 5 * measure.Millimetre

// sound refuses what is no clearance; a figure ten times too large is most often in the other unit.
func (a DialRead) sound(j *Job) error {
	if err := j.has(a.Valve); err != nil {
		return err
	}
	if a.Gap < 0 || a.Gap > MaxGap {
		return refuse("gap_mm", fmt.Sprintf("%s is not a valve clearance: 0 to %s. Is the unit right?", a.Gap,
			MaxGap))
	}
	if a.Uncertainty < 0 || a.Uncertainty > clearance.MaxUncertainty {
		return refuse("uncertainty_mm",
			fmt.Sprintf("%s is not the uncertainty of a dial indicator: above 0, at most %s.",
				a.Uncertainty, clearance.MaxUncertainty))
	}
	return nil
}

func (a DialRead) may(j *Job, since string) error { return j.mayRead(a.Valve, a.MadeThere, since) }

// do takes the dial's doubt as said, else the usual one of a dial indicator.
func (a DialRead) do(j *Job) {
	doubt := cmp.Or(a.Uncertainty, clearance.DialUncertainty)
	j.addReading(a.Valve, a.MadeThere,
		clearance.Reading{Dial: &clearance.Dial{Gap: a.Gap, Uncertainty: doubt}})
	j.keepSure(a.Valve, a.KeepSure)
}

func (a DialRead) closes(after *Job) string { return after.keptAtOnce(a.Valve, a.KeepSure) }

// ReadsOnly is true.
func (DialRead) ReadsOnly() bool { return true }
