package thermal_test

import (
	"fmt"

	"metronix/core/thermal"
)

// From 85 to 72 °C in ten minutes at 18 °C around: k = ln(67/54)/10, and ln(54/20)/k more minutes to 38 °C.
func ExampleCool() {
	c, _ := thermal.Cool(18, []thermal.Reading{{Minute: 0, EngineC: 85}, {Minute: 10, EngineC: 72}}, 38)
	fmt.Printf("k %.4f per minute, %.0f minutes more\n", c.K, c.Minutes)
	// Output: k 0.0216 per minute, 46 minutes more
}
