package gauge

import (
	"cmp"
	"slices"
	"strings"

	"metronix/core/measure"
)

// Thickness uncertainty of one leaf, either way: checked by micrometer, or trusted from its marking. From
// memory.
const (
	CheckedUncertainty   = 2 * measure.Micrometre
	UncheckedUncertainty = 5 * measure.Micrometre
)

// MaxStack is the most leaves that are stacked (common practice: more spring apart).
const MaxStack = 3

// MaxLeaf is the thickest feeler leaf that is taken: sets end at 1.00 mm, a few go on a little (from memory).
// MaxStoredLeaf is the thickest that earlier versions took, and that may still lie in a stored set.
const (
	MaxLeaf       = 1500 * measure.Micrometre
	MaxStoredLeaf = 5 * measure.Millimetre
)

// MaxLeaves is the most leaves of a set.
const MaxLeaves = 120

// ID tells the leaves of a set apart: a set may hold a straight and an angled leaf of one marking, and no
// marking twice of a form.
type ID struct {
	Marked measure.Length
	Angled bool // bent, for gaps that a straight leaf does not reach
}

// Straight gives the ids of straight leaves by their markings.
func Straight(marked ...measure.Length) []ID {
	ids := make([]ID, len(marked))
	for i, m := range marked {
		ids[i] = ID{Marked: m}
	}
	return ids
}

// Leaf is one feeler leaf. Measured is 0 where no micrometer has been on it.
type Leaf struct {
	ID
	Measured measure.Length
	Thou     bool // stamped in thousandths of an inch
}

// Plain is a straight leaf stamped in millimetres that no micrometer has been on.
func Plain(marked measure.Length) Leaf { return Leaf{ID: ID{Marked: marked}} }

// True is the micrometer's figure, else the marking.
//
// A leaf that has been cut down, bent flat or worn is not what is stamped on it; a rounding caliper is no
// micrometer.
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

// String is what is stamped on the leaf: "0.25", ".009" for a leaf in thousandths of an inch, "0.25 angled".
func (l Leaf) String() string {
	name := strings.TrimSuffix(l.Marked.String(), " mm")
	if l.Thou {
		name = "." + strings.TrimPrefix(l.Marked.DecimalInches(), "0.")
		for len(name) < len(".009") {
			name += "0"
		}
	}
	if l.Angled {
		name += " angled"
	}
	return name
}

// Set is the leaves a mechanic owns, in any order.
type Set []Leaf

// Find gives the owned leaf of an id, else the one of that marking in the other form; a leaf that is not
// owned counts as unchecked.
func (s Set) Find(id ID) Leaf {
	if i := slices.IndexFunc(s, func(l Leaf) bool { return l.ID == id }); i >= 0 {
		return s[i]
	}
	if i := slices.IndexFunc(s, func(l Leaf) bool { return l.Marked == id.Marked }); i >= 0 {
		return s[i]
	}
	return Leaf{ID: id}
}

// Pick looks up several leaves.
func (s Set) Pick(ids []ID) Stack {
	stack := make(Stack, len(ids))
	for i, id := range ids {
		stack[i] = s.Find(id)
	}
	return stack
}

// Singles are the owned leaves as stacks of one, thinnest first.
func (s Set) Singles() []Stack {
	list := make([]Stack, len(s))
	for i, l := range s {
		list[i] = Stack{l}
	}
	slices.SortStableFunc(list, func(a, b Stack) int {
		return cmp.Or(cmp.Compare(a.Thickness(), b.Thickness()), cmp.Compare(a[0].Marked, b[0].Marked))
	})
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

// IDs lists the leaves, the thickest marking first.
func (s Stack) IDs() []ID {
	list := make([]ID, len(s))
	for i, l := range s.sorted() {
		list[i] = l.ID
	}
	return list
}

// Same says whether two stacks are of the same leaves.
func (s Stack) Same(o Stack) bool { return slices.Equal(s.IDs(), o.IDs()) }

// sorted lays the thickest first, which is how stacks are named and compared.
func (s Stack) sorted() Stack {
	out := slices.Clone(s)
	slices.SortStableFunc(out, func(a, b Leaf) int { return cmp.Compare(b.Marked, a.Marked) })
	return out
}

// String writes what is stamped on the leaves: "0.20 + 0.04", ".009 + .003".
func (s Stack) String() string {
	parts := make([]string, len(s))
	for i, l := range s.sorted() {
		parts[i] = l.String()
	}
	return strings.Join(parts, " + ")
}

// Stacks lists every combination of up to most leaves with a thickness in the closed range, each leaf used
// once.
func (s Set) Stacks(within measure.Window, most int) []Stack {
	var list []Stack
	s.EachStack(within, 1, most, func(st Stack) { list = append(list, slices.Clone(st)) })
	return list
}

// EachStack calls f with every combination of least to most leaves with a thickness in the closed range, each
// leaf used once. The stack belongs to EachStack: f clones what it keeps.
func (s Set) EachStack(within measure.Window, least, most int, f func(Stack)) {
	leaves := slices.Clone(s)
	slices.SortFunc(leaves, func(a, b Leaf) int { return cmp.Compare(a.True(), b.True()) })
	so := make(Stack, 0, most)
	var grow func(from int, sum measure.Length)
	grow = func(from int, sum measure.Length) {
		for i := from; i < len(leaves); i++ {
			total := sum + leaves[i].True()
			if total > within.Upper {
				return // the rest are thicker still
			}
			so = append(so, leaves[i])
			if total >= within.Lower && len(so) >= least {
				f(so)
			}
			if len(so) < most {
				grow(i+1, total)
			}
			so = so[:len(so)-1]
		}
	}
	grow(0, 0)
}
