package api_test

import (
	"bufio"
	"context"
	"encoding/json"
	"fmt"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// event is one of a stream, as the HTML standard reads it (server-sent events, 9.2.6).
type event struct{ name, id, data string }

// served is the door as a server that streams can be read from.
func (d *door) served(o api.Options) *httptest.Server {
	d.t.Helper()
	d.http = api.Handler(d.st, o)
	server := httptest.NewUnstartedServer(nil)
	server.Config = api.NewHTTPServer(d.http)
	server.Start()
	d.t.Cleanup(server.Close)
	return server
}

// watched reads a stream; it ends with the test.
func watched(t testing.TB, server *httptest.Server, path, last string, change ...func(*http.Request)) <-chan event {
	t.Helper()
	ctx, cancel := context.WithCancel(context.Background())
	t.Cleanup(cancel)
	r, err := http.NewRequestWithContext(ctx, "GET", server.URL+path, nil)
	require.NoError(t, err)
	if last != "" {
		r.Header.Set("Last-Event-ID", last)
	}
	for _, c := range change {
		c(r)
	}
	answer, err := server.Client().Do(r)
	require.NoError(t, err)
	require.Equal(t, 200, answer.StatusCode)
	require.Equal(t, "text/event-stream", answer.Header.Get("Content-Type"))
	events := make(chan event, 4000)
	go func() {
		defer answer.Body.Close()
		defer close(events)
		e, lines := event{}, bufio.NewScanner(answer.Body)
		lines.Buffer(nil, 1<<22)
		for lines.Scan() {
			field, value, _ := strings.Cut(lines.Text(), ": ")
			switch field {
			case "event":
				e.name = value
			case "id":
				e.id = value
			case "data":
				e.data += value
			case "":
				if e.name == "changed" {
					events <- e
				}
				e = event{}
			}
		}
	}()
	return events
}

// next is the next event within a time that is long enough on a loaded machine.
func next(t testing.TB, events <-chan event) event {
	t.Helper()
	select {
	case e, open := <-events:
		require.True(t, open, "the stream ended")
		return e
	case <-time.After(10 * time.Second):
		t.Fatal("no event came")
		return event{}
	}
}

// none says that no event comes for a while.
func none(t testing.TB, events <-chan event) {
	t.Helper()
	select {
	case e := <-events:
		t.Fatalf("an event came: %+v", e)
	case <-time.After(150 * time.Millisecond):
	}
}

func parsedAs(t testing.TB, text string) (out map[string]any) {
	t.Helper()
	require.NoError(t, json.Unmarshal([]byte(text), &out), text)
	return out
}

// A screen that watches a job has its state at once, and after each act what changed, which together is what
// the program says to one that asks.
func TestAJobIsWatched(t *testing.T) {
	d := withJob(t)
	events := watched(t, d.served(api.Options{}), "/api/v1/jobs/job-0001/events", "")
	k := &known{d: d, state: parsedAs(t, next(t, events).data)}
	d.begun()
	d.happen(4, reading)
	for k.state["newest"] != "happening-004" { // those that come close together may come in one
		e := next(t, events)
		assert.Equal(t, "changed", e.name)
		answer := parsedAs(t, e.data)
		assert.Equal(t, true, answer["partial"])
		assert.Equal(t, e.id, answer["newest"])
		k.takes(answer)
	}
	whole := k.whole()
	delete(whole, "clock")
	delete(k.state, "clock")
	assert.Equal(t, whole, k.state)
	d.happen(4, reading) // sent again it is nothing new
	none(t, events)
}

// One that comes back with the newest is told nothing before something happens; with an id that is not known,
// or an older one, it has everything anew.
func TestAWatchIsResumed(t *testing.T) {
	d := withJob(t).begun()
	server := d.served(api.Options{})
	const path = "/api/v1/jobs/job-0001/events"
	events := watched(t, server, path, "happening-003")
	none(t, events)
	d.happen(4, reading)
	assert.Equal(t, "happening-004", next(t, events).id)
	for _, last := range []string{"", "no-such-id", "happening-002"} {
		e := next(t, watched(t, server, path, last))
		assert.Equal(t, "happening-004", e.id, last)
		assert.NotContains(t, parsedAs(t, e.data), "partial", last)
	}
	status, text := d.send("GET", "/api/v1/jobs/no-such-job/events", "")
	assert.Equal(t, http.StatusNotFound, status, text)
}

// The board is told each job that changes, as it shows it then: a reading, a new job, one taken off it; and
// who was away for longer than is remembered gets everything.
func TestTheBoardIsWatched(t *testing.T) {
	d := withJob(t)
	server := d.served(api.Options{})
	events := watched(t, server, "/api/v1/events", "")
	type board struct {
		All  bool
		Jobs []struct {
			ID, Newest string
			Row        *api.JobShort
		}
	}
	read := func(e event) (b board) {
		decode(t, e.data, &b)
		return b
	}
	first := read(next(t, events))
	assert.True(t, first.All)
	require.Len(t, first.Jobs, 1)
	d.happen(1, `"kind":"way_chosen","school":"rocking_pairs"`)
	e := next(t, events)
	assert.Equal(t, "happening-001", e.id)
	got := read(e)
	assert.False(t, got.All)
	require.Len(t, got.Jobs, 1)
	assert.Equal(t, "prepare", got.Jobs[0].Row.Phase)
	d.ok(
		"POST",
		"/api/v1/jobs",
		`{"id":"job-0002","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,`+
			`"mechanic":"June","reason":"","odometer_km":10}`,
	)
	got = read(next(t, events))
	assert.Equal(t, "June", got.Jobs[0].Row.Mechanic)
	assert.Empty(t, got.Jobs[0].Newest, "nothing happened in it")
	d.ok("PUT", "/api/v1/jobs/job-0002/on-board", `{"on_board":false}`)
	for got = read(next(t, events)); got.Jobs[0].Row != nil; {
		got = read(next(t, events))
	}
	assert.Equal(t, "job-0002", got.Jobs[0].ID)

	resumed := watched(t, server, "/api/v1/events", "happening-001")
	got = read(next(t, resumed))
	assert.False(t, got.All)
	assert.Equal(t, "job-0002", got.Jobs[0].ID, "what came after it")
	assert.True(t, read(next(t, watched(t, server, "/api/v1/events", "no-such-id"))).All)
}

// A client that never reads is let go after a while and holds nobody: what others do is answered, and told to
// those that read, all of it.
func TestAClientThatNeverReads(t *testing.T) {
	d := withJob(t).begun()
	server := d.served(api.Options{})
	for range 3 {
		conn, err := net.Dial("tcp", server.Listener.Addr().String())
		require.NoError(t, err)
		t.Cleanup(func() { conn.Close() })
		require.NoError(t, conn.(*net.TCPConn).SetReadBuffer(1<<12))
		_, err = fmt.Fprintf(conn, "GET /api/v1/jobs/job-0001/events HTTP/1.1\r\nHost: localhost\r\n\r\n")
		require.NoError(t, err)
	}
	events := watched(t, server, "/api/v1/jobs/job-0001/events", "")
	next(t, events)
	const taps = 60
	for n := range taps {
		d.happen(100+n, fmt.Sprintf(`"kind":"sound","note":"tick %d"`, n))
	}
	last := fmt.Sprintf("happening-%03d", 100+taps-1)
	for e := next(t, events); e.id != last; {
		e = next(t, events)
	}
}

// With the end of the program every watch ends, so that it can stop.
func TestWatchesEndWithTheProgram(t *testing.T) {
	d := withJob(t)
	until := make(chan struct{})
	server := d.served(api.Options{Until: until})
	events := watched(t, server, "/api/v1/events", "")
	next(t, events)
	close(until)
	select {
	case _, open := <-events:
		assert.False(t, open)
	case <-time.After(10 * time.Second):
		t.Fatal("the stream goes on")
	}
}

// Who is at a job is told to all who are, with what is in hand there; what one has in hand is not what is
// next for the other; and a screen that says no more is forgotten.
func TestWhoIsAtAJob(t *testing.T) {
	d := withJob(t).begun()
	server := d.served(api.Options{})
	events := watched(t, server, "/api/v1/events", "")
	next(t, events)
	comes := func(screen, valve string) (others []any) {
		return d.ok("PUT", "/api/v1/jobs/job-0001/screens/"+screen,
			fmt.Sprintf(`{"name":"a tablet","valve":%q,"doing":"read"}`, valve))["others"].([]any)
	}
	shown := func(screen string) map[string]any {
		return d.ok("GET", "/api/v1/jobs/job-0001?screen="+screen, "")
	}
	valve := func(screen string) any {
		return shown(screen)["state"].(map[string]any)["now"].(map[string]any)["valve"]
	}
	assert.Empty(t, comes("one", "E1"))
	assert.Contains(t, next(t, events).data, `"here":"one"`)
	assert.Len(t, comes("two", "E1"), 1)
	assert.Contains(t, next(t, events).data, `"here":"two"`)
	comes("two", "E1")
	none(t, events) // the same again is no news
	first := valve("one")
	d.happen(
		4,
		fmt.Sprintf(`"kind":"reading","valve":%q,"leaves_mm":[0.2],"feel":"free","screen":"one"`, first),
	)
	assert.Equal(t, first, valve("one"))
	assert.NotEqual(t, first, valve("two"))
	assert.Len(t, shown("two")["screens"], 1)
	status, _ := d.send("DELETE", "/api/v1/jobs/job-0001/screens/one", "")
	assert.Equal(t, http.StatusNoContent, status)
	assert.Equal(t, first, valve("two"), "with nobody else at it all of it is his")
	status, _ = d.send("PUT", "/api/v1/jobs/no-such/screens/one", `{"name":"","valve":"","doing":""}`)
	assert.Equal(t, http.StatusNotFound, status)
}

// A helper at the crank turns it only while hands are clear: said on a screen that shows the job as it is,
// for a minute, by one who is still there, and for this one turn. A turn that is sent again is known.
func TestAHelperWaitsForClearHands(t *testing.T) {
	d := withJob(t).begun()
	now := time.Now()
	d.served(api.Options{Clock: func() time.Time { return now }})
	on := func(method, path, body string) int {
		status, _ := d.send(method, "/api/v1/jobs/job-0001/screens/"+path, body)
		return status
	}
	comes := func() {
		assert.Equal(t, 200, on("PUT", "bench", `{"name":"a tablet","valve":"","doing":"turn"}`))
		assert.Equal(t, 200, on("PUT", "crank", `{"name":"a phone","valve":"","doing":"helper"}`))
	}
	n := 3
	turns := func(stop int) int {
		n++
		status, text := d.send("POST", "/api/v1/jobs/job-0001/happenings",
			fmt.Sprintf(`{"id":"happening-%03d","kind":"turned","stop":%d,"screen":"crank"}`, n, stop))
		if status == http.StatusConflict {
			assert.Contains(t, text, "hands are not clear")
		}
		return status
	}
	clear := func(newest string) int { return on("PUT", "bench/clear", fmt.Sprintf(`{"newest":%q}`, newest)) }
	comes()
	assert.Equal(t, http.StatusConflict, turns(1))
	assert.Equal(t, http.StatusConflict, clear("happening-001"), "by an older view of the job")
	assert.Equal(t, 200, clear("happening-003"))
	assert.Contains(t, d.ok("GET", "/api/v1/jobs/job-0001", ""), "clear")
	assert.Equal(t, 200, turns(1))
	n--
	assert.Equal(t, 200, turns(1), "the same sent again")
	assert.NotContains(t, d.ok("GET", "/api/v1/jobs/job-0001", ""), "clear", "it was for that turn")
	assert.Equal(t, http.StatusConflict, turns(2))

	newest := d.ok("GET", "/api/v1/jobs/job-0001", "")["state"].(map[string]any)["newest"].(string)
	assert.Equal(t, 200, clear(newest))
	now = now.Add(61 * time.Second)
	comes()
	assert.Equal(t, http.StatusConflict, turns(2), "a minute is over")
	assert.Equal(t, 200, clear(newest))
	assert.Equal(t, 204, on("DELETE", "bench/clear", ""))
	assert.Equal(t, http.StatusConflict, turns(2), "taken back")
	assert.Equal(t, 200, clear(newest))
	assert.Equal(t, 204, on("DELETE", "bench", ""))
	assert.Equal(t, http.StatusConflict, turns(2), "the bench is gone")
	d.ok(
		"POST",
		"/api/v1/jobs/job-0001/happenings",
		`{"id":"happening-100","kind":"turned","stop":2,"screen":"bench"}`,
	)
}
