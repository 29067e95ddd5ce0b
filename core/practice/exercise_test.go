package practice_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/practice"
)

// An exercise that contradicts its engine is refused with the place and a sentence, and so is one that leaves
// a gap no leaf can read.
func TestExercisesThatContradict(t *testing.T) {
	deg := func(d float64) *measure.Angle { a := measure.FromDegrees(d); return &a }
	for field, x := range map[string]practice.Exercise{
		"aid":       {Aid: "alone"},
		"hot":       {Hot: true},
		"crank_deg": {Crank: deg(720)},
		"gaps.E9":   {Gaps: map[string]measure.Length{"E9": 200 * um}},
		"gaps.E1":   {Gaps: map[string]measure.Length{"E1": 4000 * um}},
		"gaps.E2":   {Gaps: map[string]measure.Length{"E2": 10 * um}},
		"wear[0]":   {Wear: []practice.Worn{{Kind: practice.Even, Valve: "E1"}}},
		"wear[1]":   {Wear: []practice.Worn{{Kind: practice.WornTip, Valve: "E1"}, {Kind: practice.FlatLobe, Valve: "E1"}}},
		"nuts[0]":   {Nuts: []practice.BadNut{{Valve: "E9", How: practice.Stiff}}},
		"counts[0]": {Counts: []practice.Slip{"style"}},
	} {
		x.Setup = jobtest.Setup()
		x.Setup.Owned = every(5, 60)
		_, err := practice.Begin(x)
		var c practice.Contradiction
		require.ErrorAs(t, err, &c, field)
		assert.Equal(t, field, c.Field)
	}
	few := practice.Exercise{Setup: jobtest.Setup(), Seed: 4}
	few.Setup.Owned = every(50, 52)
	_, err := practice.Begin(few)
	assert.ErrorContains(t, err, "no leaf of this set can read")
}
