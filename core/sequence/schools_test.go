package sequence_test

import (
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func six() *engine.Sheet { return enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE") }

// sets writes each stop's valves, sorted.
func sets(p sequence.Plan) []string {
	var out []string
	for _, s := range p.Stops {
		var names []string
		for _, v := range s.Set {
			names = append(names, v.Valve)
		}
		slices.Sort(names)
		out = append(out, strings.Join(names, " "))
	}
	return out
}

// E1 → I3, E4; E3 → I4, E2; E4 → I2, E1; E2 → I1, E3. Common practice.
func TestExhaustFullyOpenOfTheFour(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.ExhaustOpen}})
	require.True(t, p.Applies, p.Reason)
	got := map[string]string{}
	for i, s := range p.Stops {
		got[s.Watch[0].Valve] = sets(p)[i]
	}
	assert.Equal(t, map[string]string{"E1": "E4 I3", "E3": "E2 I4", "E4": "E1 I2", "E2": "E3 I1"}, got)
}

// Firing TDC of 1 → I1 E1 I2 E3; one turn on → I3 I4 E2 E4. The six: TDC 1 → I1 E1, I2, E3, I4, E5; TDC 6 →
// I6 E6, E2, I3, E4, I5. Common practice.
func TestTwoStops(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.TwoStop}})
	assert.Equal(t, []string{"E1 E3 I1 I2", "E2 E4 I3 I4"}, sets(p))
	assert.Equal(t, measure.FromDegrees(360.0), p.TotalTurn)
	p = plan(t, six(), sequence.Request{Way: sequence.Way{School: sequence.TwoStop}})
	assert.Equal(t, []string{"E1 E3 E5 I1 I2 I4", "E2 E4 E6 I3 I5 I6"}, sets(p))
	twelve := enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEE")
	p = plan(t, twelve, sequence.Request{Way: sequence.Way{School: sequence.TwoStop}})
	assert.Len(t, p.Stops[0].Set, 6, "two intakes and one exhaust each: six and six")
	assert.Len(t, p.Stops[1].Set, 6)
	long := enginetest.Four()
	long.Timing = enginetest.Timing(60, 110, 110, 60)
	long.RequiredMargin = ptr(80 * measure.Degree)
	assert.False(t, plan(t, long, sequence.Request{Way: sequence.Way{School: sequence.TwoStop}}).Applies,
		"long cams fail")
}

func ptr(a measure.Angle) *measure.Angle { return &a }

// Each valve's intake as its own exhaust starts to open, its exhaust as its own intake nearly closes: common
// practice.
func TestOpeningClosing(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.OpeningClosing}})
	require.True(t, p.Applies)
	for _, s := range p.Stops {
		w := s.Watch[0]
		require.Len(t, s.Set, 1)
		assert.Equal(t, w.Valve[1:], s.Set[0].Valve[1:], "the same cylinder")
		assert.Equal(t, map[sequence.What]string{sequence.Opening: "EI", sequence.Closing: "IE"}[w.What],
			w.Valve[:1]+s.Set[0].Valve[:1])
	}
}

func TestOneLobeIsTheMiddleOfEachBaseCircle(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.OneLobe}})
	assert.Equal(t, measure.FromDegrees(238.0), p.SmallestMargin, "half of 720 − 244")
	assert.Len(t, p.Stops, 8)
}

func TestMakersOrderIsChecked(t *testing.T) {
	s := enginetest.Four()
	p := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.Own}})
	assert.False(t, p.Applies)
	s.OwnSequence = []engine.OwnStop{{Crank: 0, Set: []string{"I1", "E1", "I2", "E4"}},
		{Crank: measure.Turn, Set: []string{"I3", "I4", "E2", "E3"}}}
	p = plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.Own}})
	require.True(t, p.Applies)
	assert.Equal(t, measure.FromDegrees(-52.0), p.SmallestMargin,
		"E3 at 360 stands at 180 of its own cycle and opened at 128")
	named := slices.ContainsFunc(p.Cautions, func(c string) bool {
		return strings.Contains(c, "E4 is still open, 12° inside its lift")
	})
	assert.True(t, named, p.Cautions)
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

// random engines: one to eight cylinders, any firing order, even or odd firing, any cam card.
func randomSheet(t *rapid.T) *engine.Sheet {
	n := rapid.IntRange(1, 8).Draw(t, "cylinders")
	order := make([]int, n)
	for i := range order {
		order[i] = i + 1
	}
	s := enginetest.Inline(rapid.Permutation(order).Draw(t, "order"),
		strings.Repeat(rapid.SampledFrom([]string{"EI", "IE", "EII", "EIIE"}).Draw(t, "row"), n))
	event := func(name string, from, to int) measure.Angle { // whole degrees, sometimes with all six decimals
		a := measure.Angle(rapid.IntRange(from, to).Draw(t, name)) * measure.Degree
		if rapid.Bool().Draw(t, "fine") {
			a += measure.Angle(rapid.IntRange(-999_999, 999_999).Draw(t, "micro-degrees"))
		}
		return a
	}
	s.Timing = &engine.ValveTiming{IVO: event("ivo", -10, 60), IVC: event("ivc", 20, 110),
		EVO: event("evo", 20, 110), EVC: event("evc", -10, 60)}
	if n > 1 && rapid.Bool().Draw(t, "odd firing") {
		angles := rapid.SliceOfNDistinct(rapid.IntRange(1, 719), n-1, n-1, rapid.ID[int]).Draw(t, "angles")
		slices.Sort(angles)
		s.FiringAngles = enginetest.Degrees(0)
		for _, a := range angles {
			s.FiringAngles = append(s.FiringAngles, measure.Angle(a)*measure.Degree)
		}
	}
	return s
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

// Whatever school applies sets every valve once, none below the required margin, and turns forwards by the
// sum of its turns.
func TestEveryPlanIsSound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := randomSheet(t)
		s.MayTurnBack = true
		c := cycle.New(s)
		for _, school := range sequence.Schools() {
			for _, direction := range []sequence.Direction{sequence.Running, sequence.Back} {
				p, err := sequence.Make(s,
					sequence.Request{Way: sequence.Way{School: school, Direction: direction}})
				require.NoError(t, err)
				if !p.Applies {
					require.NotEmpty(t, p.Reason)
					require.Empty(t, p.Stops)
					continue
				}
				seen, total := map[string]int{}, measure.Angle(0)
				for i, stop := range p.Stops {
					require.NotEmpty(t, stop.Set)
					require.NotEmpty(t, stop.Watch)
					require.GreaterOrEqual(t, stop.Turn, measure.Angle(0))
					total += stop.Turn
					if i == 0 {
						require.Zero(t, stop.Turn)
					}
					for _, v := range stop.Set {
						seen[v.Valve]++
						valve, _ := c.Valve(v.Valve)
						require.Equal(t, c.Margin(valve, stop.Crank), v.Margin)
						require.GreaterOrEqual(t, v.Margin, s.EffectiveMargin())
					}
				}
				require.Len(t, seen, len(c.Valves), school)
				require.Equal(t, p.TotalTurn, total)
			}
		}
	})
}

// Reversing the direction reverses the cyclic order of the stops: the same positions, from 0 down instead of
// up.
func TestTurningBackReversesTheOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := randomSheet(t)
		s.MayTurnBack = true
		for _, school := range []sequence.School{sequence.OneCylinder, sequence.ExhaustOpen, sequence.OneLobe,
			sequence.OpeningClosing} {
			ahead, _ := sequence.Make(s, sequence.Request{Way: sequence.Way{School: school}})
			back, _ := sequence.Make(s,
				sequence.Request{Way: sequence.Way{School: school, Direction: sequence.Back}})
			require.Equal(t, ahead.Applies, back.Applies)
			up, down := cranks(ahead), cranks(back)
			slices.Reverse(down)
			if len(up) > 0 && up[0] == 0 {
				down = append(enginetest.Degrees(0), down[:len(down)-1]...)
			}
			require.Equal(t, up, down, school)
		}
	})
}

func cranks(p sequence.Plan) (list []measure.Angle) {
	for _, s := range p.Stops {
		list = append(list, s.Crank)
	}
	return list
}

// On an evenly firing engine, beginning the firing order one cylinder later turns the whole engine by a
// firing interval: the same cylinders meet the same margins.
func TestTurningAnEvenEngineRelabelsThePlan(t *testing.T) {
	order := []int{1, 5, 3, 6, 2, 4}
	turned := append(slices.Clone(order[1:]), order[0])
	for _, school := range []sequence.School{sequence.OneCylinder, sequence.RockingPairs, sequence.SumRule,
		sequence.ExhaustOpen, sequence.OneLobe, sequence.OpeningClosing, sequence.FewestStops} {
		a := plan(t, enginetest.Inline(order, "EIIEEIIEEIIE"),
			sequence.Request{Way: sequence.Way{School: school}})
		b := plan(t, enginetest.Inline(turned, "EIIEEIIEEIIE"),
			sequence.Request{Way: sequence.Way{School: school}})
		assert.Equal(t, a.SmallestMargin, b.SmallestMargin, school)
		assert.Len(t, b.Stops, len(a.Stops), school)
		if school != sequence.ExhaustOpen && school != sequence.FewestStops { // those have ties
			x, y := sets(a), sets(b)
			slices.Sort(x)
			slices.Sort(y)
			assert.Equal(t, x, y, school)
		}
	}
}

// v12 is a made-up twelve with four valves a cylinder: 48 valves.
func v12() *engine.Sheet {
	s := enginetest.Inline([]int{1, 12, 5, 8, 3, 10, 6, 7, 2, 11, 4, 9}, "")
	s.Layout = engine.Vee
	bank := func(name string, angle measure.Angle, cylinders ...int) engine.Bank {
		return engine.Bank{Name: name, Angle: angle, Cylinders: cylinders, Rows: []engine.Row{
			{Side: engine.Left, Valves: strings.Repeat("I", 12)}, {Side: engine.Right,
				Valves: strings.Repeat("E", 12)}}}
	}
	s.Banks = []engine.Bank{bank("right", -30*measure.Degree, 1, 2, 3, 4, 5, 6),
		bank("left", 30*measure.Degree, 7, 8, 9, 10, 11, 12)}
	return s
}

func BenchmarkCompareV12(b *testing.B) {
	s := v12()
	b.ReportAllocs()
	for b.Loop() {
		sequence.Compare(s, nil)
	}
}

// Growth with cylinders, 1 to 16.
func BenchmarkCompareByCylinders(b *testing.B) {
	for _, n := range []int{1, 2, 4, 8, 16} {
		order := make([]int, n)
		for i := range order {
			order[i] = i + 1
		}
		s := enginetest.Inline(order, strings.Repeat("EI", n))
		b.Run(string(rune('0'+n/10))+string(rune('0'+n%10)), func(b *testing.B) {
			for b.Loop() {
				sequence.Compare(s, nil)
			}
		})
	}
}

// The exact best plans of two and three stops of the four against trying every pair and triple on a 1° grid,
// in one run.
func BenchmarkExactAgainstGrid(b *testing.B) {
	s := enginetest.Four()
	c := cycle.New(s)
	var exact, exhaustive time.Duration
	for b.Loop() {
		began := time.Now()
		ours := [2]float64{}
		for i, k := range []int{2, 3} {
			p, err := sequence.Make(s,
				sequence.Request{Way: sequence.Way{School: sequence.FewestStops, StopCount: k}})
			if err != nil || !p.Applies {
				b.Fatal(p.Reason, err)
			}
			ours[i] = p.SmallestMargin.Degrees()
		}
		exact += time.Since(began)
		began = time.Now()
		theirs := exhaust(c)
		exhaustive += time.Since(began)
		for i := range ours {
			if ours[i] < theirs[i]-1e-6 || ours[i] > theirs[i]+1 {
				b.Fatalf("%d stops: ours %v, grid %v", i+2, ours[i], theirs[i])
			}
		}
	}
	b.ReportMetric(float64(exhaustive)/float64(exact), "grid/exact")
	b.ReportMetric(float64(exact.Microseconds())/float64(b.N), "µs-exact")
}

// exhaust tries every pair and every triple of whole degrees.
func exhaust(c *cycle.Cycle) (best [2]float64) {
	const n = 720
	margins := make([][]float64, n)
	for i := range margins {
		for _, v := range c.Valves {
			margins[i] = append(margins[i], c.Margin(v, measure.Angle(i)*measure.Degree).Degrees())
		}
	}
	pair := make([]float64, len(c.Valves))
	for i := range n {
		for j := i + 1; j < n; j++ {
			worst := math.Inf(1)
			for v := range pair {
				pair[v] = math.Max(margins[i][v], margins[j][v])
				worst = math.Min(worst, pair[v])
			}
			best[0] = math.Max(best[0], worst)
			for k := j + 1; k < n; k++ {
				worst := math.Inf(1)
				for v := range pair {
					worst = math.Min(worst, math.Max(pair[v], margins[k][v]))
				}
				best[1] = math.Max(best[1], worst)
			}
		}
	}
	return best
}
