package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"
)

// On an engine with shims somebody looks on while they are taken out, measured and laid in, by keys; its play
// is heard and seen; with one out the crank is not turned unasked.
func TestShimsInPractice(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/practice", 1280, 800)
	p.press("Watched: only warned")
	p.press("On an engine of the library")
	p.press("Pellmark 1400")
	p.shows("Whoever looks on speaks before something goes wrong.")
	p.see(`[data-valve="E1a"] .hit`)
	p.tap(`[data-valve="E1a"] .hit`)
	p.press("Rock it")
	for range 40 { // until its lobe lets the shim go
		p.keys(input.Key('o'))
		p.waits(`() => /by micrometer|presses on its shim|is not clear here/.test(document.body.innerText)`, "an answer")
		if p.MustEval(`() => document.body.innerText.includes('by micrometer')`).Bool() {
			break
		}
		if p.MustEval(`() => document.body.innerText.includes('is not clear here')`).Bool() {
			p.press("Leave it")
			p.waits(`() => !document.querySelector('.dialog')`, "the question to go")
		}
		p.keys(input.ArrowUp)
		p.waits(`() => !/presses on its shim/.test(document.body.innerText)`, "the crank to be turned")
	}
	p.shows("by micrometer")
	p.keys(input.ArrowUp)
	p.shows("There is no shim in E1a: lay one in before the crank is turned.")
	p.press("Leave it")
	p.waits(`() => !document.querySelector('.dialog')`, "the question to go")
	p.keys(input.Key(']'), input.Key('o'))
	p.shows("Take the shim of E1a out")
	require.Contains(t, p.text(), "E1a")
}
