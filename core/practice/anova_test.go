package practice

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The battery life of three materials at three temperatures, four of each: the worked example of the
// two-factor factorial in D. C. Montgomery, Design and Analysis of Experiments (from memory): sums of squares
// 10,683.72, 39,118.72, 9,613.78 and 18,230.75 on 2, 2, 4 and 27 degrees of freedom, F 7.91, 28.97 and 3.56,
// P 0.0020, under 0.0001 and 0.0186.
func TestCrossedAgainstATextbook(t *testing.T) {
	battery := [][][]float64{
		{{130, 155, 74, 180}, {34, 40, 80, 75}, {20, 70, 82, 58}},
		{{150, 188, 159, 126}, {136, 122, 106, 115}, {25, 70, 58, 45}},
		{{138, 110, 168, 160}, {174, 120, 150, 139}, {96, 104, 82, 60}},
	}
	c, err := AnalyseCrossed(battery)
	require.NoError(t, err)
	for _, want := range []struct {
		of       Effect
		ss, f, p float64
		df       int
	}{
		{c.First, 10683.72, 7.91, 0.0020, 2},
		{c.Second, 39118.72, 28.97, 0.0000, 2},
		{c.Both, 9613.78, 3.56, 0.0186, 4},
		{c.Error, 18230.75, math.NaN(), math.NaN(), 27},
	} {
		assert.InDelta(t, want.ss, want.of.SS, 0.005)
		assert.Equal(t, want.df, want.of.DF)
		if !math.IsNaN(want.f) {
			assert.InDelta(t, want.f, want.of.F, 0.005)
			assert.InDelta(t, want.p, want.of.P, 0.00005)
		}
	}
	assert.InDelta(t, math.Sqrt(675.21), c.Error.SD, 0.001, "the mean square of the error, 675.21")
}

// By hand: two people, two sets, two readings. Person 2 reads 4 more, set 2 gives 2 more, nothing together,
// and readings of a cell are 2 apart: SS 4·2²·2 = 32, 2·4·1² = 8, 0, and 4 · 2 · 1² = 8.
func TestCrossedByHand(t *testing.T) {
	c, err := AnalyseCrossed([][][]float64{{{9, 11}, {11, 13}}, {{13, 15}, {15, 17}}})
	require.NoError(t, err)
	assert.InDelta(t, 32, c.First.SS, 1e-9)
	assert.InDelta(t, 8, c.Second.SS, 1e-9)
	assert.InDelta(t, 0, c.Both.SS, 1e-9)
	assert.InDelta(t, 8, c.Error.SS, 1e-9)
	assert.InDelta(t, 13, c.Mean, 1e-9)
	assert.Zero(t, c.Both.SD, "below nothing it is nothing")
	assert.InDelta(t, math.Sqrt(32.0/4), c.First.SD, 1e-9)
}

// The standard deviations that values were made with are found again, in the mean over many; and one person
// with one set has repeatability alone.
func TestCrossedFindsWhatWasPutIn(t *testing.T) {
	chance := rand.New(rand.NewPCG(23, 7))
	const rounds, people, sets, times = 300, 6, 4, 3
	var found [3]float64
	for range rounds {
		by := make([][][]float64, people)
		offs := make([]float64, sets)
		for j := range offs {
			offs[j] = 2 * chance.NormFloat64()
		}
		for i := range by {
			his := 3 * chance.NormFloat64()
			by[i] = make([][]float64, sets)
			for j := range by[i] {
				for range times {
					by[i][j] = append(by[i][j], his+offs[j]+chance.NormFloat64())
				}
			}
		}
		c, err := AnalyseCrossed(by)
		require.NoError(t, err)
		for k, e := range []Effect{c.First, c.Second, c.Error} {
			found[k] += e.SD * e.SD / rounds
		}
	}
	for k, want := range []float64{9, 4, 1} {
		assert.InEpsilon(t, want, found[k], 0.12)
	}
	c, err := AnalyseCrossed([][][]float64{{{1, 3}}})
	require.NoError(t, err)
	assert.Zero(t, c.First.DF)
	assert.Zero(t, c.First.SD)
	assert.InDelta(t, math.Sqrt2, c.Error.SD, 1e-12)
}

func TestCrossedUneven(t *testing.T) {
	for _, v := range [][][][]float64{nil, {{}}, {{{1}}}, {{{1, 2}}, {{1, 2, 3}}}, {{{1, 2}, {1, 2}}, {{1, 2}}}} {
		_, err := AnalyseCrossed(v)
		assert.Error(t, err)
	}
}
