package api_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// inspected stores a finished inspection of the vehicle: every valve read by a dial at its limits' nominal,
// but those named, at an odometer and on a day.
func (d *door) inspected(id string, day time.Time, odometer int, gaps map[string]float64,
	findings ...string) {
	d.t.Helper()
	d.inspectedOf("vehicle-01", "odometer_km", id, day, odometer, gaps, findings...)
}

// inspectedOf is that for a vehicle with a counter of its own.
func (d *door) inspectedOf(vehicle, counts, id string, day time.Time, shown int, gaps map[string]float64,
	findings ...string) {
	d.t.Helper()
	now := day
	d.http = api.Handler(d.st,
		api.Options{Clock: func() time.Time { now = now.Add(time.Second); return now }})
	d.ok("POST", "/api/v1/jobs",
		fmt.Sprintf(`{"id":%q,"vehicle_id":%q,"gauge_set_id":"gauges-01","card":0,`+
			`"mechanic":"Tess","reason":"",%q:%d}`, id, vehicle, counts, shown))
	n := 0
	happen := func(fields string) map[string]any {
		n++
		return d.ok("POST", "/api/v1/jobs/"+id+"/happenings",
			fmt.Sprintf(`{"id":"%s-%03d",%s}`, id, n, fields))
	}
	s := happen(`"kind":"way_chosen","school":"one_cylinder","round":"read_only"`)
	for _, f := range findings {
		s = happen(`"kind":"finding",` + f)
	}
	for range 60 {
		now := s["now"].(map[string]any)
		valve := now["valve"].(string)
		switch now["action"] {
		case "prepare":
			s = happen(`"kind":"prepared","engine_c":19,"ambient_c":18`)
		case "turn":
			s = happen(fmt.Sprintf(`"kind":"turned","stop":%v`, now["stop"]))
		case "read":
			gap, ok := gaps[valve]
			if !ok {
				gap = map[byte]float64{'I': 0.22, 'E': 0.30}[valve[0]]
			}
			s = happen(fmt.Sprintf(`"kind":"dial","valve":%q,"gap_mm":%v,"uncertainty_mm":0.001`, valve, gap))
		case "keep":
			s = happen(fmt.Sprintf(`"kind":"kept","valve":%q`, valve))
		default:
			if len(findings) > 0 {
				s = happen(`"kind":"signed","by":"Tess","tools_out":true,"exceptions":"not asked for"`)
			} else {
				s = happen(`"kind":"signed","by":"Tess","tools_out":true`)
			}
			require.Equal(d.t, "done", s["phase"])
			return
		}
	}
}

// E1 is left at 0.30 and found at 0.29 after 20,000 km: 0.0005 mm per 1,000 km, so from 0.29 it reaches its
// limit of 0.28 after another 20,000, at 50,000. At 20,000 km in 200 days that is 200 days on. By hand.
func TestAVehiclesHistoryAndWhenItIsDue(t *testing.T) {
	d := withJob(t)
	first := time.Date(2025, 3, 1, 9, 0, 0, 0, time.UTC)
	empty := d.ok("GET", "/api/v1/vehicles/vehicle-01/history", "")
	assert.Empty(t, empty["visits"])
	assert.Equal(t, "There is no visit yet.", empty["due"].(map[string]any)["because"])

	d.inspected("visit-001", first, 10_000, nil,
		`"finding":"f1","place":"gasket","what":"hard","later":true`)
	d.inspected("visit-002", first.AddDate(0, 0, 200), 30_000, map[string]float64{"E1": 0.29})
	h := d.ok("GET", "/api/v1/vehicles/vehicle-01/history", "")
	require.Len(t, h["visits"], 2)
	decides := h["wear"].([]any)[0].(map[string]any)
	assert.Equal(t, "E1", decides["valve"])
	assert.InDelta(t, -0.0005, decides["rate_mm_per_1000"], 1e-9)
	assert.InDelta(t, 50_000, decides["leaves_at"], 1e-6)
	assert.Equal(t, true, decides["odd"], "the other exhausts stand still")
	assert.InDelta(t, 100, h["per_day"], 0.01)
	due := h["due"].(map[string]any)
	assert.Equal(t, first.AddDate(0, 0, 400).Format(time.DateOnly), due["on"])
	assert.InDelta(t, 50_000, due["odometer_km"], 1)

	// the shortest interval decides, whoever is right; each is kept with its source
	_, refused := d.send("PUT", "/api/v1/vehicles/vehicle-01/intervals",
		`{"intervals":[{"km":0,"months":0,"source":"book"}]}`)
	assert.Contains(t, refused, "names neither a distance, nor hours, nor a time")
	h = d.ok(
		"PUT",
		"/api/v1/vehicles/vehicle-01/intervals",
		`{"intervals":[{"km":0,"months":6,"source":"the yard"},{"km":40000,"months":12,"source":"maker's book"}]}`,
	)
	assert.Len(t, h["intervals"], 2)
	assert.Equal(t, first.AddDate(0, 0, 200).AddDate(0, 6, 0).Format(time.DateOnly),
		h["due"].(map[string]any)["on"])

	status, text := d.send("GET", "/api/v1/due", "")
	require.Equal(t, http.StatusOK, status)
	var list []map[string]any
	require.NoError(t, json.Unmarshal([]byte(text), &list))
	require.Len(t, list, 1)
	assert.Equal(t, h["due"].(map[string]any)["on"], list[0]["on"])
	for _, path := range []string{"/api/v1/due.ics", "/api/v1/vehicles/vehicle-01/due.ics"} {
		status, text = d.send("GET", path, "")
		assert.Equal(t, http.StatusOK, status)
		assert.Contains(t, text, "UID:vehicle-01@metronix")
	}

	// what was left for later comes back at the next job
	d.http = api.Handler(d.st, api.Options{Clock: func() time.Time { return first.AddDate(0, 0, 100) }})
	d.ok("POST", "/api/v1/jobs",
		`{"id":"job-0002","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,`+
			`"mechanic":"June","reason":"","odometer_km":30000}`)
	before := d.ok("GET", "/api/v1/jobs/job-0002", "")["before"].(map[string]any)
	assert.Equal(t, "visit-001", before["id"])
	assert.Equal(t, []any{"gasket: hard"}, before["later"])
}

// A pump has no odometer: it counts running hours, and wears and falls due by them. E1 is left at 0.30 and
// found at 0.29 after 400 h: 0.025 mm in a thousand, so from 0.29 it reaches its limit of 0.28 after another
// 400, at 1,000. By hand.
func TestAMachineThatCountsRunningHours(t *testing.T) {
	d := withJob(t)
	pump := `{%s"name":"Yard pump","plate":"","engine_id":"engine-01","counts":"h",%s}`
	d.ok("POST", "/api/v1/vehicles", fmt.Sprintf(pump, `"id":"vehicle-02",`, `"hours":150`))
	day := time.Date(2025, 3, 1, 9, 0, 0, 0, time.UTC)
	hours := func(id string, days, shown int, gaps map[string]float64) {
		d.inspectedOf("vehicle-02", "hours", id, day.AddDate(0, 0, days), shown, gaps)
	}
	hours("visit-001", 0, 200, nil)
	hours("visit-002", 100, 600, map[string]float64{"E1": 0.29})
	h := d.ok("PUT", "/api/v1/vehicles/vehicle-02/intervals",
		`{"intervals":[{"hours":750,"km":0,"months":0,"source":"maker's book"}]}`)
	vehicle := h["vehicle"].(map[string]any)
	assert.Equal(t, "h", vehicle["counts"])
	assert.InDelta(t, 600, vehicle["hours"], 0)
	assert.InDelta(t, 0, vehicle["odometer_km"], 0)
	decides := h["wear"].([]any)[0].(map[string]any)
	assert.InDelta(t, -0.025, decides["rate_mm_per_1000"], 1e-9)
	assert.InDelta(t, 1_000, decides["leaves_at"], 1e-6)
	assert.InDelta(t, 4, h["per_day"], 0.01)
	due := h["due"].(map[string]any)
	assert.InDelta(t, 1_000, due["hours"], 0)
	assert.Equal(t, day.AddDate(0, 0, 200).Format(time.DateOnly), due["on"])
	assert.Equal(t, "E1 leaves its limits on the tight side.", due["because"])
	_, sheet := d.send("GET", "/api/v1/jobs/visit-002/sheet", "")
	assert.Contains(t, sheet, `{"label":"Running hours","text":"600 h"}`)
	_, table := d.send("GET", "/api/v1/jobs/visit-002/report.csv", "")
	assert.Contains(t, table, ",600\n")
	assert.Contains(t, table, ",hours\n")
	_, calendar := d.send("GET", "/api/v1/due.ics", "")
	assert.Contains(t, calendar, "At 1\\,000 h. E1 leaves")

	// what cannot be is said, and nothing stored is lost
	for body, want := range map[string]string{
		fmt.Sprintf(pump, "", `"hours":90`): "The hour meter of Yard pump stood at 600 h last time, and this " +
			"is 90 h.",
		fmt.Sprintf(pump, "", `"odometer_km":7000`): "7000 kilometres are given, and this vehicle counts running",
		strings.Replace(fmt.Sprintf(pump, "", `"odometer_km":7000`), `"counts":"h"`, `"counts":"km"`, 1): "The " +
			"visits of Yard pump were counted otherwise",
	} {
		_, refused := d.send("PUT", "/api/v1/vehicles/vehicle-02", body)
		assert.Contains(t, refused, want)
	}
	_, refused := d.send("PUT", "/api/v1/vehicles/vehicle-02/intervals",
		`{"intervals":[{"km":9000,"months":0,"source":"maker's book"}]}`)
	assert.Contains(t, refused, "The interval of maker's book: 9000 kilometres are given")

	// a new hour meter begins anew, for a reason
	d.ok("PUT", "/api/v1/vehicles/vehicle-02",
		fmt.Sprintf(pump, "", `"hours":3,"odometer_why":"New instrument"`))
	vehicle = d.ok("GET", "/api/v1/vehicles/vehicle-02/history", "")["vehicle"].(map[string]any)
	assert.InDelta(t, 3, vehicle["hours"], 0)
}

// A new cam is checked once, some weeks after it was fitted: due sooner than any interval, and no more once a
// job was finished after it. A day that has not come yet is refused.
func TestDueOnceAfterANewCam(t *testing.T) {
	d := withJob(t)
	fitted := time.Date(2026, 3, 3, 0, 0, 0, 0, time.UTC)
	d.inspected("visit-001", fitted.Add(-24*time.Hour), 20_000, nil)
	h := d.ok("PUT", "/api/v1/vehicles/vehicle-01/intervals",
		`{"intervals":[{"km":0,"months":12,"source":"book"},`+
			`{"km":0,"months":0,"weeks":4,"source":"new cam","once_from":"2026-03-03"}]}`)
	due := h["due"].(map[string]any)
	assert.Equal(t, "2026-03-31", due["on"])
	assert.Equal(t, "Once, 4 weeks after the new cam.", due["because"])
	status, text := d.send("PUT", "/api/v1/vehicles/vehicle-01/intervals",
		`{"intervals":[{"km":0,"months":0,"weeks":4,"source":"new cam","once_from":"2099-03-03"}]}`)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "2099-03-03, which has not come yet")
	d.inspected("visit-002", fitted.AddDate(0, 0, 25), 20_700, nil)
	due = d.ok("GET", "/api/v1/vehicles/vehicle-01/history", "")["due"].(map[string]any)
	assert.Equal(t, "2027-03-28", due["on"], "12 months from the check")
}

func TestVehiclesAreFound(t *testing.T) {
	d := withJob(t)
	for i := range 5 {
		d.ok("POST", "/api/v1/vehicles", fmt.Sprintf(
			`{"id":"vehicle-1%d","name":"Mower 10%% %d","plate":"M_%d","odometer_km":0,"engine_id":"engine-01"}`,
			i,
			i,
			i,
		))
	}
	found := func(query string) (names []string) {
		status, text := d.send("GET", "/api/v1/vehicles?"+query, "")
		require.Equal(t, http.StatusOK, status, text)
		var list []struct{ Name string }
		require.NoError(t, json.Unmarshal([]byte(text), &list))
		for _, v := range list {
			names = append(names, v.Name)
		}
		return names
	}
	assert.Len(t, found(""), 6)
	assert.Equal(t, []string{"Mower 10% 0", "Mower 10% 1"}, found("search=mower&limit=2"))
	assert.Equal(t, []string{"Mower 10% 4"}, found("search=mower&limit=2&offset=4"))
	assert.Equal(t, []string{"Mower 10% 3"}, found("search=M_3"))
	assert.Equal(t, []string{"Tipper"}, found("search=t%201"))
	assert.Empty(t, found("search=10_"), "an underscore stands for itself")
	assert.Len(t, found("search=10%25"), 5)
}

// A task, a tool and the clocks go through the interface as the core has them, and the board shows what
// cures.
func TestTheStepsAroundTheBench(t *testing.T) {
	d := withJob(t).begun()
	s := d.happen(4, `"kind":"taken_in","complaints":["ticks"],"note":"warm"`)
	assert.Equal(t, false, s["guided"], "what it came in for binds to nothing")
	assert.Equal(t, []any{"loose"}, s["taken_in"].(map[string]any)["sides"])
	s = d.happen(5, `"kind":"tool","tool":"turning"`)
	assert.Equal(t, true, s["tools"].([]any)[0].(map[string]any)["out"])
	status, text := d.send("POST", "/api/v1/jobs/job-0001/happenings",
		`{"id":"happening-006","kind":"task","task":"crank_free"}`)
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, text, "Still out:")
	status, text = d.send("POST", "/api/v1/jobs/job-0001/happenings",
		`{"id":"happening-007","kind":"task","task":"dance"}`)
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, text, "is no step")
	s = d.happen(8, `"kind":"task","task":"safe","skip":true,"reason":"on a stand"`)
	for _, x := range s["tasks"].([]any) {
		if task := x.(map[string]any); task["id"] == "safe" {
			assert.Equal(t, "on a stand", task["reason"])
			assert.Equal(t, true, task["skipped"])
		}
	}
}

func TestAJobLeavesAsFiles(t *testing.T) {
	d := withJob(t)
	d.inspected("visit-001", time.Date(2025, 3, 1, 9, 0, 0, 0, time.UTC), 10_000, nil)
	for path, begins := range map[string]string{"report.pdf": "%PDF-1.", "report.pdf?paper=letter": "%PDF-1.",
		"report.csv": "job,vehicle,plate,", "report.json": "{\n"} {
		status, text := d.send("GET", "/api/v1/jobs/visit-001/"+path, "")
		require.Equal(t, http.StatusOK, status, path)
		assert.True(t, len(text) > 200 && text[:len(begins)] == begins, "%s: %.40s", path, text)
	}
	status, _ := d.send("GET", "/api/v1/jobs/visit-001/report.pdf?paper=a0", "")
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	status, _ = d.send("GET", "/api/v1/jobs/no-such-job/report.pdf", "")
	assert.Equal(t, http.StatusNotFound, status)
}
