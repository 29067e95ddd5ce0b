package e2e

import (
	"encoding/json"
	"fmt"
	"net/http"
	"os"
	"strings"
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
	{"people", "/people", "table"},
	{"cooling", "/jobs/demo-job-winch", ".plot"},
	{"shims", "/jobs/demo-job-minibus", ".moves"},
	{"lost", "/no/such/page", ".note"},
	{"steps", "/jobs/demo-job-tipper/steps", ".around"},
	{"tag", "/jobs/demo-job-bus/tag", "h1"},
	{"order", "/engines/brindlow-1600/order", "textarea"},
	{"ways of a twelve", "/engines/brindlow-6000/ways", ".on .way"},
	{"editor of a twelve", "/engines/brindlow-6000", ".sound"},
	{"vehicles", "/vehicles", "main"},
	{"vehicle", "/vehicles/demo-post-bus", "main"},
	{"crank", "/jobs/demo-job-pump/crank", ".wait"},
	{"practice", "/practice", ".shelf"},
	{"practice run", "/practice/scanned-0001", ".ring"},
	{"practice score", "/practice/scanned-0002/score", ".valve"},
	{"practice on paper", "/practice/scanned-0003", ".paper"},
	{"practice act by act", "/practice/scanned-0002/acts", ".v-slider"},
	{"drills", "/practice/drills", ".choices"},
	{"class", "/practice/class", "section"},
	{"feel", "/practice/feel", ".feel"},
	{"real leaves", "/practice/leaves", ".real"},
	{"handbook, schools", "/handbook/schools", ".book"},
	{"handbook, drag", "/handbook/drag", ".book"},
	{"handbook, adjusters", "/handbook/adjusters", ".book"},
	{"handbook, heat", "/handbook/heat", ".book"},
	{"handbook, wrong", "/handbook/wrong", ".book"},
}

// practises begins a run on a practice engine, and ends it where that is wanted.
func practises(t *testing.T, r *running, id string, ends bool, aid string) {
	t.Helper()
	posts := func(path, body string) {
		answer, err := http.Post(r.base+"/api/v1/practice"+path, "application/json", strings.NewReader(body))
		require.NoError(t, err)
		answer.Body.Close()
		require.Equal(t, http.StatusOK, answer.StatusCode, path)
	}
	posts("", `{"id":"`+id+`","engine_id":"brindlow-1600","card":0,"aid":"`+aid+`"}`)
	posts("/"+id+"/hands", `{"id":"turned-01","turn_deg":90}`)
	if ends {
		posts("/"+id+"/end", "")
	}
}

// In what the pages are looked at, by night and by day: the first size each is what they are opened in; the
// rest are looked at in make deep, but a tablet held upright and a laptop's page at twice its size.
var looks = map[string][][2]int{
	"night": {{1280, 800}, {768, 1024}, {640, 400}, {1024, 768}, {1920, 1080}},
	"day":   {{360, 740}, {390, 844}},
}

// Every page, on a laptop by night or on a phone by day (in make deep: both): axe-core has no serious or
// critical finding, every target is large enough for a finger, and no page asks another host for anything or
// complains on the console. In no size does one scroll sideways or cut its words.
func TestEveryPage(t *testing.T) {
	t.Parallel()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(t, err, "run make test: it installs the front end's packages")
	r := lookedAt(t)
	practises(t, r, "scanned-0001", false, "guided")
	practises(t, r, "scanned-0002", true, "guided")
	practises(t, r, "scanned-0003", false, "examination")
	for theme, sizes := range looks {
		if !deep.On {
			sizes = sizes[:min(len(sizes)*2/3, 3)]
		}
		t.Run(theme, func(t *testing.T) {
			t.Parallel()
			p := themed(t, r, theme, "/", sizes[0][0], sizes[0][1])
			for i, s := range screens {
				if !deep.On && (i%2 == 0) != (theme == "night") {
					continue // it is looked at in the other theme
				}
				p.visit(s.path)
				p.see(s.ready)
				assert.Equal(t, theme, p.MustEval(`() => document.documentElement.dataset.theme`).Str())
				p.scan(string(axe), theme+" "+s.name)
				assert.Empty(t, p.MustEval(tooSmall).Val(), "%s by %s", s.name, theme)
				for i, size := range sizes {
					if i > 0 {
						p.MustSetViewport(size[0], size[1], 1, false)
						p.MustEval(`() => new Promise(d => requestAnimationFrame(() => requestAnimationFrame(d)))`)
					}
					assert.Empty(t, p.MustEval(cutOff).Val(), "%s at %d×%d", s.name, size[0], size[1])
				}
				p.MustSetViewport(sizes[0][0], sizes[0][1], 1, sizes[0][0] < 500)
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

// cutOff finds what a size cuts: a page that scrolls sideways, and words in a heading, a button or a label
// that their own box hides. What scrolls by itself for its own reason is left out.
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
