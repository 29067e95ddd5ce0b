package clearance

import (
	"cmp"
	"slices"

	"metronix/core/gauge"
	"metronix/core/measure"
)

// CrossCheck are the leaves that prove a drag: the next thinner one, which should fall through, and the next
// thicker one, which should not go (common practice: 0.20 + 0.04 drags, and is proved by 0.20 + 0.03 and 0.20
// + 0.05). Each is far enough from the leaf that dragged that feel and doubt of both do not reach it; a leaf
// that lies in both stacks is the same leaf, and adds no doubt. A single leaf is proved by single leaves. ok
// is false where not exactly one leaf or stack was felt, and dragged, or either is not owned.
func (y Yardstick) CrossCheck(readings []Reading) (down, up gauge.Stack, ok bool) {
	if len(readings) != 1 || readings[0].Dial != nil || !readings[0].dragged() {
		return nil, nil, false
	}
	gap, _, _ := readings[0].Estimate(y.Feel)
	dragged := readings[0].Stack
	proves := y.Owned.Singles()
	if len(dragged) > 1 {
		near := measure.Window{Lower: max(0, gap-reach), Upper: gap + reach}
		y.Owned.EachStack(
			near,
			2,
			len(dragged),
			func(st gauge.Stack) { proves = append(proves, slices.Clone(st)) },
		)
	}
	beyond := func(side measure.Length) gauge.Stack {
		list := slices.DeleteFunc(slices.Clone(proves), func(st gauge.Stack) bool {
			return (st.Thickness()-gap)*side <= y.Feel+apart(dragged, st)
		})
		if len(list) == 0 {
			return nil
		}
		return slices.MinFunc(list, func(a, b gauge.Stack) int {
			return cmp.Or(
				cmp.Compare((a.Thickness()-gap).Abs(), (b.Thickness()-gap).Abs()),
				cmp.Compare(len(a), len(b)),
				cmp.Compare(apart(dragged, a), apart(dragged, b)),
			)
		})
	}
	down, up = beyond(-1), beyond(1)
	return down, up, down != nil && up != nil
}

// apart is how far the difference of two stacks' thicknesses is uncertain: by the leaves that are not in
// both.
func apart(a, b gauge.Stack) (doubt measure.Length) {
	for _, pair := range [][2]gauge.Stack{{a, b}, {b, a}} {
		for _, leaf := range pair[0] {
			if !slices.ContainsFunc(pair[1], func(l gauge.Leaf) bool { return l.ID == leaf.ID }) {
				doubt += gauge.Stack{leaf}.Uncertainty()
			}
		}
	}
	return doubt
}
