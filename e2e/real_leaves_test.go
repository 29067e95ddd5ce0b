package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"
)

// Somebody sets a gap and measures it, another reads it with real leaves, five times with each of two sets; a
// foreman agrees, and the next job of that reader is begun with his own figure.
func TestAStudyWithRealLeavesFromThePage(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/practice/feel", 1280, 800)
	p.press("With real leaves")
	p.press("A new study")
	p.press("Begin")
	p.shows("Say what the gap is, as it was measured.")
	p.fill("Gap A", "0.231")
	p.fill("Set and measured by", "June Halloway")
	p.fill("Reader 1", "Tess Ardal")
	p.press("Oskar's set, checked")
	p.press("Bench drawer set")
	p.press("Begin: 10 readings")
	for n := range 10 {
		p.shows(fmt.Sprintf("Reading %d of 10", n+1))
		p.waits(`() => document.querySelectorAll('.leaves .v-btn').length > 5`, "the leaves")
		leaf := p.MustEval(`() => [...document.querySelectorAll('.leaves .v-btn')].map(b => b.textContent.trim())
			.sort((a, b) => Math.abs(Number(a) - 0.238) - Math.abs(Number(b) - 0.238))[0]`).Str()
		if n == 3 {
			p.visit("/practice/leaves") // interrupted
			p.press("go on: 3 of 10")
			p.shows("Reading 4 of 10")
		}
		require.NotContains(t, p.text(), "0.231", "the gap is told to nobody who reads")
		p.pressIn(".leaves", leaf)
		p.keys(input.Enter)
	}
	p.shows("Tess Ardal takes a leaf")
	p.shows("thicker than the gap")
	p.shows("One person, one set, again")
	p.fill("Who agrees", "Tess Ardal")
	p.press("Agree: Tess Ardal goes by")
	p.shows("Nobody agrees to a figure of his own")
	p.fill("Who agrees", "June Halloway")
	p.press("Agree: Tess Ardal goes by")
	p.shows("agreed by June Halloway")

	p.MustEval(`() => localStorage.setItem('metronix.mechanic', 'Tess Ardal')`)
	p.visit("/start")
	p.press("Post bus 12")
	p.shows("Your feel, ±")
	p.shows("agreed by June Halloway.")
}
