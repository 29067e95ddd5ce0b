package api_test

import (
	"bytes"
	"encoding/json"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// book is where the pages have the handbook built in, so that they show it where the program cannot be
// reached.
const book = "../../web/src/features/handbook/book.gen.json"

// What the pages have built in is what the rules say today.
func TestDocumentOfTheHandbook(t *testing.T) {
	made, err := api.NewHandbook()
	require.NoError(t, err)
	text, err := json.Marshal(made)
	require.NoError(t, err)
	text = append(text, '\n')
	if *update {
		require.NoError(t, os.WriteFile(book, text, 0o644))
	}
	kept, err := os.ReadFile(book)
	require.NoError(t, err)
	require.True(t, bytes.Equal(kept, text), "the handbook is out of date; run: make types")
	d := opened(t)
	status, served := d.send("GET", "/api/v1/handbook", "")
	require.Equal(t, 200, status)
	assert.JSONEq(t, string(text), served)
}

// The handbook's verdicts are those that follow from its readings by the trade's rule: a drag is the leaf
// itself, free is wider, won't go is narrower (common practice); and its leaf goes from falling through over
// dragging to not going in as the gap narrows.
func TestTheHandbookIsRight(t *testing.T) {
	b, err := api.NewHandbook()
	require.NoError(t, err)
	var said []string
	for _, v := range b.Drag.Verdicts {
		said = append(said, v.Judgement.Verdict)
		assert.NotEmpty(t, v.Says.Before+v.Says.Strong)
	}
	assert.Equal(t, []string{"in", "in", "loose", "loose", "tight", "undecided"}, said)
	assert.NotEmpty(t, b.Drag.Verdicts[5].Judgement.Conflict, "free in a thinner and stopped by it too: both cannot be")
	rank := map[string]int{"free": 0, "drag_light": 1, "drag": 2, "drag_firm": 3, "wont_go": 4}
	for i, g := range b.Drag.Gaps[1:] {
		before := b.Drag.Gaps[i]
		assert.Less(t, int64(g.GapMM), int64(before.GapMM))
		assert.GreaterOrEqual(t, rank[g.Feel], rank[before.Feel])
		assert.GreaterOrEqual(t, g.Pull, before.Pull)
	}
	assert.Equal(t, "free", b.Drag.Gaps[0].Feel)
	assert.Equal(t, "wont_go", b.Drag.Gaps[len(b.Drag.Gaps)-1].Feel)
	require.Len(t, b.Heat.Refusals, 3)
	assert.Contains(t, b.Heat.Refusals[0], "these are cold figures")
	assert.Contains(t, b.Heat.Refusals[1], "these are hot figures")
	require.NotNil(t, b.Heat.Cooling)
	assert.True(t, b.Heat.Cooling.Reachable)
	for _, s := range b.Wrong.Slips {
		assert.True(t, strings.HasSuffix(s.Says, "."), s.Says)
	}
	applies := 0
	for _, p := range b.Ways.Plans {
		if p.Applies {
			applies++
		}
	}
	assert.GreaterOrEqual(t, applies, 7, "the example engine can be gone round by most schools")
}
