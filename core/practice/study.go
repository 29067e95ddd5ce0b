package practice

import (
	"errors"
	"math"
	"math/rand/v2"
	"slices"

	"metronix/core/gauge"
	"metronix/core/measure"
)

// A study reads each of its gaps so many times.
const (
	StudyGaps  = 5
	StudyTimes = 3
)

// Study is a gauge study of one person's feel on the practice engine: hidden gaps read several times each,
// blind and in no order. How far off he reads is his bias, how far his readings of one gap lie apart his
// repeatability. It is of simulated leaves: no job takes a figure of it.
type Study struct {
	seed  uint64
	gaps  []measure.Length
	order []int // of the gaps, as they are read
	owned gauge.Set
	read  []measure.Length
	slid  uint64
}

// Where the gaps of a study lie (our own figures).
const (
	leastStudied, mostStudied = 120 * um, 400 * um
	studiedApart              = 30 * um
)

// NewStudy begins one; the same seed has the same gaps in the same order.
func NewStudy(seed uint64, owned gauge.Set) *Study {
	chance := rand.New(rand.NewPCG(seed, 2))
	s := &Study{seed: seed, owned: owned}
	for len(s.gaps) < StudyGaps {
		gap := leastStudied + measure.Length(chance.Int64N(int64(mostStudied-leastStudied)))
		near := func(g measure.Length) bool { return (g - gap).Abs() < studiedApart }
		if !slices.ContainsFunc(s.gaps, near) {
			s.gaps = append(s.gaps, gap)
		}
	}
	for range StudyTimes {
		s.order = append(s.order, chance.Perm(StudyGaps)...)
	}
	return s
}

// errs of a study.
var (
	errStudied = errors.New("every gap of this study was read")
	errNoLeaf  = errors.New("there is no such leaf in this set")
)

// Readings is how many there are to be in all, and Done how many were made.
func (s *Study) Readings() int { return len(s.order) }

// Done is how many readings were made.
func (s *Study) Done() int { return len(s.read) }

func (s *Study) may(leaf measure.Length) error {
	switch {
	case len(s.read) == len(s.order):
		return errStudied
	case !slices.ContainsFunc(s.owned, func(l gauge.Leaf) bool { return l.True() == leaf }):
		return errNoLeaf
	}
	return nil
}

// Slide slides a leaf into the gap that is to be read. It errs for a leaf that is not owned, and once all
// were read.
func (s *Study) Slide(leaf measure.Length) (Felt, error) {
	if err := s.may(leaf); err != nil {
		return Felt{}, err
	}
	s.slid++
	return feels(s.gaps[s.order[len(s.read)]], leaf, rand.New(rand.NewPCG(s.seed, 2+s.slid))), nil
}

// Read says that a leaf drags as it should: that is the reading. It errs as Slide does.
func (s *Study) Read(leaf measure.Length) error {
	if err := s.may(leaf); err != nil {
		return err
	}
	s.read = append(s.read, leaf)
	return nil
}

// Slid is how often a leaf was slid in: with it, the readings and the seed a study is played again.
func (s *Study) Slid() uint64 { return s.slid }

// Again is a study as far as it came. It errs as Read does.
func Again(seed uint64, owned gauge.Set, read []measure.Length, slid uint64) (*Study, error) {
	s := NewStudy(seed, owned)
	for _, leaf := range read {
		if err := s.Read(leaf); err != nil {
			return nil, err
		}
	}
	s.slid = slid
	return s, nil
}

// Feel is what a study came to.
type Feel struct {
	Bias   measure.Length // readings less true gaps, in the mean: above 0 he takes a thicker leaf than the gap
	Repeat float64        // standard deviation of his readings of one gap, nm
	Gaps   []ReadGap
}

// ReadGap is one gap, and what was read of it.
type ReadGap struct {
	True measure.Length
	Read []measure.Length
}

// perRange is the mean range of three readings in standard deviations, d2 of control charts: 3/√π (exact; W.
// A. Shewhart's constant, as ASTM E2587 lists it, from memory).
var perRange = 3 / math.Sqrt(math.Pi)

// Feel is the result by the range method: the mean range of each gap's readings over d2. It tells what was
// hidden; ok is false before every gap was read.
func (s *Study) Feel() (f Feel, ok bool) {
	if len(s.read) < len(s.order) {
		return f, false
	}
	f.Gaps = make([]ReadGap, StudyGaps)
	for i, at := range s.order {
		f.Gaps[at].True = s.gaps[at]
		f.Gaps[at].Read = append(f.Gaps[at].Read, s.read[i])
	}
	var off, ranges measure.Length
	for _, g := range f.Gaps {
		ranges += slices.Max(g.Read) - slices.Min(g.Read)
		for _, r := range g.Read {
			off += r - g.True
		}
	}
	f.Bias = measure.Length(math.Round(float64(off) / float64(len(s.order))))
	f.Repeat = float64(ranges) / StudyGaps / perRange
	return f, true
}
