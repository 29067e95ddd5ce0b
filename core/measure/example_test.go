package measure_test

import (
	"fmt"

	"metronix/core/measure"
)

// A limit holds to the letter, which it does not in binary fractions of a millimetre.
func ExampleWindow_Contains() {
	nominal, _ := measure.ParseMillimetres("0.20")
	tolerance, _ := measure.ParseMillimetres("0.02")
	reading, _ := measure.ParseMillimetres("0.18")
	window := measure.Window{Lower: nominal - tolerance, Upper: nominal + tolerance}
	fmt.Println(window.Contains(reading), window.Contains(reading-1))
	// Output: true false
}

func ExampleParseInches() {
	leaf, _ := measure.ParseInches("0.009")
	fmt.Println(leaf.Decimal(), leaf.Thousandths())
	// Output: 0.2286 9
}

// Positions of the crank wrap after two turns; an angle is spoken of to a tenth of a degree, and is exact
// inside.
func ExampleAngle_Wrap() {
	fmt.Println((-180 * measure.Degree).Wrap(), measure.FromDegrees(51.4285714))
	// Output: 540° 51.4°
}
