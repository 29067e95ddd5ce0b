package measure

import (
	"math"
	"strconv"
)

// Cycle is one four-stroke cycle in degrees of crank rotation: two turns.
const Cycle = 720.0

// SameAngle is the difference in degrees below which two crank positions are one place.
const SameAngle = 0.001

// slack absorbs float noise where an inclusive limit is compared, in degrees: far below anything a crank can show.
const slack = 1e-7

// Wrap brings an angle in crank degrees into 0 ≤ a < 720. Angles within float noise of 720 become 0.
func Wrap(deg float64) float64 {
	a := deg
	switch { // most angles are at most one cycle off: no division for those
	case a >= Cycle && a < 2*Cycle:
		a -= Cycle
	case a < 0 && a >= -Cycle:
		a += Cycle
	case a < 0 || a >= Cycle:
		if a = math.Mod(a, Cycle); a < 0 {
			a += Cycle
		}
	}
	if Cycle-a < slack || a < slack {
		return 0
	}
	return a
}

// Apart is the shorter way round between two crank positions, 0 … 360 degrees.
func Apart(a, b float64) float64 {
	d := Wrap(a - b)
	return math.Min(d, Cycle-d)
}

// AtLeast compares angles with the limit included, float noise forgiven.
func AtLeast(deg, limit float64) bool { return deg >= limit-slack }

// RoundAngle drops float noise below a millionth of a degree: the one rounding at a formula's exit.
func RoundAngle(deg float64) float64 {
	r := math.Round(deg*1e6) / 1e6
	if r == 0 {
		return 0 // never minus zero
	}
	return r
}

// FormatAngle writes degrees for people, to a tenth: "180°", "51.4°".
func FormatAngle(deg float64) string {
	return strconv.FormatFloat(math.Round(deg*10)/10, 'f', -1, 64) + "°"
}
