package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func TestOneLobeIsTheMiddleOfEachBaseCircle(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.OneLobe}})
	assert.Equal(t, measure.FromDegrees(238.0), p.SmallestMargin, "half of 720 − 244")
	assert.Len(t, p.Stops, 8)
}
