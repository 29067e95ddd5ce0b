package practice

import (
	"errors"
	"math"

	"gonum.org/v1/gonum/stat/distuv"
)

// Effect is one line of an analysis of variance.
type Effect struct {
	SS float64 // sum of squares
	DF int     // degrees of freedom; 0: there is no such effect here
	F  float64 // its mean square over that of the error; NaN where there is none of one of them
	P  float64 // how likely an F as large is by chance, 0 to 1; NaN as F
	// SD is the standard deviation that this effect alone brings about, in the unit of what was analysed; 0
	// where its estimated variance is not above 0
	SD float64
}

// MS is its mean square; NaN without a degree of freedom.
func (e Effect) MS() float64 {
	if e.DF == 0 {
		return math.NaN()
	}
	return e.SS / float64(e.DF)
}

// Crossed is the analysis of variance of values that two factors cross in: people and leaf sets, say.
type Crossed struct {
	First, Second, Both Effect // the factors, and what they do together
	Error               Effect // what is left: repeatability. Its F and P are NaN
	Mean                float64
}

// errUneven: the cells are not all there with as many values each, two at least.
var errUneven = errors.New("every cell holds the same number of values, two at least")

// AnalyseCrossed analyses values by [first][second][repeat]: every cell has as many, two at least. A factor
// of one level has no effect. It errs where the cells are uneven.
//
// The sums of squares are those of the two-factor factorial with replication, both factors random for the
// standard deviations (D. C. Montgomery, Design and Analysis of Experiments, chapters on the two-factor
// factorial and on random effects, from memory): with n values in each of a×b cells the variance of a factor
// is (MS − MS of both) over n times the levels of the other, that of both (MS of both − MS of the error) over
// n. F is against the error, as for fixed factors.
func AnalyseCrossed(values [][][]float64) (c Crossed, err error) {
	a, b, n, err := evenly(values)
	if err != nil {
		return c, err
	}
	first, second := make([]float64, a), make([]float64, b)
	cells := make([][]float64, a)
	for i := range values {
		cells[i] = make([]float64, b)
		for j := range values[i] {
			for _, v := range values[i][j] {
				cells[i][j] += v / float64(n)
			}
			first[i] += cells[i][j] / float64(b)
			second[j] += cells[i][j] / float64(a)
			c.Mean += cells[i][j] / float64(a*b)
		}
	}
	sq := func(v float64) float64 { return v * v }
	for i := range values {
		c.First.SS += float64(b*n) * sq(first[i]-c.Mean)
		for j := range values[i] {
			c.Both.SS += float64(n) * sq(cells[i][j]-first[i]-second[j]+c.Mean)
			for _, v := range values[i][j] {
				c.Error.SS += sq(v - cells[i][j])
			}
		}
	}
	for j := range second {
		c.Second.SS += float64(a*n) * sq(second[j]-c.Mean)
	}
	c.First.DF, c.Second.DF, c.Both.DF, c.Error.DF = a-1, b-1, (a-1)*(b-1), a*b*(n-1)
	c.deviations(a, b, n)
	return c, nil
}

// evenly counts levels and repeats; it errs where they are uneven.
func evenly(values [][][]float64) (a, b, n int, err error) {
	if len(values) == 0 || len(values[0]) == 0 {
		return 0, 0, 0, errUneven
	}
	a, b, n = len(values), len(values[0]), len(values[0][0])
	for _, row := range values {
		if len(row) != b {
			return 0, 0, 0, errUneven
		}
		for _, cell := range row {
			if len(cell) != n {
				return 0, 0, 0, errUneven
			}
		}
	}
	if n < 2 {
		return 0, 0, 0, errUneven
	}
	return a, b, n, nil
}

// deviations finds F, P and the standard deviations from the sums of squares.
func (c *Crossed) deviations(a, b, n int) {
	err := c.Error.MS()
	both := c.Both.MS()
	if c.Both.DF == 0 {
		both = err
	}
	part := func(e *Effect, less float64, per int) {
		e.F = e.MS() / err
		e.P = math.NaN()
		if e.DF > 0 && err > 0 {
			e.P = distuv.F{D1: float64(e.DF), D2: float64(c.Error.DF)}.Survival(e.F)
		}
		if v := (e.MS() - less) / float64(per); v > 0 {
			e.SD = math.Sqrt(v)
		}
	}
	part(&c.First, both, b*n)
	part(&c.Second, both, a*n)
	part(&c.Both, err, n)
	c.Error.F, c.Error.P, c.Error.SD = math.NaN(), math.NaN(), math.Sqrt(err)
}
