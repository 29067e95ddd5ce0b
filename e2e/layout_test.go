package e2e

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
)

// sizes are a laptop or tablet lying, a tablet standing on its edge, a phone.
var sizes = [][2]int{{1280, 800}, {1024, 768}, {360, 740}, {390, 844}, {768, 1024}, {1920, 1080}}

// post sends JSON and wants success.
func post(t testing.TB, method, address string, body, answer any) {
	t.Helper()
	data, err := json.Marshal(body)
	require.NoError(t, err)
	req, err := http.NewRequest(method, address, bytes.NewReader(data))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/json")
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	defer resp.Body.Close()
	require.Less(t, resp.StatusCode, 300, address)
	if answer != nil {
		require.NoError(t, json.NewDecoder(resp.Body).Decode(answer))
	}
}

// way is one of the sequences that apply to an engine.
type way struct {
	School, Order string
	Applies       bool
	Stops         []struct{ Valves []string }
}

// waysOf lists the sequences that apply to an engine of the library.
func waysOf(t *testing.T, r *running, engine string) []way {
	t.Helper()
	var ways struct{ Plans []way }
	require.Equal(t, 200, get(t, r.base+"/api/v1/engines/"+engine+"/ways", &ways))
	apply := slices.DeleteFunc(ways.Plans, func(w way) bool { return !w.Applies })
	require.NotEmpty(t, apply, engine)
	return apply
}

// atAStop starts a job on an engine of the library, chooses the sequence with the most valves at a stop that
// applies, and turns to its first stop. It gives the job and the valve to read there.
func atAStop(t *testing.T, r *running, engine string) (job, valve string) {
	t.Helper()
	most := slices.MaxFunc(waysOf(t, r, engine),
		func(a, b way) int { return cmp.Compare(len(a.Stops[0].Valves), len(b.Stops[0].Valves)) })
	d := driven(t, r, engine, most)
	require.True(t, d.until("read"))
	return d.job, d.now().State.Now.Valve
}

// nothingLiesOver finds controls of the bench that something else lies over where they are to be tapped, and
// says whether the one next action and the verdict are in view.
const nothingLiesOver = `() => {
	const faults = []
	const inView = e => { const b = e.getBoundingClientRect(); return b.top >= 0 && b.bottom <= innerHeight + 1 && b.height > 0 }
	const shown = e => { // within whatever scrolls around it
		const b = e.getBoundingClientRect()
		const y = b.top + b.height / 2, x = b.left + b.width / 2
		if (y < 0 || y >= innerHeight || x < 0 || x >= innerWidth || b.height === 0) return false
		for (let at = e.parentElement; at; at = at.parentElement) {
			const o = getComputedStyle(at)
			if (!/auto|scroll/.test(o.overflowY + o.overflowX)) continue
			const c = at.getBoundingClientRect()
			if (y < c.top + 2 || y > c.bottom - 2 || x < c.left || x > c.right) return false
		}
		return true
	}
	for (const e of document.querySelectorAll('.now button, .now .go, .now .strip')) {
		if (!shown(e)) continue
		const b = e.getBoundingClientRect()
		const top = document.elementFromPoint(b.left + b.width / 2, b.top + b.height / 2)
		if (top !== e && !e.contains(top) && !(top && top.closest('.foot, .ways .do') && !e.closest('.foot, .do, .rung.cursor'))) faults.push((e.textContent || e.className).trim().slice(0, 40) + ' under ' + (top?.className ?? ''))
	}
	for (const s of ['.now h2', '.now .do', '.now .strip'])
		for (const e of document.querySelectorAll(s)) if (!inView(e)) faults.push(s + ' is out of view: ' + JSON.stringify(e.getBoundingClientRect()))
	return faults
}`

// On every engine of the library, in a selection of sequences and states that leaves none of them out (in
// make deep: in every one): no control of the bench lies under another, instruction, answers, verdict and
// next action are in view, and every target is large enough for a finger.
func TestNothingLiesOverAControl(t *testing.T) {
	t.Parallel()
	r := demo(t)
	var engines []struct{ ID string }
	require.Equal(t, 200, get(t, r.base+"/api/v1/engines", &engines))
	require.GreaterOrEqual(t, len(engines), 10)
	seen, next, turn := map[string]int{}, 0, 0
	for _, e := range engines {
		t.Run(e.ID, func(t *testing.T) {
			ways := waysOf(t, r, e.ID)
			if !deep.On { // the one that was looked at least
				ways = []way{slices.MinFunc(ways,
					func(a, b way) int { return cmp.Compare(seen[a.School], seen[b.School]) })}
			}
			for _, w := range ways {
				seen[w.School]++
				d := driven(t, r, e.ID, w)
				wanted := map[string]bool{}
				for range 2 {
					wanted[states[next%len(states)]] = true
					next++
				}
				for _, state := range states {
					if !deep.On && !wanted[state] || !d.until(state) {
						continue
					}
					at := sizes
					if !deep.On {
						at = sizes[turn%len(sizes):][:1]
						turn++
					}
					seen[state]++
					for _, size := range at {
						seen[fmt.Sprint(size)]++
					}
					d.look(state, at)
				}
				d.leave()
				if deep.On {
					t.Logf("%s, %s %s: done", e.ID, w.School, w.Order)
				}
			}
		})
	}
	if deep.On { // every one, or those that were asked for
		return
	}
	for _, size := range sizes {
		assert.Positive(t, seen[fmt.Sprint(size)], size)
	}
	for _, state := range states {
		assert.Positive(t, seen[state], state)
	}
	for _, school := range []string{"one_cylinder", "rocking_pairs", "sum_rule", "exhaust_open", "two_stop",
		"opening_closing", "one_lobe", "fewest_stops"} {
		assert.Positive(t, seen[school], school)
	}
	t.Logf("looked at: %v", seen)
}

// At twice the size of a laptop's page (640×400 of its pixels) the instruction, the three answers and the
// next action are in view without scrolling, and nothing lies over them.
func TestAtTwiceTheSize(t *testing.T) {
	t.Parallel()
	r := demo(t)
	for _, engine := range []string{"brindlow-1600", "brindlow-6000"} {
		job, valve := atAStop(t, r, engine)
		p := open(t, r, "/jobs/"+job, 640, 400)
		p.says(valve)
		p.see(".rung.cursor")
		const answers = `() => [...document.querySelectorAll('.rung.cursor .feel')].every(e => { const b = ` +
			`e.getBoundingClientRect(); return b.top >= 0 && b.bottom <= innerHeight })`
		assert.True(t, p.MustEval(answers).Bool(), engine)
		assert.Empty(t, p.MustEval(nothingLiesOver).Val(), engine)
		p.keys(input.Digit2) // drag, without scrolling to it
		p.see(".strip")
		assert.Empty(t, p.MustEval(nothingLiesOver).Val(), engine+", after a reading")
		p.MustClose()
	}
}

// A whole job as mechanics do it on engines that the bench was not built with, touch and keys mixed, with a
// reload and a kill in the middle: a twelve with its valves by the dozen and shims, a shimmed four, an
// odd-fire twin and a six, both set as one goes; each with one valve out, and signed at the end.
func TestWholeJobsOnOtherEngines(t *testing.T) {
	t.Parallel()
	engines := []string{"torrick-750", "pellmark-1400", "brindlow-6000", "estervane-2400"}
	for i, engine := range engines[:deep.Rounds(1, 4)] {
		size := [][2]int{{360, 740}, {1280, 800}, {1024, 768}, {1280, 800}}[i]
		t.Run(engine, func(t *testing.T) {
			t.Parallel()
			r := demo(t)
			job, out := atAStop(t, r, engine)
			if stateOf(t, r.base, job).Engine.Gear.Means != "exchanged" { // once round, as most go
				post(t, "POST", r.base+"/api/v1/jobs/"+job+"/happenings",
					map[string]any{"id": "as-you-go-0001",
						"kind": "round_chosen", "round": "set_as_you_go", "check": "set_ones"}, nil)
			}
			stock := []map[string]any{}
			for mm := 200; mm <= 320; mm += 5 {
				stock = append(stock, map[string]any{"shim_mm": float64(mm) / 100, "count": 2})
			}
			post(t, "PUT", r.base+"/api/v1/shop",
				map[string]any{"probe_address": "",
					"shim_sizes": map[string]any{"from_mm": 2, "to_mm": 3.2,
						"step_mm": 0.05}, "shim_stock": stock}, nil)
			p := open(t, r, "/jobs/"+job, size[0], size[1])
			mixed(t, p, r, job, out)
		})
	}
}

// mixed drives a job to its end: what is odd by touch, what is even by keys.
func mixed(t *testing.T, p *tab, r *running, job, out string) {
	t.Helper()
	set := false
	for step := range 500 {
		s := stateOf(t, r.base, job)
		before, touch := s.State.Happenings, step%2 == 1
		if step == 9 {
			p.MustReload()
		}
		if step == 14 {
			r.kill()
			*r = *startedOn(t, "demo", r.data, strings.TrimPrefix(r.base, "http://"))
			p.visit("/jobs/" + job)
		}
		now := s.State.Now
		gaps := map[string]float64{}
		for _, v := range s.State.Valves {
			if v.Name == out && !set && v.Adjusted == 0 {
				gaps[out] = v.Limits.Nominal - 0.09
			}
		}
		if s.Engine.Gear.Means == "exchanged" && now.Action == "adjust" {
			shimmed(t, p)
			waitFor(t, p, r, job, before)
			continue
		}
		switch now.Action {
		case "read":
			p.waits(fmt.Sprintf(`() => document.querySelector('.tab.on b')?.textContent === %q && `+
				`document.querySelector('.rung.cursor')`, now.Valve), "the valve "+now.Valve)
			label, feel, k := s.leafFor(gaps)
			if touch {
				p.press(label + " " + feel)
				break
			}
			climb(t, p, label)
			p.keys(k)
		case "adjust":
			set = true
			goOn(t, p, touch)
		case "sign":
			p.see(".signing")
			p.keys(input.Digit1)
			p.keys(input.Digit2)
			p.keys(input.Digit3)
			p.keys(input.Enter)
		case "done":
			p.says("Signed by")
			return
		default:
			goOn(t, p, touch)
		}
		waitFor(t, p, r, job, before)
	}
	t.Fatalf("the job does not come to an end: %+v", stateOf(t, r.base, job).State.Now)
}

// goOn presses the one next action.
func goOn(t *testing.T, p *tab, touch bool) {
	t.Helper()
	e := p.see(".go.v-btn:not([aria-disabled=true])")
	if touch {
		require.NoError(t, e.Timeout(limit).Click(proto.InputMouseButtonLeft, 1))
		return
	}
	p.keys(input.Enter)
}

// shimmed says the size that is asked for, or fits the first shim that can be had.
func shimmed(t *testing.T, p *tab) {
	t.Helper()
	p.waits(`() => document.querySelector('.shims .pad, .shims .led')`, "the shims")
	if p.MustHas(".shims .pad") {
		for _, k := range []input.Key{input.Digit2, input.Period, input.Digit6, input.Enter} {
			p.keys(k)
		}
		return
	}
	if p.MustHas(".led input") {
		p.see(".led input").MustInput("1,5")
	}
	p.tap(".led .go:not([disabled])")
}

// On a twelve with 48 valves every valve drawn on the bench is 44 pixels or more either way at 1280×800, and
// the one in hand is in view.
func TestFortyEightValvesAreLargeEnough(t *testing.T) {
	t.Parallel()
	r := demo(t)
	job, _ := atAStop(t, r, "brindlow-6000")
	p := open(t, r, "/jobs/"+job, 1280, 800)
	p.see(".rung.cursor")
	small := p.MustEval(
		`() => [...document.querySelectorAll('.valve')].map(v => [v.dataset.valve, v.querySelector('.form').getBoundingClientRect()])
		.filter(([, b]) => Math.min(b.width, b.height) < 43.5).map(([n, b]) => n + ' ' + b.width.toFixed(1) + '×' + b.height.toFixed(1))`,
	)
	assert.Empty(t, small.Val())
	assert.Equal(t, 48, p.MustEval(`() => document.querySelectorAll('.valve').length`).Int())
	p.waits(
		`() => { const v = document.querySelector('.valve.chosen').getBoundingClientRect(), b = document.querySelector('.drawing').getBoundingClientRect()
		return v.top >= b.top - 1 && v.bottom <= b.bottom + 1 && v.left >= b.left - 1 && v.right <= b.right + 1 }`,
		"the valve in hand to be in view",
	)
	p.clean()
}
