package gauge

import (
	"cmp"

	"metronix/core/measure"
)

// Choice is the stack that serves a wanted thickness. Within says whether its whole range lies inside the window asked for.
type Choice struct {
	Stack  Stack
	Within bool
}

// Choose picks the stack for an aim. With a window: among stacks whose whole range (thickness ± uncertainty) lies inside,
// the fewest leaves, then the nearest to the aim, then the thicker. Without a window, or when none does: the smallest worst
// case |thickness − aim| + uncertainty, then the fewest leaves, then the thicker. ok is false for an empty set.
func (s Set) Choose(aim measure.Length, window *measure.Window, most int) (choice Choice, ok bool) {
	all := s.Stacks(measure.Window{Lower: 0, Upper: measure.MaxLength}, most)
	if window != nil {
		inside := func(st Stack) bool {
			t, u := st.Thickness(), st.Uncertainty()
			return measure.Window{Lower: t - u, Upper: t + u}.Within(*window)
		}
		best := least(all, inside, func(a, b Stack) int {
			return cmp.Or(
				cmp.Compare(len(a), len(b)),
				cmp.Compare((a.Thickness()-aim).Abs(), (b.Thickness()-aim).Abs()),
				cmp.Compare(b.Thickness(), a.Thickness()))
		})
		if best != nil {
			return Choice{best, true}, true
		}
	}
	worst := func(st Stack) measure.Length { return (st.Thickness() - aim).Abs() + st.Uncertainty() }
	best := least(all, func(Stack) bool { return true }, func(a, b Stack) int {
		return cmp.Or(
			cmp.Compare(worst(a), worst(b)),
			cmp.Compare(len(a), len(b)),
			cmp.Compare(b.Thickness(), a.Thickness()))
	})
	return Choice{best, false}, best != nil
}

func least(all []Stack, fits func(Stack) bool, order func(a, b Stack) int) Stack {
	var best Stack
	for _, st := range all {
		if fits(st) && (best == nil || order(st, best) < 0) {
			best = st
		}
	}
	return best
}
