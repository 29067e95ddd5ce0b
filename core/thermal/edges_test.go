package thermal_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/thermal"
)

// The ends of what can be a temperature count; a reading out of order is named by its number, from 1; and a
// wait of just a week is told, a longer one is not.
func TestTheEdgesOfCooling(t *testing.T) {
	assert.True(t, thermal.Possible(thermal.AbsoluteZeroC))
	assert.False(t, thermal.Possible(math.Nextafter(thermal.AbsoluteZeroC, -1000)))
	assert.True(t, thermal.Possible(thermal.MaxC))
	assert.False(t, thermal.Possible(math.Nextafter(thermal.MaxC, 1e9)))
	assert.InDelta(t, -273.15, thermal.AbsoluteZeroC, 1e-12, "0 K (BIPM, the SI brochure)")

	_, err := thermal.Cool(20, []thermal.Reading{{Minute: 0, EngineC: 80}, {Minute: 10, EngineC: 60},
		{Minute: 10, EngineC: 50}}, 38)
	require.ErrorIs(t, err, thermal.ErrBackwards)
	assert.Contains(t, err.Error(), "reading 3 at minute 10")

	// T − Ta falls from 80 to 40 in tau minutes, so it is 20 after another tau: half of it every tau
	week := float64(thermal.MaxWaitMinutes)
	got, err := thermal.Cool(
		0,
		[]thermal.Reading{{Minute: 0, EngineC: 80}, {Minute: week * 0.999, EngineC: 40}},
		20,
	)
	require.NoError(t, err)
	assert.True(t, got.Reachable)
	assert.InDelta(t, week*0.999, got.Minutes, 1)
	got, err = thermal.Cool(
		0,
		[]thermal.Reading{{Minute: 0, EngineC: 80}, {Minute: week * 1.001, EngineC: 40}},
		20,
	)
	require.NoError(t, err)
	assert.False(t, got.Reachable)
}
