package e2e

import (
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// unasking opens a page that never asks again by itself: what changes on it was told.
func unasking(t *testing.T, r *running, path string, width, height int) *tab {
	t.Helper()
	p := blank(t, r, width, height)
	p.MustEvalOnNewDocument(
		`const each = setInterval; window.setInterval = (f, ms) => (ms > 1500 ? 0 : each(f, ms))`,
	)
	p.visit(path)
	return p
}

// besides is a second tab of the same browser, which counts what both ask for.
func (p *tab) besides(t *testing.T, path string) *tab {
	t.Helper()
	page, err := p.Browser().Page(proto.TargetCreateTarget{})
	require.NoError(t, err)
	other := &tab{Page: page, t: t, base: p.base}
	other.listen()
	other.MustSetViewport(1280, 800, 1, false)
	other.visit(path)
	return other
}

// Five browsers at one job, and the board beside it: what one does the others show without asking, each at
// its own size; a second tab of a browser lives by the stream of the first.
func TestEveryScreenShowsWhatOneDoes(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const job = "/jobs/demo-job-tipper"
	tablet := unasking(t, r, job, 1024, 768)
	others := []*tab{
		unasking(t, r, job, 1280, 800),
		unasking(t, r, job, 360, 740),
		unasking(t, r, job, 800, 1100),
	}
	board := unasking(t, r, "/", 1280, 800)
	for range 200 { // until it listens
		others[0].mu.Lock()
		listens := others[0].streams > 0
		others[0].mu.Unlock()
		if listens {
			break
		}
		time.Sleep(50 * time.Millisecond)
	}
	second := others[0].besides(t, job)
	others = append(others, second)
	for _, p := range others {
		p.says("E3")
	}
	tablet.judges()
	tablet.press("0.24 won’t go")
	for _, p := range others { // E3 is in the tablet's hands
		p.says("Read I3")
	}
	others[1].press("0.20 drag")
	tablet.says("E3 is tight")
	tablet.press("Keep")
	for _, p := range append(others, tablet) {
		p.says("until")
	}
	board.waits(
		`() => [...document.querySelectorAll('main a, main li, main article')].some(e => e.textContent.includes('Quarry tipper 7') && `+
			`e.textContent.includes('4/8'))`,
		"the board to follow",
	)
	others[0].mu.Lock()
	second.mu.Lock()
	assert.Equal(t, 1, others[0].streams, "of both tabs")
	assert.Zero(t, second.streams, "of the second tab")
	second.mu.Unlock()
	others[0].mu.Unlock()
	for _, p := range append(others, tablet, board) {
		p.clean()
	}
}

// Two people at one engine, each with a screen: each is led to a valve of his own, sees where the other is,
// and is told where both take the same one; who is done first waits with the crank for the other, and who is
// cut off leaves it to him.
func TestTwoPeopleAtOneEngine(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "one_cylinder",
		round: map[string]any{"round": "read_first", "check": "none"}}
	job := c.begun(t, r)
	phoneLine, toPhone := lineTo(t, r)
	tablet, phone := open(t, r, "/jobs/"+job, 1024, 768), open(t, toPhone, "/jobs/"+job, 360, 740)
	tablet.says("Read E1")
	phone.says("Read E1")
	tablet.shows("A phone is at E1 too")
	phone.shows("A tablet is at E1 too")
	tablet.judges()
	phone.judges()
	phone.pressIn(".tabs", "I1")
	phone.says("I1")
	tablet.shows("Also at this engine: a phone at I1")
	tablet.press("0.30 free")
	phone.shows("a tablet at E1")
	phone.says("I1")
	phone.press("0.20 drag")
	phone.shows("E1 is in somebody else’s hands on another screen")
	tablet.says("E1")
	tablet.press("Keep")
	phone.waits(`() => !document.body.innerText.includes('in somebody else')`, "nobody to be waited for")
	phone.says("until")
	phoneLine.becomes(cut)
	phone.says("the crank is with another screen")
	tablet.says("until")
	phoneLine.becomes(through)
	for _, p := range []*tab{tablet, phone} {
		p.says("until")
		p.clean()
	}
}

// A helper with a phone at the crank waits until the mechanic has said that hands are clear, turns, says that
// he is there, and waits again; so he does where the mechanic takes it back, where his line is cut, and where
// the mechanic's is.
func TestAHelperAtTheCrank(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "rocking_pairs",
		round: map[string]any{"round": "read_first", "check": "none"}}
	job := c.begun(t, r)
	benchLine, toBench := lineTo(t, r)
	phoneLine, toPhone := lineTo(t, r)
	bench, phone := open(
		t,
		toBench,
		"/jobs/"+job,
		1280,
		800,
	), open(
		t,
		toPhone,
		"/jobs/"+job+"/crank",
		360,
		740,
	)
	reads := func() {
		for s := stateOf(t, r.base, job); s.State.Now.Action == "read"; s = stateOf(t, r.base, job) {
			bench.says(s.State.Now.Valve)
			leaf, feel, _ := s.leafFor(nil)
			bench.press(leaf + " " + feel)
			waitFor(t, bench, r, job, s.State.Happenings)
		}
		bench.says("until")
	}
	phone.shows("is being worked on")
	bench.judges()
	bench.shows("a phone at the crank")
	reads()
	phone.shows("Hands are not clear yet")
	bench.press("Hands clear")
	phone.shows("180°")
	phone.shows("clockwise, seen from the front")
	bench.press("Stop")
	phone.shows("Wait")
	bench.press("Hands clear")
	phone.shows("180°")
	before := stateOf(t, r.base, job).State.Happenings
	phone.press("There")
	waitFor(t, bench, r, job, before)
	bench.says("Read")
	phone.shows("is being worked on")

	reads()
	bench.press("Hands clear")
	phone.shows("180°")
	phoneLine.becomes(cut)
	phone.shows("The line to the bench is lost")
	phoneLine.becomes(through)
	phone.shows("180°")
	benchLine.becomes(cut)
	phone.shows("Hands are not clear yet") // nobody hears the mechanic any more
	assert.Equal(t, before+3, stateOf(t, r.base, job).State.Happenings, "one turn, two readings")
}
