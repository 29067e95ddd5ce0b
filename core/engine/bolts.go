package engine

import (
	"cmp"
	"math"
	"slices"
)

// MaxBolts is the most bolts a cover is said to have.
const MaxBolts = 60

// Bolt is one of a cover's bolts: in which of its two rows it sits, how far along from the front, 0 to 1, and
// when its turn comes in a round of tightening, from 1; 0: the maker's own numbers say.
type Bolt struct {
	Row    int
	Along  float64
	Number int
}

// Bolts are a cover's bolts in two rows, front to rear, with the order in which a round goes over them
// (common practice):
//
//   - from the middle outwards: the bolts nearest the middle first, so that the gasket is laid flat outwards
//     and nothing is trapped between two tight ends;
//   - crosswise: each is followed by the one that lies opposite it through the middle, so that the cover comes
//     down level, and such pairs too go from the middle outwards;
//   - by the maker's numbers: those stand on the cover or in the book, and none are given here.
//
// An odd bolt more sits in the first row. Without a number of bolts, or with more than MaxBolts, there are
// none to draw.
func (c Closing) DrawnBolts() []Bolt {
	if c.Bolts <= 0 || c.Bolts > MaxBolts {
		return nil
	}
	var list []Bolt
	for row, n := range []int{(c.Bolts + 1) / 2, c.Bolts / 2} {
		for i := range n {
			list = append(list, Bolt{Row: row, Along: (float64(i) + 0.5) / float64(n)})
		}
	}
	if c.Pattern == Numbered {
		return list
	}
	order := make([]int, len(list))
	for i := range order {
		order[i] = i
	}
	// how far from the middle, in steps fine enough to tell bolts apart and coarse enough to see two as level
	away := func(i int) int { return int(math.Round(math.Abs(list[i].Along-0.5) * 1e6)) }
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(away(a), away(b)) })
	if c.Pattern == Crosswise {
		order = opposed(list, order)
	}
	for n, i := range order {
		list[i].Number = n + 1
	}
	return list
}

// opposed orders bolts so that each is followed by the one opposite it through the middle, as long as there
// is one that has not come yet.
func opposed(list []Bolt, order []int) (out []int) {
	left := slices.Clone(order)
	for len(left) > 0 {
		first := left[0]
		left = left[1:]
		out = append(out, first)
		i := slices.IndexFunc(left, func(k int) bool {
			return list[k].Row != list[first].Row && math.Abs(list[k].Along+list[first].Along-1) < 1e-9
		})
		if i >= 0 {
			out = append(out, left[i])
			left = slices.Delete(left, i, i+1)
		}
	}
	return out
}
