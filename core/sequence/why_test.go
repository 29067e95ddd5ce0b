package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine/enginetest"
	"metronix/core/sequence"
)

// Every stop of every school says why its valves may be worked on there, with the figure of the least clear
// one.
func TestEveryStopSaysWhy(t *testing.T) {
	for _, school := range sequence.Schools() {
		plan, err := sequence.Make(enginetest.Four(), sequence.Request{Way: sequence.Way{School: school}})
		require.NoError(t, err)
		for i, stop := range plan.Stops {
			why := plan.Why(i)
			assert.Contains(t, why, "from its opening or closing", "%s, stop %d", school, i)
			least := stop.Set[0]
			for _, set := range stop.Set {
				if set.Margin < least.Margin {
					least = set
				}
			}
			assert.Contains(t, why, least.Margin.String(), "%s, stop %d", school, i)
		}
	}
	assert.Empty(t, sequence.Plan{Stops: []sequence.Stop{{}}}.Why(0))
}

// The rule of nine is told by row numbers, as it is said aloud: valve 8 is fully down, set valve 1 (common
// practice).
func TestTheRuleOfNineIsToldByNumbers(t *testing.T) {
	plan, err := sequence.Make(enginetest.Four(),
		sequence.Request{Way: sequence.Way{School: sequence.SumRule}})
	require.NoError(t, err)
	for i, stop := range plan.Stops {
		if stop.Watch[0].Valve == "E4" {
			assert.Equal(t, "valve 8 (E4) is fully down", stop.Until())
			assert.Equal(t, "Valve 8 (E4) is fully down", stop.Standing())
			assert.Equal(t, "E1", stop.Set[0].Valve)
			assert.Contains(t, plan.Why(i), "valve 8")
			return
		}
	}
	t.Fatal("no stop at which E4 is down")
}
