package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"math"
	"net"
	"net/http"
	"slices"
	"strconv"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/instrument"
)

// simulated is an instrument that is worked by the test, and its address.
func simulated(t *testing.T, k instrument.Kind) (*instrument.Bench, string) {
	t.Helper()
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	b := &instrument.Bench{Kind: k, Speed: 120}
	ctx, stop := context.WithCancel(context.Background())
	done := make(chan error, 1)
	go func() { done <- b.Serve(ctx, listener) }()
	t.Cleanup(func() { stop(); assert.NoError(t, <-done) })
	return b, listener.Addr().String()
}

// equipped sets up all instruments on the workshop's page.
func equipped(t *testing.T, p *tab) map[instrument.Kind]*instrument.Bench {
	t.Helper()
	all := map[instrument.Kind]*instrument.Bench{}
	p.visit("/shop")
	for k, label := range map[instrument.Kind]string{instrument.Crank: "Crank encoder", instrument.Dial: "Dial indicator",
		instrument.Wrench: "Torque wrench", instrument.Pull: "Pull scale"} {
		b, address := simulated(t, k)
		all[k] = b
		p.fill(label, address)
	}
	p.press("Save the addresses")
	for _, shows := range []string{"Shows 0°, and stands.", "Shows 0 mm.", "Shows 0 N·m.", "Shows 0 N."} {
		p.shows(shows)
	}
	return all
}

// A job with all instruments at the engine: the drawn crank follows the encoder, the button for having turned
// waits until it stands, a press fills in what the dial reads, the wrench's click and a leaf's pull are said;
// and nothing stands in the job that was not confirmed. Without them work goes on by hand.
func TestAJobWithInstruments(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/", 1280, 800)
	at := equipped(t, p)
	const job = "demo-job-pump"
	p.visit("/jobs/" + job)
	p.see(".then")
	p.shows("The crank encoder is followed from the next place that you confirm.")
	p.see(".go:not([aria-disabled=true])")
	p.keys(input.Enter) // it stands at the first stop
	p.says("Screw I5 out")
	moves := stateOf(t, r.base, job).State
	require.NoError(t, at[instrument.Crank].Do("by", "40"))
	p.shows("By the encoder the crank was turned by 40° since its place was confirmed. If it was, say that it moved.")
	require.NoError(t, at[instrument.Crank].Do("by", "-40"))
	p.waits(`() => !document.body.textContent.includes('By the encoder the crank was turned')`, "it to stand where it stood")
	assert.Equal(t, moves.Happenings, stateOf(t, r.base, job).State.Happenings, "nothing was entered by itself")

	p.keys(input.Enter) // set, and then the nut
	p.says("Lock I5")
	p.shows("The wrench shows 0 N·m")
	require.NoError(t, at[instrument.Wrench].Do("press", "40"))
	p.shows("The wrench clicked at 40 N·m")
	p.keys(input.Enter)
	p.says("I5")
	require.NoError(t, at[instrument.Pull].Do("press", "2.6"))
	p.shows("2.6 N")
	p.shows("by your limits: drag")
	require.NoError(t, at[instrument.Dial].Do("press", "0.412"))
	p.waits(`() => [...document.querySelectorAll('.dial input')].some(i => i.value === '0.41' || i.value === '0.412')`,
		"the figure to be filled in")
	before := stateOf(t, r.base, job).State.Happenings
	p.press("Record")
	require.Eventually(t, func() bool { return stateOf(t, r.base, job).State.Happenings == before+1 }, limit, 20*time.Millisecond)
	p.shows("0.412")

	p.waits(`() => !document.body.textContent.includes('by your limits')`, "what was said of another leaf to be gone")

	require.NoError(t, at[instrument.Pull].Do("silent"))
	p.shows("The pull scale is lost: it fell silent. Work goes on by hand.")
	p.clean()
}

// standsAt says whether the encoder stands at a count, degrees.
func standsAt(t *testing.T, r *running, count float64) bool {
	t.Helper()
	type shown struct {
		Kind  string
		Value float64
		Still bool
	}
	var told struct{ List []shown }
	require.Equal(t, 200, get(t, r.base+"/api/v1/instruments", &told))
	return slices.ContainsFunc(told.List, func(i shown) bool {
		return i.Kind == "crank" && i.Still && math.Abs(i.Value-count) < 0.1
	})
}

// A whole job with all four, from the first stop to the signature: the encoder is turned as far as the bench
// says, every leaf is pulled by the scale before its feel is tapped, the wrench clicks before a valve is told
// as set and locked; it takes the taps, the turning and the leaves that it takes by hand.
func TestAWholeJobWithInstruments(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/", 1024, 768)
	at := equipped(t, p)
	j := twelve()[0]
	j.owned(t, r)
	job := j.stored(t, r)
	j.brought(t, r, job)
	p.visit("/jobs/" + job)
	p.see(".rung.cursor")
	h := j.hands(t, p, func() state { return stateOf(t, r.base, job) })
	bound, turned := false, 0.0
	pulls := map[string]string{"free": "0.3", "drag": "2.4", "won’t go": "12"}
	for steps := 0; ; steps++ {
		require.Less(t, steps, 200)
		s := h.sees()
		switch now := s.State.Now; now.Action {
		case "turn", "bar_over":
			require.NoError(t, at[instrument.Crank].Do("by", strconv.FormatFloat(now.TurnDeg, 'f', 1, 64)))
			turned += now.TurnDeg
			require.Eventually(t, func() bool { return standsAt(t, r, turned) }, limit, 50*time.Millisecond)
			if bound {
				p.shows("By the encoder it stands there.")
			}
			bound = true // from the place that is confirmed now
		case "read":
			_, feel, _ := s.leafFor(h.gaps)
			require.NoError(t, at[instrument.Pull].Do("press", pulls[feel]))
			p.shows("by your limits: " + feel)
		case "adjust":
			require.NoError(t, at[instrument.Wrench].Do("press", "20"))
		}
		if !h.step() {
			break
		}
	}
	assert.True(t, bound)
	assert.Equal(t, j.by.taps, h.done.Gestures, "taps")
	assert.Equal(t, j.by.turn, h.done.Turn, "degrees")
	assert.Equal(t, j.by.leavesPicked, h.done.Leaves, "leaves picked up")
	p.shows("Account for all tools")
	p.clean()
}

// The one at the crank sees how far is to go by the encoder, and his button waits until the crank stands.
func TestTheHelperSeesTheEncoder(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/", 1280, 800)
	at := equipped(t, p)
	const job = "demo-job-tipper"
	type happening = map[string]any
	do := func(id string, h happening) {
		h["id"] = id
		text, err := json.Marshal(h)
		require.NoError(t, err)
		answer, err := http.Post(r.base+"/api/v1/jobs/"+job+"/happenings", "application/json", bytes.NewReader(text))
		require.NoError(t, err)
		defer answer.Body.Close()
		require.Equal(t, http.StatusOK, answer.StatusCode)
	}
	s := stateOf(t, r.base, job).State
	do("instrument-0001", happening{"kind": "doubted"})
	do("instrument-0002", happening{"kind": "turned", "stop": s.Now.Stop})
	s = stateOf(t, r.base, job).State
	for n := 3; s.Now.Action != "turn"; n++ {
		do("instrument-000"+string(rune('0'+n)), happening{"kind": "left_as_is", "valve": s.Now.Valve, "reason": "another day"})
		s = stateOf(t, r.base, job).State
	}
	helper := open(t, r, "/jobs/"+job+"/crank", 390, 780)
	helper.shows("Wait")
	p.visit("/jobs/" + job)
	p.shows("at the crank")
	p.press("Hands clear")
	helper.shows("There")
	require.NoError(t, at[instrument.Crank].Do("by", "170"))
	helper.shows("It turns…")
	p.shows("The crank turns…")
	helper.shows("10°")
	helper.shows("By the encoder it stands, 10° short.")
	require.NoError(t, at[instrument.Crank].Do("by", "9"))
	helper.shows("By the encoder it stands there.")
	helper.press("There")
	helper.shows("Wait")
}

// At a practice engine a handle with an encoder turns the crank, once it was taken up by a tap, and what it
// jumps is not turned.
func TestAHandleAtThePracticeEngine(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/", 1280, 800)
	handle := equipped(t, p)[instrument.Crank]
	require.NoError(t, handle.Do("by", "15")) // before it is taken up
	p.visit("/practice")
	p.press("Watched: only warned")
	p.press("On an engine of the library")
	p.press("Brindlow 1600")
	p.shows("Turn it by the encoder")
	l := &led{t: t, at: r.base + "/api/v1" + p.MustEval(`() => location.pathname`).Str()}
	l.asks()
	from := l.now.Eyes.Crank
	stands := func(at float64) {
		t.Helper()
		require.Eventually(t, func() bool {
			l.asks()
			return math.Abs(math.Mod(l.now.Eyes.Crank-at+1080, 720)-360) < 0.2
		}, limit, 50*time.Millisecond, "it stands at %v", at)
	}
	p.press("Turn it by the encoder")
	p.shows("The encoder turns it")
	require.NoError(t, handle.Do("by", "90"))
	stands(from + 90)
	require.NoError(t, handle.Do("by", "-40"))
	stands(from + 50)
	require.NoError(t, handle.Do("jump", "500"))
	p.shows("The crank encoder jumped, or was lost for a moment. It is followed again from where it is.")
	require.NoError(t, handle.Do("by", "10"))
	stands(from + 60)
}
