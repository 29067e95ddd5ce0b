package clearance

import (
	"cmp"
	"slices"

	"metronix/core/gauge"
	"metronix/core/measure"
)

// CrossCheck are the leaves that prove a drag: the next thinner one, which should fall through, and the next
// thicker one, which should not go (common practice). Each is far enough from the leaf that dragged that
// feel and doubt of both do not reach it. ok is false where not exactly one leaf was felt, and dragged, or
// either is not owned.
func (y Yardstick) CrossCheck(readings []Reading) (down, up gauge.Stack, ok bool) {
	if len(readings) != 1 || readings[0].Dial != nil || !readings[0].dragged() {
		return nil, nil, false
	}
	gap, doubt, _ := readings[0].Estimate(y.Feel)
	near := func(a, b gauge.Stack) int {
		return cmp.Compare((a.Thickness() - gap).Abs(), (b.Thickness() - gap).Abs())
	}
	beyond := func(side measure.Length) gauge.Stack {
		list := slices.DeleteFunc(y.Owned.Singles(), func(st gauge.Stack) bool {
			return (st.Thickness()-gap)*side <= doubt+st.Uncertainty()
		})
		if len(list) == 0 {
			return nil
		}
		return slices.MinFunc(list, near)
	}
	down, up = beyond(-1), beyond(1)
	return down, up, down != nil && up != nil
}
