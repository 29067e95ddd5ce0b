package sequence_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gear"
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
	hydraulic.Adjuster = &engine.Adjuster{Kind: gear.Hydraulic}
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
