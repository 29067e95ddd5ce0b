package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Where a person's own colours are forced upon the page, what is chosen and the one next thing still look
// otherwise than what may be pressed besides: by an outline, and by the person's colour of what is selected.
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

// On a telephone the whole head is one tap away, every valve of it on the screen at once; and from 24 valves
// on the band shows those of the stop, all of them one tap away.
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
