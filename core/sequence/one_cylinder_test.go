package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func TestOneCylinderOfTheFour(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.OneCylinder}})
	assert.Equal(t, []string{"tdc_firing 1 → E1 I1", "tdc_firing 3 → E3 I3", "tdc_firing 4 → I4 E4",
		"tdc_firing 2 → I2 E2"}, brief(p))
	n := plan(t, enginetest.Four(),
		sequence.Request{Way: sequence.Way{School: sequence.OneCylinder, Order: sequence.Numerical}})
	assert.Equal(t, []string{"tdc_firing 1 → E1 I1", "tdc_firing 2 → I2 E2", "tdc_firing 3 → E3 I3",
		"tdc_firing 4 → I4 E4"}, brief(n))
	assert.Equal(t, measure.FromDegrees(540.0+360+180), n.TotalTurn, "0 → 540 → 180 → 360")
}
