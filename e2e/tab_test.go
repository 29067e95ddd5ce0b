package e2e

import (
	"errors"
	"fmt"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/require"
)

// hand is what a person does at a page and sees of it, in whichever browser.
type hand interface {
	visit(path string)
	again() // loads the page once more
	waits(js, what string)
	says(text string)
	headline() string
	text() string
	press(text string)
	pressIn(part, text string)
}

func (p *tab) again() { p.MustReload() }

func (p *tab) headline() string { return p.see(".now h2").MustText() }

// takesAnswers is whether the page takes taps and keys: just after something has changed it does not.
const takesAnswers = `!('guarded' in document.documentElement.dataset)`

// see waits for an element, and until it may be tapped, and gives it.
func (p *tab) see(selector string) *rod.Element {
	p.t.Helper()
	p.waits(`() => `+takesAnswers, "the page to take answers")
	e, err := p.Timeout(limit).Element(selector)
	require.NoError(p.t, err, "%s is not there; the page shows: %s", selector, p.text())
	return e
}

// says waits until the headline holds a text.
func (p *tab) says(text string) {
	p.t.Helper()
	p.waits(headlined(text), "the headline to say "+text)
}

// headlined is whether the headline holds a text.
func headlined(text string) string {
	return fmt.Sprintf(
		`() => (document.querySelector('.now h2')?.textContent ?? '').includes(%q) && `+takesAnswers,
		text,
	)
}

func (p *tab) waits(js, what string) {
	p.t.Helper()
	require.NoError(p.t, p.Timeout(limit).Wait(rod.Eval(`() => Boolean((`+js+`)())`)),
		"waiting for %s; the page shows: %s", what, p.text())
}

func (p *tab) text() string {
	r, err := p.Eval(`() => document.body.innerText.slice(0, 1500)`)
	if err != nil {
		return err.Error()
	}
	return r.Value.Str()
}

// press clicks the first control whose label and text hold a text.
func (p *tab) press(text string) {
	p.t.Helper()
	p.pressIn("body", text)
}

// named finds the control that a person would take for one of that name: the one called just so, else one
// whose name begins so, else one that holds it. Its keys are no part of its name.
const named = `(() => {
	const name = b => {
		const copy = b.cloneNode(true)
		copy.querySelectorAll('kbd').forEach(k => k.remove())
		return (b.getAttribute('aria-label') ?? copy.textContent).replace(/\s+/g, ' ').trim()
	}
	const all = [...document.querySelectorAll(%q)]
		.flatMap(part => [...part.querySelectorAll('button, a, [role=button], .v-checkbox label, .v-switch label')])
		.filter(b => !b.disabled && b.getAttribute('aria-disabled') !== 'true')
	const want = %q
	const whole = b => (b.getAttribute('aria-label') ?? '') + ' ' + b.textContent.replace(/\s+/g, ' ')
	return all.find(b => name(b) === want) ?? all.find(b => name(b).startsWith(want)) ?? all.find(b => whole(b).includes(want))
})()`

// keys types one after the other, once the page takes them.
func (p *tab) keys(keys ...input.Key) {
	p.t.Helper()
	p.waits(`() => `+takesAnswers, "the page to take keys")
	require.NoError(p.t, p.Keyboard.Type(keys...))
}

// way goes a way that stands in the head line of the bench, in its menu where it is narrow.
func (p *tab) way(text string) {
	p.t.Helper()
	p.see("header")
	if p.MustHas("header .more") {
		p.press("More")
	}
	p.press(text)
}

// pressIn does the same within a part of the page.
func (p *tab) pressIn(part, text string) {
	p.t.Helper()
	p.clicks(fmt.Sprintf(named, part, text), "a control "+text)
}

// tap clicks the first element of a selector.
func (p *tab) tap(selector string) {
	p.t.Helper()
	p.clicks(fmt.Sprintf(`document.querySelector(%q)`, selector), selector)
}

// clicks clicks the element that an expression finds, again where the page took nothing just then.
func (p *tab) clicks(find, what string) {
	p.t.Helper()
	for range 5 {
		p.waits(`() => `+takesAnswers+` && `+find, what)
		p.MustEval(`() => ` + find + `.setAttribute('data-press', '1')`)
		e := p.see(`[data-press]`)
		e.MustEval(`() => { this.removeAttribute('data-press'); this.scrollIntoView({ block: 'center' })
			this.addEventListener('click', () => { this.took = true }, { once: true, capture: true }) }`)
		err := e.Timeout(limit).Click(proto.InputMouseButtonLeft, 1)
		if moved := (&rod.InvisibleShapeError{}); errors.As(err, &moved) { // what came up above it moved it out of view
			continue
		}
		require.NoError(p.t, err, what)
		took, err := e.Eval(`() => Boolean(this.took)`)
		if err != nil || took.Value.Bool() { // an element that is gone was pressed
			p.taps++
			return
		} // what another hand did came up just then, and the page took nothing
	}
	p.t.Fatalf("%s takes no press; the page shows: %s", what, p.text())
}

// clean asserts that nothing was asked of another host and nothing was complained about.
func (p *tab) clean() {
	p.t.Helper()
	p.mu.Lock()
	defer p.mu.Unlock()
	require.Empty(p.t, p.foreign, "requests to other hosts")
	require.Empty(p.t, p.spoken, "the console is not clean")
}
