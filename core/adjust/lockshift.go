package adjust

import (
	"slices"

	"metronix/core/measure"
)

// EnoughPairs is the fewest pairs from which a lock-nut shift is learned (from memory).
const EnoughPairs = 5

// Pair is a gap before and after its lock nut was tightened. After is a figure, or lies between AfterLow and
// AfterHigh, one or both: the same leaf as before that will not go any more, or falls through, is as good a
// lesson as one that drags.
type Pair struct {
	Before, After       measure.Length
	AfterLow, AfterHigh *measure.Length // both nil: After is known
}

// OneSided says that the gap after is known to a side, or between two, and not as a figure.
func (p Pair) OneSided() bool { return p.AfterLow != nil || p.AfterHigh != nil }

// exactly is how certain a pair of two figures is beside one that is known to a side, either way (from
// memory: the feel of a leaf that drags).
const exactly = 5 * measure.Micrometre

// shift is what locking did: between two bounds, either of which may be missing.
func (p Pair) shift() interval {
	if !p.OneSided() {
		d := p.After - p.Before
		return interval{low: new(d - exactly), high: new(d + exactly)}
	}
	var i interval
	if p.AfterLow != nil {
		i.low = new(*p.AfterLow - p.Before)
	}
	if p.AfterHigh != nil {
		i.high = new(*p.AfterHigh - p.Before)
	}
	return i
}

// The ways that locking goes; empty: not known, or neither.
const (
	Closes = "closes"
	Opens  = "opens"
)

// Shift is what locking usually does to the gap in one mechanic's hands on one kind of adjuster. Median and
// Spread hold only where Enough; a negative median means that locking tightens.
type Shift struct {
	Enough bool
	Count  int
	Median measure.Length // of after − before: the centre
	Spread measure.Length // interquartile range, or what stands for it
	Way    string         // Closes or Opens, known sooner than how much; empty: not known
}

// LearnShift learns from EnoughPairs or more. Where every gap is a figure it takes median and interquartile
// range of after − before; quartiles are interpolated linearly between order statistics (definition 7 of
// Hyndman and Fan, 1996). Where some are known to a side, the estimate is that of greatest likelihood of a
// normal distribution from interval-censored data ([censored]).
//
// The median, because one nut that was let go by a slip must not shift what the others teach; the quartiles
// beside it, because a hand whose locking scatters more than the limits are wide had better hold the screw
// still than aim off: with a window given, above 0, a spread as wide as it is not enough. Pairs that will not
// go afterwards must not be thrown away: those that still drag are the ones that shifted least.
//
// Pairs are of one mechanic and one kind of adjuster: the sign is the kind's (a part that closes by rising
// out of its thread is dragged the other way), the size the hand's.
func LearnShift(pairs []Pair, window measure.Length) Shift {
	s := Shift{Count: len(pairs), Way: wayOf(pairs)}
	below := slices.ContainsFunc(pairs, func(p Pair) bool { return p.shift().low != nil })
	above := slices.ContainsFunc(pairs, func(p Pair) bool { return p.shift().high != nil })
	if len(pairs) < EnoughPairs || !below || !above {
		return s
	}
	centre, spread, ok := learn(pairs)
	if !ok || window > 0 && spread >= window {
		return s
	}
	s.Enough, s.Median, s.Spread, s.Way = true, centre, spread, ""
	switch {
	case centre < 0:
		s.Way = Closes
	case centre > 0:
		s.Way = Opens
	}
	return s
}

// learn is the middle of the shifts and how far they spread. Where all are figures it is their median and
// quartiles, which one slip does not move; where some are sides alone, the fit for censored values.
func learn(pairs []Pair) (centre, spread measure.Length, ok bool) {
	if slices.ContainsFunc(pairs, Pair.OneSided) {
		list := make([]interval, len(pairs))
		for i, p := range pairs {
			list[i] = p.shift()
		}
		return censored(list)
	}
	shifts := make([]measure.Length, len(pairs))
	for i, p := range pairs {
		shifts[i] = p.After - p.Before
	}
	slices.Sort(shifts)
	return quantile(shifts, 1, 2), quantile(shifts, 3, 4) - quantile(shifts, 1, 4), true
}

// wayOf is the way that locking goes as far as sides tell: two pairs at least wholly on one side of nothing,
// and none on the other.
func wayOf(pairs []Pair) string {
	closing, opening := 0, 0
	for _, p := range pairs {
		i := p.shift()
		if !p.OneSided() { // two figures
			i = interval{new(p.After - p.Before), new(p.After - p.Before)}
		}
		switch {
		case i.high != nil && *i.high < 0:
			closing++
		case i.low != nil && *i.low > 0:
			opening++
		}
	}
	switch {
	case closing >= 2 && opening == 0:
		return Closes
	case opening >= 2 && closing == 0:
		return Opens
	}
	return ""
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
