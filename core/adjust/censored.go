package adjust

import (
	"math"

	"metronix/core/measure"
)

// interval is a quantity known between two bounds; nil: unbounded on that side.
type interval struct{ low, high *measure.Length }

// bounds are the ends of what is known of a shift, mm; an open end is infinite.
func (i interval) bounds() (low, high float64) {
	low, high = math.Inf(-1), math.Inf(1)
	if i.low != nil {
		low = i.low.Millimetres()
	}
	if i.high != nil {
		high = i.high.Millimetres()
	}
	return low, high
}

// quartiles is how many standard deviations lie between the quartiles of a normal distribution: 2 × 0.6745.
const quartiles = 1.349

// The steps of the estimate: so many at most, ended where neither figure moves by more than this, mm. A
// deviation beyond widest is none that a hand has: the intervals do not agree on one.
const (
	mostRounds = 20_000
	still      = 1e-10
	widest     = 1.0
)

// censored is the greatest-likelihood estimate of a normal distribution, of which each value is known to lie
// between two bounds: its mean and 1.349 standard deviations. ok is false where there is none, because values
// known to sides alone pull the deviation beyond all bounds, or where it has not come to rest.
//
// Where all intervals share a stretch, any distribution within it explains them fully and the likelihood is
// flat: the centre is the middle of that stretch, and the spread its length. Else it is found by expectation
// and maximisation (Dempster, Laird and Rubin 1977): each value is replaced by mean and variance of the
// normal cut off at its bounds (Johnson, Kotz and Balakrishnan 1994, 10.1), mean and deviation are taken of
// these, and so on until they stand still.
func censored(list []interval) (centre, spread measure.Length, ok bool) {
	low, high := math.Inf(-1), math.Inf(1)
	for _, i := range list {
		l, h := i.bounds()
		low, high = math.Max(low, l), math.Min(high, h)
	}
	if low < high { // a single point is none: half of what lies beside it would lie on the wrong side
		if math.IsInf(low, 0) || math.IsInf(high, 0) {
			return 0, 0, false
		}
		return measure.FromMillimetres((low + high) / 2), measure.FromMillimetres(high - low), true
	}
	mean, dev := (low+high)/2, (low-high)/2+exactly.Millimetres()
	for range mostRounds {
		var sum, squares float64
		for _, i := range list {
			l, h := i.bounds()
			m, v := cutOff(mean, dev, l, h)
			sum, squares = sum+m, squares+v+m*m
		}
		n := float64(len(list))
		m := sum / n
		d := math.Sqrt(math.Max(squares/n-m*m, 0))
		done := math.Abs(m-mean) < still && math.Abs(d-dev) < still
		if mean, dev = m, d; dev > widest {
			return 0, 0, false
		}
		if done {
			return measure.FromMillimetres(mean), measure.FromMillimetres(quartiles * dev), true
		}
	}
	return 0, 0, false // still moving: no figure is better than one on its way
}

// cutOff is mean and variance of a normal distribution cut off at two bounds. Where next to nothing of it
// lies between them, all of it lies at the nearer one.
func cutOff(mean, dev, low, high float64) (m, v float64) {
	if dev <= 0 {
		return math.Min(math.Max(mean, low), high), 0
	}
	a, b := (low-mean)/dev, (high-mean)/dev
	if a > 0 { // reckoned in the lower tail, where differences are exact
		m, v = cutOff(-mean, dev, -high, -low)
		return -m, v
	}
	p := below(b) - below(a)
	if p < 1e-280 {
		return math.Min(math.Max(mean, low), high), 0
	}
	fa, fb := density(a), density(b)
	r := (fa - fb) / p
	return mean + dev*r, math.Max(0, dev*dev*(1+(times(a, fa)-times(b, fb))/p-r*r))
}

// below is the standard normal distribution's share below z.
func below(z float64) float64 { return math.Erfc(-z/math.Sqrt2) / 2 }

// density is the standard normal density at z.
func density(z float64) float64 { return math.Exp(-z*z/2) / math.Sqrt(2*math.Pi) }

// times is z × f, nothing at infinity.
func times(z, f float64) float64 {
	if math.IsInf(z, 0) {
		return 0
	}
	return z * f
}
