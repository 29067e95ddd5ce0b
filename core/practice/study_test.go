package practice_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/measure"
	"metronix/core/practice"
)

// reads goes through a study: each gap is tried from the thickest leaf that might enter down, and the first
// that drags is read; then something is added to it.
func reads(t *testing.T, s *practice.Study, add func() measure.Length) {
	t.Helper()
	for s.Done() < s.Readings() {
		leaf := 600 * um
		for ; leaf >= 50*um; leaf -= 10 * um {
			f, err := s.Slide(leaf)
			require.NoError(t, err)
			if f.Feel != clearance.WontGo {
				break
			}
		}
		require.NoError(t, s.Read(leaf+add()))
	}
}

// The range method against the standard deviation that the readings were made with: simulated readers whose
// readings of a gap scatter by a known deviation and lie off by a known bias come out so, in the mean over
// many. d2 for three readings is 1.693 (ASTM E2587, from memory).
func TestAStudyFindsBiasAndRepeatability(t *testing.T) {
	chance := rand.New(rand.NewPCG(1, 1))
	var repeat, bias float64
	const studies, scatters = 400, 20_000.0 // nm
	owned := every(5, 60)
	for seed := range uint64(studies) {
		s := practice.NewStudy(seed, owned)
		reads(t, s, func() measure.Length { // whole leaves: the scatter is rounded to hundredths
			return measure.Length(math.Round((30_000+chance.NormFloat64()*scatters)/10_000)) * 10 * um
		})
		f, ok := s.Feel()
		require.True(t, ok)
		repeat += f.Repeat / studies
		bias += float64(f.Bias) / studies
	}
	rounded := math.Sqrt(scatters*scatters + 10_000*10_000/12 + 10_000*10_000/12/3) // a leaf's step, twice (uniform: a²/12, JCGM 100 4.3.7)
	assert.InDelta(t, rounded, repeat, 0.08*rounded)
	assert.InDelta(t, 30_000, bias, 5_000, "and half a leaf's step")
}

// A worked example by hand: ranges 10, 0, 20, 10, 10 µm, their mean 10, over 1.6926: 5.908 µm.
func TestTheRangeMethodByHand(t *testing.T) {
	s := practice.NewStudy(3, every(5, 60))
	ranges := []measure.Length{10 * um, 0, 20 * um, 10 * um, 10 * um}
	seen := map[int]int{}
	again := practice.NewStudy(3, every(5, 60))
	var order []int // which gap comes when, told by a study of which all is known
	for range again.Readings() {
		require.NoError(t, again.Read(200*um))
	}
	known, ok := again.Feel()
	require.True(t, ok)
	require.Len(t, known.Gaps, practice.StudyGaps)
	for i := 0; s.Done() < s.Readings(); i++ {
		best := -1
		for k, g := range known.Gaps { // a leaf that drags there and nowhere else tells which it is
			f, err := s.Slide((g.True + 5*um) / (10 * um) * 10 * um)
			require.NoError(t, err)
			if f.Feel.Drags() {
				best = k
			}
		}
		if best < 0 { // between two leaves: the thinner is free and the thicker does not go
			for k, g := range known.Gaps {
				lower := g.True / (10 * um) * 10 * um
				a, _ := s.Slide(lower)
				b, _ := s.Slide(lower + 10*um)
				if a.Feel != clearance.WontGo && b.Feel != clearance.Free {
					best = k
				}
			}
		}
		require.GreaterOrEqual(t, best, 0)
		order = append(order, best)
		leaf := 300 * um
		if seen[best] == 1 {
			leaf += ranges[best]
		}
		seen[best]++
		require.NoError(t, s.Read(leaf))
	}
	f, ok := s.Feel()
	require.True(t, ok)
	assert.InDelta(t, 10_000/1.692569, f.Repeat, 1)
	for k, g := range f.Gaps {
		assert.Equal(t, ranges[k], slices.Max(g.Read)-slices.Min(g.Read))
	}
	for round := range practice.StudyTimes {
		assert.ElementsMatch(t, []int{0, 1, 2, 3, 4}, order[round*5:round*5+5], "each gap once a round")
	}
}

// A study goes on where it stood, and tells nothing before all was read; what cannot be read is refused.
func TestAStudyGoesOn(t *testing.T) {
	owned := every(5, 60)
	s := practice.NewStudy(9, owned)
	_, err := s.Slide(123 * um)
	assert.ErrorContains(t, err, "no such leaf")
	f, err := s.Slide(200 * um)
	require.NoError(t, err)
	require.NoError(t, s.Read(200*um))
	_, ok := s.Feel()
	assert.False(t, ok)
	again, err := practice.Again(9, owned, []measure.Length{200 * um}, s.Slid())
	require.NoError(t, err)
	assert.Equal(t, s, again)
	other := practice.NewStudy(9, owned)
	g, err := other.Slide(200 * um)
	require.NoError(t, err)
	assert.Equal(t, f, g, "the same seed feels the same")
	reads(t, s, func() measure.Length { return 0 })
	assert.ErrorContains(t, s.Read(200*um), "every gap")
}
