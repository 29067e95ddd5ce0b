package clearance

import (
	"cmp"
	"slices"

	"metronix/core/gauge"
	"metronix/core/measure"
)

// aim is the gap that is wanted.
func (y Yardstick) aim() measure.Length { return cmp.Or(y.Aim, y.Limits.Nominal) }

// asAim is the thickness that a leaf or stack counts with under the rule of one leaf: one within half a
// thousandth of an inch of the aim, and inside the limits, counts as the aim, so that an inch set and
// measured leaves serve.
func (y Yardstick) asAim(t measure.Length) measure.Length {
	if (t-y.aim()).Abs() <= PairSlack && y.Limits.Window.Contains(t) {
		return y.aim()
	}
	return t
}

// byOneLeaf is the verdict of the rule OneLeaf. A drag decides by its estimate against the limits. Else a
// leaf at or above the aim that is free is loose, one at or below it that will not go is tight: on which side
// of the aim the gap lies, not whether it is out of its limits.
func (y Yardstick) byOneLeaf(readings []Reading, estimate *measure.Length) Verdict {
	if estimate != nil {
		return simple(y.Limits.Window, nil, estimate)
	}
	for _, r := range readings {
		switch t := y.asAim(r.Stack.Thickness()); {
		case r.Feel == Free && t >= y.aim():
			return Loose
		case r.Feel == WontGo && t <= y.aim():
			return Tight
		}
	}
	return Undecided
}

// aimLeaf is the owned leaf, else the stack, nearest to the aim that counts as it and was not tried yet; nil
// where none does.
func (y Yardstick) aimLeaf(readings []Reading) gauge.Stack {
	list := y.Owned.Singles()
	if made, ok := y.Owned.Choose(y.aim(), &y.Limits.Window, gauge.MaxStack); ok {
		list = append(list, made.Stack)
	}
	list = slices.DeleteFunc(list, func(st gauge.Stack) bool {
		return y.asAim(st.Thickness()) != y.aim() || tried(readings, st)
	})
	if len(list) == 0 {
		return nil
	}
	return slices.MinFunc(list, func(a, b gauge.Stack) int {
		return cmp.Or(cmp.Compare(len(a), len(b)), cmp.Compare(nearestTo(a, y.aim()), nearestTo(b, y.aim())))
	})
}

// OnlySides says that the leaves owned cannot prove a gap out of its limits on both sides by the workshop
// rule: going free none proves loose, or refusing none proves tight. There is one for the aim, so that on
// which side of it the gap lies is what they tell.
func (y Yardstick) OnlySides() bool {
	y.Rule = Workshop
	proves := func(f Feel, want Verdict) bool {
		return slices.ContainsFunc(candidates(y.Limits, y.Owned), func(st gauge.Stack) bool {
			return y.Judge([]Reading{{Stack: st, Feel: f}}).Verdict == want
		})
	}
	return y.aimLeaf(nil) != nil && !(proves(Free, Loose) && proves(WontGo, Tight))
}
