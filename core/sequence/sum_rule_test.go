package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// 1↔8, 2↔7, 3↔6, 4↔5; valid for E I I E E I I E and I E I E E I E I, not for E I E I E I E I. Common
// practice.
func TestRuleOfNine(t *testing.T) {
	for _, row := range []string{"EIIEEIIE", "IEIEEIEI"} {
		s := enginetest.Inline([]int{1, 3, 4, 2}, row)
		valves := s.Valves()
		p := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.SumRule,
			Order: sequence.Numerical}})
		require.True(t, p.Applies, p.Reason)
		require.Len(t, p.Stops, 8)
		for i, stop := range p.Stops {
			assert.Equal(t, valves[i].Name, stop.Watch[0].Valve)
			assert.Equal(t, sequence.FullLift, stop.Watch[0].What)
			assert.Equal(t, []sequence.SetValve{{Valve: valves[7-i].Name, Margin: 238 * measure.Degree}},
				stop.Set, "the exact middle of the base circle")
		}
		turning := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.SumRule}})
		assert.Less(t, turning.TotalTurn, p.TotalTurn, "numerical order turns the crank further")
	}
	p := plan(t, enginetest.Inline([]int{1, 3, 4, 2}, "EIEIEIEI"),
		sequence.Request{Way: sequence.Way{School: sequence.SumRule}})
	assert.False(t, p.Applies)
	assert.Empty(t, p.Stops)
	assert.Contains(t, p.Reason, "valve 1 (E1) with valve 8 (I4)")
}

// A straight six with a palindromic row uses 13. Common practice.
func TestRuleOfThirteen(t *testing.T) {
	p := plan(t, enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE"),
		sequence.Request{Way: sequence.Way{School: sequence.SumRule, Order: sequence.Numerical}})
	require.True(t, p.Applies, p.Reason)
	assert.Equal(t, "E1 → E6", brief(p)[0])
	assert.Len(t, p.Stops, 12)
}

func TestSumRuleIsRefusedWhereItWouldNameTheWrongValve(t *testing.T) {
	for name, c := range map[string]struct {
		sheet *engine.Sheet
		says  string
	}{
		"two rows": {enginetest.Crossflow([]int{1, 3, 4, 2}, "IIII", "EEEE"),
			"one head with one row"},
		"two intakes each": {enginetest.Inline([]int{1, 3, 4, 2}, "EIIEIIIIEIIE"),
			"several valves of a kind"},
		"no companions":       {enginetest.Inline([]int{1, 3, 2}, "EIIEEI"), "rule of 7"},
		"companion elsewhere": {enginetest.Inline([]int{1, 2, 3, 4}, "EIIEEIIE"), "companion is 3"},
	} {
		p := plan(t, c.sheet, sequence.Request{Way: sequence.Way{School: sequence.SumRule}})
		assert.False(t, p.Applies, name)
		assert.Contains(t, p.Reason, c.says, name)
	}
}
