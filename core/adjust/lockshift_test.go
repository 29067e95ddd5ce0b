package adjust_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"
	"pgregory.net/rapid"

	"metronix/core/adjust"
	"metronix/core/measure"
)

// Fewer than five pairs teach nothing: trade practice asks for five or more.
func TestFourPairsAreNotEnough(t *testing.T) {
	pairs := slices.Repeat([]adjust.Pair{{Before: 300 * um, After: 280 * um}}, 4)
	s := adjust.LearnShift(pairs, 0)
	assert.False(t, s.Enough)
	assert.Equal(t, 4, s.Count)
	_, ok := s.PreLockAim(300 * um)
	assert.False(t, ok)
}

// Locking tightens by 0.02 at the median: set to 0.32 for 0.30. By hand.
func TestPreLockAim(t *testing.T) {
	var pairs []adjust.Pair
	for _, after := range []measure.Length{270, 275, 280, 285, 300} {
		pairs = append(pairs, adjust.Pair{Before: 300 * um, After: after * um})
	}
	s := adjust.LearnShift(pairs, 0)
	require.True(t, s.Enough)
	assert.Equal(t, -20*um, s.Median)
	assert.Equal(t, 10*um, s.Spread, "from 0.275 to 0.285")
	pre, ok := s.PreLockAim(300 * um)
	assert.True(t, ok)
	assert.Equal(t, 320*um, pre)
}

// Median and quartiles agree with gonum's linear interpolation (its LinInterp quantiles are another
// definition, so the reference is reckoned from gonum's sorted empirical ones by the formula of Hyndman and
// Fan's definition 7).
func TestShiftAgainstGonum(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		shifts := rapid.SliceOfN(rapid.Int64Range(-60_000, 60_000), 5, 40).Draw(t, "shifts")
		var pairs []adjust.Pair
		var x []float64
		for _, d := range shifts {
			pairs = append(pairs, adjust.Pair{Before: 300 * um, After: 300*um + measure.Length(d)})
			x = append(x, float64(d))
		}
		slices.Sort(x)
		s := adjust.LearnShift(pairs, 0)
		seven := func(p float64) float64 {
			h := float64(len(x)-1) * p
			at := func(i float64) float64 { // the i-th order statistic, by gonum
				return stat.Quantile((i+0.5)/float64(len(x)), stat.Empirical, x, nil)
			}
			return at(math.Floor(h)) + (h-math.Floor(h))*(at(math.Ceil(h))-at(math.Floor(h)))
		}
		require.InDelta(t, seven(0.5), float64(s.Median), 1)
		require.InDelta(t, seven(0.75)-seven(0.25), float64(s.Spread), 2)
	})
}
