package clearance_test

import (
	"fmt"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

// 0.25 will not go, then 0.20 drags: tight by 0.02 mm, and surely so.
func ExampleYardstick_Judge() {
	const um = measure.Micrometre
	set := gauge.Set{gauge.Plain(200 * um), gauge.Plain(250 * um)}
	y := clearance.Yardstick{Limits: window(220, 280), Owned: set, Feel: clearance.DefaultFeel}
	j := y.Judge(nil)
	fmt.Println(j.Verdict, "try", j.TryNext)
	readings := []clearance.Reading{
		{Stack: gauge.Stack{set[1]}, Feel: clearance.WontGo}, {Stack: gauge.Stack{set[0]},
			Feel: clearance.Drag},
	}
	j = y.Judge(readings)
	fmt.Println(j.Verdict, j.Sure, *j.Estimate, j.Why(readings, measure.BySource))
	fmt.Println(j.Why(readings, measure.Thousandths))
	// Output:
	// undecided try 0.25
	// tight true 0.20 mm 0.25 won't go, 0.20 drags: 0.02 mm under the limit 0.22 mm.
	// 0.25 won't go, 0.20 drags: 0.8 thou under the limit 8.7 thou.
}
