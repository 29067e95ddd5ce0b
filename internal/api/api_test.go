package api_test

import (
	"bytes"
	"compress/gzip"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/store"
)

type door struct {
	t    testing.TB
	http http.Handler
	st   *store.Store
	path string
}

func opened(t testing.TB) *door {
	t.Helper()
	path := filepath.Join(t.TempDir(), "test.db")
	st, err := store.Open(path)
	require.NoError(t, err)
	t.Cleanup(st.Close)
	var zipped bytes.Buffer
	z := gzip.NewWriter(&zipped)
	_, err = z.Write([]byte("module"))
	require.NoError(t, err)
	require.NoError(t, z.Close())
	site := fstest.MapFS{"index.html": {Data: []byte(`<html><meta property="csp-nonce" ` +
		`nonce="" />page</html>`)},
		"assets/a.js": {Data: []byte("long")}, "assets/a.js.gz": {Data: []byte("short")},
		"assets/a.js.br": {Data: []byte("less")}, "assets/b.wasm.gz": {Data: zipped.Bytes()},
		"metronix.webmanifest": {Data: []byte("{}")}}
	return &door{t, api.Handler(st, api.Options{Site: site, Version: "test"}), st, path}
}

// send makes a request and gives status and body; change may spoil it.
func (d *door) send(method, path, body string, change ...func(*http.Request)) (int, string) {
	d.t.Helper()
	r := httptest.NewRequest(method, "http://localhost"+path, strings.NewReader(body))
	if body != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	for _, c := range change {
		c(r)
	}
	w := httptest.NewRecorder()
	d.http.ServeHTTP(w, r)
	return w.Code, w.Body.String()
}

func (d *door) ok(method, path, body string) map[string]any {
	d.t.Helper()
	status, text := d.send(method, path, body)
	require.Less(d.t, status, 300, text)
	var out map[string]any
	require.NoError(d.t, json.Unmarshal([]byte(text), &out))
	return out
}

func decode(t testing.TB, text string, into any) {
	t.Helper()
	require.NoError(t, json.Unmarshal([]byte(text), into), text)
}

func sheet(t testing.TB) string {
	data, err := os.ReadFile("../compute/testdata/four.engine.json")
	require.NoError(t, err)
	return string(data)
}

// withJob stores what a job needs and starts one with id job-0001.
func withJob(t testing.TB) *door {
	d := opened(t)
	d.ok("PUT", "/api/v1/engines/engine-01", sheet(t))
	d.ok("POST", "/api/v1/gauge-sets",
		`{"id":"gauges-01","name":"Set","leaves":[{"marked_mm":0.2},{"marked_mm":0.22,"measured_mm":0.221},`+
			`{"marked_mm":0.25},{"marked_mm":0.3}]}`)
	d.ok("POST", "/api/v1/vehicles",
		`{"id":"vehicle-01","name":"Tipper","plate":"T 1","odometer_km":5,"engine_id":"engine-01"}`)
	d.ok("POST", "/api/v1/jobs",
		`{"id":"job-0001","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,"mechanic":"Tess",`+
			`"reason":"","odometer_km":10}`)
	return d
}

func (d *door) happen(n int, fields string) map[string]any {
	d.t.Helper()
	return d.ok("POST", "/api/v1/jobs/job-0001/happenings",
		fmt.Sprintf(`{"id":"happening-%03d",%s}`, n, fields))
}

func (d *door) begun() *door {
	d.happen(1, `"kind":"way_chosen","school":"rocking_pairs"`)
	d.happen(2, `"kind":"prepared","engine_c":19,"ambient_c":18`)
	d.happen(3, `"kind":"turned","stop":0`)
	return d
}

const reading = `"kind":"reading","valve":"E1","leaves_mm":[0.3],"feel":"drag"`

func TestReadingIsStoredOnceHoweverOftenSent(t *testing.T) {
	d := withJob(t).begun()
	first := d.happen(4, reading)
	second := d.happen(4, reading)
	delete(first, "clock")
	delete(second, "clock")
	assert.Equal(t, first, second)
	assert.Equal(t, 4.0, second["happenings"])
	status, text := d.send("POST", "/api/v1/jobs/job-0001/happenings",
		`{"id":"happening-004","kind":"kept","valve":"E1"}`)
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, text, "used before for another one")
	list, err := d.st.Happenings("job-0001")
	require.NoError(t, err)
	assert.Len(t, list.Happenings, 4)
}

func TestStateComesBackFromTheFile(t *testing.T) {
	d := withJob(t).begun()
	before := d.happen(4, reading)
	d.st.Close()
	st, err := store.Open(d.path)
	require.NoError(t, err)
	defer st.Close()
	d.http = api.Handler(st, api.Options{})
	after := d.ok("GET", "/api/v1/jobs/job-0001", "")["state"].(map[string]any)
	delete(before, "clock")
	delete(after, "clock")
	assert.Equal(t, before, after)
}

func TestManyAtOnce(t *testing.T) {
	d := withJob(t).begun()
	var wait sync.WaitGroup
	for worker := range 8 {
		wait.Go(func() {
			for n := range 10 {
				feel := []string{"free", "wont_go"}[n%2]
				leaf := []string{"0.2", "0.301"}[n%2]
				d.send("POST", "/api/v1/jobs/job-0001/happenings",
					fmt.Sprintf(`{"id":"worker-%d-%d","kind":"reading","valve":"E1","leaves_mm":[%s],`+
						`"feel":"%s"}`, worker, n, leaf, feel))
			}
		})
	}
	wait.Wait()
	list, err := d.st.Happenings("job-0001")
	require.NoError(t, err)
	assert.Len(t, list.Happenings, 3+80)
	seen := map[string]bool{}
	for _, h := range list.Happenings {
		assert.False(t, seen[h.ID], h.ID)
		seen[h.ID] = true
	}
}

func TestRefusalsNameTheFieldAndStoreNothing(t *testing.T) {
	d := withJob(t).begun()
	for name, c := range map[string]struct {
		body, location, says string
		status               int
	}{
		"open valve": {`"kind":"reading","valve":"E4","leaves_mm":[0.3],"feel":"drag"`, "valve",
			"is open here", 409},
		"unknown field": {`"kind":"reading","valve":"E1","feel":"drag","leafs":[1]`, "body.leafs",
			"There is no field of this name here", 422},
		"unknown kind": {`"kind":"sung"`, "body.kind", "", 422},
		"leaf too fine": {`"kind":"reading","valve":"E1","leaves_mm":[0.30000001],"feel":"drag"`,
			"body.leaves_mm[0]", "six decimal places", 422},
		"leaf below 0": {`"kind":"reading","valve":"E1","leaves_mm":[-0.3],"feel":"drag"`,
			"body.leaves_mm[0]", "not the thickness", 422},
		"no such feel": {`"kind":"reading","valve":"E1","leaves_mm":[0.3],"feel":"soft"`, "feel", "no feel",
			409},
		"sign too early": {`"kind":"signed","by":"Tess","tools_out":true`, "kind", "not finished", 409},
	} {
		status, text := d.send("POST", "/api/v1/jobs/job-0001/happenings", `{"id":"refused-01",`+c.body+`}`)
		assert.Equal(t, c.status, status, "%s: %s", name, text)
		var p struct {
			Errors []struct{ Location, Message string }
		}
		require.NoError(t, json.Unmarshal([]byte(text), &p))
		require.NotEmpty(t, p.Errors, name)
		assert.Equal(t, c.location, p.Errors[0].Location, name)
		assert.Contains(t, p.Errors[0].Message, c.says, name)
	}
	list, err := d.st.Happenings("job-0001")
	require.NoError(t, err)
	assert.Len(t, list.Happenings, 3)
}

func TestBrokenSheetIsNotStored(t *testing.T) {
	d := opened(t)
	broken := strings.Replace(strings.Replace(sheet(t), "[1, 3, 4, 2]", "[1, 3, 3, 2]", 1), "EIIEEIIE",
		"EIIEEII", 1)
	status, text := d.send("PUT", "/api/v1/engines/engine-01", broken)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, `"firing_order[2]"`)
	assert.Contains(t, text, `"banks[0].rows[0].valves"`)
	status, text = d.send("PUT", "/api/v1/engines/engine-01",
		strings.Replace(sheet(t), "screw_valve_end", "hydraulic", 1))
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "zero clearance")
	status, text = d.send("GET", "/api/v1/engines", "")
	assert.Equal(t, 200, status)
	assert.JSONEq(t, `[]`, text)
}

func TestWhatIsNotThere(t *testing.T) {
	d := withJob(t)
	for path, want := range map[string]int{"/api/v1/jobs/nothing": 404, "/api/v1/nothing": 404,
		"/assets/gone.js": 404, "/jobs/job-0001": 200, "/": 200} {
		status, text := d.send("GET", path, "")
		assert.Equal(t, want, status, "%s %s", path, text)
	}
	status, text := d.send("POST", "/api/v1/jobs",
		`{"id":"job-0002","vehicle_id":"nobody","gauge_set_id":"gauges-01","card":0,"mechanic":"T",`+
			`"reason":"","odometer_km":0}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "body.vehicle_id")
	status, text = d.send("POST", "/api/v1/jobs",
		`{"id":"job-0002","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":7,"mechanic":"T",`+
			`"reason":"","odometer_km":0}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, "1 clearance card")
}

func TestComputeOverHTTP(t *testing.T) {
	d := opened(t)
	got := d.ok("POST", "/api/v1/compute/plan", `{"school":"rocking_pairs","sheet":`+sheet(t)+`}`)
	assert.Equal(t, 540.0, got["total_turn_deg"])
	status, text := d.send("POST", "/api/v1/compute/plan", `{"school":"rocking_pairs","shoe":1,"sheet":{}}`)
	assert.Equal(t, 422, status)
	assert.Contains(t, text, `"shoe"`)
	status, _ = d.send("POST", "/api/v1/compute/dance", `{}`)
	assert.Equal(t, 422, status)
}

func TestTheGuard(t *testing.T) {
	d := opened(t)
	for name, c := range map[string]struct {
		change func(*http.Request)
		want   int
	}{
		"plain":            {func(*http.Request) {}, 422},
		"foreign host":     {func(r *http.Request) { r.Host = "evil.example" }, 421},
		"rebound name":     {func(r *http.Request) { r.Host = "evil.example:8080" }, 421},
		"loopback address": {func(r *http.Request) { r.Host = "127.0.0.1:8080" }, 422},
		"cross-site write": {func(r *http.Request) { r.Header.Set("Sec-Fetch-Site", "cross-site") }, 403},
		"foreign origin":   {func(r *http.Request) { r.Header.Set("Origin", "http://evil.example") }, 403},
		"own origin":       {func(r *http.Request) { r.Header.Set("Origin", "http://localhost") }, 422},
		"body over a limit": {func(r *http.Request) {
			r.Body = io.NopCloser(bytes.NewReader(make([]byte, 3<<20)))
			r.ContentLength = 3 << 20
		}, 413},
		"body without a end": {func(r *http.Request) {
			r.Body = io.NopCloser(bytes.NewReader(make([]byte, 3<<20)))
			r.ContentLength = -1
		}, 413},
	} {
		status, text := d.send("POST", "/api/v1/compute/plan", `{}`, c.change)
		assert.Equal(t, c.want, status, "%s: %s", name, text)
	}
}

func TestThePage(t *testing.T) {
	d := opened(t)
	get := func(path string, change ...func(*http.Request)) *http.Response {
		r := httptest.NewRequest("GET", "http://localhost"+path, nil)
		for _, c := range change {
			c(r)
		}
		w := httptest.NewRecorder()
		d.http.ServeHTTP(w, r)
		return w.Result()
	}
	index := get("/jobs/some-job")
	assert.Equal(t, "no-store", index.Header.Get("Cache-Control"), "a nonce is used once")
	policy := index.Header.Get("Content-Security-Policy")
	assert.Contains(t, policy, "default-src 'none'")
	assert.NotContains(t, strings.ReplaceAll(policy, "'wasm-unsafe-eval'", ""), "unsafe", "WebAssembly alone may be compiled")
	page, err := io.ReadAll(index.Body)
	require.NoError(t, err)
	nonce := regexp.MustCompile(`nonce="(\w{20,})"`).FindSubmatch(page)
	require.NotNil(t, nonce, "%s", page)
	assert.Contains(t, policy, "style-src 'self' 'nonce-"+string(nonce[1])+"'")
	other := get("/").Header.Get("Content-Security-Policy")
	assert.NotEqual(t, policy, other)
	both := get("/assets/a.js", func(r *http.Request) { r.Header.Set("Accept-Encoding", "gzip, br") })
	assert.Equal(t, "br", both.Header.Get("Content-Encoding"), "RFC 7932: the smaller of the two twins")
	less, err := io.ReadAll(both.Body)
	require.NoError(t, err)
	assert.Equal(t, "less", string(less))
	asset := get("/assets/a.js", func(r *http.Request) { r.Header.Set("Accept-Encoding", "gzip") })
	assert.Equal(t, "gzip", asset.Header.Get("Content-Encoding"))
	assert.Contains(t, asset.Header.Get("Cache-Control"), "immutable")
	again := get("/assets/a.js", func(r *http.Request) {
		r.Header.Set("Accept-Encoding", "gzip")
		r.Header.Set("If-None-Match", asset.Header.Get("ETag"))
	})
	assert.Equal(t, http.StatusNotModified, again.StatusCode)
	twinOnly := get("/assets/b.wasm")
	assert.Equal(t, http.StatusOK, twinOnly.StatusCode, "what is there as a twin alone is unpacked")
	plain, err := io.ReadAll(twinOnly.Body)
	require.NoError(t, err)
	assert.Equal(t, "module", string(plain))
	assert.Equal(t, "application/manifest+json", get("/metronix.webmanifest").Header.Get("Content-Type"))
	assert.Equal(t, http.StatusNotFound, get("/assets/c.wasm").StatusCode)
	bare := &door{t: t, http: api.Handler(d.st, api.Options{})}
	status, text := bare.send("GET", "/", "")
	assert.Equal(t, 503, status)
	assert.Contains(t, text, "built without its pages")
}

func TestServerHasTimeOuts(t *testing.T) {
	s := api.NewHTTPServer(http.NotFoundHandler())
	for _, d := range []time.Duration{s.ReadHeaderTimeout, s.ReadTimeout, s.WriteTimeout, s.IdleTimeout} {
		assert.Positive(t, d)
	}
}

// Every answer is what the OpenAPI document says it is, whatever state the job is in: a general-purpose
// validator checks it.
func TestAnswersKeepToTheDocument(t *testing.T) {
	raw, err := api.Document()
	require.NoError(t, err)
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
	require.NoError(t, err)
	c := jsonschema.NewCompiler()
	require.NoError(t, c.AddResource("openapi.json", doc))
	valid := func(schema, text string) {
		t.Helper()
		s, err := c.Compile("openapi.json#/components/schemas/" + schema)
		require.NoError(t, err)
		v, err := jsonschema.UnmarshalJSON(strings.NewReader(text))
		require.NoError(t, err)
		require.NoError(t, s.Validate(v), "%s: %s", schema, text)
	}
	d := withJob(t)
	look := func() {
		t.Helper()
		_, text := d.send("GET", "/api/v1/jobs/job-0001", "")
		valid("JobView", text)
		for path, schema := range map[string]string{"/api/v1/jobs": "JobShort",
			"/api/v1/vehicles": "Vehicle", "/api/v1/engines": "Engine", "/api/v1/gauge-sets": "GaugeSet"} {
			_, text := d.send("GET", path, "")
			var list []json.RawMessage
			require.NoError(t, json.Unmarshal([]byte(text), &list), "%s is a list, never null", path)
			require.NotEmpty(t, list, path)
			for _, entry := range list {
				valid(schema, string(entry))
			}
		}
	}
	for path, schema := range map[string]string{"/api/v1/jobs/job-0001/ways": "Ways",
		"/api/v1/engines/engine-01":                            "EngineWhole",
		"/api/v1/sheet-start?layout=flat&cylinders=4&valves=2": "SheetStart"} {
		_, text := d.send("GET", path, "")
		valid(schema, text)
	}
	look()
	d.begun()
	look()
	d.happen(4, `"kind":"reading","valve":"E1","leaves_mm":[0.2],"feel":"drag"`)
	look()
	d.happen(5, `"kind":"kept","valve":"E1"`)
	look()
	_, problem := d.send("GET", "/api/v1/jobs/nothing", "")
	valid("ErrorModel", problem)
}
