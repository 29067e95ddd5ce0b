package gauge_test

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/golden"
)

// The last that is taken, and the first that is not, of everything that is bounded; and which two leaves are
// the same is said by their numbers, from 1.
func TestTheEdgesOfALeaf(t *testing.T) {
	faults := func(marked, measured measure.Length) int {
		return len(
			gauge.Check([]gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: marked}, Measured: measured}}}),
		)
	}
	for _, c := range []struct {
		marked, measured measure.Length
		faults           int
	}{
		{1, 0, 0}, {0, 0, 1}, {gauge.MaxLeaf, 0, 0}, {gauge.MaxLeaf + 1, 0, 1},
		{gauge.MaxLeaf, gauge.MaxLeaf, 0}, {gauge.MaxLeaf, gauge.MaxLeaf + 1, 1}, {200 * um, -1, 1}, {200 * um, 1, 1},
		{200 * um, 220 * um, 0}, {200 * um, 220*um + 1, 1}, {200 * um, 180 * um, 0}, {200 * um, 180*um - 1, 1},
		{500 * um, 550 * um, 0}, {500 * um, 550*um + 1, 1}, // a tenth of a thick one
	} {
		assert.Equal(t, c.faults, faults(c.marked, c.measured), "%+v", c)
	}
	var many []gauge.Item
	for i := range gauge.MaxLeaves + 1 {
		many = append(many, gauge.Item{Leaf: gauge.Plain(measure.Length(i+1) * um)})
	}
	assert.Empty(t, gauge.Check(many[:gauge.MaxLeaves]))
	assert.Len(t, gauge.Check(many), 1)
	assert.Equal(t, -1, gauge.Check(many)[0].Index, "it is of no one leaf")
	twice := gauge.Check([]gauge.Item{{Leaf: gauge.Plain(50 * um)}, {Leaf: gauge.Plain(200 * um)},
		{Leaf: gauge.Plain(200 * um)}})
	assert.Contains(t, twice[0].Message, "as number 2 and 3")
}

// Over drawn sets and aims: which leaf or stack is chosen, what a set reaches in a window and where it has
// holes, stay as they were.
func TestChoicesStay(t *testing.T) {
	chance := rand.New(rand.NewPCG(3, 1))
	var lines []string
	for range 250 {
		var set gauge.Set
		for range 1 + chance.IntN(12) {
			leaf := gauge.Plain(measure.Length(4+chance.IntN(45)) * 10 * um)
			if chance.IntN(2) == 0 {
				leaf.Measured = leaf.Marked + measure.Length(chance.IntN(9)-4)*um
			}
			if chance.IntN(8) == 0 {
				leaf.ID = gauge.ID{Marked: measure.Length(2+chance.IntN(18)) * measure.Inch / 1000}
				leaf.Measured = 0
			}
			set = append(set, leaf)
		}
		aim := measure.Length(100+chance.IntN(300)) * um
		w := measure.Window{
			Lower: aim - measure.Length(chance.IntN(40))*um,
			Upper: aim + measure.Length(chance.IntN(40))*um,
		}
		within, _ := set.Choose(aim, &w, gauge.MaxStack)
		near, _ := set.Choose(aim, nil, 1+chance.IntN(gauge.MaxStack))
		stacks, holes := set.Reach(w, 1+chance.IntN(gauge.MaxStack), measure.Length(5+chance.IntN(20))*um)
		lines = append(
			lines,
			fmt.Sprintf("%v in %v: %s %v, %s ±%v; reaches %v, holes %v", aim, w, within.Stack, within.Within,
				near.Stack, near.Stack.Uncertainty(), stacks, holes),
		)
	}
	golden.Hold(t, "choices", lines)
}
