package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine/enginetest"
	"metronix/core/sequence"
)

// Each valve's intake as its own exhaust starts to open, its exhaust as its own intake nearly closes: common
// practice.
func TestOpeningClosing(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.OpeningClosing}})
	require.True(t, p.Applies)
	for _, s := range p.Stops {
		w := s.Watch[0]
		require.Len(t, s.Set, 1)
		assert.Equal(t, w.Valve[1:], s.Set[0].Valve[1:], "the same cylinder")
		assert.Equal(t, map[sequence.What]string{sequence.Opening: "EI", sequence.Closing: "IE"}[w.What],
			w.Valve[:1]+s.Set[0].Valve[:1])
	}
}
