package api_test

import (
	"bufio"
	"database/sql"
	"encoding/json"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/store"
)

// A field in another case, a field given twice, a field that a kind does not have, a character that cannot be
// written: refused by name, and nothing is stored.
func TestWhatDecodersPassOverIsRefused(t *testing.T) {
	d := withJob(t).begun()
	for name, c := range map[string]struct{ body, location string }{
		"another case": {`{"id":"happening-101","ID":"x","kind":"picked","valve":"E1"}`, "body.ID"},
		"twice": {`{"id":"happening-102","kind":"picked","valve":"E1","valve":"I1"}`,
			"body.valve"},
		"foreign": {`{"id":"happening-103","kind":"picked","valve":"E1","engine_c":400}`,
			"body.engine_c"},
		"foreign zero": {`{"id":"happening-104","kind":"kept","valve":"E1","stop":0}`, "body.stop"},
		"control character": {`{"id":"happening-105","kind":"left_as_is","valve":"E1","reason":"a\u0000b"}`,
			"body.reason"},
		"turned round": {`{"id":"happening-106","kind":"left_as_is","valve":"E1","reason":"a\u202eb"}`,
			"body.reason"},
		"nothing to see": {`{"id":"happening-107","kind":"left_as_is","valve":"E1",` +
			`"reason":"\u200b\u200b"}`, "body.reason"},
		"no temperature":    {`{"id":"happening-108","kind":"prepared"}`, "body.engine_c"},
		"no gap":            {`{"id":"happening-109","kind":"dial","valve":"E1"}`, "body.gap_mm"},
		"no stop":           {`{"id":"happening-110","kind":"turned"}`, "body.stop"},
		"an id for a place": {`{"id":"happening-111","kind":"located","seen":"happening-001"}`, "body.seen"},
		"a place for an id": {`{"id":"happening-112","kind":"kept","valve":"E1","seen":[]}`, "body.seen"},
	} {
		status, text := d.send("POST", "/api/v1/jobs/job-0001/happenings", c.body)
		assert.Contains(t, []int{409, 422}, status, "%s: %s", name, text)
		assert.Contains(t, text, `"`+c.location+`"`, name)
	}
	list, err := d.st.Happenings("job-0001")
	require.NoError(t, err)
	assert.Len(t, list.Happenings, 3)
	status, text := d.send("POST", "/api/v1/vehicles",
		`{"id":"vehicle-02","ID":"../../x","name":"Van","plate":"","odometer_km":0,"engine_id":"engine-01"}`)
	assert.Equal(t, 422, status, text)
}

// A stale turn is refused with a type that a screen can answer with a choice; a reading made before the crank
// was moved counts for the place where it was made.
func TestAStaleScreenIsTold(t *testing.T) {
	d := withJob(t).begun()
	d.happen(4, `"kind":"turned","stop":1,"seen":"happening-003"`)
	status, text := d.send("POST", "/api/v1/jobs/job-0001/happenings",
		`{"id":"happening-005","kind":"turned","stop":1,"seen":"happening-003"}`)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "urn:metronix:crank_moved")
	late := `"kind":"reading","valve":"E1","leaves_mm":[0.3],"feel":"drag","seen":"happening-003"`
	status, text = d.send("POST", "/api/v1/jobs/job-0001/happenings", `{"id":"happening-006",`+late+`}`)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "urn:metronix:crank_moved")
	state := d.happen(7, late+`,"made_there":true`)
	assert.Equal(t, "keep", state["now"].(map[string]any)["action"])
	state = d.happen(8, `"kind":"doubted"`)
	assert.Nil(t, state["crank_deg"])
	assert.Equal(t, "turn", state["now"].(map[string]any)["action"])
}

// A body that does not come is answered with 408 and the connection closed, so that what follows is never
// taken for another request.
func TestALateBodyIsNoSecondRequest(t *testing.T) {
	d := withJob(t)
	server := api.NewHTTPServer(d.http)
	server.ReadTimeout = 300 * time.Millisecond
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	go func() { _ = server.Serve(listener) }()
	defer server.Close()
	conn, err := net.Dial("tcp", listener.Addr().String())
	require.NoError(t, err)
	defer conn.Close()
	_, err = io.WriteString(conn,
		"POST /api/v1/vehicles HTTP/1.1\r\nHost: localhost\r\nContent-Type: "+
			"application/json\r\nContent-Length: 300\r\n\r\n")
	require.NoError(t, err)
	in := bufio.NewReader(conn)
	resp, err := http.ReadResponse(in, nil)
	require.NoError(t, err)
	assert.Equal(t, http.StatusRequestTimeout, resp.StatusCode)
	assert.True(t, resp.Close)
	_, _ = io.ReadAll(resp.Body)
	_, _ = io.WriteString(conn, "DELETE /api/v1/gauge-sets/gauges-01 HTTP/1.1\r\nHost: localhost\r\n\r\n")
	_, err = http.ReadResponse(in, nil)
	assert.Error(t, err, "the connection is closed")
	big := httptest.NewRecorder()
	d.http.ServeHTTP(big, httptest.NewRequest("POST", "http://localhost/api/v1/vehicles",
		strings.NewReader(`{"x":"`+strings.Repeat("a", 2<<20)+`"}`)))
	assert.Equal(t, http.StatusRequestEntityTooLarge, big.Code)
	assert.Equal(t, "close", big.Header().Get("Connection"))
}

// A watchdog is told whether the program can work; answers of the interface are kept out of caches; what is
// no page is 404.
func TestHealthAndWhatIsNoPage(t *testing.T) {
	d := withJob(t)
	status, _ := d.send("GET", "/healthz", "")
	assert.Equal(t, 200, status)
	for _, path := range []string{"/health", "/metrics", "/nowhere/at/all", "/.gitkeep"} {
		status, _ := d.send("GET", path, "")
		assert.Equal(t, 404, status, path)
	}
	w := httptest.NewRecorder()
	d.http.ServeHTTP(w, httptest.NewRequest("GET", "http://localhost/api/v1/jobs", nil))
	assert.Equal(t, "no-store", w.Header().Get("Cache-Control"))
	require.NoError(t, os.Remove(d.path))
	status, text := d.send("GET", "/healthz", "")
	assert.Equal(t, 503, status, text)
	status, text = d.send("POST", "/api/v1/vehicles",
		`{"id":"vehicle-02","name":"Van","plate":"","odometer_km":0,"engine_id":"engine-01"}`)
	assert.Equal(t, 500, status)
	assert.Contains(t, text, "removed or replaced")
	assert.NotContains(t, text, "safe", "what was acknowledged is not said to be safe where it may not be")
}

// One job that cannot be opened is said to be so on the board, and hinders no other.
func TestADamagedJobHindersNoOther(t *testing.T) {
	d := withJob(t).begun()
	d.ok("POST", "/api/v1/jobs",
		`{"id":"job-0002","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,"mechanic":"Tess",`+
			`"reason":"","odometer_km":10}`)
	d.st.Close()
	spoil(t, d.path, `UPDATE happenings SET body = replace(body, '19', '18') WHERE job_id = `+
		`'job-0001' AND place = 1`)
	st, err := store.Open(d.path)
	require.NoError(t, err)
	defer st.Close()
	d.st = st
	d.http, err = api.Ready(t.Context(), st, api.Options{})
	require.NoError(t, err)
	status, text := d.send("GET", "/api/v1/jobs", "")
	require.Equal(t, 200, status, text)
	var board []struct{ ID, Damaged string }
	require.NoError(t, json.Unmarshal([]byte(text), &board))
	require.Len(t, board, 2)
	for _, j := range board {
		assert.Equal(t, j.ID == "job-0001", j.Damaged != "", j.ID)
	}
	status, text = d.send("GET", "/api/v1/jobs/job-0001", "")
	assert.Equal(t, 500, status)
	assert.Contains(t, text, "entry 2 of job job-0001")
	d.ok("GET", "/api/v1/jobs/job-0002", "")
}

// What was started by mistake is taken off the board and brought back; what a job started from is corrected
// before anything is read, and not after; the same start sent twice is one job.
func TestStartedByMistake(t *testing.T) {
	d := withJob(t).begun()
	start := `{"vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,"mechanic":"June","reason":"",` +
		`"odometer_km":11,"rule":"guarded"}`
	again := strings.Replace(start, "{", `{"id":"job-0003",`, 1)
	d.ok("POST", "/api/v1/jobs", again)
	d.ok("POST", "/api/v1/jobs", again)
	count := func(query string) int {
		_, text := d.send("GET", "/api/v1/jobs"+query, "")
		var list []any
		require.NoError(t, json.Unmarshal([]byte(text), &list))
		return len(list)
	}
	assert.Equal(t, 2, count(""))
	d.ok("PUT", "/api/v1/jobs/job-0003/on-board", `{"on_board":false}`)
	assert.Equal(t, 1, count(""))
	assert.Equal(t, 1, count("?off_board=true"))
	d.ok("PUT", "/api/v1/jobs/job-0003/on-board", `{"on_board":true}`)
	view := d.ok("PUT", "/api/v1/jobs/job-0001/start", start)
	assert.Equal(t, "June", view["mechanic"])
	assert.Equal(t, "guarded", view["rule"])
	assert.Equal(t, 3.0, view["state"].(map[string]any)["happenings"], "what was done so far stays")
	d.happen(4, reading)
	status, text := d.send("PUT", "/api/v1/jobs/job-0001/start", start)
	assert.Equal(t, 409, status)
	assert.Contains(t, text, "read in this job")
	assert.Empty(t, d.st.Check().Troubles, "the checksums were made anew with the correction")
}

// spoil changes a closed data file as a fault of the disk would.
func spoil(t *testing.T, path, statement string) {
	t.Helper()
	db, err := sql.Open("sqlite3", "file:"+path)
	require.NoError(t, err)
	_, err = db.Exec(statement)
	require.NoError(t, err)
	require.NoError(t, db.Close())
}

// Whatever body comes to whichever address: what is not taken is the sender's to mend, with a sentence, and
// nothing is a fault of ours.
func FuzzRequests(f *testing.F) {
	doors := [][2]string{{"POST", "/api/v1/jobs/job-0001/happenings"}, {"POST", "/api/v1/jobs"},
		{"PUT", "/api/v1/jobs/job-0001/start"}, {"PUT", "/api/v1/jobs/job-0001/on-board"},
		{"POST", "/api/v1/jobs/job-0001/find"}, {"POST", "/api/v1/vehicles"}, {"PUT",
			"/api/v1/vehicles/vehicle-01"}, {"PUT", "/api/v1/vehicles/vehicle-01/on-board"},
		{"POST", "/api/v1/gauge-sets"}, {"PUT", "/api/v1/gauge-sets/gauges-01"}, {"PUT",
			"/api/v1/shop"}, {"PUT", "/api/v1/engines/engine-02"}, {"POST", "/api/v1/look-at-sheet"},
		{"POST", "/api/v1/compute/judge"}}
	job := `"vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,"mechanic":"Tess","reason":"",` +
		`"odometer_km":10,"feel_mm":0.004}`
	for i, bodies := range [][]string{{`{"id":"happening-004","kind":"reading","valve":"E1",` +
		`"leaves_mm":[0.2],"feel":"drag","seen":"happening-003"}`,
		`{"id":"happening-005","kind":"turned","stop":1}`,
		`{"id":"happening-006","kind":"located","seen":[{"what":"rocking","cylinder":1,"valve":"",` +
			`"mark_deg":0}]}`, `{"id":"happening-007","kind":"temperature","engine_c":20,"ambient_c":-3.5,` +
			`"done_at":"2026-11-25T10:00:00Z"}`},
		{`{"id":"job-0002",` + job}, {`{` +
			job}, {`{"on_board":true}`}, {`{"seen":[{"what":"mark","cylinder":0,"valve":"","mark_deg":0}]}`},
		{`{"id":"vehicle-02","name":"Van","plate":"","odometer_km":0,"engine_id":"engine-01"}`},
		{`{"name":"Van","plate":"","odometer_km":0,"engine_id":"engine-01"}`}, {`{"on_board":true}`},
		{`{"id":"gauges-02","name":"Set","leaves":[{"marked_in":0.009,"measured_mm":0.229,"angled":true}]}`},
		{`{"name":"Set","checked":"2026-01-31","leaves":[{"marked_mm":0.2}]}`},
		{`{"probe_address":"","shim_sizes":{"from_mm":2,"to_mm":3,"step_mm":0.05},` +
			`"shim_stock":[{"shim_mm":2.5,"count":1}]}`}, {sheet(f)}, {sheet(f)},
		{`{"limits":{"lower_mm":0.2,"upper_mm":0.24},"readings":[],"owned":[{"marked_mm":0.2}]}`}} {
		for _, b := range bodies {
			f.Add(byte(i), []byte(b))
		}
	}
	d := withJob(f).begun()
	f.Fuzz(func(t *testing.T, which byte, body []byte) {
		at, d := doors[int(which)%len(doors)], *d
		d.t = t
		status, text := d.send(at[0], at[1], string(body))
		if status < 300 {
			require.True(t, json.Valid([]byte(text)), "%v %s", at, text)
			return
		}
		require.Less(t, status, 500, "%v %s: %s", at, body, text)
		var problem struct{ Title, Detail string }
		require.NoError(t, json.Unmarshal([]byte(text), &problem), text)
		require.NotEmpty(t, problem.Title+problem.Detail, "%v %s", at, body)
	})
}
