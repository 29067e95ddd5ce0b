package job

import (
	"fmt"
	"slices"

	"metronix/core/clearance"
	"metronix/core/gauge"
)

// ReadingTaken is how one leaf, or one stack of leaves, felt in a valve's gap.
//
// Each reading narrows the interval in which the gap lies (see clearance). It may be made with one leaf or
// a stack of up to three, and is told by their markings, as they lie in the hand; what they measure is
// looked up in the set that the job began with.
//
// It is refused at a valve that is not clear of its lobe by what the sheet requires: there the rocker is
// on its way, the gap reads too small or none is left, and a valve set so would be far too loose. It is
// refused too where the crank's place is not known.
type ReadingTaken struct {
	plain
	Valve  string
	Leaves []gauge.ID // one to gauge.MaxStack
	Feel   clearance.Feel
	// MadeThere says that the reading was made where the crank stood when its screen was drawn, and counts
	// for that place.
	MadeThere bool
	// KeepSure keeps the valve's readings at once where they put it surely in, so that a good valve costs one
	// gesture.
	KeepSure bool
}

// Kind is "reading".
func (ReadingTaken) Kind() Kind { return "reading" }

// On is its valve.
func (a ReadingTaken) On() string { return a.Valve }

// sound refuses what is no feel and no leaf. Leaves that are not owned now are taken: the list may be older
// than the set.
func (a ReadingTaken) sound(j *Job) error {
	if err := j.has(a.Valve); err != nil {
		return err
	}
	if !slices.Contains(clearance.Feels(), a.Feel) {
		return refuse("feel",
			fmt.Sprintf("%q is no feel: free, drag, drag_light, drag_firm or wont_go.", a.Feel))
	}
	if len(a.Leaves) < 1 || len(a.Leaves) > gauge.MaxStack {
		return refuse("leaves_mm",
			fmt.Sprintf("%d leaves: one to %d go into a gap.", len(a.Leaves), gauge.MaxStack))
	}
	for _, l := range a.Leaves {
		if l.Marked <= 0 || l.Marked > gauge.MaxStoredLeaf {
			return refuse("leaves_mm", fmt.Sprintf("%s is not the thickness of a feeler leaf.", l.Marked))
		}
	}
	return nil
}

func (a ReadingTaken) may(j *Job, since string) error { return j.mayRead(a.Valve, a.MadeThere, since) }

func (a ReadingTaken) do(j *Job) {
	j.addReading(a.Valve, a.MadeThere, clearance.Reading{Stack: j.Owned.Pick(a.Leaves), Feel: a.Feel})
	j.keepSure(a.Valve, a.KeepSure)
}

func (a ReadingTaken) closes(after *Job) string { return after.keptAtOnce(a.Valve, a.KeepSure) }

// ReadsOnly is true.
func (ReadingTaken) ReadsOnly() bool { return true }
