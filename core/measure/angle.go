package measure

import (
	"math"
	"strconv"
)

// Angle is a signed angle in whole micro-degrees, as time.Duration counts nanoseconds: crank degrees unless a
// name says otherwise. The zero value is no angle, at a crank position the firing TDC of the first cylinder.
// Counting whole micro-degrees makes every comparison exact: a printed margin fed back as the required one is
// reached.
type Angle int64

// The units an angle is counted in. Turn is one turn of the crank, Cycle one four-stroke cycle: two turns.
const (
	Microdegree Angle = 1
	Degree            = 1_000_000 * Microdegree
	Turn              = 360 * Degree
	Cycle             = 2 * Turn
)

// SameAngle is the difference below which two stops are one place: 0.001°, far below what a crank can show.
// It merges stops and decides nothing else.
const SameAngle = Degree / 1000

// maxAngle bounds what FromDegrees gives, in either sign: a million degrees. No figure of the trade comes
// near it.
const maxAngle = 1_000_000 * Degree

// FromDegrees rounds to the nearest micro-degree, halves away from zero: the one rounding, on entry. NaN is
// 0; figures beyond a million degrees are cut to that, so that a check of their range refuses them.
func FromDegrees(deg float64) Angle {
	switch {
	case math.IsNaN(deg):
		return 0
	case deg >= maxAngle.Degrees():
		return maxAngle
	case deg <= -maxAngle.Degrees():
		return -maxAngle
	}
	return Angle(math.Round(deg * float64(Degree)))
}

// Degrees gives the angle as a float, for display, formulas and the wire. It is never minus zero.
func (a Angle) Degrees() float64 { return float64(a) / float64(Degree) }

// Wrap brings an angle into 0 ≤ a < Cycle.
func (a Angle) Wrap() Angle {
	if a %= Cycle; a < 0 {
		a += Cycle
	}
	return a
}

// Apart is the shorter way round between two crank positions, 0 … 360 degrees.
func Apart(a, b Angle) Angle {
	d := (a - b).Wrap()
	return min(d, Cycle-d)
}

// String writes degrees for people, to a tenth: "180°", "51.4°", never "-0°".
func (a Angle) String() string { return a.places(1) + "°" }

// Against writes an angle with the fewest places, one at least, that show on which side of a limit it lies:
// 39.999 against 40 is "39.999°" and not "40°".
func (a Angle) Against(limit Angle) string {
	const most = 6
	for places := 1; places < most; places++ {
		if shown, _ := strconv.ParseFloat(a.places(places), 64); (a < limit) == (FromDegrees(shown) < limit) {
			return a.places(places) + "°"
		}
	}
	return a.places(most) + "°"
}

// places writes degrees rounded to so many decimal places, without zeros at the end.
func (a Angle) places(n int) string {
	scale := math.Pow10(n)
	rounded := math.Round(a.Degrees()*scale) / scale
	if rounded == 0 {
		rounded = 0 // never minus zero
	}
	return strconv.FormatFloat(rounded, 'f', -1, 64)
}
