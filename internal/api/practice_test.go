package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"log/slog"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/store"
	"metronix/internal/wire"
)

// trainee goes through a run over HTTP, and keeps every answer that came before its end.
type trainee struct {
	*door
	run   string
	n     int
	heard strings.Builder
	led   map[string]int // what it was led to do with shims
	now   struct {
		State struct {
			Now struct {
				Action, Valve string
				Stop          int
				Shim          *struct {
					Do    string
					Valve string
					Size  float64 `json:"shim_mm"`
					From  string
					Most  float64 `json:"most_mm"`
				}
				Ladder []struct {
					Leaves []float64 `json:"leaves_mm"`
					First  bool
				}
			}
			Plan *struct {
				Stops []struct {
					Crank float64 `json:"crank_deg"`
				}
			}
			Valves []practisedValve
		}
		Eyes api.Eyes
		Felt *api.FeltView
		Shim *api.FoundShim
	}
}

// practisedValve is one valve as the bench shows it.
type practisedValve struct {
	Name      string
	Settable  bool
	Shim      float64 `json:"shim_mm"`
	Judgement *struct {
		TryNext []float64 `json:"try_next_mm"`
	}
}

func (p *trainee) asks(method, path, body string) (int, string) {
	p.t.Helper()
	status, text := p.send(method, path, body)
	p.heard.WriteString(text)
	return status, text
}

func (p *trainee) does(path string, body map[string]any) {
	p.t.Helper()
	p.n++
	body["id"] = fmt.Sprintf("act-%05d", p.n)
	text, err := json.Marshal(body)
	require.NoError(p.t, err)
	status, said := p.asks("POST", "/api/v1/practice/"+p.run+path, string(text))
	require.Equal(p.t, 200, status, "%s: %s", text, said)
	p.now.Felt, p.now.Shim, p.now.State.Now.Shim, p.now.Eyes.Shims = nil, nil, nil, nil
	require.NoError(p.t, json.Unmarshal([]byte(said), &p.now))
}

func (p *trainee) hand(body map[string]any) { p.t.Helper(); p.does("/hands", body) }
func (p *trainee) says(body map[string]any) { p.t.Helper(); p.does("/happenings", body) }

// word is what a pull is called.
func word(pull float64) string {
	switch {
	case pull <= 0:
		return "free"
	case pull >= 1:
		return "wont_go"
	}
	return "drag"
}

// step does what the bench says is next; false: nothing is.
func (p *trainee) step() bool {
	now := p.now.State.Now
	switch now.Action {
	case "choose_way":
		p.says(
			map[string]any{
				"kind":   "way_chosen",
				"school": "rocking_pairs",
				"round":  map[bool]string{true: "read_first", false: "set_as_you_go"}[p.now.Eyes.Shims != nil],
				"check":  "none",
			},
		)
	case "prepare":
		p.says(map[string]any{"kind": "prepared", "engine_c": 20, "ambient_c": 20})
	case "turn":
		by := p.now.State.Plan.Stops[now.Stop].Crank - float64(p.now.Eyes.CrankDeg)/1e6
		if by <= 0 {
			by += 720
		}
		p.hand(map[string]any{"turn_deg": by})
		p.says(map[string]any{"kind": "turned", "stop": now.Stop})
	case "read":
		leaf := now.Ladder[0].Leaves
		for _, rung := range now.Ladder {
			if rung.First {
				leaf = rung.Leaves
			}
		}
		for _, v := range p.now.State.Valves {
			if v.Name == now.Valve && v.Judgement != nil && len(v.Judgement.TryNext) > 0 {
				leaf = v.Judgement.TryNext
			}
		}
		p.hand(map[string]any{"slide": map[string]any{"valve": now.Valve, "leaves_mm": leaf}})
		p.says(
			map[string]any{
				"kind":      "reading",
				"valve":     now.Valve,
				"leaves_mm": leaf,
				"feel":      word(p.now.Felt.Pull),
				"keep_sure": true,
			},
		)
	case "keep":
		p.says(map[string]any{"kind": "kept", "valve": now.Valve})
	case "adjust":
		if p.now.Eyes.Shims != nil {
			p.shims()
			break
		}
		p.says(map[string]any{"kind": "left_as_is", "valve": now.Valve, "reason": "looked at only"})
	case "sign":
		p.hand(map[string]any{"take_off": true})
		p.says(map[string]any{"kind": "signed", "by": "Ivo Lund", "tools_out": true})
	default:
		return false
	}
	return true
}

// begins begins the run on an engine, and reads where it stands.
func (p *trainee) begins(engine string) (view api.PracticeView) {
	p.t.Helper()
	return p.beginsOn(fmt.Sprintf(`"engine_id":%q,"card":0`, engine))
}

// beginsOn does the same on what some fields name.
func (p *trainee) beginsOn(fields string) (view api.PracticeView) {
	p.t.Helper()
	status, text := p.asks("POST", "/api/v1/practice", fmt.Sprintf(`{"id":%q,%s}`, p.run, fields))
	require.Equal(p.t, 200, status, text)
	_, text = p.asks("GET", "/api/v1/practice/"+p.run, "")
	require.NoError(p.t, json.Unmarshal([]byte(text), &view))
	raw, err := json.Marshal(view.View)
	require.NoError(p.t, err)
	require.NoError(p.t, json.Unmarshal(raw, &p.now))
	p.now.Eyes = view.Eyes
	return view
}

// scored ends the run.
func (p *trainee) scored() (score api.PracticeScore) {
	p.t.Helper()
	status, text := p.send("POST", "/api/v1/practice/"+p.run+"/end", "")
	require.Equal(p.t, 200, status, text)
	require.NoError(p.t, json.Unmarshal([]byte(text), &score))
	return score
}

// ends ends the run, and holds what is told then against all that was heard and logged before: nothing of it
// was in there.
func (p *trainee) ends(logged string) (score api.PracticeScore) {
	p.t.Helper()
	heard := p.heard.String() + logged
	stored, _, err := p.st.Practice(p.run)
	require.NoError(p.t, err)
	var hidden struct{ Seed string }
	require.NoError(p.t, json.Unmarshal([]byte(stored.Exercise), &hidden))
	require.NotEmpty(p.t, hidden.Seed)
	score = p.scored()
	for _, v := range score.Valves {
		for _, mm := range []wire.MM{v.FoundMM, v.LeftMM} { // to the nanometre: no leaf is so by chance
			text, err := json.Marshal(mm)
			require.NoError(p.t, err)
			require.Greater(p.t, len(text), 4, mm)
			assert.NotContains(p.t, heard, string(text), v.Valve)
		}
	}
	assert.NotContains(p.t, heard, hidden.Seed)
	return score
}

// A run on a practice engine goes from its beginning to its score over HTTP; nothing that is hidden leaves
// the program before it has ended, in no answer, no refusal and no log; sent twice an act counts once, and
// after a restart the run stands where it stood.
func TestAPracticeRun(t *testing.T) {
	var logged bytes.Buffer
	before := slog.Default()
	slog.SetDefault(slog.New(slog.NewTextHandler(&logged, nil)))
	defer slog.SetDefault(before)
	p := &trainee{door: withJob(t), run: "practice-0001"}
	p.begins("engine-01")
	view := p.begins("engine-01") // its answer was lost

	status, text := p.asks("GET", "/api/v1/practice/practice-0001/score", "")
	assert.Equal(t, 409, status, text)
	for body, want := range map[string]string{
		`{"id":"x1","screw":{"valve":"E1","by_deg":20}}`: "loosen it first",
		`{"id":"x2","turn_deg":20,"loosen":"E1"}`:        "One thing is done at a time",
		`{"id":"x3"}`: "One thing is done at a time",
		`{"id":"x4","slide":{"valve":"E1","leaves_mm":[0.123]}}`:        "no leaf",
		`{"id":"x5","slide":{"valve":"E1","leaves_mm":[0.3]},"seed":1}`: "seed",
	} {
		status, text := p.asks("POST", "/api/v1/practice/practice-0001/hands", body)
		assert.Equal(t, 422, status, text)
		assert.Contains(t, text, want)
	}
	for i := 0; p.step(); i++ {
		require.Less(t, i, 100, "it does not end: %+v", p.now.State.Now)
	}
	stood := p.now
	p.n--
	p.says(map[string]any{"kind": "signed", "by": "Ivo Lund", "tools_out": true}) // the same once more
	assert.Equal(t, stood.State, p.now.State)
	again := &door{t, api.Handler(p.st, api.Options{}), p.st, p.path}
	_, text = again.send("GET", "/api/v1/practice/practice-0001", "")
	p.heard.WriteString(text)
	var reopened api.PracticeView
	require.NoError(t, json.Unmarshal([]byte(text), &reopened))
	assert.Equal(t, stood.Eyes, reopened.Eyes)
	assert.Equal(t, "done", reopened.View.State.Phase)

	score := p.ends(logged.String())
	assert.True(t, score.Signed)
	assert.Len(t, score.Valves, len(view.View.State.Valves))
	for _, f := range score.Faults {
		assert.Equal(t, "out_left", f.Slip, f.Says)
	}

	status, _ = p.send("POST", "/api/v1/practice/practice-0001/hands", `{"id":"late","turn_deg":20}`)
	assert.Equal(t, 409, status)
	_, text = p.send("GET", "/api/v1/practice", "")
	assert.Contains(t, text, `"correct":`)
	status, text = p.send("GET", "/api/v1/jobs", "")
	require.Equal(t, 200, status)
	assert.NotContains(t, text, "practice", "it is no job of the workshop")
	assert.NotContains(t, text, "Ivo Lund")
}

// A learner sees and ends his own runs; a tutor sees everybody's and does nothing in them; a reader begins
// none.
func TestWhosePracticeItIs(t *testing.T) {
	c := peopled(t)
	june, tess, ivo, rae := c.in("june"), c.in("tess"), c.in("ivo"), c.in("rae")
	begin := func(who func(*http.Request), id string) int {
		status, _ := c.as(who, "POST", "/api/v1/practice", `{"id":"`+id+`","engine_id":"engine-01","card":0}`)
		return status
	}
	require.Equal(t, 200, begin(ivo, "practice-ivo1"))
	require.Equal(t, 200, begin(tess, "practice-tess"))
	assert.Equal(t, 403, begin(rae, "practice-rae1"))
	gets := func(who func(*http.Request), path string) (int, string) {
		return c.as(who, "GET", "/api/v1/practice"+path, "")
	}
	_, text := gets(ivo, "")
	assert.Contains(t, text, "practice-ivo1")
	assert.NotContains(t, text, "practice-tess")
	status, _ := gets(ivo, "/practice-tess")
	assert.Equal(t, 404, status)
	_, text = gets(june, "")
	assert.Contains(t, text, "practice-ivo1")
	assert.Contains(t, text, "practice-tess")
	status, _ = gets(june, "/practice-ivo1")
	assert.Equal(t, 200, status)
	status, text = c.as(june, "POST", "/api/v1/practice/practice-ivo1/hands", `{"id":"a1","turn_deg":90}`)
	assert.Equal(t, 403, status, text)
	status, _ = c.as(june, "POST", "/api/v1/practice/practice-ivo1/end", "")
	assert.Equal(t, 403, status)
	status, text = c.as(ivo, "POST", "/api/v1/practice/practice-ivo1/hands", `{"id":"a1","turn_deg":90}`)
	assert.Equal(t, 200, status, text)
	runs, err := c.st.Practices("", true, 10)
	require.NoError(t, err)
	assert.Len(t, runs, 2)
	assert.ErrorIs(
		t,
		func() error { _, _, err := c.st.Practice("nothing-here"); return err }(),
		store.ErrNotFound,
	)
}
