package practice

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"

	"metronix/core/clearance"
	"metronix/core/measure"
)

// BenchStudy is a gauge study with real leaves at real gaps that somebody else has set and measured: some
// people read each gap several times with some leaf sets, in an order drawn from the seed, none knowing what
// it is or what was read before. It says of each how far off he reads and how far his readings lie apart, and
// what people and sets bring to that.
type BenchStudy struct {
	Gaps    []MeasuredGap // A, B, C …
	Readers int
	Sets    int
	Times   int // that each reads each gap with each set
	Seed    uint64
	Read    []measure.Length // so far, in the order of Order
}

// MeasuredGap is a gap as its micrometer or dial told it.
type MeasuredGap struct {
	True  measure.Length
	Doubt measure.Length // its standard uncertainty
}

// BenchTurn is one reading: who reads which gap with which set, each counted from 0.
type BenchTurn struct{ Reader, Set, Gap int }

// What a study may be (from memory: fewer repeats tell nothing of repeatability, more are not done by
// anybody).
const (
	mostGaps    = 10
	mostReaders = 20
	mostSets    = 6
	leastTimes  = 2
	mostTimes   = 10
	// enough is how many readings a figure for real jobs needs of one person (from memory: with nine degrees
	// of freedom a standard deviation is known to about a quarter)
	enough = 10
)

// Check says what is wrong with a study; nil where nothing is.
func (s BenchStudy) Check() error {
	switch {
	case len(s.Gaps) == 0 || len(s.Gaps) > mostGaps:
		return fmt.Errorf("a study has 1 to %d gaps", mostGaps)
	case s.Readers < 1 || s.Readers > mostReaders:
		return fmt.Errorf("a study has 1 to %d readers", mostReaders)
	case s.Sets < 1 || s.Sets > mostSets:
		return fmt.Errorf("a study has 1 to %d leaf sets", mostSets)
	case s.Times < leastTimes || s.Times > mostTimes:
		return fmt.Errorf("each gap is read %d to %d times", leastTimes, mostTimes)
	}
	for _, g := range s.Gaps {
		if g.True < minGap || g.True > maxGap {
			return fmt.Errorf("%s is no gap that leaves are read in: %s to %s", g.True, minGap, maxGap)
		}
		if g.Doubt < 0 || g.Doubt > clearance.MaxUncertainty {
			return fmt.Errorf("%s is not the uncertainty of a measured gap: 0 to %s", g.Doubt, clearance.MaxUncertainty)
		}
	}
	return nil
}

// The gaps that leaves are read in (from memory).
const (
	minGap = 30 * um
	maxGap = 2 * measure.Millimetre
)

// Order is all readings in the order in which they are made: one reader after another, each set of his in one
// go, its gaps mixed.
func (s BenchStudy) Order() (list []BenchTurn) {
	chance := rand.New(rand.NewPCG(s.Seed, 3))
	for reader := range s.Readers {
		for _, set := range chance.Perm(s.Sets) {
			for range s.Times {
				for _, gap := range chance.Perm(len(s.Gaps)) {
					list = append(list, BenchTurn{reader, set, gap})
				}
			}
		}
	}
	return list
}

// Next is the reading to be made; ok is false once all were.
func (s BenchStudy) Next() (t BenchTurn, ok bool) {
	if order := s.Order(); len(s.Read) < len(order) {
		return order[len(s.Read)], true
	}
	return t, false
}

// ReaderFeel is what a study came to for one of its readers.
type ReaderFeel struct {
	Readings int
	Bias     measure.Length // readings less gaps, in the mean: above 0 he takes a thicker leaf than the gap
	Apart    float64        // standard deviation of those differences, nm: his own spread and his sets'
	// Feel is by how much a gap may differ from the leaf that drags in his hand, either way: |bias| +
	// 2·√(apart² + the gaps' own uncertainty²), rounded up to a micrometre. A bias that is not corrected is
	// added whole (JCGM 100:2008, F.2.4.5, from memory), the rest with a coverage factor of 2.
	Feel   measure.Length
	Enough bool // so many readings that the figure may be used
}

// errUnread: the study has not ended.
var errUnread = errors.New("not every gap of this study was read")

// Came is what a study came to: each reader, and the analysis of people by sets of all differences, nm. It
// errs before every reading was made: until then nothing of it is told.
func (s BenchStudy) Came() (readers []ReaderFeel, by Crossed, err error) {
	order := s.Order()
	if len(s.Read) < len(order) {
		return nil, by, errUnread
	}
	cells := make([][][]float64, s.Readers)
	for i := range cells {
		cells[i] = make([][]float64, s.Sets)
	}
	for i, t := range order {
		cells[t.Reader][t.Set] = append(cells[t.Reader][t.Set], float64(s.Read[i]-s.Gaps[t.Gap].True))
	}
	doubt := 0.0
	for _, g := range s.Gaps {
		doubt += float64(g.Doubt) * float64(g.Doubt) / float64(len(s.Gaps))
	}
	for _, his := range cells {
		readers = append(readers, feelOf(his, doubt))
	}
	by, err = AnalyseCrossed(cells)
	return readers, by, err
}

// feelOf is one reader's, from his differences by set; doubt is the gaps' own variance, nm².
func feelOf(his [][]float64, doubt float64) (f ReaderFeel) {
	var sum, squares float64
	for _, set := range his {
		for _, d := range set {
			f.Readings++
			sum += d
		}
	}
	mean := sum / float64(f.Readings)
	for _, set := range his {
		for _, d := range set {
			squares += (d - mean) * (d - mean)
		}
	}
	f.Apart = math.Sqrt(squares / float64(f.Readings-1))
	f.Bias = measure.Length(math.Round(mean))
	feel := math.Abs(mean) + 2*math.Sqrt(f.Apart*f.Apart+doubt)
	f.Feel = measure.Length(math.Ceil(feel/float64(um)-1e-9)) * um
	f.Enough = f.Readings >= enough
	return f
}
