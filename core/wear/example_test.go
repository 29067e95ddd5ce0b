package wear_test

import (
	"fmt"
	"time"

	"metronix/core/measure"
	"metronix/core/wear"
)

// A valve that closed by 0.02 mm over 20,000 km reaches its lower limit after 40,000 km more.
func ExampleReckon() {
	const um = measure.Micrometre
	visit := func(km float64, year int, found, left measure.Length) wear.Visit {
		return wear.Visit{Meter: km, Date: time.Date(year, 3, 31, 0, 0, 0, 0, time.UTC),
			Valves: []wear.Found{{Valve: "E1", Found: new(found), Left: new(left),
				FoundU: new(2 * um), LeftU: new(2 * um),
				Window: measure.Window{Lower: 260 * um, Upper: 320 * um}}}}
	}
	f, _ := wear.Reckon([]wear.Visit{visit(20_000, 2025, 300*um, 300*um),
		visit(40_000, 2026, 280*um, 300*um)}, wear.Every{})
	e1 := f.Valves[0]
	fmt.Printf("%.3f mm per 1000 km, %s at %.0f km\n", e1.Rate, e1.Side, e1.Leaves)
	// Output: -0.001 mm per 1000 km, tight at 80000 km
}
