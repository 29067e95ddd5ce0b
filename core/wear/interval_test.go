package wear_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/wear"
)

// Of what comes again the shortest distance and the shortest time hold, each by itself; an interval that
// names no time, or no distance, shortens none (common practice).
func TestTheShortestOfIntervals(t *testing.T) {
	for _, list := range [][]wear.Interval{
		{{KM: 20000, Months: 12}, {KM: 15000}, {Months: 18}},
		{{Months: 18}, {KM: 15000}, {KM: 20000, Months: 12}},
	} {
		km, months := wear.Shortest(list)
		assert.InDelta(t, 15000, km, 0)
		assert.Equal(t, 12, months)
	}
	km, months := wear.Shortest(nil)
	assert.Zero(t, km)
	assert.Zero(t, months)
}
