// Package gauge holds feeler leaves and sets: marked and true thickness, stacks of leaves and their uncertainty,
// and which stack serves a wanted thickness best.
package gauge

import (
	"cmp"
	"slices"
	"strings"

	"metronix/core/measure"
)

// Thickness uncertainty of one leaf, either way: checked by micrometer, or trusted from its marking. From memory.
const (
	CheckedUncertainty   = 2 * measure.Micrometre
	UncheckedUncertainty = 5 * measure.Micrometre
)

// MaxStack is the most leaves that are stacked (common practice: more spring apart).
const MaxStack = 3

// MaxLeaf is the thickest feeler leaf that is taken.
const MaxLeaf = 5 * measure.Millimetre

// Leaf is one feeler leaf. Measured is 0 where no micrometer has been on it.
type Leaf struct{ Marked, Measured measure.Length }

// True is the micrometer's figure, else the marking.
func (l Leaf) True() measure.Length {
	if l.Measured > 0 {
		return l.Measured
	}
	return l.Marked
}

// Uncertainty of the leaf's thickness, either way.
func (l Leaf) Uncertainty() measure.Length {
	if l.Measured > 0 {
		return CheckedUncertainty
	}
	return UncheckedUncertainty
}

// Set is the leaves a mechanic owns, in any order.
type Set []Leaf

// Find gives the owned leaf of a marking; a leaf that is not owned counts as unchecked.
func (s Set) Find(marked measure.Length) Leaf {
	for _, l := range s {
		if l.Marked == marked {
			return l
		}
	}
	return Leaf{Marked: marked}
}

// Pick looks up several markings.
func (s Set) Pick(marked []measure.Length) Stack {
	stack := make(Stack, len(marked))
	for i, m := range marked {
		stack[i] = s.Find(m)
	}
	return stack
}

// Singles are the owned leaves as stacks of one, thinnest first, a doubled marking once.
func (s Set) Singles() []Stack {
	var list []Stack
	for _, l := range s {
		if !slices.ContainsFunc(list, func(o Stack) bool { return o[0].Marked == l.Marked }) {
			list = append(list, Stack{l})
		}
	}
	slices.SortFunc(list, func(a, b Stack) int { return cmp.Compare(a.Thickness(), b.Thickness()) })
	return list
}

// Stack is one or more leaves used together.
type Stack []Leaf

// Thickness is the sum of the true thicknesses.
func (s Stack) Thickness() (sum measure.Length) {
	for _, l := range s {
		sum += l.True()
	}
	return sum
}

// Uncertainty is the sum over the leaves.
func (s Stack) Uncertainty() (sum measure.Length) {
	for _, l := range s {
		sum += l.Uncertainty()
	}
	return sum
}

// Marked lists the markings, thickest first.
func (s Stack) Marked() []measure.Length {
	list := make([]measure.Length, len(s))
	for i, l := range s {
		list[i] = l.Marked
	}
	slices.SortFunc(list, func(a, b measure.Length) int { return cmp.Compare(b, a) })
	return list
}

// String writes the markings: "0.15 + 0.06".
func (s Stack) String() string {
	parts := make([]string, len(s))
	for i, m := range s.Marked() {
		parts[i] = strings.TrimSuffix(m.String(), " mm")
	}
	return strings.Join(parts, " + ")
}

// Stacks lists every combination of up to most leaves with a thickness in the closed range, each leaf used once.
func (s Set) Stacks(within measure.Window, most int) []Stack {
	var list []Stack
	leaves := slices.Clone(s)
	slices.SortFunc(leaves, func(a, b Leaf) int { return cmp.Compare(a.True(), b.True()) })
	var grow func(from int, so Stack, sum measure.Length)
	grow = func(from int, so Stack, sum measure.Length) {
		for i := from; i < len(leaves); i++ {
			total := sum + leaves[i].True()
			if total > within.Upper {
				return // the rest are thicker still
			}
			next := append(slices.Clone(so), leaves[i])
			if total >= within.Lower {
				list = append(list, next)
			}
			if len(next) < most {
				grow(i+1, next, total)
			}
		}
	}
	grow(0, nil, 0)
	return list
}
