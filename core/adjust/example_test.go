package adjust_test

import (
	"fmt"

	"metronix/core/adjust"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/measure"
)

// 0.10 mm to close with a screw of 1 mm pitch at the valve end: a tenth of a turn.
func ExampleReckon() {
	screw := engine.Adjuster{Kind: gear.ScrewValveEnd, Pitch: measure.Millimetre}
	t, _ := adjust.Reckon(screw, 400*measure.Micrometre, 300*measure.Micrometre)
	fmt.Printf("%.0f° %s, %s\n", t.Degrees, t.Way, t.Rotation)
	// Output: 36° in, clockwise
}

// Locking that closes the gap by 0.02 mm: set 0.32 for 0.30.
func ExampleShift_PreLockAim() {
	var pairs []adjust.Pair
	for range adjust.EnoughPairs {
		pairs = append(pairs, adjust.Pair{Before: 300 * measure.Micrometre, After: 280 * measure.Micrometre})
	}
	pre, ok := adjust.LearnShift(pairs, 0).PreLockAim(300 * measure.Micrometre)
	fmt.Println(pre, ok)
	// Output: 0.32 mm true
}
