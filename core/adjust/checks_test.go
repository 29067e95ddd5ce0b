package adjust_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"metronix/core/adjust"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/measure"
	"metronix/internal/checks"
)

// A tenth of a millimetre by the threads that adjusters have: 360° × 0.1 / pitch.
func TestThreadsAgainstTheOutside(t *testing.T) {
	for thread, c := range map[string]struct {
		from  string
		pitch measure.Length
		deg   float64
	}{
		"M6×1": {"ISO 261", 1000 * um, 36}, "M6×0.75": {"ISO 261", 750 * um, 48},
		"M7×1": {"ISO 261", 1000 * um, 36},
		"M8×1": {"ISO 261", 1000 * um, 36}, "M8×1.25": {"ISO 261", 1250 * um, 28.8},
		"M10×1.25": {"ISO 261", 1250 * um, 28.8},
		"1/4-28":   {"ASME B1.1", measure.Inch / 28, 39.68504},
		"5/16-24":  {"ASME B1.1", measure.Inch / 24, 34.01575},
		"3/8-24":   {"ASME B1.1", measure.Inch / 24, 34.01575},
		"7/16-20":  {"ASME B1.1", measure.Inch / 20, 28.34646},
	} {
		got, err := adjust.Reckon(engine.Adjuster{Kind: gear.ScrewValveEnd, Pitch: c.pitch}, 320*um, 220*um)
		require.NoError(t, err)
		checks.Near(t, checks.Standard(c.from), "0.10 mm by "+thread+" at the valve end, °", c.deg,
			got.Degrees, 1e-4)
	}
}

// Which way closes, seen along a right-hand thread from the end where the tool sits.
func TestRotationAgainstTheOutside(t *testing.T) {
	right := checks.Theorem("a right-hand thread goes in clockwise; what is driven towards the " +
		"valve closes by going in")
	for kind, want := range map[gear.Kind]adjust.Rotation{
		gear.ScrewValveEnd: adjust.Clockwise, gear.ScrewPushrodEnd: adjust.Clockwise,
		gear.CentreNut: adjust.Clockwise, gear.ScrewValveEndAtCam: adjust.Clockwise,
		gear.ThreadedTappet: adjust.Anticlockwise, gear.ThreadedTappetAtValve: adjust.Anticlockwise,
		gear.FingerPivotAtCam: adjust.Anticlockwise, gear.FingerPivotAtValve: adjust.Anticlockwise,
	} {
		a := engine.Adjuster{Kind: kind, Pitch: 1000 * um, Ratio: 1.5}
		got, err := adjust.Reckon(a, 320*um, 220*um)
		require.NoError(t, err)
		checks.Equal(t, right, fmt.Sprintf("%s closes", kind), want, got.Rotation)
		a.Thread = engine.LeftHand
		other, err := adjust.Reckon(a, 320*um, 220*um)
		require.NoError(t, err)
		checks.Equal(t, checks.Theorem("a left-hand thread reverses it"),
			fmt.Sprintf("%s, left-hand thread: as above", kind),
			false, other.Rotation == want)
	}
}

func TestShimsAgainstTheOutside(t *testing.T) {
	sum := checks.Practice("new shim = fitted + measured − aim")
	for what, c := range map[string]struct{ fitted, measured, aim, want measure.Length }{
		"2.70 fitted, 0.10 measured, 0.20 wanted": {2700, 100, 200, 2600},
		"2.50 fitted, 0.30 measured, 0.20 wanted": {2500, 300, 200, 2600},
		"3.05 fitted, 0.15 measured, 0.25 wanted": {3050, 150, 250, 2950},
		"2.35 fitted, 0.20 measured, 0.20 wanted": {2350, 200, 200, 2350},
	} {
		v := adjust.ShimValve{Fitted: c.fitted * um, Measured: c.measured * um, Aim: c.aim * um}
		checks.Equal(t, sum, what+", mm", (c.want * um).Decimal(), v.Wanted().Decimal())
	}
}

// Median and quartiles of what locking did, by gonum's own quantiles where their definition is the same.
func TestLockShiftAgainstTheOutside(t *testing.T) {
	for _, shifts := range [][]float64{{-20, -18, -16, -14, -30}, {-5, 0, 5, 10, 15, 20, 25},
		{-16, -16, -16, -16, -16}} {
		var pairs []adjust.Pair
		for _, s := range shifts {
			pairs = append(pairs, adjust.Pair{Before: 300 * um, After: 300*um + measure.Length(s)*um})
		}
		sorted := slices.Sorted(slices.Values(shifts))
		want := stat.Quantile(0.5, stat.Empirical, sorted, nil)
		got := adjust.LearnShift(pairs, 0)
		checks.Near(t, checks.Library("gonum stat.Quantile, an odd number of pairs"),
			fmt.Sprintf("median of %v µm", shifts),
			want, got.Median.Millimetres()*1000, 1e-9)
	}
	few := adjust.LearnShift(make([]adjust.Pair, 4), 0)
	checks.Equal(t, checks.Practice("a habit is known from five times on"), "four pairs: enough", false,
		few.Enough)
}
