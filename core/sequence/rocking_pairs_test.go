package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Inline four 1-3-4-2: 4 rocks → 1; 2 → 3; 1 → 4; 3 → 2. Common practice.
func TestRockingPairsOfTheFour(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.RockingPairs}})
	require.True(t, p.Applies, p.Reason)
	assert.Equal(t, []string{"rocking 4 → E1 I1", "rocking 2 → E3 I3", "rocking 1 → I4 E4",
		"rocking 3 → I2 E2"}, brief(p))
	assert.Equal(t, measure.FromDegrees(540.0), p.TotalTurn)
	assert.Equal(t, measure.FromDegrees(128.0), p.SmallestMargin)
	assert.Equal(t, sequence.Sighting{What: sequence.Mark, Mark: 0}, p.Stops[0].Watch[1])
	assert.Len(t, p.Stops[1].Watch, 1, "no mark at 180° on this pulley")
}
