package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"os"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"
)

// led is a run that the bench leads, driven over HTTP where the browser is not what is looked at.
type led struct {
	t    *testing.T
	at   string // address of the run
	acts int
	now  struct {
		practised
		Felt *struct{ Pull float64 }
	}
}

func (l *led) asks() {
	l.t.Helper()
	answer, err := http.Get(l.at)
	require.NoError(l.t, err)
	defer answer.Body.Close()
	require.NoError(l.t, json.NewDecoder(answer.Body).Decode(&l.now))
}

func (l *led) does(path string, body map[string]any) {
	l.t.Helper()
	l.acts++
	body["id"] = fmt.Sprintf("by-http-%04d", l.acts)
	text, err := json.Marshal(body)
	require.NoError(l.t, err)
	answer, err := http.Post(l.at+path, "application/json", bytes.NewReader(text))
	require.NoError(l.t, err)
	defer answer.Body.Close()
	l.now.Felt = nil
	require.NoError(l.t, json.NewDecoder(answer.Body).Decode(&l.now))
	require.Equal(l.t, 200, answer.StatusCode, "%s", text)
	l.asksOnly()
}

// asksOnly reads the job as it stands, and leaves what was felt.
func (l *led) asksOnly() {
	felt := l.now.Felt
	l.asks()
	l.now.Felt = felt
}

// turnsTo turns the crank to the stop that is next, and says so.
func (l *led) turnsTo() {
	l.t.Helper()
	if by := math.Mod(l.now.stop()-l.now.Eyes.Crank+720, 720); by > 0.01 {
		l.does("/hands", map[string]any{"turn_deg": by})
	}
	l.does("/happenings", map[string]any{"kind": "turned", "stop": l.now.View.State.Now.Stop})
}

// reads slides in what the bench advises, and says what was felt.
func (l *led) reads() {
	l.t.Helper()
	now := l.now.View.State.Now
	r, _ := l.now.View.rungFor(map[string]float64{})
	l.does("/hands", map[string]any{"slide": map[string]any{"valve": now.Valve, "leaves_mm": r.Leaves}})
	feel := "drag"
	if l.now.Felt.Pull <= 0 {
		feel = "free"
	} else if l.now.Felt.Pull >= 1 {
		feel = "wont_go"
	}
	l.does("/happenings", map[string]any{"kind": "reading", "valve": now.Valve, "leaves_mm": r.Leaves, "feel": feel, "keep_sure": true})
}

// until goes on as the bench leads, until something else is next than turning and reading, and counts what it
// did.
func (l *led) until() int {
	l.t.Helper()
	l.asks()
	for n := range 200 {
		switch l.now.View.State.Now.Action {
		case "turn":
			l.turnsTo()
		case "read":
			l.reads()
		case "keep":
			l.does("/happenings", map[string]any{"kind": "kept", "valve": l.now.View.State.Now.Valve})
		default:
			return n
		}
	}
	l.t.Fatal("it does not end")
	return 0
}

// On an engine with shims the bench leads: each size is turned to, had by hand and said, another shim is laid
// in as it says, where one goes straight from one valve to another both after each other, read again, and the
// run ends with every valve right.
func TestLedOnShimsInPractice(t *testing.T) {
	t.Parallel()
	r := demo(t)
	sheet, err := os.ReadFile("../internal/demo/engines/pellmark-1400.engine.json")
	require.NoError(t, err)
	post(t, "POST", r.base+"/api/v1/exercises", map[string]any{"format": "metronix.exercise/1", "name": "A shim goes on",
		"aid": "guided", "seed": 123456003, "sheet": json.RawMessage(sheet)}, nil)
	p := open(t, r, "/practice", 1280, 800)
	p.press("A shim goes on")
	p.press("Rocking pairs")
	p.press("Stood overnight")
	p.press("Made safe")
	p.says("until cylinder")
	l := &led{t: t, at: r.base + "/api/v1" + p.MustEval(`() => location.pathname`).Str()}
	l.until()
	fitted, straightOn := 0, 0
	for last := ""; l.now.View.State.Now.Action == "adjust"; {
		require.Less(t, fitted, 40)
		p.again()
		now := l.now.View.State.Now
		valve := now.Valve
		switch {
		case now.Shim != nil:
			require.Equal(t, "fit", now.Shim.Do)
			p.press("Take the shim of " + valve + " out")
			p.shows("by micrometer")
			l.does("/hands", map[string]any{"fit_shim": map[string]any{"valve": valve, "shim_mm": now.Shim.Size}})
			p.again()
			p.press("Fitted under " + valve)
			p.waits(`() => !document.body.innerText.includes('Fitted under `+valve+`')`, "it to be kept")
			if fitted++; last != "" {
				straightOn++
			}
			last = valve
		default:
			last = ""
			p.waits(`() => /Turn to where|goes back in before/.test(document.body.innerText)`, "its size to be asked")
			if strings.Contains(p.text(), "Turn to where "+valve) {
				p.press("Turn to where " + valve + " is clear")
				p.says("until")
				break
			}
			p.press("Take the shim of " + valve + " out")
			p.shows("by micrometer")
			size := strings.Fields(strings.Split(p.text(), "by micrometer")[1])[0]
			p.see(".shims")
			for _, k := range size {
				p.keys(input.Key(k))
			}
			p.shows("Shim under " + valve + ": " + size)
			p.press("Lay " + size + " in")
			p.shows("Take the shim of " + valve + " out")
			p.press("Save size")
			p.waits(`() => !document.body.innerText.includes('Shim under `+valve+`: `+size+`')`, "the size to be kept")
		}
		if l.until() > 0 {
			last = ""
		}
	}
	require.Equal(t, "sign", l.now.View.State.Now.Action)
	require.Positive(t, fitted)
	require.Positive(t, straightOn, "another was fitted before anything was read")
	l.does("/hands", map[string]any{"take_off": true})
	p.again()
	p.press("End the run")
	p.press("End it and show what was right")
	p.shows("16 of 16 valves ended right")
	require.NotContains(t, p.text(), "to talk about")
}
