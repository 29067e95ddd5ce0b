package e2e

import (
	"encoding/json"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// From an empty file to the first judged reading: an engine made where the job is started, feelers as they
// are sold, a vehicle by name; a gesture is a tap or a filled field. What is taken from a pattern is
// confirmed at the ports before the first verdict, and not asked for again.
func TestTheFirstHourInThirtyGestures(t *testing.T) {
	t.Parallel()
	for _, size := range [][2]int{{1280, 800}, {360, 740}} {
		r := started(t, "serve", filepath.Join(t.TempDir(), "own.db"))
		p := open(t, r, "/", size[0], size[1])
		began, filled := time.Now(), 0
		fill := func(label, text string) { filled++; p.fill(label, text) }
		p.shows("It judges each reading")
		p.press("Start a job")
		fill("Name in the workshop", "Orchard sprayer")
		p.press("6")
		p.press("Inline 6 · 1-5-3-6-2-4")
		p.tap(`[aria-label="One row, from the front E I I E"]`)
		fill("Intake clearance", "0.22–0.28")
		p.shows("Say which unit the figures are in.")
		fill("Exhaust clearance", "0.40 ± 0.04")
		p.press("mm")
		p.press("cold")
		p.press("Maker’s book")
		p.shows("Assumed until you say otherwise")
		p.shows("It runs clockwise")
		p.shows("A typical road cam")
		p.press("Add the vehicle")
		p.press("0.05 to 1.00 by 0.05")
		fill("Mechanic", "Ana Brandt")
		p.press("Start the job")
		p.says("Choose")
		p.press("Use this sequence")
		p.says("temperature")
		p.press("Stood overnight")
		p.says("Make the vehicle safe")
		p.press("Made safe")
		p.says("are the kinds as drawn?")
		p.press("The kinds are as drawn")
		p.says("until")
		p.press("Cylinder 6 rocks")
		p.says("Read E1")
		p.press("0.40 drag")
		p.waits(`() => document.querySelector('.strip.kept')?.textContent.includes('E1') || `+
			`document.querySelector('.now .verdict, .strip.verdict')`, "a verdict on E1")
		gestures := p.taps + filled
		assert.LessOrEqual(t, gestures, 30)
		assert.Less(t, time.Since(began), 2*time.Minute)
		t.Logf("%dx%d: %d gestures, %.1f s", size[0], size[1], gestures, time.Since(began).Seconds())
		p.visit("/engines")
		var engines []struct{ ID string }
		require.Equal(t, 200, get(t, r.base+"/api/v1/engines", &engines))
		require.Len(t, engines, 1)
		var whole struct{ Sheet map[string]any }
		require.Equal(t, 200, get(t, r.base+"/api/v1/engines/"+engines[0].ID, &whole))
		assert.NotContains(t, whole.Sheet, "kinds_to_confirm", "it is not asked for again")
		p.clean()
	}
}

// Where the ports say otherwise than the pattern, the sheet is corrected, the job takes it, and it is asked
// again of the head as it is now.
func TestKindsThatStandOtherwise(t *testing.T) {
	t.Parallel()
	r := demo(t)
	sheet, err := os.ReadFile("../internal/demo/engines/brindlow-1600.engine.json")
	require.NoError(t, err)
	var pattern map[string]any
	require.NoError(t, json.Unmarshal(sheet, &pattern))
	pattern["name"], pattern["kinds_to_confirm"] = "From a pattern", true
	post(t, "PUT", r.base+"/api/v1/engines/from-a-pattern", pattern, nil)
	job := played{engine: "from-a-pattern", school: "two_stop"}.stored(t, r)
	played{school: "two_stop"}.choose(t, r, job)
	for _, h := range []map[string]any{{"id": "prepared-0001", "kind": "prepared", "engine_c": 19, "ambient_c": 18},
		{"id": "safe-0001", "kind": "task", "task": "safe"}} {
		post(t, "POST", r.base+"/api/v1/jobs/"+job+"/happenings", h, nil)
	}
	p := open(t, r, "/jobs/"+job, 1280, 800)
	p.says("are the kinds as drawn?")
	p.press("They stand otherwise…")
	p.see(".editor")
	p.tap(`[data-valve="E1"] .hit`) // the first of the row is an intake, the second an exhaust
	p.see(`[data-valve="I1b"]`)
	p.tap(`[data-valve="I1b"] .hit`)
	p.waits(`() => document.querySelector('[data-valve="I1"]')`, "the kinds to be the other way round")
	p.press("Save")
	p.press("Take it into the job")
	p.press("Save the correction")
	p.says("are the kinds as drawn?")
	s := stateOf(t, r.base, job)
	assert.Equal(t, "I1", s.State.Valves[0].Name, "the front one")
	assert.Equal(t, "E1", s.State.Valves[1].Name)
	p.press("The kinds are as drawn")
	p.says("until")
	p.clean()
}

// The demo is tried beside one's own workshop, on its own port: nothing of it comes over, and one tap leads
// back.
func TestTheDemoIsTriedBesideTheOwnWorkshop(t *testing.T) {
	t.Parallel()
	r := started(t, "serve", filepath.Join(t.TempDir(), "own.db"))
	p := open(t, r, "/", 1280, 800)
	p.press("Try it on the demo’s tipper")
	p.says("E3: try")
	p.press("The demo’s workshop. Back to your own")
	p.shows("It judges each reading")
	var jobs []struct{ ID string }
	require.Equal(t, 200, get(t, r.base+"/api/v1/jobs", &jobs))
	assert.Empty(t, jobs)
	assert.NotContains(t, p.text(), "Back to your own")
	assert.Empty(t, p.spoken, "the console is clean, in both workshops")
}
