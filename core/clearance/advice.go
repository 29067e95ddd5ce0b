package clearance

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"metronix/core/gauge"
	"metronix/core/measure"
)

// reach is how far outside the limits a gap is commonly found, and so how far leaves are weighed (from
// memory). Beyond it the leaf next to each limit still counts, because it settles the verdict.
const reach = 100 * measure.Micrometre

// nextLeaf names the owned leaf or stack to try next. Before any leaf has dragged the state of knowledge is
// the thickest leaf known free and the thinnest known not to go, so the tree of tries with the fewest
// expected ones is found exactly (see plan), for a gap that may lie anywhere about the window. After a drag
// that decided nothing, the leaf most of whose feels may still be had and settle it; none where no feel that
// may be had does.
func (y Yardstick) nextLeaf(readings []Reading) gauge.Stack {
	above, below := bounds(readings)
	var open []gauge.Stack
	for _, st := range candidates(y.Limits, y.Owned) {
		if t := st.Thickness(); t > above && t < below && !tried(readings, st) {
			open = append(open, st)
		}
	}
	if y.Rule == OneLeaf {
		if st := y.aimLeaf(readings); st != nil {
			return st
		}
	} else if !slices.ContainsFunc(readings, Reading.dragged) {
		return newPlan(y, open, readings).first()
	}
	var best gauge.Stack
	bestScore := 0.0
	for _, st := range open {
		score, ok := y.promise(readings, st)
		if !ok {
			continue
		}
		if better := cmp.Or(
			cmp.Compare(score, bestScore),
			cmp.Compare((nearestTo(best, y.Limits.Nominal)), nearestTo(st, y.Limits.Nominal)),
		); best == nil || better > 0 {
			best, bestScore = st, score
		}
	}
	return best
}

// nearestTo is how far a stack lies from the aim.
func nearestTo(st gauge.Stack, aim measure.Length) measure.Length {
	return (st.Thickness() - aim).Abs()
}

// bounds are the thickest leaf known to be free and the thinnest known not to go; drags bound neither.
func bounds(readings []Reading) (above, below measure.Length) {
	below = measure.MaxLength
	for _, r := range readings {
		switch t := r.Stack.Thickness(); r.Feel {
		case Free:
			above = max(above, t)
		case WontGo:
			below = min(below, t)
		}
	}
	return above, below
}

// tried says that a stack was felt in this valve already.
func tried(readings []Reading, st gauge.Stack) bool {
	return slices.ContainsFunc(readings, func(r Reading) bool { return r.Dial == nil && r.Stack.Same(st) })
}

// mostTried bounds how many leaves and stacks are weighed, so that advice stays quick however large the set.
const mostTried = 28

// candidates are the single leaves about the window, the nearest single leaf beyond each limit, and stacks of
// a thickness that no single leaf comes near, those nearest to a limit first: a limit is where a stack helps.
// Thinnest first.
func candidates(limits Limits, owned gauge.Set) []gauge.Stack {
	w := limits.Window
	near := measure.Window{Lower: max(0, w.Lower-reach), Upper: w.Upper + reach}
	singles := owned.Singles()
	list := slices.DeleteFunc(beyond(singles, w),
		func(st gauge.Stack) bool { return near.Contains(st.Thickness()) })
	for _, st := range singles {
		if near.Contains(st.Thickness()) {
			list = append(list, st)
		}
	}
	byLimit := func(a, b gauge.Stack) int {
		return cmp.Or(cmp.Compare(fromLimit(w, a.Thickness()), fromLimit(w, b.Thickness())),
			cmp.Compare(len(a), len(b)), cmp.Compare(a.Thickness(), b.Thickness()))
	}
	slices.SortStableFunc(list, byLimit)
	list = oneEach(list)
	list = list[:min(len(list), mostTried)]
	list = append(list, nearestStacks(near, owned, singles, mostTried-len(list), byLimit)...)
	slices.SortFunc(list, func(a, b gauge.Stack) int { return cmp.Compare(a.Thickness(), b.Thickness()) })
	return list
}

// fromLimit is how far a thickness lies from the nearer limit.
func fromLimit(w measure.Window, t measure.Length) measure.Length {
	return min((t - w.Lower).Abs(), (t - w.Upper).Abs())
}

// beyond is the nearest leaf at or below the lower limit, and at or above the upper one.
func beyond(singles []gauge.Stack, w measure.Window) (list []gauge.Stack) {
	if i := slices.IndexFunc(singles, func(st gauge.Stack) bool { return st.Thickness() > w.Lower }); i > 0 {
		list = append(list, singles[i-1])
	} else if n := len(singles); i < 0 && n > 0 {
		list = append(list, singles[n-1])
	}
	if i := slices.IndexFunc(singles,
		func(st gauge.Stack) bool { return st.Thickness() >= w.Upper }); i >= 0 {
		list = append(list, singles[i])
	}
	return list
}

// oneEach keeps the first of each thickness.
func oneEach(list []gauge.Stack) []gauge.Stack {
	seen := map[measure.Length]bool{}
	return slices.DeleteFunc(list, func(st gauge.Stack) bool {
		was := seen[st.Thickness()]
		seen[st.Thickness()] = true
		return was
	})
}

// nearestStacks are at most n stacks of two or three leaves, one for each thickness, that no single leaf lies
// within a leaf's uncertainty of: such a stack would tell no more than the leaf, and less surely. They are
// found without listing all.
func nearestStacks(near measure.Window, owned gauge.Set, singles []gauge.Stack, n int,
	order func(a, b gauge.Stack) int) []gauge.Stack {
	var list []gauge.Stack
	if n <= 0 {
		return nil
	}
	owned.EachStack(near, 2, gauge.MaxStack, func(st gauge.Stack) {
		if len(list) == n && order(st, list[n-1]) >= 0 {
			return
		}
		t := st.Thickness()
		if i, found := slices.BinarySearchFunc(singles, t-gauge.UncheckedUncertainty,
			func(s gauge.Stack, want measure.Length) int {
				return cmp.Compare(s.Thickness(), want)
			}); found || i < len(singles) && singles[i].Thickness() <= t+gauge.UncheckedUncertainty {
			return
		}
		at, _ := slices.BinarySearchFunc(list, st, order)
		if slices.ContainsFunc(list,
			func(o gauge.Stack) bool { return o.Thickness() == t && order(o, st) <= 0 }) {
			return
		}
		list = slices.DeleteFunc(slices.Insert(list, at, slices.Clone(st)),
			func(o gauge.Stack) bool { return o.Thickness() == t && order(o, st) > 0 })
		list = list[:min(len(list), n)]
	})
	return list
}

// perLeaf is what an extra leaf of a stack takes off its promise, in feels that settle: a stack is slower to
// lay and less certain than a leaf, so that it has to settle one feel more (from memory).
const perLeaf = 0.6

// promise scores a candidate: a point for each feel that may still be had and settles the verdict, less
// perLeaf for each further leaf. ok is false where no such feel settles anything.
func (y Yardstick) promise(readings []Reading, st gauge.Stack) (score float64, ok bool) {
	for _, f := range []Feel{Free, Drag, WontGo} {
		if !mayBeFelt(readings, st, f, y.Feel) {
			continue
		}
		j := y.settle(append(slices.Clone(readings), Reading{Stack: st, Feel: f}))
		if j.Conflict == "" && j.Verdict != Undecided {
			score++
		}
	}
	return score - perLeaf*float64(len(st)-1), score > 0
}

// mayBeFelt says whether a feel is still to be expected of a leaf: a gap within what the readings leave drags
// a leaf of its own thickness within the feel, lets a thinner one fall through and stops a thicker one.
func mayBeFelt(readings []Reading, st gauge.Stack, f Feel, feel measure.Length) bool {
	iv, _ := narrow(readings, feel)
	t, high := st.Thickness(), measure.MaxLength
	if iv.high != nil {
		high = *iv.high
	}
	switch f {
	case Free:
		return high > t+feel
	case WontGo:
		return iv.low < t-feel
	}
	return iv.low <= t+feel && high >= t-feel
}

// Why says in a sentence what the verdict came from: the readings that it was judged from, and the limits in
// the given unit. The leaves are named as they are stamped, whatever the unit.
func (j Judgement) Why(readings []Reading, unit measure.LengthUnit) string {
	if j.Conflict != "" {
		return j.Conflict
	}
	limits := j.Limits.In(unit)
	w := limits.Window
	var b strings.Builder
	if len(readings) == 0 {
		b.WriteString("Nothing is read yet")
	}
	for i, r := range readings {
		if i > 0 {
			b.WriteString(", ")
		}
		b.WriteString(r.String())
	}
	switch {
	case j.Side > 0 && j.Verdict == Loose:
		fmt.Fprintf(&b, ": looser than the %s wanted.", limits.Say(j.Side))
	case j.Side > 0:
		fmt.Fprintf(&b, ": tighter than the %s wanted.", limits.Say(j.Side))
	case j.Verdict == Undecided && j.TryNext != nil:
		fmt.Fprintf(&b, ": try %s. Limits %s.", j.TryNext, limits)
	case j.Verdict == Undecided:
		fmt.Fprintf(&b, ": no leaf of this set settles it against %s.", limits)
	case j.Verdict == In:
		fmt.Fprintf(&b, ": within %s.", limits)
	case j.Estimate != nil && j.Verdict == Tight:
		fmt.Fprintf(&b, ": %s under the limit %s.", limits.Say(w.Lower-*j.Estimate), limits.Say(w.Lower))
	case j.Estimate != nil:
		fmt.Fprintf(&b, ": %s over the limit %s.", limits.Say(*j.Estimate-w.Upper), limits.Say(w.Upper))
	case j.Verdict == Tight:
		fmt.Fprintf(&b, ": under the limit %s.", limits.Say(w.Lower))
	default:
		fmt.Fprintf(&b, ": over the limit %s.", limits.Say(w.Upper))
	}
	if limits.NominalOnly {
		fmt.Fprintf(&b, " The source gives %s without limits; ±%s is taken.", limits.Say(limits.Nominal),
			limits.Say(NominalSlack))
	}
	if j.Verdict != Undecided && !j.Sure && j.Side == 0 {
		b.WriteString(" Close: a limit lies within the uncertainty.")
	}
	if j.PinDown != nil {
		fmt.Fprintf(&b, " The shim is reckoned from the gap: find the leaf that drags. Try %s.", j.PinDown)
	}
	return b.String()
}

// widestStep is how far beyond the only leaf that bounds a gap the next one is looked for (from memory:
// valves are seldom further out).
const widestStep = 150 * measure.Micrometre

// worthAStack is how far a stack must lie from what is known already to be worth laying (from memory: nearer,
// feel and the leaves' own doubt outweigh it).
const worthAStack = 10 * measure.Micrometre

// PinDown names the owned leaf, else the stack of two, that narrows a gap best towards a figure, whatever the
// verdict: the middle one of those that may still drag. Nil where a reading gives a figure already, or
// neither leaf nor stack lies between what is free and what does not go.
func PinDown(readings []Reading, owned gauge.Set) gauge.Stack {
	if len(readings) == 0 || slices.ContainsFunc(readings, Reading.dragged) {
		return nil
	}
	above, below := bounds(readings)
	from, to := above, below
	switch {
	case below == measure.MaxLength:
		to = above + widestStep + 1
	case above == 0:
		from = max(0, below-widestStep-1)
	}
	if between := betweenLeaves(readings, owned.Singles(), from, to); len(between) > 0 {
		return between[len(between)/2]
	}
	between := betweenLeaves(readings, owned.Singles(), above, below) // further off than usual
	if len(between) == 0 {
		from, to := from+worthAStack, to-worthAStack
		stacks, _ := owned.Reach(measure.Window{Lower: from, Upper: to}, 2, 0)
		if between = betweenLeaves(readings, stacks, from, to); len(between) > 0 {
			return between[len(between)/2]
		}
	}
	switch {
	case len(between) == 0:
		return nil
	case above == 0:
		return between[len(between)-1]
	}
	return between[0]
}

// betweenLeaves are the stacks not tried yet between two thicknesses, ends left out.
func betweenLeaves(readings []Reading, stacks []gauge.Stack, from, to measure.Length) (list []gauge.Stack) {
	for _, st := range stacks {
		if t := st.Thickness(); t > from && t < to && !tried(readings, st) {
			list = append(list, st)
		}
	}
	return list
}
