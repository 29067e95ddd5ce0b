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

func ptr(a measure.Angle) *measure.Angle { return &a }

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
