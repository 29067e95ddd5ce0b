package gauge

import (
	"cmp"
	"maps"
	"slices"

	"metronix/core/measure"
)

// Item is one leaf of a set as it lies in the drawer.
type Item struct {
	Leaf
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

// Hole is a range of thicknesses that no leaf and no stack reaches, its ends being the nearest ones that are
// reached or the ends of the window asked about.
type Hole struct{ From, To measure.Length }

// Reach lists the thicknesses within a window that leaves and stacks of up to most leaves give, thinnest
// first, each with the fewest leaves (of as many the more certain ones), and the holes between them wider
// than wide.
//
// A hole is what a mechanic needs to know before the job: with 0.20 and 0.25 owned and limits of 0.21 to
// 0.24, no leaf can ever say that the valve is in by dragging; it can only be shut in between one that is
// free and one that will not go.
func (s Set) Reach(window measure.Window, most int, wide measure.Length) (stacks []Stack, holes []Hole) {
	best := map[measure.Length]Stack{}
	s.EachStack(window, 1, most, func(st Stack) {
		had, ok := best[st.Thickness()]
		if !ok || cmp.Or(cmp.Compare(len(st), len(had)),
			cmp.Compare(st.Uncertainty(), had.Uncertainty())) < 0 {
			best[st.Thickness()] = slices.Clone(st)
		}
	})
	for _, t := range slices.Sorted(maps.Keys(best)) {
		stacks = append(stacks, best[t])
	}
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
