package adjust_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"

	"metronix/core/adjust"
	"metronix/core/measure"
)

// wontGo and fellThrough are pairs of one leaf: it dragged before, and afterwards it will not go, or falls
// through.
func wontGo(before measure.Length) adjust.Pair {
	return adjust.Pair{Before: before, AfterHigh: new(before - 5*um)}
}

func fellThrough(before measure.Length) adjust.Pair {
	return adjust.Pair{Before: before, AfterLow: new(before + 5*um)}
}

// likelihood is how likely pairs are by a normal distribution, as a logarithm: straight from the definition.
func likelihood(pairs []adjust.Pair, mean, dev float64) float64 {
	normal := distuv.Normal{Mu: mean, Sigma: dev}
	sum := 0.0
	for _, p := range pairs {
		low, high := bounds(p)
		sum += math.Log(normal.CDF(high) - normal.CDF(low))
	}
	return sum
}

func bounds(p adjust.Pair) (low, high float64) {
	low, high = math.Inf(-1), math.Inf(1)
	if !p.OneSided() {
		d := (p.After - p.Before).Millimetres()
		low, high = d-0.005, d+0.005
	}
	if p.AfterLow != nil {
		low = (*p.AfterLow - p.Before).Millimetres()
	}
	if p.AfterHigh != nil {
		high = (*p.AfterHigh - p.Before).Millimetres()
	}
	return low, high
}

// agree says that all may have shifted alike, so that the likelihood is flat.
func agree(pairs []adjust.Pair) bool {
	low, high := math.Inf(-1), math.Inf(1)
	for _, p := range pairs {
		l, h := bounds(p)
		low, high = max(low, l), min(high, h)
	}
	return low < high
}

// searched is the greatest likelihood by looking everywhere, and then nearer and nearer.
func searched(pairs []adjust.Pair) (mean, dev float64) {
	mean, dev = -0.02, 0.02
	for step := 0.004; step > 1e-6; step *= 0.7 {
		best := math.Inf(-1)
		m0, d0 := mean, dev
		for i := -10; i <= 10; i++ {
			for k := -10; k <= 10; k++ {
				m, d := m0+float64(i)*step, d0+float64(k)*step
				if d <= 1e-5 {
					continue
				}
				if l := likelihood(pairs, m, d); l > best {
					best, mean, dev = l, m, d
				}
			}
		}
	}
	return mean, dev
}

// What only sides tell is learned from too: the estimate is that of greatest likelihood, found here by
// searching the definition with another library's normal distribution (gonum distuv).
func TestCensoredAgainstTheLikelihood(t *testing.T) {
	chance := rand.New(rand.NewPCG(7, 11))
	tried := 0
	for range 60 {
		var pairs []adjust.Pair
		shift, dev := -0.03*chance.Float64(), 0.004+0.01*chance.Float64()
		for range 6 + chance.IntN(20) {
			d := measure.FromMillimetres(shift + dev*chance.NormFloat64())
			switch {
			case chance.IntN(3) == 0:
				pairs = append(pairs, adjust.Pair{Before: 300 * um, After: 300*um + d})
			case d < -5*um:
				pairs = append(pairs, wontGo(300*um))
			case d > 5*um:
				pairs = append(pairs, fellThrough(300*um))
			default:
				pairs = append(
					pairs,
					adjust.Pair{Before: 300 * um, AfterLow: new(295 * um), AfterHigh: new(305 * um)},
				)
			}
		}
		got := adjust.LearnShift(pairs, 0)
		if !got.Enough || agree(pairs) {
			continue
		}
		tried++
		bestMean, bestDev := searched(pairs)
		mean, spread := got.Median.Millimetres(), got.Spread.Millimetres()
		assert.GreaterOrEqual(
			t,
			likelihood(pairs, mean, spread/1.349),
			likelihood(pairs, bestMean, bestDev)-1e-4,
			"%v",
			pairs,
		)
		assert.InDelta(t, bestMean, mean, 2e-4)
		assert.InDelta(t, 1.349*bestDev, spread, 5e-4)
	}
	assert.Greater(t, tried, 20)
}

// Where every pair may have shifted alike the likelihood is flat: the middle of what they share, and how wide
// that is. By hand: 295 to 305 after 300 is −5 to 5; will not go is below −5 … they share −5 alone.
func TestCensoredThatAgree(t *testing.T) {
	between := adjust.Pair{Before: 300 * um, AfterLow: new(270 * um), AfterHigh: new(290 * um)}
	s := adjust.LearnShift([]adjust.Pair{between, between, wontGo(300 * um), wontGo(300 * um),
		{Before: 300 * um, AfterLow: new(280 * um)}}, 0)
	require.True(t, s.Enough)
	assert.Equal(t, -15*um, s.Median, "−20 to −10")
	assert.Equal(t, 10*um, s.Spread)
	assert.Equal(t, adjust.Closes, s.Way)
	narrow := adjust.LearnShift([]adjust.Pair{between, between, wontGo(300 * um), wontGo(300 * um),
		{Before: 300 * um, AfterLow: new(280 * um)}}, 10*um)
	assert.False(t, narrow.Enough, "a spread as wide as the window teaches nothing")
	assert.Equal(t, adjust.Closes, narrow.Way)
}

// The way is known sooner than how far: from the second that comes back on one side (common practice).
func TestTheWayOfTheNut(t *testing.T) {
	one := adjust.LearnShift([]adjust.Pair{wontGo(300 * um)}, 0)
	assert.Empty(t, one.Way)
	two := adjust.LearnShift([]adjust.Pair{wontGo(300 * um), wontGo(220 * um)}, 0)
	assert.Equal(t, adjust.Closes, two.Way)
	assert.False(t, two.Enough)
	opens := adjust.LearnShift([]adjust.Pair{fellThrough(300 * um), fellThrough(220 * um)}, 0)
	assert.Equal(t, adjust.Opens, opens.Way)
	both := adjust.LearnShift([]adjust.Pair{wontGo(300 * um), wontGo(220 * um), fellThrough(300 * um)}, 0)
	assert.Empty(t, both.Way)
	many := adjust.LearnShift(
		[]adjust.Pair{wontGo(300 * um), wontGo(300 * um), wontGo(300 * um), wontGo(300 * um),
			wontGo(300 * um), wontGo(300 * um)},
		0,
	)
	assert.False(t, many.Enough, "nothing bounds it from below")
	assert.Equal(t, adjust.Closes, many.Way)
}

// A hand whose nut takes 0.03 ± 0.004: the pairs that no leaf drags in afterwards say so, where those that
// still drag alone would say 0.02 at most.
func TestWhatIsCutOffIsNotLost(t *testing.T) {
	chance := rand.New(rand.NewPCG(3, 5))
	var pairs []adjust.Pair
	for range 40 {
		after := 300*um + measure.FromMillimetres(-0.03+0.004*chance.NormFloat64())
		low := after / (10 * um) * (10 * um) // leaves a hundredth apart shut it in, and none drags
		pairs = append(pairs, adjust.Pair{Before: 300 * um, AfterLow: new(low), AfterHigh: new(low + 10*um)})
	}
	s := adjust.LearnShift(pairs, 40*um)
	require.True(t, s.Enough)
	assert.InDelta(t, -0.03, s.Median.Millimetres(), 0.003)
}
