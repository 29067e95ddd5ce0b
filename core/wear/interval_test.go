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
		{{Run: 20000, Months: 12}, {Run: 15000}, {Months: 18}},
		{{Months: 18}, {Run: 15000}, {Run: 20000, Months: 12}},
	} {
		assert.Equal(t, wear.Every{Run: 15_000, Months: 12}, wear.Shortest(list))
	}
	assert.Zero(t, wear.Shortest(nil))
}
