package adjust

import (
	"slices"

	"metronix/core/measure"
)

// frontier is how near to the aim every gap of the valves that are served can be brought for so many bought,
// from the fewest on: for each number the smallest worst distance, as long as one more bought makes it
// smaller.
//
// For a wanted worst distance the fewest purchases follow from a matching: of the valves, as many as can be
// get a shim that is to be had without buying and lies near enough, those first for which no size on the list
// does; the rest buy (bipartite matching by augmenting paths, Kuhn 1955). The wanted distance is searched
// among those that shims can give.
func frontier(valves []ShimValve, sizes []measure.Length, columns []column, plan ShimPlan) (list []ShimCost) {
	m := matcher{}
	for row, v := range valves {
		if slices.ContainsFunc(plan.Impossible, func(l Lacking) bool { return l.Valve == v.Valve }) {
			m.bound = append(m.bound, row) // it keeps its own shim
		}
	}
	for row, v := range valves {
		if slices.Contains(m.bound, row) {
			continue
		}
		r := matchRow{buys: measure.MaxLength}
		for col, c := range columns {
			if c.from == ofMaker || c.from == ofNobody || slices.Contains(m.bound, c.from) {
				continue
			}
			if v.serves(c.shim, c.from == row) {
				off := (v.gap(c.shim) - v.Aim).Abs()
				r.free = append(r.free, offer{col, off})
				m.worst = append(m.worst, off)
			}
		}
		if size, ok := nearest(v, sizes); ok {
			r.buys = (v.gap(size) - v.Aim).Abs()
			m.worst = append(m.worst, r.buys)
		}
		m.rows = append(m.rows, r)
	}
	slices.Sort(m.worst)
	m.worst = slices.Compact(m.worst)
	from := len(m.worst) - 1 // the worst distance that is looked at next
	for from >= 0 {
		bought, ok := m.bought(m.worst[from])
		if !ok {
			break
		}
		// the smallest distance that costs no more; the number bought never falls as the distance shrinks
		at, _ := slices.BinarySearchFunc(m.worst[:from+1], bought, func(worst measure.Length, most int) int {
			if n, ok := m.bought(worst); ok && n <= most {
				return 1
			}
			return -1
		})
		list = append(list, ShimCost{bought, m.worst[at]})
		from = at - 1
	}
	return list
}

// matcher finds how few shims are bought so that no gap lies farther from its aim than a wanted distance.
type matcher struct {
	rows  []matchRow
	bound []int            // valves that are not served
	worst []measure.Length // every distance that a shim can give, rising
}

// matchRow is one valve: the shims that serve it without buying, and how near the best size on the list
// comes.
type matchRow struct {
	free []offer
	buys measure.Length // MaxLength: none serves
}

// offer is a shim by its column, and how far from the aim it leaves a gap.
type offer struct {
	col int
	off measure.Length
}

// bought is the fewest purchases for a worst distance; ok is false where some valve cannot come so near.
// Those for which no size on the list comes so near are matched first, and keep what they have.
func (m matcher) bought(worst measure.Length) (n int, ok bool) {
	holder := map[int]int{} // the row that has a column's shim
	for _, first := range []bool{true, false} {
		for row := range m.rows {
			mustHave := m.rows[row].buys > worst
			switch {
			case mustHave != first || m.augment(row, worst, holder, map[int]bool{}):
			case mustHave:
				return 0, false
			default:
				n++
			}
		}
	}
	return n, true
}

// augment finds a shim for a row, moving others to theirs where need be. A row that has one keeps one.
func (m matcher) augment(row int, worst measure.Length, holder map[int]int, tried map[int]bool) bool {
	for _, o := range m.rows[row].free {
		if o.off > worst || tried[o.col] {
			continue
		}
		tried[o.col] = true
		other, taken := holder[o.col]
		if !taken || m.augment(other, worst, holder, tried) {
			holder[o.col] = row
			return true
		}
	}
	return false
}
