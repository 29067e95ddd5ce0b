package adjust

import (
	"cmp"
	"fmt"
	"slices"

	"metronix/core/measure"
)

// FromStock is where a shim comes from when it is none of the engine's own.
const FromStock = "stock"

// ShimValve is one valve of a shimmed engine: the shim that is fitted, the gap measured with it, and where the gap should be.
type ShimValve struct {
	Valve    string
	Fitted   measure.Length
	Measured measure.Length
	Window   measure.Window
	Aim      measure.Length
	Out      bool // the shim was taken out already and lies elsewhere: it is not to be had from here
}

// wanted is the range of thicknesses that bring the gap into its window: new = fitted + measured − gap.
func (v ShimValve) wanted() measure.Window {
	sum := v.Fitted + v.Measured
	return measure.Window{Lower: sum - v.Window.Upper, Upper: sum - v.Window.Lower}
}

// Wanted is the thickness that would land on the aim: fitted + measured − aim.
func (v ShimValve) Wanted() measure.Length { return v.Fitted + v.Measured - v.Aim }

// gap is what a shim of a thickness would give.
func (v ShimValve) gap(shim measure.Length) measure.Length { return v.Fitted + v.Measured - shim }

// Fit is what goes under one valve.
type Fit struct {
	Valve string
	Shim  measure.Length
	From  string // the valve it came from (its own name: undisturbed), or FromStock
	Gap   measure.Length
}

// Count is so many shims of one thickness.
type Count struct {
	Shim measure.Length
	N    int
}

// Lacking is a valve that no shim brings into its window, and why.
type Lacking struct{ Valve, Reason string }

// ShimPlan is the choice over the whole engine: a shim for every valve that can be brought into its window, what is to be bought,
// which of the engine's own shims are left over, and which valves cannot be served (their shims stay where they are).
type ShimPlan struct {
	Fit        []Fit
	Buy        []Count
	Spare      []measure.Length
	Impossible []Lacking
}

// The weights of the choice, so that one purchase outweighs any number of disturbed valves, and one disturbed valve any sum of
// deviations: a deviation counts 256 per nanometre, and 1 more on the tight side.
const (
	perNanometre = 256
	perDisturbed = 1 << 36
	perBought    = 1 << 44
	never        = 1 << 52
)

// column is one shim that may be had once: from a valve, from the shop's stock, or bought for one valve.
type column struct {
	shim   measure.Length
	from   int // index of the valve it is fitted under; −1: the shop's; −2: bought
	bought int // the valve it is bought for
}

// ChooseShims fits the whole engine: the fewest shims bought, then the fewest valves disturbed, then the smallest sum of
// |gap − aim|, the loose side winning ties. It is a rectangular assignment, solved by the shortest augmenting paths of the
// Hungarian method (Kuhn 1955). Sizes are what can be bought, in any number; stock is what the shop has, each piece once. At most
// 80 valves, windows no wider than a millimetre.
func ChooseShims(valves []ShimValve, sizes []measure.Length, stock []Count) ShimPlan {
	plan := ShimPlan{}
	able, columns := []int{}, []column{}
	for i, v := range valves {
		if reason := lacking(v, valves, sizes, stock); reason != "" {
			plan.Impossible = append(plan.Impossible, Lacking{v.Valve, reason})
		} else {
			able = append(able, i)
			if !v.Out {
				columns = append(columns, column{shim: v.Fitted, from: i})
			}
		}
	}
	for _, s := range stock {
		for range min(s.N, len(able)) {
			columns = append(columns, column{shim: s.Shim, from: -1})
		}
	}
	for _, i := range able {
		if size, ok := nearest(valves[i], sizes); ok {
			columns = append(columns, column{shim: size, from: -2, bought: i})
		} else {
			columns = append(columns, column{from: -2, bought: i}) // none: it costs never, and keeps the columns no fewer than the rows
		}
	}
	chosen := assign(len(able), len(columns), func(row, col int) int64 { return costOf(valves, able[row], columns[col]) })
	plan.read(valves, able, columns, chosen)
	return plan
}

// lacking says why no shim serves a valve; empty where one does.
func lacking(v ShimValve, valves []ShimValve, sizes []measure.Length, stock []Count) string {
	wanted := v.wanted()
	fits := func(shim measure.Length) bool { return shim > 0 && wanted.Contains(shim) }
	if slices.ContainsFunc(sizes, fits) || slices.ContainsFunc(stock, func(c Count) bool { return c.N > 0 && fits(c.Shim) }) ||
		slices.ContainsFunc(valves, func(o ShimValve) bool { return !o.Out && fits(o.Fitted) }) {
		return ""
	}
	return fmt.Sprintf("%s needs a shim of %s: no size on the list and none in the engine lies there.", v.Valve, wanted)
}

// nearest is the size that lands nearest to the aim within the window, of equally near ones the thinner (looser).
func nearest(v ShimValve, sizes []measure.Length) (measure.Length, bool) {
	best, found := measure.Length(0), false
	for _, s := range sizes {
		if s <= 0 || !v.wanted().Contains(s) {
			continue
		}
		if !found || deviation(v, s) < deviation(v, best) {
			best, found = s, true
		}
	}
	return best, found
}

// deviation weighs how far a shim leaves the gap from the aim; the tight side is a hair worse.
func deviation(v ShimValve, shim measure.Length) int64 {
	off := v.gap(shim) - v.Aim
	weight := int64(off.Abs()) * perNanometre
	if off < 0 {
		weight++
	}
	return weight
}

func costOf(valves []ShimValve, row int, c column) int64 {
	v := valves[row]
	switch {
	case !v.wanted().Contains(c.shim), c.from == -2 && c.bought != row:
		return never
	case c.from == row:
		return deviation(v, c.shim)
	case c.from == -2:
		return perBought + perDisturbed + deviation(v, c.shim)
	}
	return perDisturbed + deviation(v, c.shim)
}

// read turns the assignment into what goes where, what to buy and what is over.
func (p *ShimPlan) read(valves []ShimValve, able []int, columns []column, chosen []int) {
	used := map[int]bool{}
	buy := map[measure.Length]int{}
	for row, col := range chosen {
		v := valves[able[row]]
		if col < 0 {
			p.Impossible = append(p.Impossible, Lacking{v.Valve, fmt.Sprintf("%s needs a shim of %s, and the ones that fit serve other valves or stay where they are.", v.Valve, v.wanted())})
			continue
		}
		c := columns[col]
		fit := Fit{Valve: v.Valve, Shim: c.shim, From: FromStock, Gap: v.gap(c.shim)}
		switch {
		case c.from >= 0:
			fit.From, used[c.from] = valves[c.from].Valve, true
		case c.from == -2:
			buy[c.shim]++
		}
		p.Fit = append(p.Fit, fit)
	}
	for row, i := range able {
		if !used[i] && chosen[row] >= 0 && !valves[i].Out {
			p.Spare = append(p.Spare, valves[i].Fitted)
		}
	}
	slices.Sort(p.Spare)
	for shim, n := range buy {
		p.Buy = append(p.Buy, Count{shim, n})
	}
	slices.SortFunc(p.Buy, func(a, b Count) int { return cmp.Compare(a.Shim, b.Shim) })
}
