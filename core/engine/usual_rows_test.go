package engine_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
)

// Whatever is tapped together of what is offered is a sheet without a fault, for every number of cylinders
// that has a usual order; only its name is wanting.
func TestEveryUsualEngineIsSound(t *testing.T) {
	seen := 0
	for n := 1; n <= engine.MaxCylinders; n++ {
		for _, u := range engine.Usuals(n) {
			said := map[string]bool{}
			for _, rows := range u.Rows() {
				s := &engine.Sheet{Name: "Bench stand", Cylinders: n, FiringOrder: u.Order,
					Rotation: engine.Clockwise, Layout: u.Layout, Banks: rows.Banks, KindsToConfirm: true}
				r := engine.Check(s)
				assert.Empty(t, r.Problems, "%v %s", u.Order, rows.Says)
				assert.Contains(t, strings.Join(r.Assumed, " "), "confirmed at the ports")
				assert.False(t, said[rows.Says], "%q is said of two", rows.Says)
				said[rows.Says] = true
				seen++
			}
		}
	}
	assert.Greater(t, seen, 150)
}

// The rows that are offered first are those of the commonest plain heads, and a row of each kind stands on
// its own side (common practice).
func TestUsualRows(t *testing.T) {
	four := engine.Usuals(4)[0]
	require.Equal(t, []int{1, 3, 4, 2}, four.Order)
	rows := four.Rows()
	assert.Equal(t, "EIIEEIIE", rows[0].Banks[0].Rows[0].Valves)
	assert.Equal(t, "IEIEIEIE", rows[3].Banks[0].Rows[0].Valves)
	byName := map[string][]engine.Bank{}
	for _, r := range rows {
		byName[r.Says] = r.Banks
	}
	left := byName["Two rows, 2 intake and 2 exhaust a cylinder, intakes on the left"][0]
	assert.Equal(t, []engine.Row{{Side: engine.Left, Valves: "IIIIIIII"}, {Side: engine.Right, Valves: "EEEEEEEE"}},
		left.Rows)
	assert.Equal(t, engine.Left, left.IntakePorts)
	var vee engine.Usual
	for _, u := range engine.Usuals(8) {
		if u.Layout == engine.Vee {
			vee = u
			break
		}
	}
	for _, b := range vee.Rows()[4].Banks { // intakes towards the middle, on either bank
		inside := engine.Left
		if b.Angle > 0 {
			inside = engine.Right
		}
		assert.Equal(t, inside, b.Rows[0].Side, b.Name)
		assert.Equal(t, strings.Repeat("I", 4), b.Rows[0].Valves)
	}
}
