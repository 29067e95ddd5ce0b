package bench

import (
	"cmp"
	"slices"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/measure"
)

// Advice is what the bench is told besides what to do next: the leaves to try, the leaf to set by, how far to
// turn the adjuster. It is asked of one state of a job and reckons what several valves have in common once.
type Advice struct {
	j     *job.Job
	shift adjust.Shift // what locking usually does in these hands; the zero shift: not known
	setBy map[setting]gauge.Stack
}

// setting is what the leaf to set by follows from: all valves of a kind have one aim and one window.
type setting struct {
	aim    measure.Length
	window measure.Window
}

// Advise gives the advice on a job in the hands of somebody whose locking shifts a gap so.
func Advise(j *job.Job, shift adjust.Shift) *Advice {
	return &Advice{j: j, shift: shift, setBy: map[setting]gauge.Stack{}}
}

// PreLock is the gap to set a valve to with the nut slack, so that it is at its aim once locked: by what was
// learned of these hands, until then by their own word. ok is false where there is neither, or no nut.
func (a *Advice) PreLock(v *job.ValveState) (gap measure.Length, ok bool) {
	if !a.j.Sheet.HasLockNut() {
		return 0, false
	}
	aim := a.j.AimOf(v)
	if a.shift.Enough && a.shift.Spread < v.Width() { // a wider one had better not be aimed by
		return a.shift.PreLockAim(aim)
	}
	if own := a.j.OwnShift; own != nil && *own != 0 {
		return aim - *own, aim > *own
	}
	return 0, false
}

// SetBy is the leaf or stack to set a valve by with the nut slack: the one nearest the aim, corrected by what
// locking usually does. Where it is corrected, it may lie outside the limits.
func (a *Advice) SetBy(v *job.ValveState) gauge.Stack {
	of := setting{a.j.AimOf(v), v.Limits.Window}
	if st, ok := a.setBy[of]; ok && v.CameBack < job.SecondTime {
		return st
	}
	aim, window := of.aim, &of.window
	if pre, ok := a.PreLock(v); ok {
		aim, window = pre, nil
	}
	choice, _ := a.j.Owned.Choose(aim, window, gauge.MaxStack)
	if beside := a.beside(v, choice.Stack); beside != nil && window != nil {
		return beside // for this valve
	}
	a.setBy[of] = choice.Stack
	return choice.Stack
}

// Screw says how to turn a valve's adjuster from the gap that was found to the aim: how far where the gap is
// a figure, else which way, by the side on which it is out. ok is false where that cannot be said: no gear is
// stated, neither figure nor side is known, or the gear has no screw. An eccentric is turned by feel, and so
// needs neither. The angle is rounded to the step that it is printed in.
func Screw(j *job.Job, v *job.ValveState) (turn adjust.Turn, ok bool) {
	adjuster, judged := j.Sheet.Adjuster, j.Found(v)
	if adjuster == nil {
		return turn, false
	}
	gap, side := v.Limits.Window.Upper, adjust.Close
	if judged.Verdict == clearance.Tight {
		gap, side = v.Limits.Window.Lower, adjust.Open
	}
	var err error
	switch {
	case judged.Estimate != nil:
		turn, err = adjust.Reckon(*adjuster, *judged.Estimate, j.AimOf(v))
	case j.Sheet.Gear().Means == gear.Felt:
		turn, err = adjust.Reckon(*adjuster, gap, j.AimOf(v))
	case judged.Verdict == clearance.Tight || judged.Verdict == clearance.Loose:
		turn, err = adjust.Towards(*adjuster, side)
	default:
		return turn, false
	}
	turn.Degrees = printed(turn.Degrees)
	return turn, err == nil
}

// CrossCheck are the leaves that prove a drag: the one down should fall through and the one up should not go.
// It is asked of the readings in hand, else of those that were kept; ok is false where nothing dragged, more
// was felt already, or such leaves are not owned.
func (a *Advice) CrossCheck(v *job.ValveState) (down, up gauge.Stack, ok bool) {
	readings := v.Round
	if len(readings) == 0 && v.Last != nil {
		readings = v.Last.Readings
	}
	return a.j.Yardstick(v).CrossCheck(readings)
}

// Rung is one leaf or stack of the ladder that a valve is read with.
type Rung struct {
	Stack    gauge.Stack
	Near     bool // about the limits, tried, advised, or to set by: shown without asking
	InWindow bool // within the limits
	SetBy    bool // the one to set by
	First    bool // the one to begin with
	// in the limits of the other kind of valve and not in these: the wrong leaf; nil: it is not
	Other *engine.Kind
}

// first is the leaf to begin with: the aim's own, so that a valve that is as it was wanted is known by one
// touch; where none lies within the limits, the one to set by.
func (a *Advice) first(v *job.ValveState) gauge.Stack {
	if leaf, ok := a.j.AimLeaf(v); ok {
		return leaf
	}
	return a.SetBy(v)
}

// about is how far outside the limits a leaf is shown without asking (from memory: valves are seldom further
// out).
const about = 150 * measure.Micrometre

// Ladder is every single leaf that is owned, and the stacks that help: those within the limits at a thickness
// that no single leaf has, the one worth trying next, those tried, and the one to set by. Thinnest first,
// each once.
func (a *Advice) Ladder(v *job.ValveState) []Rung {
	setBy := a.SetBy(v)
	wanted := []gauge.Stack{a.j.Judge(v).TryNext, setBy}
	for _, r := range v.Round {
		wanted = append(wanted, r.Stack)
	}
	if down, up, ok := a.CrossCheck(v); ok && len(v.Round) > 0 && len(v.Round[0].Stack) > 1 {
		wanted = append(wanted, down, up) // a stack is proved by stacks that nobody would lay otherwise
	}
	first := a.first(v)
	w, other := v.Limits.Window, otherLimits(a.j, v)
	shown := measure.Window{Lower: w.Lower - about, Upper: w.Upper + about}
	var rungs []Rung
	for _, st := range slices.Concat(a.j.Owned.Singles(), usefulStacks(a.j, v), wanted) {
		if len(st) == 0 {
			continue
		}
		t := st.Thickness()
		rung := Rung{Stack: st, InWindow: w.Contains(t), SetBy: st.Same(setBy), First: st.Same(first),
			Near: shown.Contains(t) || slices.ContainsFunc(wanted, st.Same)}
		if other != nil && !rung.InWindow && other.Limits.Window.Contains(t) {
			rung.Other = &other.Kind
		}
		rungs = append(rungs, rung)
	}
	slices.SortStableFunc(rungs,
		func(a, b Rung) int { return cmp.Compare(a.Stack.Thickness(), b.Stack.Thickness()) })
	return slices.CompactFunc(rungs, func(a, b Rung) bool { return a.Stack.String() == b.Stack.String() })
}

// mostStacks is how many stacks of two are put on the ladder unasked: more would hide the leaves (from
// memory).
const mostStacks = 4

// usefulStacks are stacks of two within the limits where no single leaf lies near.
func usefulStacks(j *job.Job, v *job.ValveState) (out []gauge.Stack) {
	reached, _ := j.Owned.Reach(v.Limits.Window, 2, 0)
	singles := j.Owned.Singles()
	for _, st := range reached {
		near := slices.ContainsFunc(singles, func(s gauge.Stack) bool {
			return (s.Thickness() - st.Thickness()).Abs() <= 2*j.Feel
		})
		if !near && len(out) < mostStacks { // a single leaf is near itself
			out = append(out, st)
		}
	}
	return out
}

// otherLimits is a valve of the other kind, where its limits differ.
func otherLimits(j *job.Job, v *job.ValveState) *job.ValveState {
	i := slices.IndexFunc(j.Valves, func(o *job.ValveState) bool {
		return o.Kind != v.Kind && o.Limits.Window != v.Limits.Window
	})
	if i < 0 {
		return nil
	}
	return j.Valves[i]
}
