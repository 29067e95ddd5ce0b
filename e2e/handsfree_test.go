package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// With a foot switch whose keys were learned in the workshop's page a leaf is answered and the next thing
// done; the vehicle is made safe and the job signed by no such key. What is felt is heard, and what is next
// is spoken, where the browser can.
func TestWithFullHands(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "rocking_pairs",
		round: map[string]any{"round": "set_as_you_go", "check": "none"}}
	job := c.stored(t, r)
	c.choose(t, r, job)
	post(t, "POST", r.base+"/api/v1/jobs/"+job+"/happenings",
		map[string]any{"id": "prepared-0001", "kind": "prepared", "engine_c": 19, "ambient_c": 18}, nil)
	p := blank(t, r, 1280, 800)
	p.MustEvalOnNewDocument(`
		window.said = []; window.heard = []
		window.SpeechSynthesisUtterance = class { constructor(text) { this.text = text } }
		Object.defineProperty(window, 'speechSynthesis', { value: { cancel() {}, speak(u) { said.push(u.text) } } })
		window.AudioContext = class {
			currentTime = 0; destination = {}
			createGain() { return { gain: {}, connect: () => ({}) } }
			createOscillator() { return { frequency: { set value(hz) { heard.push(hz) } }, connect: (to) => to, start() {}, stop() {} } }
		}`)
	p.visit("/shop")
	learns := func(what string, key input.Key) {
		p.clicks(`[...[...document.querySelectorAll('li')].find(l => l.textContent.includes('`+what+`'))`+
			`.querySelectorAll('button')].find(b => b.textContent.includes('Learn'))`, "to learn "+what)
		p.keys(key)
	}
	learns("The one next thing", input.Enter)
	p.shows("has a meaning of its own here")
	learns("The one next thing", input.PageDown)
	learns("It drags", input.PageUp)
	p.press("A tone for in")
	p.press("Instructions are spoken")
	p.visit("/jobs/" + job)
	p.says("Make the vehicle safe")
	p.keys(input.PageDown)
	p.says("Make the vehicle safe")
	assert.True(t, stateOf(t, r.base, job).State.Now.MakeSafe, "no key makes a vehicle safe by foot")
	p.press("Made safe")
	p.says("until")
	before := stateOf(t, r.base, job).State.Happenings
	p.keys(input.PageDown)
	waitFor(t, p, r, job, before)
	p.says("Read E1")
	p.keys(input.PageUp)
	p.says("Read I1")
	p.waits(`() => heard.includes(880)`, "the tone for in")
	p.press("0.30 free")
	p.waits(`() => heard.includes(330)`, "the tone for out")
	p.waits(
		`() => said.some(t => /Read E 1/.test(t)) && said.some(t => /degrees|until/.test(t))`,
		"what was spoken",
	)
	p.clean()
}
