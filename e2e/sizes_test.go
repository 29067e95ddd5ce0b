package e2e

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
)

// everySize is what the pages are looked at in: telephones, a tablet either way, a laptop, a desk, and a laptop's
// page at twice the size.
var everySize = [][2]int{
	{360, 740},
	{390, 844},
	{768, 1024},
	{1024, 768},
	{1280, 800},
	{1920, 1080},
	{640, 400},
}

// cutOff finds what a size cuts: a page that scrolls sideways, and words in a heading, a button or a label that
// their own box hides. What scrolls by itself for its own reason is left out.
const cutOff = `() => {
	const out = []
	const wide = document.documentElement.scrollWidth - innerWidth
	if (wide > 1) out.push('the page is ' + wide + ' px too wide')
	const scrolls = e => { for (let at = e; at; at = at.parentElement) if (/auto|scroll/.test(getComputedStyle(at).overflowX)) return true; return false }
	for (const e of document.querySelectorAll('h1, h2, h3, button, a, label, th, .v-btn__content, .v-select__selection-text')) {
		const b = e.getBoundingClientRect()
		if (!b.width || !b.height || !e.textContent.trim() || e.closest('.sr, .v-switch, [aria-hidden=true]')) continue
		const o = getComputedStyle(e)
		if (e.scrollWidth > e.clientWidth + 2 && /hidden|clip/.test(o.overflowX) && e.clientWidth)
			out.push('cut: ' + e.textContent.trim().slice(0, 50))
		if ((b.right > innerWidth + 1 || b.left < -1) && !scrolls(e)) out.push('outside: ' + e.textContent.trim().slice(0, 50))
	}
	return [...new Set(out)]
}`

// No page scrolls sideways or cuts its words, in any of the sizes.
func TestNoPageIsCutAtAnySize(t *testing.T) {
	t.Parallel()
	r := lookedAt(t)
	pages := append(screens, []struct{ name, path, ready string }{
		{"steps", "/jobs/demo-job-tipper/steps", ".around"},
		{"tag", "/jobs/demo-job-bus/tag", "h1"},
		{"order", "/engines/brindlow-1600/order", "textarea"},
		{"ways of a twelve", "/engines/brindlow-6000/ways", ".on .way"},
		{"editor of a twelve", "/engines/brindlow-6000", ".sound"},
		{"vehicles", "/vehicles", "main"},
		{"vehicle", "/vehicles/demo-post-bus", "main"},
	}...)
	looked := everySize
	if !deep.On { // the smallest, a tablet held upright, a laptop, and that at twice the size
		looked = [][2]int{{360, 740}, {768, 1024}, {1280, 800}, {640, 400}}
	}
	for _, size := range looked {
		t.Run(fmt.Sprint(size), func(t *testing.T) {
			t.Parallel()
			p := open(t, r, "/", size[0], size[1])
			for _, s := range pages {
				p.visit(s.path)
				p.see(s.ready)
				assert.Empty(t, p.MustEval(cutOff).Val(), "%s at %d×%d", s.name, size[0], size[1])
			}
			p.MustClose()
		})
	}
}

// Where a person's own colours are forced upon the page, what is chosen and the one next thing still look otherwise
// than what may be pressed besides: by an outline, and by the person's colour of what is selected.
func TestForcedColoursTellWhatIsChosen(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/", 1280, 800)
	require.NoError(t, proto.EmulationSetEmulatedMedia{Features: []*proto.EmulationMediaFeature{
		{Name: "forced-colors", Value: "active"}}}.Call(p))
	look := func(selector string) string {
		p.see(selector)
		return p.MustEval(`s => { const o = getComputedStyle(document.querySelector(s)); return o.outlineStyle + ' ' + `+
			`o.outlineWidth + ' ' + o.backgroundColor }`, selector).
			Str()
	}
	p.visit("/start?vehicle=demo-post-bus")
	assert.NotEqual(t, look(`[role=radio][aria-checked=true]`), look(`[role=radio][aria-checked=false]`))
	assert.Contains(t, look(`[role=radio][aria-checked=true]`), "solid 4px")
	p.visit("/jobs/demo-job-van")
	p.see(".order.on")
	assert.NotEqual(t, look(".go.v-btn"), look(".top .v-btn"), "the next action")
	p.visit("/jobs/demo-job-tipper")
	assert.Contains(t, look(".rung.cursor"), "solid 4px")
	p.clean()
}

// On a telephone the whole head is one tap away, every valve of it on the screen at once; and from 24 valves on the
// band shows those of the stop, all of them one tap away.
func TestTheWholeHeadIsOneTapAway(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const whole = `() => { const all = [...document.querySelectorAll('.whole .valve')]
		return all.length === 48 && all.every(v => { const b = v.getBoundingClientRect()
			return b.left >= 0 && b.right <= innerWidth && b.top >= 0 && b.bottom <= innerHeight }) }`
	job := played{engine: "brindlow-6000", school: "one_cylinder"}.begun(t, r)
	p := open(t, r, "/jobs/"+job, 360, 740)
	p.says("Read I1a")
	p.press("Head")
	p.waits(whole, "every valve at once")
	p.press("Close")
	p.waits(`() => !document.querySelector('.whole .valve')`, "the bench again")
	p.waits(`() => document.querySelectorAll('.band .may').length > 0 &&
		[...document.querySelectorAll('.band .name')].map(n => n.textContent).join() === 'I1a,I1b,E1a,E1b'`, "the stop's bars")
	p.press("all 48 valves")
	p.waits(`() => document.querySelectorAll('.band .name').length === 48`, "all bars")
	p.press("only this stop")
	p.waits(`() => document.querySelectorAll('.band .name').length === 4`, "the stop's bars again")
	p.clean()
}
