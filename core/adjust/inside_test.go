package adjust

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"gonum.org/v1/gonum/integrate/quad"
	"gonum.org/v1/gonum/stat/distuv"
)

// A normal distribution cut off at two bounds: the half normal has the mean √(2/π) and the variance 1 − 2/π,
// the one cut off at one deviation either way 0.291125 (Johnson, Kotz and Balakrishnan 1994, 10.1); others by
// integrating.
func TestANormalCutOff(t *testing.T) {
	m, v := cutOff(0, 1, 0, math.Inf(1))
	assert.InDelta(t, math.Sqrt(2/math.Pi), m, 1e-12)
	assert.InDelta(t, 1-2/math.Pi, v, 1e-12)
	m, v = cutOff(0, 1, -1, 1)
	assert.InDelta(t, 0, m, 1e-12)
	assert.InDelta(t, 0.29112509, v, 1e-7)
	for _, c := range [][4]float64{{0.02, 0.01, 0.005, 0.03}, {0.02, 0.01, 0.04, 0.06}, {-0.03, 0.02, -0.1, -0.05}} {
		mean, dev, low, high := c[0], c[1], c[2], c[3]
		n := distuv.Normal{Mu: mean, Sigma: dev}
		whole := n.CDF(high) - n.CDF(low)
		first := quad.Fixed(func(x float64) float64 { return x * n.Prob(x) / whole }, low, high, 200, nil, 0)
		second := quad.Fixed(
			func(x float64) float64 { return (x - first) * (x - first) * n.Prob(x) / whole },
			low,
			high,
			200,
			nil,
			0,
		)
		m, v := cutOff(mean, dev, low, high)
		assert.InDelta(t, first, m, 1e-9, c)
		assert.InDelta(t, second, v, 1e-9, c)
	}
	m, v = cutOff(0.5, 0, 0, 1)
	assert.Equal(t, [2]float64{0.5, 0}, [2]float64{m, v}, "no spread leaves one value")
	m, v = cutOff(2, 0, 0, 1)
	assert.Equal(t, [2]float64{1, 0}, [2]float64{m, v}, "at the nearer bound where it lies outside")
}
