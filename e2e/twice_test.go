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

// pressTwice presses a control and, a moment later, the same place again, whatever stands there by then. The
// presses are told with the times of a hand that bounces, as a touch screen tells them: a busy machine comes
// to the second one late, and has to know it for a bounce all the same.
func (p *tab) pressTwice(name string) {
	p.t.Helper()
	const bounce = 120 * time.Millisecond
	e := p.see(fmt.Sprintf(`[data-twice=%q]`, name))
	e.MustEval(`() => this.scrollIntoView({ block: 'nearest' })`)
	shape, err := e.Shape()
	require.NoError(p.t, err, name)
	at := *shape.OnePointInside()
	p.MustEval(`() => { window.pressed ??= addEventListener('click', e => window.pressed.push(e.timeStamp), { capture: true }) ?? []
		window.pressed.length = 0 }`)
	require.NoError(p.t, p.Mouse.MoveTo(at))
	first := time.Now()
	for _, when := range []time.Time{first, first.Add(bounce)} {
		time.Sleep(time.Until(when))
		for _, kind := range []proto.InputDispatchMouseEventType{
			proto.InputDispatchMouseEventTypeMousePressed, proto.InputDispatchMouseEventTypeMouseReleased,
		} {
			require.NoError(p.t, proto.InputDispatchMouseEvent{Type: kind, X: at.X, Y: at.Y, ClickCount: 1,
				Button: proto.InputMouseButtonLeft, Timestamp: proto.TimeSinceEpoch(float64(when.UnixNano()) / 1e9),
			}.Call(p))
		}
	}
	p.waits(`() => `+takesAnswers+` && !document.querySelector('.now')?.hasAttribute('aria-busy')`,
		"the page to take answers after "+name)
	require.True(p.t, p.MustEval(`() => window.pressed.length < 2 || window.pressed[1] - window.pressed[0] < 350`).Bool(),
		"%q: the presses are those of a hand that bounces", name)
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
		d.once(state, name)
		if d.page.MustHas(".v-overlay--active .dialog") {
			for _, inside := range names(d.page) {
				d.comeTo(state)
				names(d.page)
				d.page.press(name)
				d.page.see(".v-overlay--active .dialog")
				names(d.page)
				d.once(state, inside)
			}
		}
	}
}

// once presses a control twice and asserts that at most one thing was said.
func (d *driver) once(state, name string) {
	d.t.Helper()
	before := d.now().State.Happenings
	d.page.pressTwice(name)
	s := d.now()
	said := s.State.Happenings - before
	assert.LessOrEqual(d.t, said, 1, "%s: %q pressed twice", state, name)
	for ; said > 0 && s.State.Undo != "" && name != "Undo Z"; said-- {
		d.do(map[string]any{"kind": "undone", "target": s.State.Undo})
		s = d.now()
	}
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
