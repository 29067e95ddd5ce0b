package sequence_test

import (
	"fmt"
	"hash/fnv"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/golden"
)

// What a plan of marks alone, of a margin, of so many stops, or by number comes to stays as it was; and so
// does what happens just at the margin that a plan has, and a micro-degree beyond.
func TestPlansOfMarksMarginsAndNumbersStay(t *testing.T) {
	var lines []string
	for n, s := range stayingEngines() {
		for _, marks := range [][]measure.Angle{nil, enginetest.Degrees(0, 120, 240), enginetest.Degrees(0, 30, 90, 180, 270)} {
			s.Marks = marks
			s.OwnSequence = ownOf(s)
			for _, margin := range []measure.Angle{0, 20, 47, 75, 100, 118} {
				h := fnv.New64a()
				for _, q := range requests(s, margin*measure.Degree) {
					p, err := sequence.Make(s, q)
					require.NoError(t, err)
					fmt.Fprintf(h, "%+v %v\n", p, p.MarksNeeded())
					if !p.Applies || len(p.Stops) == 0 {
						continue
					}
					for _, beyond := range []measure.Angle{0, 1} {
						at := p.SmallestMargin + beyond
						q.RequiredMargin = &at
						p, err := sequence.Make(s, q)
						require.NoError(t, err)
						fmt.Fprintf(h, "%+v\n", p)
					}
				}
				lines = append(
					lines,
					fmt.Sprintf("engine %d, %d marks, %d°: %x", n, len(marks), margin, h.Sum64()),
				)
			}
		}
	}
	golden.Hold(t, "margins", lines)
}

func requests(s *engine.Sheet, margin measure.Angle) (list []sequence.Request) {
	for _, school := range sequence.Schools() {
		for _, positions := range []sequence.Positions{"", sequence.MarksOnly} {
			for _, order := range school.Orders() {
				for _, back := range []bool{false, true} {
					q := sequence.Request{
						Way:            sequence.Way{School: school, Positions: positions, Order: order},
						RequiredMargin: &margin,
						BackAllowed:    true,
					}
					if back {
						q.Direction = sequence.Back
					}
					list = append(list, q)
				}
			}
		}
	}
	for _, positions := range []sequence.Positions{"", sequence.MarksOnly} {
		for k := 1; k <= 6; k++ {
			list = append(list, sequence.Request{RequiredMargin: &margin,
				Way: sequence.Way{School: sequence.FewestStops, StopCount: k, Positions: positions}})
		}
	}
	return list
}

// ownOf is a printed order of three stops, at the second of which one valve is still open and others stand
// short.
func ownOf(s *engine.Sheet) []engine.OwnStop {
	names := []string{}
	for _, v := range s.Valves() {
		names = append(names, v.Name)
	}
	third := (len(names) + 2) / 3
	var stops []engine.OwnStop
	for i, set := range slices.Collect(slices.Chunk(names, third)) {
		stops = append(stops, engine.OwnStop{Crank: measure.Angle(i*250) * measure.Degree, Set: set})
	}
	return stops
}

// The best plan is no worse than what trying every set of positions finds, at a tenth of a degree's grid of
// arcs' ends: a slow twin for up to three stops, on any position and on the pulley's marks.
func TestNoPlanOfSoManyStopsIsBetter(t *testing.T) {
	for _, s := range stayingEngines()[:6] {
		s.Marks = enginetest.Degrees(0, 40, 120, 180, 200, 290)
		c := cycle.New(s)
		var spots []measure.Angle
		for _, m := range s.Marks {
			spots = append(spots, m, m+measure.Turn)
		}
		for k := 1; k <= 3; k++ {
			slow := slowBest(c, spots, k, nil)
			none := measure.Angle(0)
			p, err := sequence.Make(s, sequence.Request{RequiredMargin: &none,
				Way: sequence.Way{School: sequence.FewestStops, StopCount: k, Positions: sequence.MarksOnly}})
			require.NoError(t, err)
			if slow <= 0 {
				assert.False(t, p.Applies)
				continue
			}
			require.True(t, p.Applies, p.Reason)
			assert.Equal(t, slow, p.SmallestMargin)
		}
	}
}

// slowBest is the largest smallest margin of any k of the spots, by trying all.
func slowBest(c *cycle.Cycle, spots []measure.Angle, k int, chosen []measure.Angle) measure.Angle {
	if len(chosen) == k {
		least := measure.Cycle
		for _, v := range c.Valves {
			deepest := -measure.Cycle
			for _, at := range chosen {
				deepest = max(deepest, c.Margin(v, at))
			}
			least = min(least, deepest)
		}
		return least
	}
	best := -measure.Cycle
	for i, at := range spots {
		best = max(best, slowBest(c, spots[i:], k, append(slices.Clone(chosen), at)))
	}
	return best
}

// Where a lobe is clear at one position alone, that is the range in which it is seen away; a micro-degree
// more is none.
func TestALobeThatIsClearAtOnePositionAlone(t *testing.T) {
	s := enginetest.Four()
	c := cycle.New(s)
	deepest := c.DeepestMargin(engine.Exhaust)
	seen := []sequence.Sighting{{What: sequence.LobeAway, Valve: "E1"}}
	l, err := sequence.Locate(s, seen, &deepest)
	require.NoError(t, err)
	require.Len(t, l.Positions, 1)
	assert.LessOrEqual(t, l.Positions[0].Length(), measure.Angle(1))
	beyond := deepest + 1
	l, err = sequence.Locate(s, seen, &beyond)
	require.NoError(t, err)
	assert.Empty(t, l.Positions)
	assert.Contains(t, l.Conflict, "The lobe of E1 pointing away: nowhere on this engine is that so")
}

// A mark lies from 0 to below a turn.
func TestAMarkAtATurnIsNone(t *testing.T) {
	s := enginetest.Four()
	for at, fine := range map[measure.Angle]bool{0: true, measure.Turn - 1: true, measure.Turn: false, -1: false} {
		_, err := sequence.Locate(s, []sequence.Sighting{{What: sequence.Mark, Mark: at}}, nil)
		assert.Equal(t, fine, err == nil, at)
	}
}

// Signs and marks are seen within a thousandth of a degree of a stop, and no further.
func TestSignsAreSeenJustAtTheirPlace(t *testing.T) {
	s := enginetest.Four()
	for off, seen := range map[measure.Angle]bool{0: true, measure.SameAngle - 1: true, measure.SameAngle: false,
		-measure.SameAngle: false, 1 - measure.SameAngle: true} {
		s.Marks = []measure.Angle{(180*measure.Degree + off).Wrap()}
		assert.Equal(t, seen, sequence.Marked(s, 180*measure.Degree), "mark off by %d", off)
		assert.Equal(t, seen, sequence.Marked(s, 540*measure.Degree), "in the second turn, off by %d", off)
		s.Signs = []engine.Sign{
			{ID: "up", Where: "sprocket", Text: "up", At: []measure.Angle{(180*measure.Degree + off).Wrap()},
				Period: measure.Cycle},
		}
		p, err := sequence.Make(s, sequence.Request{Way: sequence.Way{School: sequence.OneCylinder}})
		require.NoError(t, err)
		shown := false
		for _, stop := range p.Stops {
			shown = shown ||
				slices.ContainsFunc(
					stop.Watch,
					func(w sequence.Sighting) bool { return w.What == sequence.Signed },
				)
		}
		assert.Equal(t, seen, shown, "sign off by %d", off)
	}
	p := sequence.Plan{Stops: []sequence.Stop{{Crank: 0}, {Crank: measure.Turn + measure.SameAngle},
		{Crank: 2*measure.SameAngle - 1}}}
	assert.Equal(
		t,
		[]measure.Angle{0, measure.SameAngle},
		p.MarksNeeded(),
		"a mark for what lies within so much",
	)
}

// A range that closes on itself is the whole cycle, and its least margin is that of full lift.
func TestTheLeastMarginOverTheWholeCycle(t *testing.T) {
	c := cycle.New(enginetest.Four())
	v, _ := c.Valve("E1")
	whole := sequence.Range{From: 0, To: measure.Cycle}
	assert.Equal(t, -c.Events(engine.Exhaust).Duration()/2, sequence.LeastMargin(c, v, whole))
	assert.True(t, whole.Holds(17*measure.Degree))
	at := sequence.Range{From: 10 * measure.Degree, To: 20 * measure.Degree}
	assert.True(t, at.Holds(20*measure.Degree), "its end is in it")
	assert.False(t, at.Holds(20*measure.Degree+1))
}

// Turning back without the sheet's leave has a caution of its own, and turning in the running direction has
// none.
func TestTheCautionsOfTurningBack(t *testing.T) {
	s := enginetest.Four()
	count := func(d sequence.Direction, may bool) int {
		s.MayTurnBack = may
		p, err := sequence.Make(s, sequence.Request{BackAllowed: true,
			Way: sequence.Way{School: sequence.OneCylinder, Direction: d}})
		require.NoError(t, err)
		require.True(t, p.Applies, p.Reason)
		return len(p.Cautions)
	}
	plain := count("", true)
	assert.Equal(t, plain, count("", false))
	assert.Equal(t, plain+1, count(sequence.Back, true))
	assert.Equal(t, plain+2, count(sequence.Back, false))
}
