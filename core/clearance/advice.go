package clearance

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"metronix/core/gauge"
	"metronix/core/measure"
)

// reach is how far outside the limits a leaf is still worth trying.
const reach = 100 * measure.Micrometre

// nextLeaf names the owned leaf or stack to try next. Before any leaf has dragged the state of knowledge is the thickest leaf known
// free and the thinnest known not to go, so the tree of tries with the fewest expected ones is found exactly (see plan), for a gap
// that may lie anywhere about the window. After a drag that decided nothing, the leaf most of whose feels settle it.
func nextLeaf(limits Limits, readings []Reading, owned gauge.Set, rule Rule, feel measure.Length) gauge.Stack {
	above, below := bounds(readings)
	var open []gauge.Stack
	for _, st := range candidates(limits, owned) {
		if t := st.Thickness(); t > above && t < below && !tried(readings, st) {
			open = append(open, st)
		}
	}
	if !slices.ContainsFunc(readings, Reading.dragged) {
		return newPlan(limits, open, readings, rule, feel).first()
	}
	var best gauge.Stack
	bestScore := 0.0
	for _, st := range open {
		score := promise(limits, readings, st, rule, feel)
		if better := cmp.Or(
			cmp.Compare(score, bestScore),
			cmp.Compare((nearestTo(best, limits.Nominal)), nearestTo(st, limits.Nominal)),
		); best == nil || better > 0 {
			best, bestScore = st, score
		}
	}
	return best
}

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

func tried(readings []Reading, st gauge.Stack) bool {
	return slices.ContainsFunc(readings, func(r Reading) bool { return r.Dial == nil && slices.Equal(r.Stack.Marked(), st.Marked()) })
}

// mostTried bounds how many leaves and stacks are weighed, so that advice stays quick however large the set.
const mostTried = 28

// candidates are the single leaves about the window, and stacks of a thickness that no single leaf has, those nearest to a limit
// first: a limit is where a stack helps. Thinnest first.
func candidates(limits Limits, owned gauge.Set) []gauge.Stack {
	w := limits.Window
	near := measure.Window{Lower: max(0, w.Lower-reach), Upper: w.Upper + reach}
	all := owned.Stacks(near, gauge.MaxStack)
	fromLimit := func(st gauge.Stack) measure.Length {
		return min((st.Thickness() - w.Lower).Abs(), (st.Thickness() - w.Upper).Abs())
	}
	slices.SortStableFunc(all, func(a, b gauge.Stack) int {
		single := cmp.Compare(min(len(a), 2), min(len(b), 2))
		return cmp.Or(single, cmp.Compare(fromLimit(a), fromLimit(b)), cmp.Compare(len(a), len(b)), cmp.Compare(a.Thickness(), b.Thickness()))
	})
	seen := map[measure.Length]bool{}
	list := slices.DeleteFunc(all, func(st gauge.Stack) bool {
		t := st.Thickness()
		was := seen[t]
		seen[t] = true
		return was
	})
	list = list[:min(len(list), mostTried)]
	slices.SortFunc(list, func(a, b gauge.Stack) int { return cmp.Compare(a.Thickness(), b.Thickness()) })
	return list
}

// promise scores a candidate: a point for each feel that is possible and settles the verdict, less a little per extra leaf,
// because a stack is slower to lay and less certain than a leaf.
func promise(limits Limits, readings []Reading, st gauge.Stack, rule Rule, feel measure.Length) float64 {
	score := -0.6 * float64(len(st)-1)
	for _, f := range []Feel{Free, Drag, WontGo} {
		j := settle(limits.Window, append(slices.Clone(readings), Reading{Stack: st, Feel: f}), rule, feel)
		if j.Conflict == "" && j.Verdict != Undecided {
			score++
		}
	}
	return score
}

// explain says in a sentence what the verdict came from.
func explain(limits Limits, readings []Reading, j Judgement) string {
	if j.Conflict != "" {
		return j.Conflict
	}
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
	case j.Verdict == Undecided && j.TryNext != nil:
		fmt.Fprintf(&b, ": try %s. Limits %s.", j.TryNext, w)
	case j.Verdict == Undecided:
		fmt.Fprintf(&b, ": no leaf of this set settles it against %s.", w)
	case j.Verdict == In:
		fmt.Fprintf(&b, ": within %s.", w)
	case j.Estimate != nil && j.Verdict == Tight:
		fmt.Fprintf(&b, ": %s under the limit %s.", w.Lower-*j.Estimate, w.Lower)
	case j.Estimate != nil:
		fmt.Fprintf(&b, ": %s over the limit %s.", *j.Estimate-w.Upper, w.Upper)
	case j.Verdict == Tight:
		fmt.Fprintf(&b, ": under the limit %s.", w.Lower)
	default:
		fmt.Fprintf(&b, ": over the limit %s.", w.Upper)
	}
	if limits.NominalOnly {
		fmt.Fprintf(&b, " The source gives %s without limits; ±%s is taken.", limits.Nominal, NominalSlack)
	}
	if j.Verdict != Undecided && !j.Sure {
		b.WriteString(" Close: a limit lies within the uncertainty.")
	}
	return b.String()
}

// widestStep is how far above a leaf that is free the next one is looked for, where nothing is known not to go.
const widestStep = 150 * measure.Micrometre

// PinDown names the owned leaf that narrows a gap best towards a figure, whatever the verdict: the middle one of those that may still
// drag. Nil where a reading gives a figure already, or no leaf lies between what is free and what does not go.
func PinDown(readings []Reading, owned gauge.Set) gauge.Stack {
	if len(readings) == 0 || slices.ContainsFunc(readings, Reading.dragged) {
		return nil
	}
	above, below := bounds(readings)
	below = min(below, above+widestStep+1)
	var between []gauge.Stack
	for _, st := range owned.Singles() {
		if t := st.Thickness(); t > above && t < below && !tried(readings, st) {
			between = append(between, st)
		}
	}
	if len(between) == 0 {
		return nil
	}
	return between[len(between)/2]
}
