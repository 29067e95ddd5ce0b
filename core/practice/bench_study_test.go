package practice

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/measure"
)

// By hand: one gap of 0.200, five readings each with two sets: 0.20 0.21 0.20 0.21 0.20 and 0.21 0.20 0.21
// 0.20 0.21. The mean is 5 µm over the gap, the standard deviation √(10·5²/9) = 5.270 µm; the gap is known to
// 1 µm. So 5 + 2·√(5.270² + 1) = 15.73, rounded up 16 µm.
func TestAReadersFeelByHand(t *testing.T) {
	s := BenchStudy{Gaps: []MeasuredGap{{200 * um, um}}, Readers: 1, Sets: 2, Times: 5, Seed: 9}
	require.NoError(t, s.Check())
	by := map[int][]measure.Length{0: {200 * um, 210 * um, 200 * um, 210 * um, 200 * um},
		1: {210 * um, 200 * um, 210 * um, 200 * um, 210 * um}}
	for {
		turn, ok := s.Next()
		if !ok {
			break
		}
		_, _, err := s.Came()
		require.ErrorIs(t, err, errUnread)
		s.Read = append(s.Read, by[turn.Set][0])
		by[turn.Set] = by[turn.Set][1:]
	}
	readers, _, err := s.Came()
	require.NoError(t, err)
	assert.Equal(t, 10, readers[0].Readings)
	assert.Equal(t, 5*um, readers[0].Bias)
	assert.InDelta(t, 5270.46, readers[0].Apart, 0.01)
	assert.Equal(t, 16*um, readers[0].Feel)
	assert.True(t, readers[0].Enough)
}

// Every reader reads every gap with every set as often as is said, one reader after another; another seed,
// another order.
func TestTheOrderOfAStudy(t *testing.T) {
	s := BenchStudy{Gaps: make([]MeasuredGap, 3), Readers: 2, Sets: 2, Times: 4, Seed: 1}
	count := map[BenchTurn]int{}
	last := 0
	for _, turn := range s.Order() {
		count[turn]++
		require.GreaterOrEqual(t, turn.Reader, last)
		last = turn.Reader
	}
	assert.Len(t, count, 12)
	for turn, n := range count {
		assert.Equal(t, 4, n, turn)
	}
	other := s
	other.Seed = 2
	assert.NotEqual(t, s.Order(), other.Order())
	assert.Equal(t, s.Order(), s.Order())
}

// Simulated readers of known bias and spread: the figure covers 95 of 100 of what they read of further gaps,
// or more; each sees his own.
func TestTheFigureCoversWhatIsRead(t *testing.T) {
	chance := rand.New(rand.NewPCG(5, 5))
	covered, all := 0, 0
	for range 200 {
		bias, spread := 6e3*chance.NormFloat64(), 1e3+3e3*chance.Float64()
		reads := func(gap measure.Length) measure.Length {
			return gap + measure.Length(bias+spread*chance.NormFloat64())
		}
		s := BenchStudy{Gaps: []MeasuredGap{{150 * um, 0}, {250 * um, 0}, {320 * um, 0}}, Readers: 1, Sets: 1, Times: 5, Seed: chance.Uint64()}
		for turn, ok := s.Next(); ok; turn, ok = s.Next() {
			s.Read = append(s.Read, reads(s.Gaps[turn.Gap].True))
		}
		readers, _, err := s.Came()
		require.NoError(t, err)
		for range 50 {
			all++
			if (reads(200*um) - 200*um).Abs() <= readers[0].Feel {
				covered++
			}
		}
	}
	assert.GreaterOrEqual(t, float64(covered)/float64(all), 0.95)
}

func TestStudiesThatCannotBe(t *testing.T) {
	good := BenchStudy{Gaps: []MeasuredGap{{200 * um, um}}, Readers: 1, Sets: 1, Times: 2}
	require.NoError(t, good.Check())
	for name, spoil := range map[string]func(*BenchStudy){
		"no gap":        func(s *BenchStudy) { s.Gaps = nil },
		"a gap of none": func(s *BenchStudy) { s.Gaps = []MeasuredGap{{}} },
		"in inches":     func(s *BenchStudy) { s.Gaps = []MeasuredGap{{20 * measure.Millimetre, 0}} },
		"doubt":         func(s *BenchStudy) { s.Gaps = []MeasuredGap{{200 * um, measure.Millimetre}} },
		"once":          func(s *BenchStudy) { s.Times = 1 },
		"nobody":        func(s *BenchStudy) { s.Readers = 0 },
		"no set":        func(s *BenchStudy) { s.Sets = 0 },
	} {
		s := good
		spoil(&s)
		assert.Error(t, s.Check(), name)
	}
}
