package sequence_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func TestMakersOrderIsChecked(t *testing.T) {
	s := enginetest.Four()
	p := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.Own}})
	assert.False(t, p.Applies)
	s.OwnSequence = []engine.OwnStop{{Crank: 0, Set: []string{"I1", "E1", "I2", "E4"}},
		{Crank: measure.Turn, Set: []string{"I3", "I4", "E2", "E3"}}}
	p = plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.Own}})
	require.True(t, p.Applies)
	assert.Equal(t, measure.FromDegrees(-52.0), p.SmallestMargin,
		"E3 at 360 stands at 180 of its own cycle and opened at 128")
	named := slices.ContainsFunc(p.Cautions, func(c string) bool {
		return strings.Contains(c, "E4 is still open, 12° inside its lift")
	})
	assert.True(t, named, p.Cautions)
}
