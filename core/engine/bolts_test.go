package engine_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"metronix/core/engine"
)

// numbers are the turns of a cover's bolts, a row a line, front to rear.
func numbers(c engine.Closing) (rows [2][]int) {
	for _, b := range c.DrawnBolts() {
		rows[b.Row] = append(rows[b.Row], b.Number)
	}
	return rows
}

// Drawn by hand: a cover of eight bolts in two rows of four.
func TestTheOrderOfACoversBolts(t *testing.T) {
	assert.Equal(t, [2][]int{{5, 1, 2, 6}, {7, 3, 4, 8}}, numbers(engine.Closing{Bolts: 8}),
		"from the middle outwards")
	assert.Equal(t, [2][]int{{5, 1, 3, 7}, {8, 4, 2, 6}},
		numbers(engine.Closing{Bolts: 8, Pattern: engine.Crosswise}))
	assert.Equal(t, [2][]int{{0, 0, 0}, {0, 0}}, numbers(engine.Closing{Bolts: 5, Pattern: engine.Numbered}))
	assert.Empty(t, engine.Closing{}.DrawnBolts())
	assert.Empty(t, engine.Closing{Bolts: engine.MaxBolts + 1}.DrawnBolts())
}

// Every bolt has its own turn; from the middle outwards none comes after one that lies further out; crosswise
// the one opposite, where there is one, comes directly before or after.
func TestEveryBoltHasItsTurn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, engine.MaxBolts).Draw(t, "bolts")
		for _, pattern := range []engine.Pattern{engine.MiddleOut, engine.Crosswise, ""} {
			list := engine.Closing{Bolts: n, Pattern: pattern}.DrawnBolts()
			at := map[int]engine.Bolt{}
			for _, b := range list {
				at[b.Number] = b
			}
			assert.Len(t, at, n)
			for k := 1; k <= n; k++ {
				b, ok := at[k]
				assert.True(t, ok, "bolt %d of %d", k, n)
				if next, more := at[k+1]; more && pattern != engine.Crosswise {
					assert.LessOrEqual(t, math.Abs(b.Along-0.5), math.Abs(next.Along-0.5)+1e-6)
				}
				for _, o := range list {
					if pattern == engine.Crosswise && o.Row != b.Row && math.Abs(o.Along+b.Along-1) < 1e-9 {
						assert.Equal(t, 1.0, math.Abs(float64(o.Number-b.Number)))
					}
				}
			}
		}
	})
}
