package adjust

import (
	"cmp"
	"maps"
	"slices"

	"metronix/core/measure"
)

// FromStock is where a shim comes from when it is none of the engine's own.
const FromStock = "stock"

// ShimValve is one valve of a shimmed engine: the shim that is fitted, the gap measured with it, and where
// the gap should be.
//
// With 2.70 fitted and 0.10 measured where 0.20 is wanted, the shim is too thick by 0.10: 2.60 is wanted.
// A shim's size and the gap over it always add up to the same, whichever shim is in: that sum is what the
// choice works with.
type ShimValve struct {
	Valve    string
	Fitted   measure.Length
	Measured measure.Length
	Window   measure.Window
	Aim      measure.Length
	// Uncertainty of the measured gap, either way: another shim must leave the gap inside its window by so
	// much
	Uncertainty measure.Length
	Keeps       bool // it was found in its window: its own shim serves as it is
	Out         bool // the shim was taken out already and lies elsewhere: it is not to be had from here
	// Stays says that it was fitted in this job and found in: nothing moves it any more
	Stays bool
	// Tried are shims that were under it in this job already and did not do: none of them goes in again
	Tried []measure.Length
	// LeastGain is how much nearer to its aim a valve that its own shim serves must come to be moved for the
	// aim's sake alone; 0: by anything
	LeastGain measure.Length
}

// wanted is the range of thicknesses that surely bring the gap into its window: new = fitted + measured −
// gap. Where the uncertainty is wider than the window its ends change places, and it holds none.
func (v ShimValve) wanted() measure.Window {
	sum := v.Fitted + v.Measured
	return measure.Window{Lower: sum - v.Window.Upper + v.Uncertainty,
		Upper: sum - v.Window.Lower - v.Uncertainty}
}

// serves says whether a shim under the valve leaves its gap where it should be; own is the one that it has.
func (v ShimValve) serves(shim measure.Length, own bool) bool {
	return v.wanted().Contains(shim) || own && (v.Stays || v.Keeps && v.Window.Contains(v.Measured))
}

// gains says that another shim brings a valve that its own serves so much nearer to its aim that it is worth
// moving.
func (v ShimValve) gains(shim measure.Length) bool {
	if v.LeastGain == 0 || v.Out || !v.serves(v.Fitted, true) {
		return true
	}
	return (v.gap(v.Fitted)-v.Aim).Abs()-(v.gap(shim)-v.Aim).Abs() > v.LeastGain
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

	Bought bool // it is to be bought: no valve, and not the stock, has it to give
}

// Count is so many shims of one thickness.
type Count struct {
	Shim measure.Length
	N    int
}

// Lacking is a valve that no shim surely brings into its window, and why.
type Lacking struct {
	Valve, Reason string
	// Try is the shim in stock that would lie furthest inside the window, were the gap as it was read: it may
	// be tried all the same, and read; 0: none was left to try
	Try measure.Length
	// Order is the size that can be bought of which the same is so, where none in stock may be tried; 0: there
	// is none
	Order measure.Length
}

// ShimPlan is the choice over the whole engine: a shim for every valve that can be brought into its window,
// what is to be bought, which of the engine's own shims are left over, and which valves cannot be served
// (their shims stay where they are).
type ShimPlan struct {
	Fit        []Fit
	Buy        []Count
	Spare      []measure.Length
	Impossible []Lacking
	Frontier   []ShimCost
}

// ShimCost is one point of the frontier between buying and coming near the aim: with so many bought, no gap
// need lie farther from its aim than Worst.
type ShimCost struct {
	Bought int
	Worst  measure.Length
}

// Cost is what the plan takes: how many shims are bought, how many valves get another, and how far from its
// aim the worst gap lies.
func (p ShimPlan) Cost(aim func(valve string) measure.Length) (bought, disturbed int, worst measure.Length) {
	for _, f := range p.Fit {
		if f.Bought {
			bought++
		}
		if f.From != f.Valve {
			disturbed++
		}
		worst = max(worst, (f.Gap - aim(f.Valve)).Abs())
	}
	return bought, disturbed, worst
}

// Prefer is what a choice of shims is after first. The zero value is FewestBought.
type Prefer string

// FewestBought buys as few as can be and then disturbs as few valves; NearestAim brings every gap as near to
// its aim as can be, and buys for it (both common practice).
const (
	FewestBought Prefer = "fewest_bought"
	NearestAim   Prefer = "nearest_aim"
)

// The weights of the choice, so that one valve more that is served outweighs any purchase, one purchase any
// number of disturbed valves, and one disturbed valve any sum of deviations: a deviation counts 256 per
// nanometre, and 1 more on the tight side. With 80 valves and windows up to a millimetre wide none reaches
// the next: 80 × 256 × 10⁶ < 2³⁶, 80 × 2³⁶ < 2⁴⁴, 80 × 2⁴⁴ < 2⁵².
//
// Where the aim comes first, a nanometre outweighs any number of purchases, a purchase any number of
// disturbed valves, and one of these every tight side: 80 × 10⁶ × 2²² < 2⁴⁹.
const (
	perNanometre = 256
	perDisturbed = 1 << 36
	perBought    = 1 << 44
	perUnserved  = 1 << 52

	aimPerNanometre = 1 << 22
	aimPerBought    = 1 << 15
	aimPerDisturbed = 1 << 8

	never = 1 << 60
)

// column is one shim that may be had once: from a valve, from the shop's stock, or bought for one valve.
type column struct {
	shim   measure.Length
	from   int // index of the valve it is fitted under; or one of the following
	bought int // the valve it is bought for, or left bare by
}

// Where a column's shim is from, when it is under no valve: the shop's stock, bought, or no shim at all for a
// valve whose own lies outside.
const (
	ofShop = -1 - iota
	ofMaker
	ofNobody
)

// ChooseShims fits the whole engine: the fewest shims bought, then the fewest valves disturbed, then the
// smallest sum of |gap − aim|, the loose side winning ties. A valve that cannot be served keeps its own shim,
// which is then not to be had for another. It is a rectangular assignment, solved by the shortest augmenting
// paths of the Hungarian method (Kuhn 1955). With NearestAim it is the smallest sum of |gap − aim| first,
// then the fewest bought, then the fewest disturbed. Sizes are what can be bought, in any number; stock is
// what the shop has, each piece once. At most 80 valves, windows no wider than a millimetre.
//
// Swapping among the engine's own shims costs nothing and is tried first. It also disturbs valves that
// were in, and a job is the safer the fewer of them it touches; so among plans that buy equally few, the
// one that moves the fewest is taken, and only then the one whose gaps lie nearest to their aims. A gap
// that is a hair loose is preferred to one as far tight: a tight valve burns, a loose one ticks (common
// practice).
func ChooseShims(valves []ShimValve, sizes []measure.Length, stock []Count, prefer Prefer) ShimPlan {
	var columns []column
	for i, v := range valves {
		if v.Out {
			columns = append(columns, column{from: ofNobody, bought: i})
		} else {
			columns = append(columns, column{shim: v.Fitted, from: i})
		}
		if size, ok := nearest(v, sizes); ok {
			columns = append(columns, column{shim: size, from: ofMaker, bought: i})
		}
	}
	columns = append(columns, fromShop(valves, summed(stock))...)
	chosen := assign(len(valves), len(columns),
		func(row, col int) int64 { return costOf(valves, row, columns[col], prefer) })
	plan := ShimPlan{}
	plan.read(valves, columns, chosen)
	plan.Frontier = frontier(valves, sizes, columns, plan)
	for i := range plan.Impossible {
		at := slices.IndexFunc(valves, func(v ShimValve) bool { return v.Valve == plan.Impossible[i].Valve })
		plan.Impossible[i].Reason = lacking(valves[at], valves, sizes, stock)
		plan.Impossible[i].Try, plan.Impossible[i].Order = mayServe(valves[at], sizes, stock)
	}
	return plan
}

// summed is a stock with every size once, thinnest first.
func summed(stock []Count) (list []Count) {
	pieces := map[measure.Length]int{}
	for _, s := range stock {
		pieces[s.Shim] += s.N
	}
	for _, shim := range slices.Sorted(maps.Keys(pieces)) {
		list = append(list, Count{shim, pieces[shim]})
	}
	return list
}

// fromShop is the shop's shims that can be of use: of n valves each needs only the n that serve it best, for
// the others take fewer.
func fromShop(valves []ShimValve, stock []Count) []column {
	pieces := map[measure.Length]int{}
	for _, v := range valves {
		var fits []Count
		for _, s := range stock {
			if v.wanted().Contains(s.Shim) && !slices.Contains(v.Tried, s.Shim) {
				fits = append(fits, s)
			}
		}
		slices.SortFunc(fits, func(a,
			b Count) int {
			return cmp.Compare(deviation(v, a.Shim), deviation(v, b.Shim))
		})
		left := len(valves)
		for _, s := range fits {
			n := min(s.N, left)
			pieces[s.Shim] = max(pieces[s.Shim], n)
			if left -= n; left == 0 {
				break
			}
		}
	}
	var columns []column
	for _, shim := range slices.Sorted(maps.Keys(pieces)) {
		for range pieces[shim] {
			columns = append(columns, column{shim: shim, from: ofShop})
		}
	}
	return columns
}

// nearest is the size that lands nearest to the aim within the window, of equally near ones the thinner
// (looser).
func nearest(v ShimValve, sizes []measure.Length) (measure.Length, bool) {
	best, found := measure.Length(0), false
	for _, s := range sizes {
		if s <= 0 || !v.wanted().Contains(s) || slices.Contains(v.Tried, s) {
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

// costOf weighs a shim under a valve. A valve that is not served keeps its own, or stays bare where that lies
// outside.
func costOf(valves []ShimValve, row int, c column, prefer Prefer) int64 {
	v := valves[row]
	serves := c.from != ofNobody && v.serves(c.shim, c.from == row)
	switch {
	case (c.from == ofMaker || c.from == ofNobody) && c.bought != row,
		v.Stays && c.from != row, c.from >= 0 && c.from != row && valves[c.from].Stays,
		prefer == NearestAim && c.from != row && !v.gains(c.shim),
		c.from != row && c.from != ofNobody && slices.Contains(v.Tried, c.shim):
		return never
	case !serves && (c.from == row || c.from == ofNobody):
		return perUnserved
	case !serves:
		return never
	}
	bought, disturbed, off := int64(perBought), int64(perDisturbed), deviation(v, c.shim)
	if prefer == NearestAim {
		bought, disturbed = aimPerBought, aimPerDisturbed
		off = off/perNanometre*aimPerNanometre + off%perNanometre
	}
	switch c.from {
	case row:
		return off
	case ofMaker:
		return bought + disturbed + off
	}
	return disturbed + off
}

// read turns the assignment into what goes where, what to buy and what is over.
func (p *ShimPlan) read(valves []ShimValve, columns []column, chosen []int) {
	used := map[int]bool{}
	buy := map[measure.Length]int{}
	for row, v := range valves {
		c := columns[chosen[row]]
		if c.from >= 0 {
			used[c.from] = true
		}
		if c.from == ofNobody || !v.serves(c.shim, c.from == row) {
			p.Impossible = append(p.Impossible, Lacking{Valve: v.Valve})
			continue
		}
		fit := Fit{Valve: v.Valve, Shim: c.shim, From: FromStock, Gap: v.gap(c.shim)}
		if c.from >= 0 {
			fit.From = valves[c.from].Valve
		} else if c.from == ofMaker {
			buy[c.shim]++
			fit.Bought = true
		}
		p.Fit = append(p.Fit, fit)
	}
	for i, v := range valves {
		if !used[i] && !v.Out {
			p.Spare = append(p.Spare, v.Fitted)
		}
	}
	slices.Sort(p.Spare)
	for shim, n := range buy {
		p.Buy = append(p.Buy, Count{shim, n})
	}
	slices.SortFunc(p.Buy, func(a, b Count) int { return cmp.Compare(a.Shim, b.Shim) })
}
