package order_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/order"
	"metronix/core/sequence"
	"metronix/internal/checks"
)

// Printed orders as they go round in the trade, each proved right as it stands.
func TestPrintedOrdersAgainstTheOutside(t *testing.T) {
	four := enginetest.Inline([]int{1, 3, 4, 2}, "EIIEEIIE")
	six := enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE")
	printed := checks.Practice("printed orders")
	for name, c := range map[string]struct {
		sheet *engine.Sheet
		text  string
		turn  float64
	}{
		"rocking pairs": {four, "4 rocks: 1 / 2 rocks: 3 / 1 rocks: 4 / 3 rocks: 2", 540},
		"rule of nine": {four, "valve 8 down: 1\nvalve 4 down: 5\nvalve 1 down: 8\nvalve 5 down: 4\n" +
			"valve 6 down: 3\nvalve 3 down: 6\nvalve 7 down: 2\nvalve 2 down: 7", -1},
		"exhaust fully open": {four, "E1 down: I3, E4; \nE3 down → I4 E2\nE4 is fully down -> I2 and E1\nE2 down = I1, E3", 540},
		"two stops":          {four, "TDC 1: I1 E1 I2 E3\n4 TDC: I3 I4 E2 E4", 360},
		"two stops of a six": {six, "1 at TDC: I1 E1, I2, E3, I4, E5\n6 at firing TDC: I6 E6, E2, I3, E4, I5", 360},
		"in degrees":         {four, "0°: I1 E1 I2 E3\n360°: I3 I4 E2 E4", 360},
	} {
		p, faults := order.Prove(c.sheet, c.text, sequence.Running, nil)
		require.Empty(t, faults, name)
		checks.Equal(t, printed, name+": every valve clear where it is set, none forgotten", true, p.Right())
		if c.turn >= 0 {
			assert.InDelta(t, c.turn, p.Turn.Degrees(), 1e-9, name)
		}
	}
	p, _ := order.Prove(four, "valve 8 down: 1 3", sequence.Running, nil)
	assert.Equal(t, []string{"E1", "I2"}, []string{p.Stops[0].Valves[0].Valve, p.Stops[0].Valves[1].Valve},
		"with valve 8 down, 1 and 3 may both be set (common practice)")
	assert.Zero(t, p.Stops[0].Valves[0].Short+p.Stops[0].Valves[1].Short)
}

// The rule of nine on a row that it does not hold for sets an open valve, and an order that is one turn out
// sets every valve where it rocks: each is told with by how much.
func TestOrdersThatAreWrong(t *testing.T) {
	odd := enginetest.Inline([]int{1, 3, 4, 2}, "EIEIEIEI")
	p, faults := order.Prove(odd, "valve 8 down: 1", sequence.Running, nil)
	require.Empty(t, faults)
	assert.False(t, p.Right())
	four := enginetest.Inline([]int{1, 3, 4, 2}, "EIIEEIIE")
	p, _ = order.Prove(four, "1 rocks: 1 / 3 rocks: 3 / 4 rocks: 4 / 2 rocks: 2", sequence.Running, nil)
	assert.False(t, p.Right())
	for _, s := range p.Stops {
		for _, v := range s.Valves {
			assert.Equal(t, p.Required-v.Margin, v.Short)
			assert.Contains(t, v.Says(), "is open there, 12° inside its lift",
				"I and E overlap by 12° either side of TDC on this cam")
		}
	}
	short := measure.Angle(130) * measure.Degree
	p, _ = order.Prove(four, "4 rocks: I1", sequence.Running, &short)
	assert.Equal(t, "stands only 128° from opening or closing: 2° short", p.Stops[0].Valves[0].Says())
	assert.Equal(t, []string{"E1", "I2", "E2", "E3", "I3", "I4", "E4"}, p.Forgot)
	p, _ = order.Prove(four, "4 rocks: 1\n2 rocks: E1", sequence.Running, nil)
	assert.Equal(t, []string{"E1"}, p.Twice)
}

// A slip is named by its line, and nothing is proved.
func TestSlipsInAnOrder(t *testing.T) {
	four := enginetest.Inline([]int{1, 3, 4, 2}, "EIIEEIIE")
	for text, want := range map[string]string{
		"4 rocks":                           "does not say what is set",
		"4 rocks:":                          "names no valve after it",
		"9 rocks: 1":                        "it has no cylinder 9",
		"4 rocks: E9":                       `no valve "E9": its valves are E1 I1 I2`,
		"4 rocks: 7":                        "no cylinder 7",
		"valve 9 down: 1":                   "no valve 9 in the row",
		"sideways: E1":                      "is no place of the crank",
		"720°: E1":                          "beyond two turns",
		"4 rocks: E1, I1 E1":                "named twice in one line",
		strings.Repeat("4 rocks: 1\n", 400): "4400 letters",
	} {
		_, faults := order.Prove(four, text, sequence.Running, nil)
		require.NotEmpty(t, faults, text)
		assert.Contains(t, strings.ReplaceAll(faults[0].Says, "e1", "E1"), want)
	}
	_, faults := order.Prove(four, "4 rocks: 1\n\nsideways: 2", sequence.Running, nil)
	assert.Equal(t, 3, faults[0].Line)
	p, faults := order.Prove(four, "  \n", sequence.Running, nil)
	assert.Empty(t, faults)
	assert.False(t, p.Right(), "nothing was written")
}
