package gauge

import (
	"cmp"
	"maps"
	"slices"

	"metronix/core/measure"
)

// Choice is the stack that serves a wanted thickness. Within says whether its whole range lies inside the
// window asked for.
type Choice struct {
	Stack  Stack
	Within bool
}

// Choose picks the stack for an aim. With a window: among stacks whose whole range (thickness ± uncertainty)
// lies inside, the fewest leaves, then the nearest to the aim, then the thicker. Without a window, or when
// none does: the smallest worst case |thickness − aim| + uncertainty, then the fewest leaves, then the
// thicker. ok is false for an empty set.
//
// The fewest leaves win as long as their whole range fits, since each leaf more adds its uncertainty and
// its oil. Of as many the one nearest to the aim, and of equally near ones the thicker: a valve set by a
// thicker leaf is a little looser, which does less harm.
func (s Set) Choose(aim measure.Length, window *measure.Window, most int) (choice Choice, ok bool) {
	p := newPicker(s, aim)
	if window != nil {
		p.window = window
		for n := 1; n <= most; n++ { // the fewest leaves first
			if best := p.best(n, func(t, u measure.Length) (score measure.Length, ok bool) {
				return (t - aim).Abs(), measure.Window{Lower: t - u, Upper: t + u}.Within(*window)
			}); best != nil {
				return Choice{best, true}, true
			}
		}
	}
	p.window = nil
	worst := func(t, u measure.Length) (measure.Length, bool) { return (t - aim).Abs() + u, true }
	var best Stack
	for n := 1; n <= most; n++ {
		st := p.best(n, worst)
		if st != nil && (best == nil || better(st, best, worst)) {
			best = st
		}
	}
	return Choice{best, false}, best != nil
}

// score weighs a thickness and its uncertainty, small being good; ok is false where it does not serve.
type score func(thickness, uncertainty measure.Length) (s measure.Length, ok bool)

// better compares stacks by their score; of equal ones the first, with fewer leaves, stays.
func better(a, b Stack, by score) bool {
	x, _ := by(a.Thickness(), a.Uncertainty())
	y, _ := by(b.Thickness(), b.Uncertainty())
	return x < y
}

// picker finds the best stack of n leaves without listing all: for every choice of all leaves but the last,
// of leaves that are equally certain only the nearest to the aim from below and from above can be the best
// last one.
//
// Sums of at most three leaves out of a set of up to 120: for a fixed pair the third is found by halving
// the sorted list about what is missing, so that no set makes the choice slow.
type picker struct {
	aim     measure.Length
	window  *measure.Window // nil: none asked for
	leaves  []Leaf
	near    []int   // room for lasts
	classes [][]int // indices of leaves of one uncertainty, thinnest first
}

// newPicker sorts the leaves by how sure each is, so that the stacks of equal uncertainty are searched
// together and the surest first.
func newPicker(s Set, aim measure.Length) *picker {
	p := &picker{aim: aim, leaves: s}
	byUncertainty := map[measure.Length][]int{}
	for i, l := range s {
		byUncertainty[l.Uncertainty()] = append(byUncertainty[l.Uncertainty()], i)
	}
	for _, u := range slices.Sorted(maps.Keys(byUncertainty)) {
		class := byUncertainty[u]
		slices.SortFunc(class, func(a, b int) int { return cmp.Compare(s[a].True(), s[b].True()) })
		p.classes = append(p.classes, class)
	}
	return p
}

// best is the best stack of exactly n leaves; nil where none serves.
func (p *picker) best(n int, by score) Stack {
	chosen, bestScore, bestThickness := []int(nil), measure.MaxLength, measure.Length(0)
	so := make([]int, 0, n)
	var grow func(from int, sum, doubt measure.Length)
	grow = func(from int, sum, doubt measure.Length) {
		if len(so) == n-1 {
			for _, last := range p.lasts(so, sum, doubt) {
				l := p.leaves[last]
				t := sum + l.True()
				if s, ok := by(t, doubt+l.Uncertainty()); ok &&
					(chosen == nil || s < bestScore || (s == bestScore && t > bestThickness)) {
					chosen, bestScore, bestThickness = append(slices.Clone(so), last), s, t
				}
			}
			return
		}
		for i := from; i < len(p.leaves); i++ {
			so = append(so, i)
			grow(i+1, sum+p.leaves[i].True(), doubt+p.leaves[i].Uncertainty())
			so = so[:len(so)-1]
		}
	}
	grow(0, 0, 0)
	if chosen == nil {
		return nil
	}
	stack := make(Stack, n)
	for i, at := range chosen {
		stack[i] = p.leaves[at]
	}
	return stack
}

// lasts are the leaves not yet in so that bring its sum nearest to the aim, or to the part of the window that
// is nearest to it, from below and from above, in each class.
func (p *picker) lasts(so []int, sum, doubt measure.Length) []int {
	list := p.near[:0]
	for _, class := range p.classes {
		want := p.aim
		if u := doubt + p.leaves[class[0]].Uncertainty(); p.window != nil {
			want = max(p.window.Lower+u, min(p.aim, p.window.Upper-u))
		}
		above, _ := slices.BinarySearchFunc(class, want-sum,
			func(i int, want measure.Length) int { return cmp.Compare(p.leaves[i].True(), want) })
		for i := above; i < len(class); i++ {
			if !slices.Contains(so, class[i]) {
				list = append(list, class[i])
				break
			}
		}
		for i := above - 1; i >= 0; i-- {
			if !slices.Contains(so, class[i]) {
				list = append(list, class[i])
				break
			}
		}
	}
	p.near = list
	return list
}
