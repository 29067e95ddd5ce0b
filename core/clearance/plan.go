package clearance

import (
	"cmp"
	"math"

	"metronix/core/gauge"
	"metronix/core/measure"
)

// perUndecided is what an end that decides nothing counts, in tries: more than any number of them.
const perUndecided = 1000.0

// asGood is how many tries more, on average, a leaf may need and still count as good as the one with the
// fewest: of these the one whose verdict ends sure more often comes first.
const asGood = 0.1

// even is the difference in expected tries below which two plans are as good; the fewer tries at worst, then
// the fewer leaves to lay settle it, for a stack is slower to lay than a leaf.
const even = 1e-9

// plan is the tree of tries with the fewest expected ones, by dynamic programming over what is known: the gap
// lies above leaf i (it was free) and below leaf j (it did not go). A drag ends the tree under the workshop
// rule. The gap is taken to lie anywhere from reach below to reach above the window with equal chance, and as
// far beyond as the leaves that may be tried.
type plan struct {
	Yardstick
	leaves       []gauge.Stack // thinnest first
	thick        []measure.Length
	unsure       []measure.Length
	above, below measure.Length // known at the beginning: 0 and MaxLength where nothing is
	low, high    measure.Length // the same with the uncertainty of the leaves that told it
	from, to     measure.Length // where a gap may lie before anything is read
	known        map[[2]int]branch
}

// branch is the best that can be done from a state: the leaf to try (−1: none), its expected tries, the most
// of them, and the leaves that are expected to be laid.
type branch struct {
	leaf  int
	cost  float64
	worst int
	laid  float64
	sure  float64 // how often its verdict ends sure, of one
}

// newPlan lays out what may still be tried: leaves between the thickest that was free and the thinnest that
// would not go, over the gaps that the readings leave open.
func newPlan(y Yardstick, leaves []gauge.Stack, readings []Reading) *plan {
	p := &plan{Yardstick: y, leaves: leaves, high: measure.MaxLength, known: map[[2]int]branch{}}
	p.above, p.below = bounds(readings)
	if iv, _ := narrow(readings, y.Feel); iv.high != nil {
		p.low, p.high = iv.low, *iv.high
	} else {
		p.low = iv.low
	}
	p.from, p.to = max(0, y.Limits.Window.Lower-reach), y.Limits.Window.Upper+reach
	if n := len(leaves); n > 0 {
		p.from, p.to = min(p.from, max(0, leaves[0].Thickness()-reach)), max(p.to,
			leaves[n-1].Thickness()+reach)
	}
	for _, st := range leaves {
		p.thick, p.unsure = append(p.thick, st.Thickness()), append(p.unsure, st.Uncertainty())
	}
	return p
}

// first is the leaf to try first; nil where no leaf helps.
func (p *plan) first() gauge.Stack {
	b := p.best(-1, len(p.leaves))
	if b.leaf < 0 {
		return nil
	}
	return p.leaves[b.leaf]
}

// free and shut are the thicknesses known to be free and not to go in a state.
func (p *plan) free(i int) measure.Length {
	if i < 0 {
		return p.above
	}
	return p.thick[i]
}

// shut is the thickness that will not go, for the leaf j.
func (p *plan) shut(j int) measure.Length {
	if j >= len(p.leaves) {
		return p.below
	}
	return p.thick[j]
}

// decided says whether a state decides, by the rule.
func (p *plan) decided(i, j int) bool {
	w := p.Limits.Window
	low, high := p.free(i), p.shut(j)
	if p.Rule == Guarded {
		low, high = p.low, p.high
		if i >= 0 {
			low = max(low, p.thick[i]-p.unsure[i])
		}
		if j < len(p.leaves) {
			high = min(high, p.thick[j]+p.unsure[j])
		}
	}
	return low >= w.Upper || high <= w.Lower || (low >= w.Lower && high <= w.Upper)
}

// dragDecides says whether a drag on a leaf decides: always by the workshop rule, else where its whole
// interval lies on one side.
func (p *plan) dragDecides(k int) bool {
	if p.Rule != Guarded {
		return true
	}
	r := p.unsure[k] + p.Feel
	iv := interval{low: p.thick[k] - r}
	iv.lower(p.thick[k]+r, false)
	return iv.side(p.Limits.Window) != Undecided
}

// best is the leaf to try between i and j, by what follows from each of its feels: surest first, then fewest
// tries, then the better worst case. Each pair of bounds is worked out once.
func (p *plan) best(i, j int) branch {
	if p.decided(i, j) {
		return branch{leaf: -1, sure: p.endsSure(i, j)}
	}
	if b, ok := p.known[[2]int{i, j}]; ok {
		return b
	}
	tries := make([]branch, 0, j-i-1)
	fewest := perUndecided
	for k := i + 1; k < j; k++ {
		tries = append(tries, p.try(i, j, k))
		fewest = min(fewest, tries[len(tries)-1].cost)
	}
	best := branch{leaf: -1, cost: perUndecided}
	for _, b := range tries {
		if b.cost >= perUndecided || b.cost > fewest+asGood {
			continue
		}
		better := cmp.Or(
			clearly(best.sure, b.sure),
			clearly(b.cost, best.cost),
			cmp.Compare(b.worst, best.worst),
			clearly(b.laid, best.laid),
			cmp.Compare(p.fromNominal(b.leaf), p.fromNominal(best.leaf)),
		)
		if best.leaf < 0 || better < 0 {
			best = b
		}
	}
	p.known[[2]int{i, j}] = best
	return best
}

// endsSure is 1 where the verdict of a state that decides is sure: what the leaves are certain of lies wholly
// on its side.
func (p *plan) endsSure(i, j int) float64 {
	w := p.Limits.Window
	low, high := p.low, p.high
	if i >= 0 {
		low = max(low, p.thick[i]-p.unsure[i])
	}
	if j < len(p.leaves) {
		high = min(high, p.thick[j]+p.unsure[j])
	}
	if low >= w.Upper || high <= w.Lower ||
		low >= w.Lower && high <= w.Upper { // what does not drag lies beyond
		return 1
	}
	return 0
}

// dragSure is 1 where a drag on a leaf ends sure: its whole interval lies on one side.
func (p *plan) dragSure(k int) float64 {
	w, r := p.Limits.Window, p.unsure[k]+p.Feel
	low, high := p.thick[k]-r, p.thick[k]+r
	if low > w.Upper || high < w.Lower || low >= w.Lower && high <= w.Upper {
		return 1
	}
	return 0
}

// clearly compares figures that differ by more than float noise.
func clearly(a, b float64) int {
	if math.Abs(a-b) < even {
		return 0
	}
	return cmp.Compare(a, b)
}

// fromNominal is how far a leaf lies from the nominal; the leaf that mechanics reach for first.
func (p *plan) fromNominal(k int) measure.Length {
	if k < 0 {
		return measure.MaxLength
	}
	return (p.thick[k] - p.Limits.Nominal).Abs()
}

// try weighs one leaf in a state by what its feels lead to and how likely each is.
func (p *plan) try(i, j, k int) branch {
	b := branch{leaf: k, cost: 1, worst: 1, laid: float64(len(p.leaves[k]))}
	low, high := p.room(i, j)
	t := p.thick[k]
	total := high - low
	if total <= 0 {
		total = 1
	}
	drag := max(0, min(high, t+p.Feel)-max(low, t-p.Feel))
	share := func(l measure.Length) float64 { return float64(l) / float64(total) }
	if !p.dragDecides(k) {
		b.cost += share(drag) * perUndecided
	}
	b.sure += share(drag) * p.dragSure(k)
	for _, way := range []struct {
		part measure.Length
		i, j int
	}{{max(0, min(high, t-p.Feel)-low), i, k}, {max(0, high-max(low, t+p.Feel)), k, j}} {
		if way.part == 0 {
			continue
		}
		then := p.best(way.i, way.j)
		b.cost += share(way.part) * then.cost
		b.laid += share(way.part) * then.laid
		b.sure += share(way.part) * then.sure
		b.worst = max(b.worst, 1+then.worst)
	}
	return b
}

// room is where the gap may lie in a state, about the window: beyond the feel of the leaves already tried.
func (p *plan) room(i, j int) (low, high measure.Length) {
	low, high = p.from, p.to
	if free := p.free(i); free > 0 {
		low = max(low, free+p.Feel)
	}
	if shut := p.shut(j); shut < measure.MaxLength {
		high = min(high, shut-p.Feel)
	}
	return low, high
}
