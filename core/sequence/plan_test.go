package sequence_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func plan(t *testing.T, s *engine.Sheet, q sequence.Request) sequence.Plan {
	t.Helper()
	require.Empty(t, engine.Check(s).Problems)
	p, err := sequence.Make(s, q)
	require.NoError(t, err)
	return p
}

// brief writes a stop as "watched → set".
func brief(p sequence.Plan) []string {
	var out []string
	for _, s := range p.Stops {
		w, set := s.Watch[0], []string{}
		for _, v := range s.Set {
			set = append(set, v.Valve)
		}
		seen := w.Valve
		if seen == "" {
			seen = string(w.What) + " " + string(rune('0'+w.Cylinder))
		}
		out = append(out, seen+" → "+strings.Join(set, " "))
	}
	return out
}

// Inline four 1-3-4-2: 4 rocks → 1; 2 → 3; 1 → 4; 3 → 2. Common practice.
func TestRockingPairsOfTheFour(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.RockingPairs}})
	require.True(t, p.Applies, p.Reason)
	assert.Equal(t, []string{"rocking 4 → E1 I1", "rocking 2 → E3 I3", "rocking 1 → I4 E4",
		"rocking 3 → I2 E2"}, brief(p))
	assert.Equal(t, measure.FromDegrees(540.0), p.TotalTurn)
	assert.Equal(t, measure.FromDegrees(128.0), p.SmallestMargin)
	assert.Equal(t, sequence.Sighting{What: sequence.Mark, Mark: 0}, p.Stops[0].Watch[1])
	assert.Len(t, p.Stops[1].Watch, 1, "no mark at 180° on this pulley")
}

func TestOneCylinderOfTheFour(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.OneCylinder}})
	assert.Equal(t, []string{"tdc_firing 1 → E1 I1", "tdc_firing 3 → E3 I3", "tdc_firing 4 → I4 E4",
		"tdc_firing 2 → I2 E2"}, brief(p))
	n := plan(t, enginetest.Four(),
		sequence.Request{Way: sequence.Way{School: sequence.OneCylinder, Order: sequence.Numerical}})
	assert.Equal(t, []string{"tdc_firing 1 → E1 I1", "tdc_firing 2 → I2 E2", "tdc_firing 3 → E3 I3",
		"tdc_firing 4 → I4 E4"}, brief(n))
	assert.Equal(t, measure.FromDegrees(540.0+360+180), n.TotalTurn, "0 → 540 → 180 → 360")
}

// 1↔8, 2↔7, 3↔6, 4↔5; valid for E I I E E I I E and I E I E E I E I, not for E I E I E I E I. Common
// practice.
func TestRuleOfNine(t *testing.T) {
	for _, row := range []string{"EIIEEIIE", "IEIEEIEI"} {
		s := enginetest.Inline([]int{1, 3, 4, 2}, row)
		valves := s.Valves()
		p := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.SumRule,
			Order: sequence.Numerical}})
		require.True(t, p.Applies, p.Reason)
		require.Len(t, p.Stops, 8)
		for i, stop := range p.Stops {
			assert.Equal(t, valves[i].Name, stop.Watch[0].Valve)
			assert.Equal(t, sequence.FullLift, stop.Watch[0].What)
			assert.Equal(t, []sequence.SetValve{{Valve: valves[7-i].Name, Margin: 238 * measure.Degree}},
				stop.Set, "the exact middle of the base circle")
		}
		turning := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.SumRule}})
		assert.Less(t, turning.TotalTurn, p.TotalTurn, "numerical order turns the crank further")
	}
	p := plan(t, enginetest.Inline([]int{1, 3, 4, 2}, "EIEIEIEI"),
		sequence.Request{Way: sequence.Way{School: sequence.SumRule}})
	assert.False(t, p.Applies)
	assert.Empty(t, p.Stops)
	assert.Contains(t, p.Reason, "valve 1 (E1) with valve 8 (I4)")
}

// A straight six with a palindromic row uses 13. Common practice.
func TestRuleOfThirteen(t *testing.T) {
	p := plan(t, enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE"),
		sequence.Request{Way: sequence.Way{School: sequence.SumRule, Order: sequence.Numerical}})
	require.True(t, p.Applies, p.Reason)
	assert.Equal(t, "E1 → E6", brief(p)[0])
	assert.Len(t, p.Stops, 12)
}

func TestSumRuleIsRefusedWhereItWouldNameTheWrongValve(t *testing.T) {
	for name, c := range map[string]struct {
		sheet *engine.Sheet
		says  string
	}{
		"two rows": {enginetest.Crossflow([]int{1, 3, 4, 2}, "IIII", "EEEE"),
			"one head with one row"},
		"two intakes each": {enginetest.Inline([]int{1, 3, 4, 2}, "EIIEIIIIEIIE"),
			"several valves of a kind"},
		"no companions":       {enginetest.Inline([]int{1, 3, 2}, "EIIEEI"), "rule of 7"},
		"companion elsewhere": {enginetest.Inline([]int{1, 2, 3, 4}, "EIIEEIIE"), "companion is 3"},
	} {
		p := plan(t, c.sheet, sequence.Request{Way: sequence.Way{School: sequence.SumRule}})
		assert.False(t, p.Applies, name)
		assert.Contains(t, p.Reason, c.says, name)
	}
}

// A flat four 1-4-3-2 turned backwards half a turn at a time is set 1, 2, 3, 4. Common practice.
func TestTurningBack(t *testing.T) {
	s := enginetest.Inline([]int{1, 4, 3, 2}, "EIIEEIIE")
	_, err := sequence.Make(s,
		sequence.Request{Way: sequence.Way{School: sequence.OneCylinder, Direction: sequence.Back}})
	require.ErrorIs(t, err, sequence.ErrTurnBack)
	s.MayTurnBack = true
	p := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.OneCylinder,
		Direction: sequence.Back}})
	var cranks []measure.Angle
	var cylinders []int
	for _, stop := range p.Stops {
		cranks, cylinders = append(cranks, stop.Crank), append(cylinders, stop.Watch[0].Cylinder)
	}
	assert.Equal(t, enginetest.Degrees(0, 540, 360, 180), cranks)
	assert.Equal(t, []int{1, 2, 3, 4}, cylinders)
	assert.Equal(t, measure.FromDegrees(540.0), p.TotalTurn)
	assert.True(t, slices.ContainsFunc(p.Cautions,
		func(c string) bool { return strings.Contains(c, "crank bolt") }))
}

func TestRefusals(t *testing.T) {
	hydraulic := enginetest.Four()
	hydraulic.Adjuster = &engine.Adjuster{Kind: engine.Hydraulic}
	p := plan(t, hydraulic, sequence.Request{Way: sequence.Way{School: sequence.OneCylinder}})
	assert.False(t, p.Applies)
	assert.Contains(t, p.Reason, "zero clearance")

	three := plan(t, enginetest.Inline([]int{1, 3, 2}, "EIEIEI"),
		sequence.Request{Way: sequence.Way{School: sequence.RockingPairs}})
	assert.False(t, three.Applies)
	assert.Contains(t, three.Reason, "no companion")

	marks := plan(t, enginetest.Four(),
		sequence.Request{Way: sequence.Way{School: sequence.OneCylinder, Positions: sequence.MarksOnly}})
	assert.False(t, marks.Applies)
	assert.Contains(t, marks.Reason, "180°")
}

// The smallest margin of the four at its firing TDCs is 128°: exactly that may be required, a hair more may
// not.
func TestRequiredMarginIsInclusive(t *testing.T) {
	for margin, applies := range map[measure.Angle]bool{128 * measure.Degree: true,
		128*measure.Degree + 1: false} {
		p := plan(t, enginetest.Four(),
			sequence.Request{Way: sequence.Way{School: sequence.OneCylinder}, RequiredMargin: &margin})
		assert.Equal(t, applies, p.Applies, margin)
		if !applies {
			assert.Contains(t, p.Reason, "128°")
		}
	}
}

func BenchmarkPlanFour(b *testing.B) {
	s := enginetest.Four()
	b.ReportAllocs()
	for b.Loop() {
		if _, err := sequence.Make(s,
			sequence.Request{Way: sequence.Way{School: sequence.RockingPairs}}); err != nil {
			b.Fatal(err)
		}
	}
}

// A half-turn four is set at two places of the pulley: the zero mark and one painted opposite (common
// practice).
func TestMarksNeeded(t *testing.T) {
	s := enginetest.Four()
	p := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.OneCylinder}})
	assert.Equal(t, enginetest.Degrees(0, 180), p.MarksNeeded())
	assert.True(t, sequence.Marked(s, measure.Turn))
	assert.False(t, sequence.Marked(s, measure.Turn/2), "this pulley has the TDC mark alone")
	assert.Equal(t, enginetest.Degrees(0),
		plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.TwoStop}}).MarksNeeded())
}

// The margin that is printed is reached when it is asked for again, whatever the number of cylinders: with 7,
// 13 and 14 the firing interval is no whole number of micro-degrees.
func TestAPrintedMarginIsReached(t *testing.T) {
	for n := 1; n <= engine.MaxCylinders; n++ {
		order := make([]int, n)
		for i := range order {
			order[i] = i + 1
		}
		s := enginetest.Inline(order, strings.Repeat("EI", n))
		for _, best := range sequence.Compare(s, nil).Frontier {
			q := sequence.Request{Way: sequence.Way{School: sequence.FewestStops},
				RequiredMargin: &best.SmallestMargin}
			p := plan(t, s, q)
			require.True(t, p.Applies, "%d cylinders at %v: %s", n, best.SmallestMargin, p.Reason)
			assert.LessOrEqual(t, len(p.Stops), best.Stops, "%d cylinders at %v", n, best.SmallestMargin)
			assert.GreaterOrEqual(t, p.SmallestMargin, best.SmallestMargin)
		}
		deepest := 238 * measure.Degree // half of 720 − 244, by hand
		for _, school := range []sequence.School{sequence.OneLobe, sequence.FewestStops} {
			p := plan(t, s, sequence.Request{Way: sequence.Way{School: school}, RequiredMargin: &deepest})
			require.True(t, p.Applies, "%s, %d cylinders: %s", school, n, p.Reason)
			for _, stop := range p.Stops {
				for _, set := range stop.Set {
					assert.GreaterOrEqual(t, set.Margin, deepest)
				}
			}
		}
	}
}

// 39.9991° does not pass for 40°, and the refusal does not write it as 40°.
func TestAHairBelowTheMarginIsRefused(t *testing.T) {
	s := enginetest.Four()
	s.Timing = enginetest.Timing(12, 52, 52, 12)
	s.Timing.IVC = 140*measure.Degree + 900 // closes 39.9991° before firing TDC
	need := 40 * measure.Degree
	p := plan(t, s, sequence.Request{Way: sequence.Way{School: sequence.OneCylinder}, RequiredMargin: &need})
	require.False(t, p.Applies)
	assert.Contains(t, p.Reason, "39.999° from its opening or closing; at least 40° is required")
}

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
