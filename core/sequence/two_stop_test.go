package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Firing TDC of 1 → I1 E1 I2 E3; one turn on → I3 I4 E2 E4. The six: TDC 1 → I1 E1, I2, E3, I4, E5; TDC 6 →
// I6 E6, E2, I3, E4, I5. Common practice.
func TestTwoStops(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.TwoStop}})
	assert.Equal(t, []string{"E1 E3 I1 I2", "E2 E4 I3 I4"}, sets(p))
	assert.Equal(t, measure.FromDegrees(360.0), p.TotalTurn)
	p = plan(t, six(), sequence.Request{Way: sequence.Way{School: sequence.TwoStop}})
	assert.Equal(t, []string{"E1 E3 E5 I1 I2 I4", "E2 E4 E6 I3 I5 I6"}, sets(p))
	twelve := enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEE")
	p = plan(t, twelve, sequence.Request{Way: sequence.Way{School: sequence.TwoStop}})
	assert.Len(t, p.Stops[0].Set, 6, "two intakes and one exhaust each: six and six")
	assert.Len(t, p.Stops[1].Set, 6)
	long := enginetest.Four()
	long.Timing = enginetest.Timing(60, 110, 110, 60)
	long.RequiredMargin = ptr(80 * measure.Degree)
	assert.False(t, plan(t, long, sequence.Request{Way: sequence.Way{School: sequence.TwoStop}}).Applies,
		"long cams fail")
}
