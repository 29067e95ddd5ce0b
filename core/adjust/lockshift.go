package adjust

import (
	"slices"

	"metronix/core/measure"
)

// EnoughPairs is the fewest pairs from which a lock-nut shift is learned (from memory).
const EnoughPairs = 5

// Pair is a gap before and after its lock nut was tightened.
type Pair struct{ Before, After measure.Length }

// Shift is what locking usually does to the gap in one mechanic's hands on one kind of adjuster. Median and
// Spread hold only where Enough; a negative median means that locking tightens.
type Shift struct {
	Enough bool
	Count  int
	Median measure.Length // of after − before
	Spread measure.Length // interquartile range
}

// LearnShift takes median and interquartile range of after − before, from EnoughPairs or more. Quartiles are
// interpolated linearly between order statistics (definition 7 of Hyndman and Fan, 1996).
//
// The median, because one nut that was let go by a slip must not shift what the others teach; the
// quartiles beside it, because a hand whose locking scatters more than the limits are wide had better hold
// the screw still than aim off.
//
// Pairs are of one mechanic and one kind of adjuster: the sign is the kind's (a part that closes by rising
// out of its thread is dragged the other way), the size the hand's.
func LearnShift(pairs []Pair) Shift {
	s := Shift{Count: len(pairs), Enough: len(pairs) >= EnoughPairs}
	if !s.Enough {
		return s
	}
	shifts := make([]measure.Length, len(pairs))
	for i, p := range pairs {
		shifts[i] = p.After - p.Before
	}
	slices.Sort(shifts)
	s.Median = quantile(shifts, 1, 2)
	s.Spread = quantile(shifts, 3, 4) - quantile(shifts, 1, 4)
	return s
}

// PreLockAim is the gap to set with the nut still slack, so that it is the aim after locking; ok only where
// the shift is known and leaves a gap to set: one that opens the gap by more than the aim does not.
func (s Shift) PreLockAim(aim measure.Length) (pre measure.Length, ok bool) {
	pre = aim - s.Median
	return pre, s.Enough && pre > 0
}

// quantile interpolates the num/den quantile of a sorted list, to the nearest nanometre.
func quantile(sorted []measure.Length, num, den int) measure.Length {
	at := (len(sorted) - 1) * num
	i, rest := at/den, measure.Length(at%den)
	if rest == 0 {
		return sorted[i]
	}
	return sorted[i] + ((sorted[i+1]-sorted[i])*rest+measure.Length(den)/2)/measure.Length(den)
}
