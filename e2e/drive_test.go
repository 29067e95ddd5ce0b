package e2e

import (
	"fmt"
	"math"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// states are what the bench can show during a job, in the order in which a job comes to them.
var states = []string{"choose_way", "prepare", "safe", "turn", "read", "find", "conflict", "keep", "adjust", "lock",
	"read again", "bar_over", "check", "sign", "done"}

// driver brings a job forward by what a mechanic would say, one valve of it 0.09 mm too tight where the
// adjuster is a screw.
type driver struct {
	t     *testing.T
	r     *running
	job   string
	way   way
	out   string // the valve that is too tight; empty: none
	fixed bool
	n     int
	page  *tab // the bench as it is looked at
}

func driven(t *testing.T, r *running, engine string, w way) *driver {
	t.Helper()
	d := &driver{t: t, r: r, way: w, job: fmt.Sprintf("layout-%s-%s-%s", engine, w.School, w.Order)}
	vehicle := "vehicle-" + engine
	if !stored(t, r, vehicle) {
		post(t, "POST", r.base+"/api/v1/vehicles",
			map[string]any{"id": vehicle, "name": "Bench stand", "plate": "", "odometer_km": 0,
				"engine_id": engine}, nil)
	}
	post(t, "POST", r.base+"/api/v1/jobs",
		map[string]any{"id": d.job, "vehicle_id": vehicle, "gauge_set_id": "demo-set-oskar", "card": 0,
			"mechanic": "Tess Ardal", "reason": "", "odometer_km": 0}, nil)
	s := d.now()
	if s.Engine.Gear.Means != "exchanged" {
		d.out = w.Stops[len(w.Stops)-1].Valves[0] // so that full turns come before it is checked
	}
	return d
}

// stored says whether a vehicle is there.
func stored(t *testing.T, r *running, id string) bool {
	t.Helper()
	var list []struct{ ID string }
	require.Equal(t, 200, get(t, r.base+"/api/v1/vehicles", &list))
	for _, v := range list {
		if v.ID == id {
			return true
		}
	}
	return false
}

func (d *driver) now() state { return stateOf(d.t, d.r.base, d.job) }

func (d *driver) do(h map[string]any) {
	d.t.Helper()
	d.n++
	h["id"] = fmt.Sprintf("layout-%04d", d.n)
	post(d.t, "POST", d.r.base+"/api/v1/jobs/"+d.job+"/happenings", h, nil)
}

// at says whether the job is in a state. "find" and "conflict" are looked at where a valve is to be read.
func (d *driver) at(wanted string, s state) bool {
	action := s.State.Now.Action
	stage, _ := s.valve(s.State.Now.Valve)
	switch wanted {
	case "safe":
		return s.State.Now.MakeSafe
	case "turn":
		return action == "turn" && !s.State.Now.MakeSafe
	case "read", "find", "conflict":
		return action == "read" && stage == "" && s.State.Phase == "as_found"
	case "read again":
		return action == "read" && stage == "nut_tight"
	case "check":
		return action == "read" && s.State.Phase == "verify"
	}
	return action == wanted
}

// until brings the job forward to a state; it says false where the job does not come to it any more.
func (d *driver) until(state string) bool {
	d.t.Helper()
	for range 1000 {
		s := d.now()
		if d.at(state, s) {
			return true
		}
		if !d.step(s) {
			return false
		}
	}
	d.t.Fatalf("%s does not come to %s", d.job, state)
	return false
}

// step says the one next thing; it says false where there is none, or none that can be said without knowing
// more.
func (d *driver) step(s state) bool {
	d.t.Helper()
	now := s.State.Now
	if now.MakeSafe {
		d.do(map[string]any{"kind": "task", "task": "safe"})
		return true
	}
	switch now.Action {
	case "choose_way":
		way := map[string]any{"kind": "way_chosen", "school": d.way.School, "order": d.way.Order}
		if s.Engine.Gear.Means != "exchanged" { // so that only what was set is checked, after full turns
			way["round"], way["check"] = "set_as_you_go", "set_ones"
		}
		d.do(way)
	case "prepare":
		warm := map[string]float64{"cold": 19, "hot": 85}[s.State.Card.State]
		d.do(map[string]any{"kind": "prepared", "engine_c": warm, "ambient_c": 18})
	case "turn":
		d.do(map[string]any{"kind": "turned", "stop": now.Stop})
	case "read":
		r, feel := d.felt(s)
		d.do(map[string]any{"kind": "reading", "valve": now.Valve, "leaves_mm": r.Leaves, "feel": feel})
	case "keep":
		d.do(map[string]any{"kind": "kept", "valve": now.Valve})
	case "adjust":
		if s.Engine.Gear.Means == "exchanged" {
			return false
		}
		d.fixed = d.fixed || now.Valve == d.out
		d.do(map[string]any{"kind": "adjusted", "valve": now.Valve})
	case "lock":
		d.do(map[string]any{"kind": "locked", "valve": now.Valve})
	case "bar_over":
		d.do(map[string]any{"kind": "barred_over", "stop": now.Stop})
	case "sign":
		d.do(map[string]any{"kind": "signed", "by": "Tess Ardal", "tools_out": true})
	default:
		return false
	}
	return true
}

// felt is the leaf to try and how it feels in the gap that the valve has.
func (d *driver) felt(s state) (rung, string) { return s.rungFor(d.gaps(s)) }

// gaps are those that are not nominal, mm.
func (d *driver) gaps(s state) map[string]float64 {
	if d.out == "" || d.fixed {
		return nil
	}
	_, nominal := s.valve(d.out)
	return map[string]float64{d.out: nominal - 0.09}
}

// look opens the bench and asserts at each size that everything can be seen and tapped.
func (d *driver) look(state string, sizes [][2]int) {
	d.t.Helper()
	for _, size := range sizes {
		if d.page == nil {
			d.page = open(d.t, d.r, "/jobs/"+d.job, size[0], size[1])
		} else {
			d.page.MustSetViewport(size[0], size[1], 1, size[0] < 500)
			d.page.visit("/jobs/" + d.job)
		}
		d.lookAt(d.page, state, fmt.Sprintf("%s, %s at %d×%d", d.job, state, size[0], size[1]))
	}
}

// leave closes the page that was looked at.
func (d *driver) leave() {
	if d.page != nil {
		d.page.MustClose()
		d.page = nil
	}
}

// wholeRungs is how many rungs of the ladder are seen whole; all there are, where there are fewer than three.
const wholeRungs = `() => {
	const l = document.querySelector('.ladder'), b = l.getBoundingClientRect(), all = [...l.querySelectorAll('.rung')]
	const whole = all.filter(r => { const a = r.getBoundingClientRect(); return a.top >= b.top - 2 && a.bottom <= b.bottom + 2 }).length
	return all.length < 3 && whole === all.length ? 3 : whole
}`

func (d *driver) lookAt(p *tab, state, where string) {
	d.t.Helper()
	p.see(".now h2")
	if ready := map[string]string{"choose_way": ".order.on", "prepare": ".pad", "read": ".rung.cursor",
		"find": ".rung.cursor", "conflict": ".rung.cursor",
		"read again": ".rung.cursor", "check": ".rung.cursor", "sign": ".signing"}[state]; ready != "" {
		p.see(ready)
	}
	switch state {
	case "find":
		p.press("Where am I?")
		p.see(".find")
	case "conflict":
		d.disagree(p)
	}
	p.waits(`() => document.querySelector('.now h2, .find h2')`, "the headline")
	p.waits(`() => { const c = document.querySelector('.rung.cursor'), l = c?.closest('.ladder')
		if (!l) return true
		const a = c.getBoundingClientRect(), b = l.getBoundingClientRect()
		return a.top >= b.top - 1 && a.bottom <= b.bottom + 1 }`, "the rung that waits to be in view")
	if p.MustHas(".ladder") {
		assert.GreaterOrEqual(d.t, p.MustEval(wholeRungs).Int(), 3, where+": whole rungs of the ladder")
	}
	assert.Empty(d.t, p.MustEval(nothingLiesOver).Val(), where)
	assert.Empty(d.t, p.MustEval(tooSmall).Val(), where)
	if state == "conflict" {
		for range 2 {
			before := d.now().State.Happenings
			p.keys(input.KeyZ)
			waitFor(d.t, p, d.r, d.job, before)
		}
	}
}

// disagree says two feels that cannot both be true: a thick leaf is free, a thin one will not go.
func (d *driver) disagree(p *tab) {
	d.t.Helper()
	s := d.now()
	var thin, thick []float64
	least, most := math.Inf(1), 0.0
	for _, r := range s.State.Now.Ladder {
		if len(r.Leaves) == 1 && r.Thickness < least {
			least, thin = r.Thickness, r.Leaves
		}
		if len(r.Leaves) == 1 && r.Thickness > most {
			most, thick = r.Thickness, r.Leaves
		}
	}
	d.do(map[string]any{"kind": "reading", "valve": s.State.Now.Valve, "leaves_mm": thick, "feel": "free"})
	d.do(map[string]any{"kind": "reading", "valve": s.State.Now.Valve, "leaves_mm": thin, "feel": "wont_go"})
	p.visit("/jobs/" + d.job) // sooner than the page asks again by itself
	p.waits(`() => document.querySelector('.strip')?.textContent.includes('disagree')`, "the disagreement")
}
