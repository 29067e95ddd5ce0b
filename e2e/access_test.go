package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
)

// screens are the views that are scanned, each with what must be on it before it is looked at.
var screens = []struct{ name, path, ready string }{
	{"board", "/", ".strip"},
	{"start", "/start", ".tile"},
	{"choose way", "/jobs/demo-job-van", ".order.on"},
	{"turn", "/jobs/demo-job-pump", ".then"},
	{"read", "/jobs/demo-job-tipper", ".rung.cursor"},
	{"two turns", "/jobs/demo-job-saw", ".v-alert"},
	{"signed", "/jobs/demo-job-bus", ".done"},
	{"sheet", "/jobs/demo-job-bus/sheet", "table"},
	{"engines", "/engines", ".engine"},
	{"editor", "/engines/culverholt-5000", ".sound"},
	{"ways", "/engines/ostrane-1300/ways", ".on .way"},
	{"card", "/jobs/demo-job-tipper/card", ".map"},
	{"gauges", "/gauges", ".reach svg"},
	{"sums", "/sums/turn", ".large"},
	{"verdict sum", "/sums/judge", ".large"},
	{"workshop", "/shop", ".stock"},
	{"cooling", "/jobs/demo-job-winch", ".plot"},
	{"shims", "/jobs/demo-job-minibus", ".moves"},
	{"lost", "/no/such/page", ".note"},
}

// No serious or critical finding of axe-core on any screen, in either theme, on a laptop and on a phone; nor
// does any screen ask another host for anything or complain on the console.
func TestScreensAreAccessible(t *testing.T) {
	t.Parallel()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(t, err, "run make test: it installs the front end's packages")
	r := lookedAt(t)
	for theme, size := range map[string][2]int{"night": {1280, 800}, "day": {360, 740}} {
		t.Run(theme, func(t *testing.T) {
			t.Parallel()
			p := open(t, r, "/", size[0], size[1])
			p.MustEval(`t => localStorage.setItem('metronix.theme', t)`, theme)
			for _, s := range screens {
				p.visit(s.path)
				p.see(s.ready)
				assert.Equal(t, theme, p.MustEval(`() => document.documentElement.dataset.theme`).Str())
				p.scan(string(axe), theme+" "+s.name)
			}
			p.clean()
			if theme == "night" || deep.On { // by day the colours of the same parts were looked at above
				scanOnTheWay(t, string(axe), theme)
			}
		})
	}
}

// scanOnTheWay scans the panels that come up during a job: temperature, keys, setting, locking, leaving,
// signing.
func scanOnTheWay(t *testing.T, axe, theme string) {
	t.Helper()
	r := demo(t)
	p := open(t, r, "/", 1280, 800)
	p.MustEval(`t => localStorage.setItem('metronix.theme', t)`, theme)
	p.visit("/jobs/demo-job-van")
	p.press("Use this sequence")
	p.see(".pad")
	p.scan(axe, theme+" temperature")
	p.way("Keys")
	p.see("dl")
	p.scan(axe, theme+" keys")

	p.visit("/jobs/demo-job-pump")
	p.press("Where am I?")
	p.press("TDC mark at the pointer")
	p.see(".seen")
	p.scan(axe, theme+" where am I")
	p.pressIn(".find", "Back")
	p.press("Cylinder 2 rocks")
	p.says("Screw I5 out")
	p.scan(axe, theme+" adjust")
	p.press("Leave I5 as it is")
	p.see(".dialog")
	p.scan(axe, theme+" leave")
	p.press("Go back")
	p.press(" is set")
	p.says("Lock I5")
	p.scan(axe, theme+" lock")

	d := &driver{t: t, r: r, job: "demo-job-saw"}
	require.True(t, d.until("sign"))
	p.visit("/jobs/demo-job-saw")
	p.see(".signing")
	p.scan(axe, theme+" sign")
	p.clean()
}

// tooSmall finds targets that a finger misses: under 44 pixels either way, under 56 in the panels of the
// bench (a field counts with its frame).
const tooSmall = `() => {
	const out = []
	for (const e of document.querySelectorAll('button, a, [role=button], [role=radio], input, select, summary, textarea, .v-icon--clickable')) {
		const own = e.getBoundingClientRect()
		if (own.width === 0 || own.height === 0) continue
		const b = e.matches('input') ? (e.closest('.v-field, label, .v-selection-control') ?? e).getBoundingClientRect() : own
		const least = e.closest('.now, .find') && !e.matches('input') ? 56 : 44
		if (Math.min(b.width, b.height) < least - 0.5)
			out.push(e.tagName + ' ' + (e.getAttribute('class') ?? '') + ' ' + (e.getAttribute('aria-label') ?? e.textContent).trim().slice(0, 30) + ': ' + Math.round(b.width) + '×' + Math.round(b.height))
	}
	return out
}`

// Every target of every screen is large enough for a finger, at a laptop's size and at a phone's.
func TestTargetsAreLargeEnough(t *testing.T) {
	t.Parallel()
	r := lookedAt(t)
	for _, size := range [][2]int{{1280, 800}, {360, 740}} {
		p := open(t, r, "/", size[0], size[1])
		for _, s := range screens {
			p.visit(s.path)
			p.see(s.ready)
			assert.Empty(t, p.MustEval(tooSmall).Val(), "%s at %d×%d", s.name, size[0], size[1])
		}
		p.MustClose()
	}
}

type finding struct {
	ID, Impact, Help string
	Nodes            []struct{ HTML, FailureSummary string }
}

// scan runs axe-core in the page; it is evaluated by the debugger and so needs no exception in the content
// policy.
func (p *tab) scan(axe, name string) {
	p.t.Helper()
	_, err := proto.RuntimeEvaluate{Expression: axe}.Call(p)
	require.NoError(p.t, err)
	got, err := proto.RuntimeEvaluate{Expression: `axe.run(document, { resultTypes: ['violations'] ` +
		`}).then(r => JSON.stringify(r.violations))`, AwaitPromise: true, ReturnByValue: true}.Call(p)
	require.NoError(p.t, err)
	require.Nil(p.t, got.ExceptionDetails)
	var all []finding
	require.NoError(p.t, json.Unmarshal([]byte(got.Result.Value.Str()), &all))
	for _, f := range all {
		if f.Impact == "serious" || f.Impact == "critical" {
			text := ""
			for _, n := range f.Nodes[:min(3, len(f.Nodes))] {
				text += fmt.Sprintf("\n  %s\n  %s", n.HTML, n.FailureSummary)
			}
			assert.Fail(p.t, fmt.Sprintf("%s: %s %s: %s%s", name, f.Impact, f.ID, f.Help, text))
		}
	}
}
