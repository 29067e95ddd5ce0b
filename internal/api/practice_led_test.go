package api_test

import (
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// takes takes a valve's shim out, where it is not out already.
func (p *trainee) takes(valve string) {
	p.t.Helper()
	if !slices.Contains(p.now.Eyes.Shims.Bare, valve) {
		p.hand(map[string]any{"take_shim": valve})
	}
}

// shims does what the bench says of one: it is turned to, taken out and measured, or another is laid in.
func (p *trainee) shims() {
	p.t.Helper()
	var plan api.JobShims
	_, text := p.asks("GET", "/api/v1/practice/"+p.run+"/shims?prefer=fewest_bought", "")
	require.NoError(p.t, json.Unmarshal([]byte(text), &plan))
	now := p.now.State.Now
	at := slices.IndexFunc(p.now.State.Valves, func(v practisedValve) bool { return v.Name == now.Valve })
	v := p.now.State.Valves[at]
	fits := func(valve string, size any, from string, standIn bool) {
		p.takes(valve)
		if from != "" {
			p.takes(from)
		}
		p.hand(map[string]any{"fit_shim": map[string]any{"valve": valve, "shim_mm": size}})
		p.says(map[string]any{"kind": "adjusted", "valve": valve, "shim_mm": size, "from": from, "stand_in": standIn})
	}
	tries := slices.IndexFunc(plan.Impossible, func(l api.Lacking) bool { return l.Valve == now.Valve && l.TryMM > 0 })
	switch {
	case now.Shim != nil:
		require.NotEmpty(p.t, plan.Steps)
		assert.Equal(p.t, now.Shim.Valve, plan.Steps[0].Valve, "the choice is the one that leads")
		p.led[now.Shim.Do+map[bool]string{true: " from another valve"}[now.Shim.From != ""]]++
		fits(now.Shim.Valve, now.Shim.Size, now.Shim.From, now.Shim.Do == "stand_in")
	case !v.Settable && (v.Shim == 0 || tries >= 0):
		p.says(map[string]any{"kind": "picked", "valve": now.Valve})
		require.Equal(p.t, "turn", p.now.State.Now.Action)
	case v.Shim == 0:
		p.takes(now.Valve)
		size := p.now.Shim.MeasuredMM
		p.says(map[string]any{"kind": "sized", "valve": now.Valve, "shim_mm": size, "stamped_mm": p.now.Shim.StampedMM})
		p.hand(map[string]any{"fit_shim": map[string]any{"valve": now.Valve, "shim_mm": size}})
	case tries >= 0:
		fits(now.Valve, plan.Impossible[tries].TryMM, "", false)
	default:
		p.says(map[string]any{"kind": "left_as_is", "valve": now.Valve, "reason": "no shim serves it"})
	}
}

// On an engine with shims the bench leads in practice as on any: sizes are asked for and had by hand, the
// choice is asked of the run and of no job, and nothing that is hidden is in any answer before the end.
func TestLedOnShimsInPractice(t *testing.T) {
	d := withJob(t)
	var sheets map[string]any
	decode(t, sheet(t), &sheets)
	sheets["adjuster"] = map[string]any{"kind": "shim"}
	text, err := json.Marshal(sheets)
	require.NoError(t, err)
	d.ok("PUT", "/api/v1/engines/engine-sh", string(text))
	led := map[string]int{}
	goes := func(run, fields string) {
		p := &trainee{door: d, run: run, led: led}
		view := p.beginsOn(fields)
		assert.Equal(t, "guided", view.Aid)
		for i := 0; p.step(); i++ {
			require.Less(t, i, 200, "it does not end: %+v", p.now.State.Now)
		}
		score := p.ends("")
		assert.True(t, score.Signed)
		assert.Empty(t, score.Faults)
		assert.Equal(t, len(score.Valves), score.Correct)
		assert.NotNil(t, score.Best)
	}
	goes("practice-shims", `"engine_id":"engine-sh","card":0`)
	sheet, err := os.ReadFile("../demo/engines/pellmark-1400.engine.json")
	require.NoError(t, err)
	for _, seed := range []int{123456003, 123456004} { // a shim from one valve straight to another, and one that stands in
		made := d.ok("POST", "/api/v1/exercises", fmt.Sprintf(
			`{"format":"metronix.exercise/1","name":"By %d","aid":"guided","seed":%d,"sheet":%s}`, seed, seed, sheet))
		goes(fmt.Sprint("practice-by-", seed), fmt.Sprintf(`"exercise_id":%q`, made["id"]))
	}
	for _, do := range []string{"fit", "fit from another valve", "stand_in"} {
		assert.Positive(t, led[do], "%s, of %v", do, led)
	}
	status, said := d.send("GET", "/api/v1/jobs/practice-shims/shims", "")
	assert.Equal(t, 404, status, said)
}

// A hot engine was stopped as its run began, however late that is said, and the thermometer on it tells how
// warm it is: nobody is asked for a figure that he cannot have.
func TestLedOnAHotEngineInPractice(t *testing.T) {
	p := &trainee{door: withJob(t), run: "practice-hot"}
	_, text := p.asks("GET", "/api/v1/exercises", "")
	var list []api.ExerciseShort
	require.NoError(t, json.Unmarshal([]byte(text), &list))
	hot := slices.IndexFunc(list, func(x api.ExerciseShort) bool { return x.State == "hot" })
	require.NotEqual(t, -1, hot)
	status, text := p.asks("POST", "/api/v1/practice", `{"id":"practice-hot","exercise_id":"`+list[hot].ID+`","aid":"guided"}`)
	require.Equal(t, 200, status, text)
	p.says(map[string]any{"kind": "way_chosen", "school": "one_cylinder", "round": "set_as_you_go", "check": "none"})
	p.says(map[string]any{"kind": "engine_stopped"})
	_, text = p.asks("GET", "/api/v1/practice/practice-hot", "")
	var view api.PracticeView
	require.NoError(t, json.Unmarshal([]byte(text), &view))
	require.NotNil(t, view.View.State.StoppedAt)
	assert.Equal(t, view.Began, *view.View.State.StoppedAt)
	assert.InDelta(t, 88, view.Eyes.EngineC, 1, "as it was stopped, our own figure")
	p.says(map[string]any{"kind": "prepared", "engine_c": view.Eyes.EngineC, "ambient_c": view.Eyes.AmbientC})
	assert.Equal(t, "turn", p.now.State.Now.Action)
	for i := 0; p.step(); i++ {
		require.Less(t, i, 100, "it does not end: %+v", p.now.State.Now)
	}
	for _, f := range p.scored().Faults {
		assert.Equal(t, "out_left", f.Slip, f.Says)
	}
}
