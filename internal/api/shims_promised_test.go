package api_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// One shim of the stock that two open jobs count on is said to be promised twice, in each of them; once it is
// under a valve the other job counts on another.
func TestAShimPromisedToTwoJobs(t *testing.T) {
	d := withJob(t)
	var shimmed map[string]any
	decode(t, sheet(t), &shimmed)
	shimmed["adjuster"] = map[string]any{"kind": "shim"}
	text, err := json.Marshal(shimmed)
	require.NoError(t, err)
	d.ok("PUT", "/api/v1/engines/engine-sh", string(text))
	d.ok("PUT", "/api/v1/shop", `{"probe_address":"","shim_sizes":{"from_mm":2,"to_mm":3.2,"step_mm":0.05},`+
		`"shim_stock":[{"shim_mm":2.45,"count":1}]}`)
	for _, name := range []string{"Mower", "Grader"} {
		d.ok("POST", "/api/v1/vehicles",
			`{"id":"vehicle-`+name+`","name":"`+name+`","plate":"","odometer_km":0,"engine_id":"engine-sh"}`)
		d.ok(
			"POST",
			"/api/v1/jobs",
			`{"id":"job-`+name+`","vehicle_id":"vehicle-`+name+`","gauge_set_id":"gauges-01",`+
				`"card":0,"mechanic":"Tess","reason":"","odometer_km":0}`,
		)
		d.toShims("job-" + name)
	}
	for of, other := range map[string]string{"Mower": "Grader", "Grader": "Mower"} {
		plan := d.ok("GET", "/api/v1/jobs/job-"+of+"/shims", "")
		require.Len(t, plan["promised"], 1, "%v", plan["fit"])
		p := plan["promised"].([]any)[0].(map[string]any)
		assert.Equal(t, 2.45, p["shim_mm"])
		assert.Equal(t, 1.0, p["in_stock"])
		assert.Equal(t, 2.0, p["wanted"])
		assert.Equal(t, []any{other}, p["jobs"])
	}
	step := d.ok("GET", "/api/v1/jobs/job-Mower/shims", "")["steps"].([]any)[0].(map[string]any)
	d.ok("POST", "/api/v1/jobs/job-Mower/happenings", fmt.Sprintf(
		`{"id":"fitted-1","kind":"adjusted","valve":%q,"shim_mm":%v}`, step["valve"], step["shim_mm"]))
	plan := d.ok("GET", "/api/v1/jobs/job-Grader/shims", "")
	assert.Empty(t, plan["promised"])
	assert.NotEmpty(t, plan["buy"], "it is gone: another is to be bought")
}

// toShims reads every valve of a job, one exhaust valve tight, up to the choice of shims.
func (d *door) toShims(id string) {
	d.t.Helper()
	at := 0
	do := func(fields string) {
		at++
		d.ok("POST", "/api/v1/jobs/"+id+"/happenings", fmt.Sprintf(`{"id":"happened-%04d",%s}`, at, fields))
	}
	do(`"kind":"way_chosen","school":"one_cylinder"`)
	do(`"kind":"prepared","engine_c":19,"ambient_c":18`)
	for range 80 {
		s := d.ok("GET", "/api/v1/jobs/"+id, "")["state"].(map[string]any)
		now := s["now"].(map[string]any)
		valve := now["valve"].(string)
		switch {
		case now["action"] == "turn" && now["shim"] == nil && s["phase"] == "as_found":
			do(fmt.Sprintf(`"kind":"turned","stop":%v`, now["stop"]))
		case now["action"] == "read":
			leaf := map[byte]string{'I': "0.22", 'E': "0.3"}[valve[0]]
			if valve == "E2" { // stands at the last stop
				leaf = "0.25"
			}
			do(
				`"kind":"reading","valve":"` + valve + `","leaves_mm":[` + leaf + `],"feel":"drag","keep_sure":true`,
			)
		case now["action"] == "keep":
			do(`"kind":"kept","valve":"` + valve + `"`)
		case now["action"] == "adjust" && now["shim"] == nil:
			do(`"kind":"sized","valve":"` + valve + `","shim_mm":2.5`)
		default:
			return
		}
	}
}
