package api_test

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"net"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/instrument"
)

// simulated is an instrument that the workshop has set up.
func (d *door) simulated(k instrument.Kind) *instrument.Bench {
	d.t.Helper()
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(d.t, err)
	b := &instrument.Bench{Kind: k, Speed: 500}
	ctx, stop := context.WithCancel(context.Background())
	done := make(chan error, 1)
	go func() { done <- b.Serve(ctx, listener) }()
	d.t.Cleanup(func() { stop(); assert.NoError(d.t, <-done) })
	at := map[string]string{"crank": "", "dial": "", "wrench": "", "pull": ""}
	at[string(k)] = listener.Addr().String()
	status, text := d.send("PUT", "/api/v1/instruments", jsonOf(d.t, at))
	require.Equal(d.t, 200, status, text)
	return b
}

func (d *door) instruments() (v api.InstrumentsView) {
	d.t.Helper()
	_, text := d.send("GET", "/api/v1/instruments?job=job-0001", "")
	decode(d.t, text, &v)
	return v
}

// encoder waits for what the crank encoder says of the job.
func (d *door) encoder(says string) *api.EncoderSeen {
	d.t.Helper()
	require.Eventually(d.t, func() bool { c := d.instruments().Crank; return c != nil && c.Says == says },
		10*time.Second, 20*time.Millisecond, "%q; it says %+v", says, d.instruments().Crank)
	return d.instruments().Crank
}

// A crank encoder is followed from the place that the mechanic confirmed, says how far is to go, when the
// crank stands there and where it does not, and that it was turned unasked. Nothing is taken by itself:
// without a word from the mechanic the job stands where it stood. A jump, a doubt and a loss end it, and work
// goes on.
func TestACrankEncoderAtAJob(t *testing.T) {
	d := withJob(t)
	d.happen(1, `"kind":"way_chosen","school":"rocking_pairs"`)
	d.happen(2, `"kind":"prepared","engine_c":19,"ambient_c":18`)
	b := d.simulated(instrument.Crank)
	c := d.encoder("The crank encoder is followed from the next place that you confirm.")
	assert.Nil(t, c.CrankDeg)
	standing := func() bool { return d.instruments().List[0].Still }
	require.Eventually(t, standing, 5*time.Second, 20*time.Millisecond)
	state := d.happen(3, `"kind":"turned","stop":0`)
	at := state["crank_deg"].(float64)
	c = d.encoder("")
	require.NotNil(t, c.CrankDeg)

	require.NoError(t, b.Do("by", "30"))
	d.encoder("By the encoder the crank was turned by 30° since its place was confirmed. If it was, say that it moved.")
	c = d.instruments().Crank
	assert.True(t, c.Off)
	shown, err := c.CrankDeg.MarshalJSON()
	require.NoError(t, err)
	assert.JSONEq(t, jsonOf(t, math.Mod(at+30, 720)), string(shown))
	assert.InDelta(t, at, d.ok("GET", "/api/v1/jobs/job-0001", "")["state"].(map[string]any)["crank_deg"], 1e-9,
		"nothing is believed that was not confirmed")

	require.NoError(t, b.Do("jump", "200"))
	d.encoder("The crank encoder jumped by 170°, farther than a hand turns. It is followed again from the next place " +
		"that you confirm.")
	d.happen(4, `"kind":"doubted"`)
	require.Eventually(t, standing, 5*time.Second, 20*time.Millisecond)
	d.happen(5, `"kind":"turned","stop":0`)
	d.happen(6, `"kind":"doubted"`)
	d.encoder("The crank encoder is followed from the next place that you confirm.") // the jump is over
	require.NoError(t, b.Do("drop"))
	d.encoder("The crank encoder is lost: it fell silent. Turn and confirm as without it.")
	assert.False(t, d.instruments().Crank.Waits, "work goes on by hand")
}

// While the crank is turned to where it is asked to, the encoder says how far is to go; what is taken back is
// followed no more.
func TestACrankEncoderLeadsATurn(t *testing.T) {
	d := withJob(t)
	d.happen(1, `"kind":"way_chosen","school":"one_cylinder"`)
	d.happen(2, `"kind":"prepared","engine_c":19,"ambient_c":18`)
	b := d.simulated(instrument.Crank)
	require.Eventually(t, func() bool { v := d.instruments(); return len(v.List) == 1 && v.List[0].Still },
		5*time.Second, 20*time.Millisecond)
	state := d.happen(3, `"kind":"turned","stop":0`)
	n := 3
	for state["now"].(map[string]any)["action"] != "turn" { // every valve here is read and kept
		valve := state["now"].(map[string]any)["valve"].(string)
		n++
		state = d.happen(n, `"kind":"left_as_is","valve":"`+valve+`","reason":"not today"`)
	}
	asked := state["now"].(map[string]any)["turn_deg"].(float64)
	require.Positive(t, asked)
	require.NoError(t, b.Do("by", jsonOf(t, asked-20)))
	moving := func() bool { c := d.instruments().Crank; return c.Waits && c.Says == "The crank turns." }
	require.Eventually(t, moving, 5*time.Second, 5*time.Millisecond)
	c := d.encoder("By the encoder it stands, 20° short.")
	assert.True(t, c.Off)
	assert.False(t, c.Waits)
	require.NoError(t, b.Do("by", "19"))
	c = d.encoder("By the encoder it stands there.")
	assert.False(t, c.Off)
	require.NoError(t, b.Do("by", "31"))
	d.encoder("By the encoder it stands 30° past the place.")
	n++
	d.happen(n, `"kind":"turned","stop":1`)
	d.encoder("")
	n++
	d.happen(n, `"kind":"undone","target":"happening-`+fmt.Sprintf("%03d", n-1)+`"`)
	d.encoder("The crank encoder is followed from the next place that you confirm.")
}

// A pull is told by each person's own limits; addresses that may not be, and limits that are none, are
// refused and nothing is kept.
func TestAPullByOnesOwnLimits(t *testing.T) {
	d := withJob(t)
	b := d.simulated(instrument.Pull)
	require.Eventually(t, func() bool { v := d.instruments(); return len(v.List) == 1 && v.List[0].State == "ok" },
		5*time.Second, 20*time.Millisecond)
	require.NoError(t, b.Do("press", "3"))
	says := func(want string) {
		t.Helper()
		require.Eventually(t, func() bool { return d.instruments().List[0].Feel == want }, 5*time.Second,
			20*time.Millisecond)
	}
	says("drag")
	d.ok("PUT", "/api/v1/my-pull", `{"from_n":0.5,"to_n":2}`)
	says("wont_go")
	d.ok("PUT", "/api/v1/my-pull", `{"from_n":3.5,"to_n":6}`)
	says("free")
	status, text := d.send("PUT", "/api/v1/my-pull", `{"from_n":4,"to_n":3}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "a larger one")
	says("free")
	status, text = d.send("PUT", "/api/v1/instruments", `{"crank":"192.0.2.77:80","dial":"","wrench":"","pull":""}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "body.crank")
	assert.NotEmpty(t, d.instruments().Addresses.Pull, "what stood there stays")
}

// jsonOf is a value as an answer holds it.
func jsonOf(t testing.TB, value any) string {
	t.Helper()
	text, err := json.Marshal(value)
	require.NoError(t, err)
	return string(text)
}
