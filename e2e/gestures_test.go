package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// tapTwice taps what a control's label says, and the same place once more after a while, as a bounce, a
// double tap or a nervous finger does.
func tapTwice(t *testing.T, p *tab, label string, after time.Duration) {
	t.Helper()
	e := p.see(fmt.Sprintf(`.rung [aria-label=%q]:not([aria-disabled=true])`, label))
	shape, err := e.Shape()
	require.NoError(t, err)
	require.NoError(t, p.Mouse.MoveTo(*shape.OnePointInside()))
	require.NoError(t, p.Mouse.Click(proto.InputMouseButtonLeft, 1))
	time.Sleep(after)
	require.NoError(t, p.Mouse.Click(proto.InputMouseButtonLeft, 1))
}

// A valve that is surely in is kept by one tap, and the bench goes on; a bounce or a second tap reads neither
// it again nor the next valve, and what was kept stays named beside Undo.
func TestABounceReadsOneValve(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-tipper"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	p.press("Undo") // the one feel of E3
	for _, ms := range []time.Duration{60, 150, 300} {
		p.says("Read E3")
		before := stateOf(t, r.base, id).State.Happenings
		tapTwice(t, p, "0.27 drag", ms*time.Millisecond)
		p.says("Read I3")
		p.waits(`() => document.querySelector('.strip.kept')?.textContent.includes('E3 in')`,
			"E3 to stay named")
		p.waits(`() => `+takesAnswers,
			"the bench to take answers again")
		s := stateOf(t, r.base, id).State
		assert.Equal(t, before+1, s.Happenings, "one reading, by a second tap after %d ms", ms)
		assert.Equal(t, "I3", s.Now.Valve)
		p.keys(input.KeyZ)
	}
	p.says("Read E3")
	p.waits(`() => `+takesAnswers, "the bench to take answers again")
	require.NoError(t, p.Keyboard.Type(input.Digit2, input.Digit2))
	p.says("Read I3")
	s := stateOf(t, r.base, id).State
	assert.Equal(t, "I3", s.Now.Valve, "by keys too")
	p.clean()
}

// A close one waits for a key, and one that is out is set by what was found, or read again first.
func TestWhatIsNotSureWaitsOnTheBench(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-tipper"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	p.press("Undo") // the one feel of E3
	p.says("Read E3")
	post(t, "POST", r.base+"/api/v1/jobs/"+id+"/happenings", map[string]any{"id": "as-you-go-0001",
		"kind": "round_chosen", "round": "set_as_you_go", "check": "set_ones"}, nil)
	p.visit("/jobs/" + id)
	p.press("0.30 drag")
	p.says("E3 is in")
	p.press("Undo")
	p.says("Read E3")
	p.press("0.24 won’t go")
	p.says("E3")
	p.press("Keep")
	p.waits(`() => document.querySelector('.now .by')`, "what E3 is set by")
	p.press("Undo")
	p.says("E3 is tight")
	p.press("Undo")
	p.says("Read E3")
	p.press("0.27 won’t go")
	p.says("E3: try")
	p.press("Set E3 now")
	p.waits(`() => document.querySelector('.now .by')`, "what E3 is set by")
	p.press("Read E3 again")
	p.press("Set E3 now")
	p.waits(`() => document.querySelector('.now .by')`, "what E3 is set by")
	p.press(" is set")
	p.says("Lock E3")
	p.press("Nut locked")
	p.says("Locked. Read E3 again")
	p.press("0.27 drag")
	p.says("Read I3")
	p.way("Sheet")
	p.waits(`() => [...document.querySelectorAll('tbody tr')].some(r => r.innerText.includes('E3') && `+
		`r.innerText.includes('Undecided'))`, "what E3 was found by one leaf")
	p.clean()
}
