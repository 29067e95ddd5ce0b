package sequence_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// One cylinder with events just off whole degrees stands 128° clear at its firing TDC, one stop, whatever the
// decimals.
func TestFineDecimalsKeepTheBestPlan(t *testing.T) {
	for _, fine := range []measure.Angle{0, 11, -11, 333_333} {
		s := enginetest.Inline([]int{1}, "EI")
		s.Timing = enginetest.Timing(12, 52, 52, 12)
		s.Timing.IVO, s.Timing.IVC = s.Timing.IVO+fine, s.Timing.IVC+fine
		p := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.FewestStops}})
		require.True(t, p.Applies, p.Reason)
		require.Len(t, p.Stops, 1)
		assert.Less(t, p.Stops[0].Crank, measure.Cycle)
		assert.InDelta(t, 128, p.SmallestMargin.Degrees(), 1)
	}
}

func TestFewestStops(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.FewestStops}})
	require.True(t, p.Applies, p.Reason)
	assert.Len(t, p.Stops, 2)
	assert.Equal(t, measure.FromDegrees(128.0), p.SmallestMargin,
		"no two positions of this four stand deeper than firing TDC and one turn on")
	deep := 300 * measure.Degree
	none := plan(t, enginetest.Four(),
		sequence.Request{Way: sequence.Way{School: sequence.FewestStops}, RequiredMargin: &deep})
	assert.False(t, none.Applies)
	assert.Contains(t, none.Reason, "238°")
	s := enginetest.Four()
	s.Marks = enginetest.Degrees(0, 180)
	marked := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.FewestStops,
		Positions: sequence.MarksOnly}})
	assert.Equal(t, enginetest.Degrees(0, 360), []measure.Angle{marked.Stops[0].Crank, marked.Stops[1].Crank})
	assert.Equal(t, sequence.Mark, marked.Stops[0].Watch[0].What)
}

// smallest is the smallest margin of a set of positions, each valve at its deepest.
func smallest(c *cycle.Cycle, cranks []measure.Angle) measure.Angle {
	worst := measure.Cycle
	for _, v := range c.Valves {
		deepest := -measure.Cycle
		for _, at := range cranks {
			deepest = max(deepest, c.Margin(v, at))
		}
		worst = min(worst, deepest)
	}
	return worst
}

// grid is the best smallest margin of one and of two positions on a grid, by trying all.
func grid(c *cycle.Cycle, step float64) (one, two float64) {
	n := int(720 / step)
	margins := make([][]float64, n)
	for i := range margins {
		for _, v := range c.Valves {
			margins[i] = append(margins[i], c.Margin(v, measure.FromDegrees(float64(i)*step)).Degrees())
		}
	}
	one, two = math.Inf(-1), math.Inf(-1)
	for i := range n {
		one = math.Max(one, slices.Min(margins[i]))
		for j := i + 1; j < n; j++ {
			worst := math.Inf(1)
			for v := range margins[i] {
				worst = math.Min(worst, math.Max(margins[i][v], margins[j][v]))
			}
			two = math.Max(two, worst)
		}
	}
	return one, two
}

// The frontier is exact: on no grid is there a plan of one or two stops better than ours, ours is never
// further than the grid's step from the grid's best, and its positions really reach what they promise.
func TestFrontierAgainstExhaustiveSearch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := randomSheet(t)
		c := cycle.New(s)
		frontier := sequence.Compare(s, nil).Frontier
		require.NotEmpty(t, frontier)
		const step = 3.0
		one, two := grid(c, step)
		ours := map[int]float64{1: math.Inf(-1), 2: math.Inf(-1)}
		for i, b := range frontier {
			ours[b.Stops] = b.SmallestMargin.Degrees()
			require.Equal(t, b.SmallestMargin, smallest(c, b.Cranks), "%d stops at %v", b.Stops, b.Cranks)
			require.Len(t, b.Cranks, b.Stops)
			if i > 0 {
				require.Equal(t, frontier[i-1].Stops+1, b.Stops)
				require.GreaterOrEqual(t, b.SmallestMargin, frontier[i-1].SmallestMargin)
			}
		}
		last := frontier[len(frontier)-1]
		require.Equal(t, min(c.DeepestMargin(engine.Intake), c.DeepestMargin(engine.Exhaust)),
			last.SmallestMargin)
		for k, best := range map[int]float64{1: one, 2: two} {
			if k > last.Stops {
				continue
			}
			if math.IsInf(ours[k], -1) {
				require.LessOrEqual(t, best, 1e-6, "%d stops: the grid finds a positive margin, we none", k)
				continue
			}
			require.GreaterOrEqual(t, ours[k], best-1e-6, "%d stops: a grid beats us", k)
			require.LessOrEqual(t, ours[k], best+step, "%d stops: better than can be", k)
		}
	})
}
