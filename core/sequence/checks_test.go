package sequence_test

import (
	"fmt"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/checks"
)

func school(t *testing.T, s *engine.Sheet, name sequence.School) sequence.Plan {
	t.Helper()
	return plan(t, s, sequence.Request{Way: sequence.Way{School: name}})
}

// setAt is what a plan sets at each stop, by what is watched there, without regard to the order within a
// stop.
func setAt(p sequence.Plan) map[string]string {
	out := map[string]string{}
	for _, stop := range brief(p) {
		seen, valves, _ := strings.Cut(stop, " → ")
		list := strings.Fields(valves)
		slices.Sort(list)
		out[seen] = strings.Join(list, " ")
	}
	return out
}

func TestRockingPairsAgainstTheOutside(t *testing.T) {
	p := setAt(school(t, enginetest.Four(), sequence.RockingPairs))
	for rocks, set := range map[string]string{"4": "E1 I1", "2": "E3 I3", "1": "E4 I4", "3": "E2 I2"} {
		checks.Equal(t, checks.Practice("inline four 1-3-4-2 by rocking pairs"),
			"cylinder "+rocks+" rocks: set", set,
			p["rocking "+rocks])
	}
	six := setAt(school(t, enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE"), sequence.RockingPairs))
	for rocks, set := range map[string]string{"6": "E1 I1", "2": "E5 I5", "4": "E3 I3"} {
		checks.Equal(t, checks.Practice("straight six 1-5-3-6-2-4 by rocking pairs"),
			"cylinder "+rocks+" rocks: set", set,
			six["rocking "+rocks])
	}
}

// The sum rule by the numbers of the valves, front to rear: the valve that is fully down and the one to set.
func TestSumRuleAgainstTheOutside(t *testing.T) {
	for _, c := range []struct {
		order []int
		row   string
		sum   int
	}{
		{[]int{1, 3, 4, 2}, "EIIEEIIE", 9}, {[]int{1, 3, 4, 2}, "IEIEEIEI", 9},
		{[]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE", 13},
	} {
		s := enginetest.Inline(c.order, c.row)
		number := map[string]int{}
		for i, kind := range c.row {
			number[string(kind)+strconv.Itoa(i/2+1)] = i + 1
		}
		set := setAt(school(t, s, sequence.SumRule))
		for valve, n := range number {
			checks.Equal(t, checks.Practice(fmt.Sprintf("the rule of %d", c.sum)),
				fmt.Sprintf("row %s: valve %d fully down, set valve", c.row, n), c.sum-n, number[set[valve]])
		}
	}
	wrong := school(t, enginetest.Inline([]int{1, 3, 4, 2}, "EIEIEIEI"), sequence.SumRule)
	checks.Equal(t, checks.Practice("the rule of nine"), "row EIEIEIEI: it applies", false, wrong.Applies)
}

func TestExhaustFullyOpenAgainstTheOutside(t *testing.T) {
	p := setAt(school(t, enginetest.Four(), sequence.ExhaustOpen))
	for down, set := range map[string]string{"E1": "E4 I3", "E3": "E2 I4", "E4": "E1 I2", "E2": "E3 I1"} {
		checks.Equal(t, checks.Practice("inline four 1-3-4-2, exhaust fully open"), down+" fully down: set",
			set, p[down])
	}
	l := located(t, enginetest.Four(), sequence.Sighting{What: sequence.FullLift, Valve: "E4"})
	for _, valve := range []string{"E1", "I2"} {
		checks.Equal(t, checks.Practice("row EIIEEIIE, valve 8 fully down"), valve+" may be set", true,
			slices.Contains(l.Settable, valve))
	}
}

func TestTwoStopsAgainstTheOutside(t *testing.T) {
	for _, c := range []struct {
		name          string
		sheet         *engine.Sheet
		first, second string
	}{
		{"inline four 1-3-4-2", enginetest.Four(), "E1 E3 I1 I2", "E2 E4 I3 I4"},
		{"inline six 1-5-3-6-2-4", enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE"),
			"E1 E3 E5 I1 I2 I4", "E2 E4 E6 I3 I5 I6"},
	} {
		p := school(t, c.sheet, sequence.TwoStop)
		require.Len(t, p.Stops, 2)
		for i, want := range []string{c.first, c.second} {
			var got []string
			for _, v := range p.Stops[i].Set {
				got = append(got, v.Valve)
			}
			slices.Sort(got)
			checks.Equal(t, checks.Practice(c.name+" by two stops"), fmt.Sprintf("stop %d: set", i+1), want,
				strings.Join(got, " "))
		}
		checks.Near(t, checks.Practice(c.name+" by two stops"), "the crank is turned, °", 360,
			p.TotalTurn.Degrees(), 0)
	}
	twelve := enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEE")
	p := school(t, twelve, sequence.TwoStop)
	for i, stop := range p.Stops {
		checks.Equal(t, checks.Practice("a four with two intakes and one exhaust each, by two stops"),
			fmt.Sprintf("valves at stop %d", i+1), 6, len(stop.Set))
	}
}

// One cylinder at a time goes by the firing order, and turns the crank once less than there are cylinders.
func TestOneCylinderAgainstTheOutside(t *testing.T) {
	for _, order := range [][]int{{1, 3, 2}, {1, 3, 4, 2}, {1, 2, 4, 3}, {1, 2, 4, 5, 3}, {1, 5, 3, 6, 2, 4},
		{1, 8, 4, 3, 6, 5, 7, 2}, {1, 3, 7, 2, 6, 5, 4, 8}} {
		p := school(t, enginetest.Inline(order, strings.Repeat("EI", len(order))), sequence.OneCylinder)
		var gone []int
		for _, stop := range p.Stops {
			gone = append(gone, stop.Watch[0].Cylinder)
		}
		firing := checks.Practice("one cylinder at a time goes by the firing order")
		checks.Equal(t, firing, fmt.Sprintf("%v: the cylinders in turn", order), order, gone)
		n := float64(len(order))
		checks.Near(t, checks.Theorem("n stops, 720°/n apart"),
			fmt.Sprintf("%v: the crank is turned, °", order),
			720*(n-1)/n, p.TotalTurn.Degrees(), 1e-3)
	}
	flat := enginetest.Inline([]int{1, 4, 3, 2}, "EIIEEIIE")
	flat.MayTurnBack = true
	back := plan(t, flat,
		sequence.Request{Way: sequence.Way{School: sequence.OneCylinder, Direction: sequence.Back}})
	var gone []int
	for _, stop := range back.Stops {
		gone = append(gone, stop.Watch[0].Cylinder)
	}
	checks.Equal(t, checks.Practice("a flat four 1-4-3-2 turned back half a turn at a time"),
		"the cylinders in turn",
		[]int{1, 2, 3, 4}, gone)
}

// By number the crank is turned further than as it comes: both are taught.
func TestOrdersAgainstTheOutside(t *testing.T) {
	for _, name := range []sequence.School{sequence.OneCylinder, sequence.SumRule} {
		turning := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: name}})
		numbered := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: name,
			Order: sequence.Numerical}})
		checks.Equal(t, checks.Practice("by number the crank is turned further than as it comes"),
			string(name)+": further",
			true, numbered.TotalTurn > turning.TotalTurn)
	}
}

func TestPlaceAgainstTheOutside(t *testing.T) {
	seen := checks.Practice("the TDC mark at the pointer: both rockers of 1 have play, or 1 rocks and " +
		"the crank is one turn out")
	for what, c := range map[string]struct {
		more sequence.Sighting
		at   measure.Angle
	}{
		"the mark, and 1 at firing TDC": {sequence.Sighting{What: sequence.TDCFiring, Cylinder: 1}, 0},
		"the mark, and 1 rocks": {sequence.Sighting{What: sequence.Rocking, Cylinder: 1},
			360 * measure.Degree},
		"the mark, and 4 rocks": {sequence.Sighting{What: sequence.Rocking, Cylinder: 4}, 0},
	} {
		l := located(t, enginetest.Four(), sequence.Sighting{What: sequence.Mark}, c.more)
		require.Len(t, l.Positions, 1, what)
		middle := (l.Positions[0].From + (l.Positions[0].To-l.Positions[0].From).Wrap()/2).Wrap()
		checks.Near(t, seen, what+": the crank, ° after firing TDC of 1", c.at.Degrees(), middle.Degrees(), 0)
	}
}
