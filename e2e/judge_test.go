package e2e

import (
	"strings"
	"testing"

	"github.com/go-rod/rod"
	"github.com/stretchr/testify/assert"
)

// judges waits until the bench judges by itself.
func (p *tab) judges() {
	p.t.Helper()
	p.waits(`() => document.documentElement.hasAttribute('data-judges')`, "the bench to judge by itself")
}

// Without the program the bench goes on: each tap is judged in the browser by the same Go, marked as not yet
// on the workshop's disk, and acknowledged when the program is back. What it then says is what the screen
// said.
func TestTheBenchGoesOnWithoutTheProgram(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-tipper"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	p.says("E3")
	p.judges()
	before := stateOf(t, r.base, id).State.Happenings
	r.kill()
	p.press("0.24 won’t go")
	p.says("E3 is tight")
	p.shows("1 entry waits here")
	p.press("Keep")
	p.says("Read I3")
	p.shows("2 entries wait here")
	p.press("0.20 drag")
	p.says("until")
	p.shows("3 entries wait here")
	headline := p.headline()
	startedOn(t, "demo", r.data, strings.TrimPrefix(r.base, "http://"))
	waitFor(t, p, r, id, before+2)
	p.waits(`() => !/waits? here/.test(document.body.innerText)`, "nothing to wait any more")
	s := stateOf(t, r.base, id).State
	assert.Equal(t, before+3, s.Happenings, "each once")
	assert.Equal(t, "turn", s.Now.Action)
	p.says(headline)
	p.again()
	p.says(headline)
	p.clean()
}

// A module that is not what its hash says is not run: the bench works as without it, and says the same.
func TestAModuleThatIsNotItsHashIsNotRun(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := blank(t, r, 1280, 800)
	asked := make(chan bool, 9)
	router := p.HijackRequests()
	router.MustAdd("*/bench-*.wasm", func(h *rod.Hijack) {
		h.Response.Payload().ResponseCode = 200
		h.Response.SetHeader("Content-Type", "application/wasm")
		h.Response.SetBody("\x00asm\x01\x00\x00\x00")
		asked <- true
	})
	go router.Run()
	t.Cleanup(func() { _ = router.Stop() })
	p.visit("/jobs/demo-job-tipper")
	<-asked
	p.press("0.24 won’t go")
	p.says("E3 is tight")
	assert.False(t, p.MustHas("[data-judges]"))
}
