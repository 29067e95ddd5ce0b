package adjust_test

import (
	"cmp"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/optimize/convex/lp"
	"pgregory.net/rapid"

	"metronix/core/adjust"
	"metronix/core/measure"
)

// goal is the choice as three numbers to be small in this order.
type goal struct{ bought, disturbed, off int64 }

func (g goal) less(o goal) bool {
	if g.bought != o.bought {
		return g.bought < o.bought
	}
	if g.disturbed != o.disturbed {
		return g.disturbed < o.disturbed
	}
	return g.off < o.off
}

func drawValves(t *rapid.T, most int) ([]adjust.ShimValve, []measure.Length) {
	var valves []adjust.ShimValve
	for i := range rapid.IntRange(1, most).Draw(t, "valves") {
		valves = append(valves, shimmed(fmt.Sprintf("V%d", i),
			measure.Length(2500+10*rapid.IntRange(0, 20).Draw(t, "fitted")),
			measure.Length(10*rapid.IntRange(5, 40).Draw(t, "gap")), 150, 250, 200))
	}
	var sizes []measure.Length
	for s := measure.Length(2300); s <= 2900; s += 50 {
		sizes = append(sizes, s*um)
	}
	return valves, sizes
}

// everyDeal tries every way to deal out the engine's own shims and bought ones so that each gap lies surely
// in its window.
func everyDeal(valves []adjust.ShimValve, sizes []measure.Length, seen func(goal, measure.Length)) {
	used := make([]bool, len(valves))
	var try func(i int, so goal, worst measure.Length)
	try = func(i int, so goal, worst measure.Length) {
		if i == len(valves) {
			seen(so, worst)
			return
		}
		v := valves[i]
		take := func(shim measure.Length, bought, disturbed int64) {
			gap := v.Fitted + v.Measured - shim
			if gap-v.Uncertainty >= v.Window.Lower && gap+v.Uncertainty <= v.Window.Upper {
				off := (gap - v.Aim).Abs()
				try(i+1, goal{so.bought + bought, so.disturbed + disturbed, so.off + int64(off)},
					max(worst, off))
			}
		}
		for j, from := range valves {
			if used[j] {
				continue
			}
			used[j] = true
			moved := int64(1)
			if i == j {
				moved = 0
			}
			take(from.Fitted, 0, moved)
			used[j] = false
		}
		for _, s := range sizes {
			take(s, 1, 1)
		}
	}
	try(0, goal{}, 0)
}

// goalOf is what a plan comes to, each of its gaps held against its window.
func goalOf(t require.TestingT, valves []adjust.ShimValve, p adjust.ShimPlan) (ours goal) {
	require.Empty(t, p.Impossible)
	for i, f := range p.Fit {
		v := valves[i]
		require.True(t, v.Window.Contains(f.Gap-v.Uncertainty) && v.Window.Contains(f.Gap+v.Uncertainty))
		require.Equal(t, v.Fitted+v.Measured, f.Shim+f.Gap)
		ours.off += int64((f.Gap - v.Aim).Abs())
		if f.From != f.Valve {
			ours.disturbed++
		}
		if f.From == adjust.FromStock {
			ours.bought++
		}
	}
	return ours
}

// Never worse, in any of the three aims taken in order, than trying every way to deal out the shims: the
// fewest bought first, or the nearest to the aim first. And the frontier is what trying all finds: for each
// number bought the smallest worst distance from the aim.
func TestChoiceAgainstTryingAll(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		valves, sizes := drawValves(t, 5)
		doubt := measure.Length(rapid.IntRange(0, 2).Draw(t, "doubt")) * 10 * um
		for i := range valves {
			valves[i].Uncertainty = doubt
		}
		fewest, nearest := goal{bought: math.MaxInt64}, goal{off: math.MaxInt64}
		nearer := func(a, b goal) bool {
			return cmp.Or(cmp.Compare(a.off, b.off), cmp.Compare(a.bought, b.bought),
				cmp.Compare(a.disturbed, b.disturbed)) < 0
		}
		worst := map[int]measure.Length{}
		everyDeal(valves, sizes, func(so goal, off measure.Length) {
			if so.less(fewest) {
				fewest = so
			}
			if nearer(so, nearest) {
				nearest = so
			}
			if least, ok := worst[int(so.bought)]; !ok || off < least {
				worst[int(so.bought)] = off
			}
		})
		var frontier []adjust.ShimCost
		for n := range len(valves) + 1 {
			if off, ok := worst[n]; ok && (len(frontier) == 0 || off < frontier[len(frontier)-1].Worst) {
				frontier = append(frontier, adjust.ShimCost{Bought: n, Worst: off})
			}
		}
		p := adjust.ChooseShims(valves, sizes, nil, adjust.FewestBought)
		require.Equal(t, fewest, goalOf(t, valves, p))
		require.Equal(t, frontier, p.Frontier)
		q := adjust.ChooseShims(valves, sizes, nil, adjust.NearestAim)
		require.Equal(t, nearest, goalOf(t, valves, q))
		require.Equal(t, frontier, q.Frontier)
	})
}

// The same assignment as a linear programme, solved by gonum's simplex: an assignment's vertices are whole
// (Birkhoff), so the smallest cost is the same. Rows: each valve has one shim, each own shim at most one
// valve. The cases are fixed ones: on some the simplex goes round in circles, for an assignment is
// degenerate.
func TestChoiceAgainstLinearProgramme(t *testing.T) {
	for seed := range uint64(25) {
		valves, sizes := seeded(seed)
		n := len(valves)
		cols := n*n + n + n // own shims, bought ones, slack of each own shim
		cost, a, b := make([]float64, cols), mat.NewDense(2*n, cols, nil), make([]float64, 2*n)
		const buy, move, far = 1e4, 1e2, 1e7
		price := func(v adjust.ShimValve, shim measure.Length, extra float64) float64 {
			gap := v.Fitted + v.Measured - shim
			if !v.Window.Contains(gap) {
				return far
			}
			return extra + (gap - v.Aim).Abs().Millimetres()
		}
		for i, v := range valves {
			b[i], b[n+i] = 1, 1
			cheapest := math.Inf(1)
			for _, s := range sizes {
				cheapest = math.Min(cheapest, price(v, s, buy+move))
			}
			cost[n*n+i] = cheapest
			a.Set(i, n*n+i, 1)
			for j, from := range valves {
				extra := move
				if i == j {
					extra = 0
				}
				cost[i*n+j] = price(v, from.Fitted, extra)
				a.Set(i, i*n+j, 1)
				a.Set(n+j, i*n+j, 1)
			}
			a.Set(n+i, n*n+n+i, 1)
		}
		want, _, err := lp.Simplex(cost, a, b, 1e-9, nil)
		require.NoError(t, err)
		got := 0.0
		for i, f := range adjust.ChooseShims(valves, sizes, nil, adjust.FewestBought).Fit {
			switch f.From {
			case f.Valve:
			case adjust.FromStock:
				got += buy + move
			default:
				got += move
			}
			got += (f.Gap - valves[i].Aim).Abs().Millimetres()
		}
		require.InDelta(t, want, got, 1e-4, "seed %d", seed)
	}
}

// seeded is a case that is the same in every run.
func seeded(seed uint64) ([]adjust.ShimValve, []measure.Length) {
	random := rand.New(rand.NewPCG(seed, 7))
	var valves []adjust.ShimValve
	for i := range 2 + random.IntN(5) {
		valves = append(valves, shimmed(fmt.Sprintf("V%d", i), measure.Length(2500+random.IntN(200)),
			measure.Length(50+random.IntN(350)), 150, 250, 200))
	}
	var sizes []measure.Length
	for s := measure.Length(2300); s <= 2900; s += 50 {
		sizes = append(sizes, s*um)
	}
	return valves, sizes
}

// Every valve is in fit or in impossible, never in both; no shim is used twice; and where a valve is out of
// reach of every size the rest still equals trying all, with that valve's shim out of the game.
func TestChoiceWithUnservedValvesAgainstTryingAll(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		valves, _ := drawValves(t, 4)
		sizes := []measure.Length{2500 * um, 2700 * um}
		p := adjust.ChooseShims(valves, sizes, nil, adjust.FewestBought)
		require.Len(t, valves, len(p.Fit)+len(p.Impossible))
		bought := 0
		given := map[string]bool{}
		for _, l := range p.Impossible {
			given[l.Valve] = true
			require.NotEmpty(t, l.Reason)
		}
		for _, f := range p.Fit {
			if f.Bought {
				bought++
				continue
			}
			require.False(t, given[f.From], "%s gives twice, or gave what an unserved valve keeps", f.From)
			given[f.From] = true
		}
		unserved, leastBought := tryAll(valves, sizes)
		require.Equal(t, unserved, len(p.Impossible))
		require.Equal(t, leastBought, bought)
	})
}

// tryAll deals the shims out in every way: each valve keeps its own though it does not serve, takes
// another's, or a bought one.
func tryAll(valves []adjust.ShimValve, sizes []measure.Length) (unserved, bought int) {
	unserved, bought = len(valves)+1, 0
	used := make([]bool, len(valves))
	var try func(i, u, b int)
	try = func(i, u, b int) {
		if i == len(valves) {
			if u < unserved || (u == unserved && b < bought) {
				unserved, bought = u, b
			}
			return
		}
		v := valves[i]
		fits := func(shim measure.Length) bool { return v.Window.Contains(v.Fitted + v.Measured - shim) }
		for j, from := range valves {
			if used[j] || (j != i && !fits(from.Fitted)) {
				continue
			}
			used[j] = true
			if fits(from.Fitted) {
				try(i+1, u, b)
			} else {
				try(i+1, u+1, b)
			}
			used[j] = false
		}
		if slices.ContainsFunc(sizes, fits) {
			try(i+1, u, b+1)
		}
	}
	try(0, 0, 0)
	return unserved, bought
}
