package api_test

import (
	"context"
	"fmt"
	"net"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/probe"
)

// refused sends what must be refused and gives the place of its first fault.
func (d *door) refused(method, path, body string, want int) string {
	d.t.Helper()
	status, text := d.send(method, path, body)
	require.Equal(d.t, want, status, text)
	_, after, found := strings.Cut(text, `"location":"`)
	require.True(d.t, found, text)
	place, _, _ := strings.Cut(after, `"`)
	return place
}

// A set goes out as CSV and comes in again unchanged; inch leaves stay exact; slips are found leaf by leaf.
func TestGaugeSets(t *testing.T) {
	d := opened(t)
	set := d.ok("POST", "/api/v1/gauge-sets",
		`{"id":"gauges-01","name":"Set","checked":"2026-01-31","leaves":[{"marked_mm":0.2,`+
			`"measured_mm":0.201},{"marked_in":0.012,"angled":true},{"marked_mm":0.25,"missing":true}]}`)
	assert.Equal(t, 2.0, set["leaves"])
	status, csv := d.send("GET", "/api/v1/gauge-sets/gauges-01/csv", "")
	require.Equal(t, 200, status)
	assert.Equal(
		t,
		"marked,unit,measured_mm,shape,state\n0.2,mm,0.201,straight,here\n0.012,in,,angled,here\n0.25,mm,,straight,missing\n",
		csv,
	)
	status, leaves := d.send("POST", "/api/v1/read-gauge-csv", csv,
		func(r *http.Request) { r.Header.Set("Content-Type", "text/csv") })
	require.Equal(t, 200, status, leaves)
	d.ok("PUT", "/api/v1/gauge-sets/gauges-01", `{"name":"Anew","leaves":`+leaves+`}`)
	_, again := d.send("GET", "/api/v1/gauge-sets/gauges-01/csv", "")
	assert.Equal(t, csv, again)

	for body, place := range map[string]string{
		`{"name":"S","leaves":[{"marked_mm":0}]}`:                                     "body.leaves[0].marked_mm",
		`{"name":"S","leaves":[{"marked_mm":-0.1}]}`:                                  "body.leaves[0].marked_mm",
		`{"name":"S","leaves":[{"marked_mm":0.2},{"marked_mm":0.2}]}`:                 "body.leaves[1].marked_mm",
		`{"name":"S","leaves":[{"marked_mm":0.2,"measured_mm":0.008}]}`:               "body.leaves[0].measured_mm",
		`{"name":"S","leaves":[{"marked_in":0.2}]}`:                                   "body.leaves[0].marked_mm",
		`{"name":"S","checked":"31.1.2026","leaves":[{"marked_mm":0.2}]}`:             "body.checked",
		`{"name":"S","checked":"2999-01-01","leaves":[{"marked_mm":0.2}]}`:            "body.checked",
		`{"name":"S","leaves":[{"marked_mm":0.2},{"marked_mm":0.2,"angled":true}]}  `: "",
	} {
		if place == "" {
			d.ok("PUT", "/api/v1/gauge-sets/gauges-01", body)
			continue
		}
		assert.Equal(t, place, d.refused("PUT", "/api/v1/gauge-sets/gauges-01", body, 422), body)
	}
	status, _ = d.send("DELETE", "/api/v1/gauge-sets/gauges-01", "")
	assert.Equal(t, http.StatusNoContent, status)
}

func TestCSVFaultsAreFoundByLine(t *testing.T) {
	d := opened(t)
	for text, place := range map[string]string{
		"thick\n0.2\n":                          "line 1, column 1",
		"marked\n0.2\nabc\n":                    "line 3, marked",
		"marked,unit\n0.2,mm\n8,ell\n":          "line 3, unit",
		"marked,measured_mm\n0.2,0\n":           "line 2, measured_mm",
		"marked\n0.2\n\n0.2\n":                  "line 4, marked_mm",
		"marked,shape\n0.2,bent\n":              "line 2, shape",
		"marked,unit,measured_mm\n8,thou,0.2\n": "",
	} {
		status, answer := d.send("POST", "/api/v1/read-gauge-csv", text,
			func(r *http.Request) { r.Header.Set("Content-Type", "text/csv") })
		if place == "" {
			assert.Equal(t, 200, status, answer)
			continue
		}
		assert.Equal(t, 422, status, text)
		assert.Contains(t, answer, `"location":"`+place+`"`, text)
	}
}

// The gate, its override with a reason, the forecast, and the hot clock, over HTTP and back from the file.
func TestHeatOverHTTP(t *testing.T) {
	d := withJob(t)
	d.happen(1, `"kind":"way_chosen","school":"rocking_pairs"`)
	d.happen(2, `"kind":"temperature","engine_c":80,"ambient_c":20`)
	assert.Equal(t, "engine_c",
		d.refused("POST", "/api/v1/jobs/job-0001/happenings",
			`{"id":"happening-003","kind":"prepared","engine_c":80,"ambient_c":20}`, 409))
	assert.Equal(t, "engine_c",
		d.refused("POST", "/api/v1/jobs/job-0001/happenings",
			`{"id":"happening-003","kind":"temperature","engine_c":-300,"ambient_c":20}`, 409))
	state := d.happen(3, `"kind":"temperature","engine_c":70,"ambient_c":20`)
	cooling := state["cooling"].(map[string]any)
	assert.Equal(t, true, cooling["reachable"])
	assert.NotEmpty(t, cooling["curve"])
	_, board := d.send("GET", "/api/v1/jobs", "")
	assert.Contains(t, board, `"ready_at"`)
	state = d.happen(4, `"kind":"prepared","engine_c":70,"ambient_c":20,"reason":"comparison only"`)
	assert.Equal(t, "comparison only", state["override"])
	assert.NotContains(t, state, "hot_until")
}

// What locking does is learned over all jobs of one mechanic, and offered from five on.
func TestLockingIsLearnedAcrossJobs(t *testing.T) {
	d := withJob(t)
	for n := range 3 {
		id := fmt.Sprintf("job-%04d", n+10)
		d.ok("POST", "/api/v1/jobs",
			`{"id":"`+id+`","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,`+
				`"mechanic":"tess","reason":"","odometer_km":10}`)
		at := 0
		do := func(fields string) {
			at++
			d.ok("POST", "/api/v1/jobs/"+id+"/happenings", fmt.Sprintf(`{"id":"%s-%04d",%s}`, id, at, fields))
		}
		do(`"kind":"way_chosen","school":"two_stop"`)
		do(`"kind":"prepared","engine_c":19,"ambient_c":18`)
		for step := 0; step < 80; step++ {
			s := d.ok("GET", "/api/v1/jobs/"+id, "")["state"].(map[string]any)
			now := s["now"].(map[string]any)
			valve := now["valve"].(string)
			phase := s["phase"].(string)
			if phase == "verify" {
				break
			}
			switch now["action"] {
			case "turn":
				do(fmt.Sprintf(`"kind":"turned","stop":%v`, now["stop"]))
			case "read":
				leaf := map[byte]string{'I': "0.22", 'E': "0.3"}[valve[0]]
				if phase == "as_found" && (valve == "E1" || valve == "E4") {
					leaf = "0.25" // tight
				}
				do(`"kind":"reading","valve":"` + valve + `","leaves_mm":[` + leaf + `],"feel":"drag"`)
			case "keep":
				do(`"kind":"kept","valve":"` + valve + `"`)
			case "adjust":
				do(`"kind":"adjusted","valve":"` + valve + `","leaves_mm":[0.3]`)
			case "lock":
				do(`"kind":"locked","valve":"` + valve + `"`)
			}
		}
	}
	view := d.ok("GET", "/api/v1/jobs/job-0001", "")
	shift := view["lock_shift"].(map[string]any)
	assert.Equal(t, true, shift["enough"], "six pairs by Tess, however her name is written")
	assert.Equal(t, 6.0, shift["count"])
	valve := view["state"].(map[string]any)["valves"].([]any)[0].(map[string]any)
	assert.Contains(t, valve, "pre_lock_mm")
}

// The workshop's settings, and the probe followed over its line protocol.
func TestShopAndProbe(t *testing.T) {
	d := opened(t)
	shop := d.ok("GET", "/api/v1/shop", "")
	assert.Equal(t, "", shop["probe_address"])
	assert.Equal(t, "off", d.ok("GET", "/api/v1/probe", "")["state"])
	put := func(address, from, to, step, stock string) string {
		return fmt.Sprintf(`{"probe_address":%q,"shim_sizes":{"from_mm":%s,"to_mm":%s,"step_mm":%s},`+
			`"shim_stock":%s}`, address, from, to, step, stock)
	}
	for body, place := range map[string]string{
		put("somewhere.example:80", "2", "3", "0.05",
			"[]"): "body.probe_address",
		put("", "0", "3", "0.05",
			"[]"): "body.shim_sizes.from_mm",
		put("", "3", "2", "0.05", "[]"): "body.shim_sizes",
		put("", "2", "3", "0.05",
			`[{"shim_mm":2.5,"count":1},{"shim_mm":2.5,"count":2}]`): "body.shim_stock[1].shim_mm",
		put("127.0.0.1:7070", "2", "3", "0.05",
			`[{"shim_mm":-2.5,"count":1}]`): "body.shim_stock[0].shim_mm",
	} {
		assert.Equal(t, place, d.refused("PUT", "/api/v1/shop", body, 422), body)
	}
	listener, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	ctx, stop := context.WithCancel(context.Background())
	defer stop()
	go func() {
		_ = probe.Simulated{StartC: 80, AmbientC: 18, K: 0.02, Speed: 1,
			Every: 10 * time.Millisecond}.Serve(ctx, listener)
	}()
	d.ok("PUT", "/api/v1/shop",
		put(listener.Addr().String(), "2", "3", "0.05", `[{"shim_mm":2.5,"count":1}]`))
	require.Eventually(t, func() bool { return d.ok("GET", "/api/v1/probe", "")["state"] == "ok" },
		5*time.Second, 10*time.Millisecond)
	stop()
	require.Eventually(t, func() bool { return d.ok("GET", "/api/v1/probe", "")["state"] == "lost" },
		5*time.Second, 10*time.Millisecond)
	lost := d.ok("GET", "/api/v1/probe", "")
	assert.NotNil(t, lost["engine_c"], "the last reading stays")
}

// How a job is begun: cards that are not there, a feel that cannot be, a hot pass without a cold start.
func TestStartingAJobChecksItsChoices(t *testing.T) {
	d := withJob(t)
	start := func(fields string) string {
		return `{"id":"job-0002","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","mechanic":"Tess",` +
			`"reason":"","odometer_km":10,` + fields + `}`
	}
	assert.Equal(t, "body.card", d.refused("POST", "/api/v1/jobs", start(`"card":0,"hot_card":7`), 422))
	assert.Equal(t, "hot_card", d.refused("POST", "/api/v1/jobs", start(`"card":0,"hot_card":0`), 409))
	assert.Equal(t, "body.feel_mm", d.refused("POST", "/api/v1/jobs", start(`"card":0,"feel_mm":0.2`), 422))
	view := d.ok(
		"POST",
		"/api/v1/jobs",
		start(
			`"card":0,"aim":"loose","aim_reason":"hard use","rule":"guarded","feel_mm":0.008,"card_reason":"plate lost"`,
		),
	)
	assert.Equal(t, "loose", view["aim"])
	assert.Equal(t, "guarded", view["rule"])
	assert.Equal(t, 0.008, view["feel_mm"])
	assert.Equal(t, "plate lost", view["card_reason"])
}

// A job by a hot card may begin cold by the same figures, provisionally; the hot pass by the card itself
// follows.
func TestAHotCardServesTheColdStart(t *testing.T) {
	d := withJob(t)
	hot := strings.NewReplacer(`"state": "cold"`, `"state": "hot"`, `"stone_cold": true,`,
		``).Replace(sheet(t))
	d.ok("PUT", "/api/v1/engines/engine-hot", hot)
	d.ok("POST", "/api/v1/vehicles",
		`{"id":"vehicle-hot","name":"Hot","plate":"","odometer_km":1,"engine_id":"engine-hot"}`)
	d.ok("POST", "/api/v1/jobs",
		`{"id":"job-hot1","vehicle_id":"vehicle-hot","gauge_set_id":"gauges-01","card":0,`+
			`"hot_card":0,"mechanic":"Tess","reason":"","odometer_km":1}`)
	view := d.ok("GET", "/api/v1/jobs/job-hot1", "")
	card := view["state"].(map[string]any)["card"].(map[string]any)
	assert.Equal(t, "cold", card["state"])
	assert.Contains(t, card["remark"], "used cold")
}
