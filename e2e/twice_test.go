package e2e

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
)

// mayBePressed marks the controls of the bench's panel, or of a dialog over it, that may be pressed, and
// gives their names. Of the ladder it is the rung in hand; digits are typed again and again on purpose.
const mayBePressed = `() => {
	const over = document.querySelector('.v-overlay--active .dialog')
	const seen = new Set()
	return [...(over ?? document).querySelectorAll(over ? 'button' : '.now button, .find button')]
		.filter(b => !b.disabled && b.offsetParent && !b.closest('.pad') && !(b.closest('.rung') && !b.closest('.rung.cursor')))
		.map(b => { const name = (b.getAttribute('aria-label') ?? b.textContent).replace(/\s+/g, ' ').trim()
			b.dataset.twice = name; return name })
		.filter(name => !seen.has(name) && seen.add(name))
}`

// pressTwice presses a control and, a moment later, the same place again, whatever stands there by then. It says whether the
// moment was as short as of a hand that bounces: a busy machine may make two presses of it.
func (p *tab) pressTwice(name string) (bounced bool) {
	p.t.Helper()
	e := p.see(fmt.Sprintf(`[data-twice=%q]`, name))
	e.MustEval(`() => this.scrollIntoView({ block: 'nearest' })`)
	shape, err := e.Shape()
	require.NoError(p.t, err, name)
	at := *shape.OnePointInside()
	p.MustEval(`() => { window.pressed ??= addEventListener('click', e => window.pressed.push(e.timeStamp), { capture: true }) ?? []
		window.pressed.length = 0 }`)
	require.NoError(p.t, p.Mouse.MoveTo(at))
	require.NoError(p.t, p.Mouse.Click(proto.InputMouseButtonLeft, 1))
	time.Sleep(120 * time.Millisecond) // the finger
	require.NoError(p.t, p.Mouse.Click(proto.InputMouseButtonLeft, 1))
	p.waits(`() => `+takesAnswers+` && !document.querySelector('.now')?.hasAttribute('aria-busy')`,
		"the page to take answers after "+name)
	return p.MustEval(`() => window.pressed.length < 2 || window.pressed[1] - window.pressed[0] < 350`).Bool()
}

// Whatever stands on the bench, in every state of it, pressing it twice does what one press does: never is
// anything said by the second that was meant for what stood there before. "Made safe" pressed twice
// does not say that the crank was turned.
func TestPressedTwice(t *testing.T) {
	t.Parallel()
	for i, size := range sizes {
		if i > 0 && !deep.On {
			break
		}
		t.Run(fmt.Sprintf("%d×%d", size[0], size[1]), func(t *testing.T) {
			t.Parallel()
			r := demo(t)
			d := driven(t, r, "brindlow-1600", way{School: "one_cylinder", Order: "turning",
				Stops: waysOf(t, r, "brindlow-1600")[0].Stops})
			d.page = open(t, r, "/jobs/"+d.job, size[0], size[1])
			for _, state := range []string{"choose_way", "prepare", "safe", "turn", "find", "read", "keep", "adjust", "lock",
				"read again", "bar_over", "sign"} {
				if !deep.On && slices.Contains([]string{"prepare", "find", "keep", "lock", "read again"}, state) {
					continue // the panels of the others have the same parts
				}
				require.True(t, d.until(state), state)
				d.twice(state)
			}
		})
	}
}

// twice presses every control of a state twice, and of the dialogs that come up; the job is put back each
// time.
func (d *driver) twice(state string) {
	d.t.Helper()
	d.comeTo(state)
	for _, name := range names(d.page) {
		d.comeTo(state)
		if !slices.Contains(names(d.page), name) {
			continue
		}
		d.once(state, name, func() { names(d.page) })
		if d.page.MustHas(".v-overlay--active .dialog") {
			for _, inside := range names(d.page) {
				opened := func() {
					d.page.press(name)
					d.page.see(".v-overlay--active .dialog")
					names(d.page)
				}
				d.comeTo(state)
				opened()
				d.once(state, inside, opened)
			}
		}
	}
}

// once presses a control twice and asserts that at most one thing was said; again shows it once more in that state, where the
// machine was too busy to press it twice.
func (d *driver) once(state, name string, again func()) {
	d.t.Helper()
	for range 20 {
		before := d.now().State.Happenings
		bounced := d.page.pressTwice(name)
		s := d.now()
		said := s.State.Happenings - before
		if bounced {
			assert.LessOrEqual(d.t, said, 1, "%s: %q pressed twice", state, name)
		}
		for ; said > 0 && s.State.Undo != "" && name != "Undo Z"; said-- {
			d.do(map[string]any{"kind": "undone", "target": s.State.Undo})
			s = d.now()
		}
		if bounced {
			return
		}
		d.comeTo(state)
		again()
	}
	d.t.Fatalf("%s: %q could not be pressed twice in a third of a second", state, name)
}

func names(p *tab) (list []string) {
	p.see("main")
	for _, n := range p.MustEval(mayBePressed).Arr() {
		list = append(list, n.Str())
	}
	return list
}

// comeTo shows the bench in a state, brought there again where a press left it.
func (d *driver) comeTo(state string) {
	d.t.Helper()
	require.True(d.t, d.until(state), state)
	d.page.visit("/jobs/" + d.job)
	d.page.see(".now h2")
	if state == "find" {
		d.page.press("Where am I?")
		d.page.see(".find")
	}
}
