package job

import (
	"fmt"
	"slices"
	"time"

	"metronix/core/clearance"
	"metronix/core/gauge"
)

// SetTold says in one what setting a valve takes: it was set, its nut is tight, and the aim's leaf drags in
// it again. It is what a hand does in one go, told in one go.
//
// It is there only where that one drag proves the valve in its limits by the rule in force, and only for nuts
// that are tight at once: with a torque to follow it has to say that it was given. It is not there after a
// valve came back twice, where the nut has a habit that has to be looked at, nor with shims. It has one time
// and invents none for its parts, teaches nothing of what locking does, and is taken back as one.
type SetTold struct {
	plain
	Valve  string
	Leaves []gauge.ID // that drag with the nut tight: the aim's own leaf or stack
	By     LockedBy   // empty: not said; ByTorque where the round locks in two goes
	// Asked says that it was asked back whether all three were done, as it is within TellAfter of the verdict
	Asked bool
}

// TellAfter is the least time between a verdict and the word that the valve was set, locked and read again: a
// hand takes longer (from memory), a second tap does not.
const TellAfter = 5 * time.Second

// Kind is "set_told".
func (SetTold) Kind() Kind { return "set_told" }

// On is its valve.
func (a SetTold) On() string { return a.Valve }

func (a SetTold) sound(j *Job) error {
	if len(a.Leaves) == 0 || len(a.Leaves) > gauge.MaxStack {
		return refuse("leaves_mm", fmt.Sprintf("%d leaves: one to %d go into a gap.", len(a.Leaves), gauge.MaxStack))
	}
	return Locked{Valve: a.Valve, By: a.By}.sound(j)
}

// may takes it where it is offered, with the leaf that is offered.
func (a SetTold) may(j *Job, since string) error {
	v := j.valve(a.Valve)
	// It is a reading too, and one that a stale screen may not make: of a valve that was kept since, or of an
	// engine that ran.
	if err := j.outdated(a.Valve, false, since); err != nil {
		return err
	}
	if err := (Adjusted{Valve: a.Valve}).may(j, since); err != nil {
		return err
	}
	leaf, ok := j.Telling(v)
	switch {
	case !ok:
		return refuse("valve", "Here each step is told by itself: set "+v.Name+", lock it, and read it again.")
	case !leaf.Same(j.Owned.Pick(a.Leaves)):
		return refuse("leaves_mm", fmt.Sprintf("Only a drag of %s proves %s by itself.", leaf, v.Name))
	case j.Locking == InTwoGoes && a.By != ByTorque:
		return refuse("by", "This round torques each nut: say that "+v.Name+" was torqued.")
	case !a.Asked && j.TooSoon(v, j.now):
		return &Refusal{Field: "valve", Code: SoSoon, Message: j.AsksBack(v)}
	}
	return nil
}

// TooSoon says that a valve's verdict is so fresh at a time that nobody can have set it since.
func (j *Job) TooSoon(v *ValveState, now time.Time) bool {
	at := v.readAt
	if len(v.Round) == 0 && v.Last != nil {
		at = v.Last.At
	}
	return !at.IsZero() && now.Sub(at) < TellAfter
}

// AsksBack is what is asked where that is so.
func (j *Job) AsksBack(v *ValveState) string {
	if j.Locking == InTwoGoes {
		return "That was quick. Is " + v.Name + " set, torqued and read again?"
	}
	return "That was quick. Is " + v.Name + " set, locked and read again?"
}

// Telling is the leaf or stack whose drag alone proves a valve in, so that setting, locking and reading it
// again may be told in one; ok is false where each has to be told by itself.
func (j *Job) Telling(v *ValveState) (leaf gauge.Stack, ok bool) {
	if j.Sheet.Shimmed() || !j.Sheet.HasLockNut() || v.Stage != Untouched || v.CameBack >= SecondTime {
		return nil, false
	}
	leaf, ok = j.AimLeaf(v)
	return leaf, ok && j.provedBy(v, leaf)
}

// AimLeaf is the aim's own leaf or stack: what is owned nearest to it within the limits; ok is false where
// nothing is.
func (j *Job) AimLeaf(v *ValveState) (leaf gauge.Stack, ok bool) {
	choice, ok := j.Owned.Choose(j.AimOf(v), &v.Limits.Window, gauge.MaxStack)
	return choice.Stack, ok && len(choice.Stack) > 0
}

// provedBy says that a drag of a leaf alone puts a valve in its limits by the rule in force.
func (j *Job) provedBy(v *ValveState, leaf gauge.Stack) bool {
	judged := j.Yardstick(v).Judge([]clearance.Reading{{Stack: leaf, Feel: clearance.Drag}})
	return judged.Verdict == clearance.In && (j.Rule != clearance.Guarded || judged.Sure)
}

// do is the three acts, without what only each by itself would tell.
func (a SetTold) do(j *Job) {
	v := j.valve(a.Valve)
	Adjusted{Valve: a.Valve, Leaves: slices.Clone(a.Leaves)}.do(j)
	Locked{Valve: a.Valve, By: a.By}.do(j)
	v.before = 0
	j.addReading(a.Valve, false, clearance.Reading{Stack: j.Owned.Pick(a.Leaves), Feel: clearance.Drag})
	Kept{Valve: a.Valve}.do(j)
	v.Last.Told, v.CameBack, v.BackAs = true, 0, ""
}

func (a SetTold) closes(*Job) string { return a.Valve }
