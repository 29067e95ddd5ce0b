package e2e

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// practised is a run as anybody sees it.
type practised struct {
	View state
	Eyes struct {
		Crank float64 `json:"crank_deg"`
	}
}

// A run on a practice engine, with pointer and keys: its crank is turned until what is to be seen is seen, the leaf is slid in and what was felt
// is said; after a reload it stands where it stood; at the end what was hidden is told. Nothing of it is a job of the workshop.
func TestPracticeFromTheFirstLeafToTheScore(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/practice", 1280, 800)
	p.MustElementR("button", "Brindlow 1600").MustClick()
	p.shows("How do you go round it?")
	path := p.MustEval(`() => location.pathname`).Str()
	now := func() (s practised) {
		answer, err := http.Get(r.base + "/api/v1" + path)
		require.NoError(t, err)
		defer answer.Body.Close()
		require.NoError(t, json.NewDecoder(answer.Body).Decode(&s))
		return s
	}
	p.press("Rocking pairs")
	p.press("Stood overnight")
	p.press("Made safe")
	p.says("until cylinder")
	toStop := func() {
		t.Helper()
		s := now()
		require.Equal(t, "turn", s.View.State.Now.Action)
		left := math.Mod(s.stop()-s.Eyes.Crank+720, 720)
		p.see(".ring").MustFocus()
		for ; left > 8; left = math.Mod(s.stop()-now().Eyes.Crank+720, 720) {
			if left > 715 {
				break
			}
			before := now().Eyes.Crank
			if left >= 30 {
				p.keys(input.ArrowUp)
			} else {
				p.keys(input.ArrowRight)
			}
			require.Eventually(
				t,
				func() bool { return now().Eyes.Crank != before },
				limit,
				50*time.Millisecond,
			)
		}
		p.see(".now .foot").MustElementR("button", "rocks").MustClick()
		require.Eventually(
			t,
			func() bool { return now().View.State.Now.Action == "read" },
			limit,
			50*time.Millisecond,
		)
	}
	toStop()
	p.MustEval(
		`() => { const asks = window.fetch; window.fetch = async (...of) => { const got = await asks(...of)
		if (of[0].url?.includes('/hands')) window.felt = (await got.clone().json()).felt?.pull
		return got } }`,
	)
	reads := func() {
		t.Helper()
		valve := now().View.State.Now.Valve
		for try := 0; now().View.State.Now.Action == "read" && now().View.State.Now.Valve == valve; try++ {
			require.Less(t, try, 8, "it is decided in a few leaves")
			said := now().View.State.Happenings
			p.MustEval(`() => { window.felt = undefined }`)
			p.press("Slide it into " + valve)
			p.waits(`() => window.felt !== undefined`, "the leaf to be felt")
			pull := p.MustEval(`() => window.felt`).Num()
			feel := "drag"
			if pull <= 0 {
				feel = "free"
			} else if pull >= 1 {
				feel = "won’t go"
			}
			leaf := strings.TrimSpace(p.see(`[aria-label="The leaf in your hand"] b`).MustText())
			p.press(fmt.Sprintf("%s %s", leaf, feel))
			require.Eventually(
				t,
				func() bool { return now().View.State.Happenings > said },
				limit,
				50*time.Millisecond,
			)
		}
	}
	first := now().View.State.Now.Valve
	reads()
	said := now()
	require.NotEqual(t, first+"read", said.View.State.Now.Valve+said.View.State.Now.Action)
	p.visit(path)
	p.shows("End the run")
	assert.Equal(t, said, now(), "after a reload it stands where it stood")
	p.clean()

	p.press("End the run")
	p.press("End it and show what was right")
	p.shows("of 8 valves ended right")
	p.shows("were never read")
	text := p.text()
	for _, slip := range []string{"lobe was not clear", "otherwise than it was felt", "without that leaf", "whole turn out", "stood"} {
		assert.NotContains(t, text, slip)
	}
	p.press("Practise again")
	p.shows("to talk about")
	p.visit("/")
	p.shows("Quarry tipper 7")
	assert.NotContains(t, p.text(), "Practice engine")
}

// stop is where the crank is to stand.
func (s practised) stop() float64 { return s.View.State.Plan.Stops[s.View.State.Now.Stop].Crank }
