package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine/enginetest"
	"metronix/core/sequence"
)

// E1 → I3, E4; E3 → I4, E2; E4 → I2, E1; E2 → I1, E3. Common practice.
func TestExhaustFullyOpenOfTheFour(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.ExhaustOpen}})
	require.True(t, p.Applies, p.Reason)
	got := map[string]string{}
	for i, s := range p.Stops {
		got[s.Watch[0].Valve] = sets(p)[i]
	}
	assert.Equal(t, map[string]string{"E1": "E4 I3", "E3": "E2 I4", "E4": "E1 I2", "E2": "E3 I1"}, got)
}
