package e2e

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
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

// until goes on as the bench leads, until something else is next than turning and reading.
func (l *led) until() {
	l.t.Helper()
	l.asks()
	for range 200 {
		switch l.now.View.State.Now.Action {
		case "turn":
			l.turnsTo()
		case "read":
			l.reads()
		case "keep":
			l.does("/happenings", map[string]any{"kind": "kept", "valve": l.now.View.State.Now.Valve})
		default:
			return
		}
	}
	l.t.Fatal("it does not end")
}

// On an engine with shims the bench leads: each size is turned to, had by hand and said, another shim is laid
// in as it says, read again, and the run ends with every valve right.
func TestLedOnShimsInPractice(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/practice", 1280, 800)
	p.press("On an engine of the library")
	p.press("Pellmark 1400")
	p.press("Rocking pairs")
	p.press("Stood overnight")
	p.press("Made safe")
	p.says("until cylinder")
	l := &led{t: t, at: r.base + "/api/v1" + p.MustEval(`() => location.pathname`).Str()}
	l.until()
	fitted := 0
	for turns := 0; l.now.View.State.Now.Action == "adjust"; turns++ {
		require.Less(t, turns, 80)
		p.again()
		valve := l.now.View.State.Now.Valve
		p.waits(`() => /Turn to where|goes back in before|Fitted under|Tried|Stays under|Leave /.test(document.body.innerText)`, "the choice of shims")
		text := p.text()
		switch {
		case strings.Contains(text, "Turn to where "+valve):
			p.press("Turn to where " + valve + " is clear")
			p.says("until")
		case strings.Contains(text, "goes back in before"):
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
		case strings.Contains(text, "Fitted under "+valve), strings.Contains(text, "Tried "):
			p.press("Take the shim of " + valve + " out")
			p.shows("by micrometer")
			said := p.MustElementR("button", "Fitted under "+valve+"|under "+valve).MustText()
			var want float64
			_, err := fmt.Sscanf(strings.NewReplacer("Tried ", "", "Fit ", "").Replace(said+" "), "%f", &want)
			if err != nil {
				_, err = fmt.Sscanf(strings.TrimPrefix(p.headline(), "Fit "), "%f", &want)
			}
			require.NoError(t, err, "%s / %s", said, p.headline())
			l.does("/hands", map[string]any{"fit_shim": map[string]any{"valve": valve, "shim_mm": want}})
			p.again()
			p.press("under " + valve)
			fitted++
			p.waits(`() => !/Fitted under|Tried/.test(document.body.innerText)`, "it to be kept")
		default:
			t.Fatalf("%s: %s", p.headline(), text)
		}
		l.until()
	}
	require.Equal(t, "sign", l.now.View.State.Now.Action)
	require.Positive(t, fitted)
	l.does("/hands", map[string]any{"take_off": true})
	p.again()
	p.press("End the run")
	p.press("End it and show what was right")
	p.shows("16 of 16 valves ended right")
	require.NotContains(t, p.text(), "to talk about")
}
