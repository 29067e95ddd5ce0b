package gauge

import (
	"cmp"
	"slices"

	"metronix/core/measure"
)

// Item is one leaf of a set as it lies in the drawer.
type Item struct {
	Leaf
	Thou    bool // marked in thousandths of an inch
	Angled  bool // bent, for gaps that a straight leaf does not reach
	Missing bool // lost or worn out: it belongs to the set and is not there
}

// Owned are the leaves that are there.
func Owned(items []Item) Set {
	set := Set{}
	for _, i := range items {
		if !i.Missing {
			set = append(set, i.Leaf)
		}
	}
	return set
}

// Hole is a range of thicknesses that no leaf and no stack reaches, its ends being the nearest ones that are reached or the ends of the
// window asked about.
type Hole struct{ From, To measure.Length }

// Reach lists the thicknesses within a window that leaves and stacks of up to most leaves give, thinnest first, each with the fewest
// leaves (of as many the more certain ones), and the holes between them wider than wide.
func (s Set) Reach(window measure.Window, most int, wide measure.Length) (stacks []Stack, holes []Hole) {
	all := s.Stacks(window, most)
	slices.SortStableFunc(all, func(a, b Stack) int {
		return cmp.Or(cmp.Compare(a.Thickness(), b.Thickness()), cmp.Compare(len(a), len(b)), cmp.Compare(a.Uncertainty(), b.Uncertainty()))
	})
	stacks = slices.CompactFunc(all, func(a, b Stack) bool { return a.Thickness() == b.Thickness() })
	at := window.Lower
	for i := 0; i <= len(stacks); i++ {
		next := window.Upper
		if i < len(stacks) {
			next = stacks[i].Thickness()
		}
		if next-at > wide {
			holes = append(holes, Hole{at, next})
		}
		at = next
	}
	return stacks, holes
}
