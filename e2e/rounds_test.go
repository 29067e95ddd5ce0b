package e2e

import (
	"bytes"
	"encoding/json"
	"io"
	"net/http"
	"os"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
)

// played is a job to be driven on the bench as it was rehearsed.
type played struct {
	engine, school string
	round          map[string]any // fields of way_chosen
	out            []string       // found loose, and in once they are set
	size           [2]int
	leaves         []float64 // that are owned, mm; nil: a few usual ones
}

// rehearsal is what was counted beforehand.
type rehearsal struct {
	Turn      float64 `json:"total_turn_deg"`
	CheckTurn float64 `json:"check_turn_deg"`
	Leaves    int     `json:"leaf_changes"` // how often another leaf is picked up
	Gestures  int
	Applies   bool
	Reason    string
}

func (c played) rehearsed(t *testing.T, r *running) (out rehearsal) {
	t.Helper()
	sheet, err := os.ReadFile("../internal/demo/engines/" + c.engine + ".engine.json")
	require.NoError(t, err)
	q := map[string]any{"sheet": json.RawMessage(sheet), "school": c.school, "out": c.out}
	for k, v := range c.round {
		q[k] = v
	}
	body, err := json.Marshal(q)
	require.NoError(t, err)
	answer, err := http.Post(r.base+"/api/v1/compute/rehearse", "application/json", bytes.NewReader(body))
	require.NoError(t, err)
	defer answer.Body.Close()
	text, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(text, &out))
	require.True(t, out.Applies, "%.300s", out.Reason)
	return out
}

// begun stores a job of the engine, judged by the one leaf of the wanted gap, and brings it to its first
// stop.
func (c played) begun(t testing.TB, r *running) (job string) {
	t.Helper()
	job = c.stored(t, r)
	c.choose(t, r, job)
	for _, h := range []map[string]any{
		{"id": "prepared-0001", "kind": "prepared", "engine_c": 19, "ambient_c": 18},
		{"id": "safe-0001", "kind": "task", "task": "safe"},
		{"id": "turned-0001", "kind": "turned", "stop": 0}} {
		post(t, "POST", r.base+"/api/v1/jobs/"+job+"/happenings", h, nil)
	}
	return job
}

// stored stores the job alone.
func (c played) stored(t testing.TB, r *running) (job string) {
	t.Helper()
	job = "round-" + c.engine
	leaves := []map[string]any{}
	if c.leaves == nil {
		c.leaves = []float64{0.05, 0.10, 0.15, 0.20, 0.22, 0.24, 0.25, 0.27, 0.30, 0.35}
	}
	for _, mm := range c.leaves {
		leaves = append(leaves, map[string]any{"marked_mm": mm, "measured_mm": mm})
	}
	post(t, "POST", r.base+"/api/v1/gauge-sets",
		map[string]any{"id": "gauges-of-one", "name": "Few", "leaves": leaves},
		nil)
	post(t, "POST", r.base+"/api/v1/vehicles",
		map[string]any{"id": "vehicle-round", "name": "Bench stand", "plate": "",
			"odometer_km": 0, "engine_id": c.engine}, nil)
	post(t, "POST", r.base+"/api/v1/jobs", map[string]any{"id": job, "vehicle_id": "vehicle-round",
		"gauge_set_id": "gauges-of-one", "card": 0, "mechanic": "Tess Ardal", "reason": "", "odometer_km": 0,
		"rule": "one_leaf"}, nil)
	return job
}

// choose takes its sequence and round.
func (c played) choose(t testing.TB, r *running, job string) {
	t.Helper()
	way := map[string]any{"id": "chosen-0001", "kind": "way_chosen", "school": c.school}
	for k, v := range c.round {
		way[k] = v
	}
	post(t, "POST", r.base+"/api/v1/jobs/"+job+"/happenings", way, nil)
}

// toldLeaf is the leaf, or stack, that is told to drag.
var toldLeaf = regexp.MustCompile(`\d\.\d+( \+ \d\.\d+)*`)

// drive carries a job to the offer to sign by touch, doing the one thing that the bench shows largest, and
// counts the taps and how far the crank is turned before and after the full turns.
func (c played) drive(t *testing.T, p *tab, r *running, job string) (done rehearsal) {
	t.Helper()
	return c.driveBy(t, p, func() state { return stateOf(t, r.base, job) })
}

// driveBy does that by what is seen of the job, which need not be what the program has.
func (c played) driveBy(t *testing.T, p *tab, sees func() state) rehearsal {
	t.Helper()
	h := c.hands(t, p, sees)
	for range 400 {
		if !h.step() {
			return h.done
		}
	}
	t.Fatalf("the job does not come to an end; the page shows: %s", p.text())
	return h.done
}

// roundHands are who carries a job on, tap by tap.
type roundHands struct {
	played
	t      *testing.T
	p      *tab
	sees   func() state
	gaps   map[string]float64
	inHand string
	done   rehearsal
}

func (c played) hands(t *testing.T, p *tab, sees func() state) *roundHands {
	return &roundHands{played: c, t: t, p: p, sees: sees, gaps: map[string]float64{}}
}

func (h *roundHands) pick(leaf string) {
	if h.inHand != "" && leaf != h.inHand {
		h.done.Leaves++
	}
	h.inHand = leaf
}

// step does the one thing that is next; false: it is to sign.
func (h *roundHands) step() bool {
	h.t.Helper()
	p, s := h.p, h.sees()
	for _, v := range s.State.Valves {
		if strings.Contains(strings.Join(h.out, " "), v.Name) && v.Adjusted == 0 {
			h.gaps[v.Name] = v.Limits.Nominal + 0.2
		}
	}
	now, before := s.State.Now, s.State.Happenings
	switch now.Action {
	case "sign":
		return false
	case "turn", "bar_over":
		if s.State.Phase == "verify" {
			h.done.CheckTurn += now.TurnDeg
		} else {
			h.done.Turn += now.TurnDeg
		}
		p.press(capitalised(now.Instruction.Until))
	case "free":
		p.press("Screw is free")
	case "read":
		leaf, feel, _ := s.leafFor(h.gaps)
		h.pick(leaf)
		p.press(leaf + " " + feel)
	case "keep":
		p.press("Keep")
	case "adjust":
		if now.Tell != nil {
			h.pick(toldLeaf.FindString(now.Tell.Says))
			p.press(now.Tell.Says)
			if askedBack(h.t, p, h.sees, before) { // nobody sets a valve within five seconds: no tap at work
				p.press("Yes, all three")
			}
		} else {
			p.press(" is set")
		}
	case "lock":
		p.press("Nut locked")
	default:
		h.t.Fatalf("what to do at %s is not known; the page shows: %s", now.Action, p.text())
	}
	h.done.Gestures++
	waitSeen(h.t, p, h.sees, before)
	return true
}

// askedBack waits for what the bench makes of a valve that is told as set: it asks back where the verdict was
// only just given, and takes it where the machine was slow.
func askedBack(t *testing.T, p *tab, sees func() state, before int) (asked bool) {
	t.Helper()
	require.Eventually(t, func() bool {
		asked = p.MustHas(".now p[role=status] + div .tell")
		return asked || sees().State.Happenings > before
	}, limit, 20*time.Millisecond)
	return asked
}

func capitalised(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// Each round on the bench takes the taps and the turning that were rehearsed: a four with all in, all
// adjusters freed first, exhausts first and all checked, read only. By hand a four with all in is one slide
// of a leaf a valve and three half turns (common practice); other shapes are counted by hand in
// TestTwelveWholeJobsTakeWhatTheyTakeByHand.
func TestRoundsTakeWhatWasRehearsed(t *testing.T) {
	t.Parallel()
	set := map[string]any{"round": "set_as_you_go", "check": "set_ones"}
	for name, c := range map[string]played{
		"four, all in, the long tests": {engine: "brindlow-1600", school: "rocking_pairs", round: set,
			size: [2]int{1280, 800}},
		"freed first": {engine: "brindlow-1600", school: "rocking_pairs",
			round: map[string]any{"round": "free_first", "check": "none"}, size: [2]int{360, 740}},
		"exhausts first": {engine: "brindlow-1600", school: "one_cylinder",
			round: map[string]any{"round": "set_as_you_go", "check": "all", "one_kind_first": "exhaust"},
			out:   []string{"E3"}, size: [2]int{360, 740}},
		"read only, the long tests": {engine: "brindlow-1600", school: "one_cylinder",
			round: map[string]any{"round": "read_only"}, out: []string{"E3"}, size: [2]int{1280, 800}},
	} {
		if strings.HasSuffix(name, "the long tests") && !deep.On {
			continue
		}
		t.Run(name, func(t *testing.T) {
			t.Parallel()
			r := demo(t)
			job := c.begun(t, r)
			p := open(t, r, "/jobs/"+job, c.size[0], c.size[1])
			want, got := c.rehearsed(t, r), c.drive(t, p, r, job)
			assert.Equal(t, want.Gestures, got.Gestures, "taps")
			assert.Equal(t, want.Leaves, got.Leaves, "leaves picked up")
			assert.Equal(t, want.Turn, got.Turn, "degrees up to the last stop before the check")
			assert.Equal(t, want.CheckTurn, got.CheckTurn, "degrees for the check")
			for _, v := range stateOf(t, r.base, job).State.Valves {
				assert.Equal(t, c.round["round"] == "free_first", v.AsFound == nil, "%s as found", v.Name)
			}
			p.clean()
		})
	}
}

// A part of an engine: only the valves of the job are led to, the others need no reading, and the sheet tells
// them.
func TestAPartOfTheEngine(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "one_cylinder",
		round: map[string]any{"round": "set_as_you_go", "check": "set_ones", "scope": []string{"E4", "I4"}},
		out:   []string{"E4"}}
	job := c.begun(t, r)
	p := open(t, r, "/jobs/"+job, 1280, 800)
	done := c.drive(t, p, r, job)
	assert.Equal(t, 360.0, done.Turn, "from cylinder 1 to cylinder 4 and no further")
	p.way("Sheet")
	p.waits(`() => [...document.querySelectorAll('tbody tr')].filter(r => r.innerText.includes('not of `+
		`this job')).length === 6`,
		"six valves that are not of this job")
	p.shows("2 of 8 valves")
	p.clean()
}

// A screw that will not turn is left with its reason while the others are freed, and the sheet says that it
// was not read.
func TestAScrewThatWillNotTurn(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "brindlow-1600", school: "one_cylinder",
		round: map[string]any{"round": "free_first", "check": "none"}}
	job := c.begun(t, r)
	p := open(t, r, "/jobs/"+job, 1280, 800)
	p.says("Slacken E1")
	p.press("E1 will not turn")
	p.press("Adjuster seized")
	p.says("Slacken I1")
	c.drive(t, p, r, job)
	p.way("Sheet")
	p.waits(`() => [...document.querySelectorAll('tbody tr')].some(r => r.innerText.includes('E1') && `+
		`r.innerText.includes('not read: Adjuster seized'))`,
		"why E1 was not read")
	p.waits(`() => [...document.querySelectorAll('tbody tr')].some(r => r.innerText.includes('I1') && `+
		`r.innerText.includes('slackened before any was set'))`,
		"that I1 was freed")
	p.clean()
}
