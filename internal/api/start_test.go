package api_test

import (
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// changedCam is a card of one vehicle alone, in thousandths of an inch.
const changedCam = `{"source":"cam grinder's card","state":"cold","intake":{"nominal_in":0.012,"tolerance_in":0.001},` +
	`"exhaust":{"nominal_in":0.016,"tolerance_in":0.001}}`

// recorded keeps a recording with a job and gives its hash.
func (d *door) recorded(job, data string) string {
	d.t.Helper()
	return d.ok("POST", "/api/v1/jobs/"+job+"/sounds", data)["hash"].(string)
}

// newJob is the start of a job of the only vehicle.
func newJob(id, more string) string {
	return `{"id":"` + id + `","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","mechanic":"Tess",` +
		`"reason":"",` + more + `}`
}

// An odometer does not run backwards: what shows less has a reason, and then that is what the vehicle
// stands at.
func TestAnOdometerThatRunsBackwards(t *testing.T) {
	d := withJob(t)
	d.ok("POST", "/api/v1/jobs", newJob("job-0002", `"card":0,"odometer_km":90000`))
	status, text := d.send("POST", "/api/v1/jobs", newJob("job-0003", `"card":0,"odometer_km":9000`))
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "stood at 90,000 km (55,923 miles) last time, and this is 9,000 km")
	assert.Contains(t, text, `"location":"body.odometer_km"`)
	status, _ = d.send("GET", "/api/v1/jobs/job-0003", "")
	assert.Equal(t, http.StatusNotFound, status, "nothing was stored")
	d.ok("POST", "/api/v1/jobs", newJob("job-0003", `"card":0,"odometer_km":0`)) // it was not read

	view := d.ok("POST", "/api/v1/jobs",
		newJob("job-0004", `"card":0,"odometer_km":9000,"odometer_why":"new instrument"`))
	assert.Equal(t, "new instrument", view["odometer_why"])
	assert.Equal(t, 9000.0, d.ok("GET", "/api/v1/vehicles/vehicle-01/history",
		"")["vehicle"].(map[string]any)["odometer_km"])

	// the slip is in this job's own start: it is corrected without a reason
	d.ok("POST", "/api/v1/jobs", newJob("job-0005", `"card":0,"odometer_km":99000`))
	d.ok("PUT", "/api/v1/jobs/job-0005/start",
		`{"vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","mechanic":"Tess","reason":"","card":0,`+
			`"odometer_km":9900}`)
	assert.Equal(t, 9900.0, d.ok("GET", "/api/v1/vehicles/vehicle-01/history",
		"")["vehicle"].(map[string]any)["odometer_km"])
}

// The card of a changed cam belongs to one vehicle: a job may be done by it, keeps it, and the engine's sheet
// knows nothing of it.
func TestACardOfOneVehicle(t *testing.T) {
	d := withJob(t)
	ofSheet := func() int {
		return len(d.ok("GET", "/api/v1/engines/engine-01",
			"")["sheet"].(map[string]any)["clearances"].([]any))
	}
	sheetCards := ofSheet()
	h := d.ok("PUT", "/api/v1/vehicles/vehicle-01/cards", `{"cards":[`+changedCam+`]}`)
	assert.Len(t, h["own_cards"], 1)
	own := h["vehicle"].(map[string]any)["cards"].([]any)[0].(map[string]any)
	assert.Equal(t, "cam grinder's card", own["source"])
	assert.Equal(t, true, own["intake"].(map[string]any)["in_thou"])

	view := d.ok("POST", "/api/v1/jobs",
		newJob("job-0002", `"card":`+string(rune('0'+sheetCards))+`,"odometer_km":10`))
	assert.Equal(t, "cam grinder's card", view["card"].(map[string]any)["source"])
	d.ok("PUT", "/api/v1/vehicles/vehicle-01/cards", `{"cards":[]}`)
	view = d.ok("GET", "/api/v1/jobs/job-0002", "")
	assert.Equal(t, "cam grinder's card", view["card"].(map[string]any)["source"],
		"the job keeps what it was begun by")
	assert.Equal(t, sheetCards, ofSheet())

	status, text := d.send("PUT", "/api/v1/vehicles/vehicle-01/cards",
		`{"cards":[{"source":"x","state":"cold","intake":{"nominal_mm":12},"exhaust":{"nominal_mm":0.3}}]}`)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "cards[0].intake")
	assert.Contains(t, text, "far too large")
}

// One job asked for by two people: each is told in the own units, and what is judged is the same.
func TestEachIsToldInTheOwnUnits(t *testing.T) {
	d := withJob(t).begun()
	d.happen(4, `"kind":"reading","valve":"E1","leaves_mm":[0.25],"feel":"wont_go"`)
	speaks := func(units string) func(*http.Request) {
		return func(r *http.Request) { r.AddCookie(&http.Cookie{Name: "metronix_units", Value: units}) }
	}
	_, home := d.send("GET", "/api/v1/jobs/job-0001", "")
	_, away := d.send("GET", "/api/v1/jobs/job-0001", "", speaks("thou.lbfft.f.mi.furlongs"))
	_, again := d.send("GET", "/api/v1/jobs/job-0001", "")
	assert.Contains(t, home, "0.25 won't go: under the limit 0.28 mm.")
	assert.Contains(t, away, "0.25 won't go: under the limit 11 thou.")
	assert.Contains(t, home, "38 °C (100.4 °F)")
	assert.Contains(t, away, "100.4 °F (38 °C)")
	assert.Contains(t, home, `"in_thou":false`)
	assert.NotContains(t, away, `"in_thou":false`)
	clock := func(s string) string { return s[:strings.Index(s, `"clock"`)] }
	assert.Equal(t, clock(home), clock(again), "what one was told does not stay with the job")

	// what is taken back is told in the same units
	_, text := d.send(
		"POST",
		"/api/v1/jobs/job-0001/happenings",
		`{"id":"happening-004b","kind":"reading","valve":"E1","leaves_mm":[0.2],"feel":"free"}`,
		speaks("thou"),
	)
	assert.Contains(t, text, `"in_thou":true`)
	_, text = d.send("POST", "/api/v1/jobs/job-0001/happenings",
		`{"id":"happening-004c","kind":"undone","target":"happening-004b"}`, speaks("thou"))
	assert.Contains(t, text, `"in_thou":true`)
	assert.NotContains(t, text, `"in_thou":false`)

	// a refusal too, and the printed sheet
	status, text := d.send("POST", "/api/v1/jobs/job-0001/happenings",
		`{"id":"happening-005","kind":"prepared","engine_c":60,"ambient_c":18}`, speaks("f"))
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, text, "140 °F (60 °C)")
	d.ok("PUT", "/api/v1/vehicles/vehicle-01/intervals",
		`{"intervals":[{"km":24000,"months":12,"source":"book"}]}`)
	d.inspected("visit-001", time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC), 10_000, nil)
	_, text = d.send("GET", "/api/v1/vehicles/vehicle-01/history", "", speaks("mi"))
	assert.Contains(t, text, "The interval of 14,913 miles (24,000 km), or")
	_, text = d.send("GET", "/api/v1/due", "")
	assert.Contains(t, text, "The interval of 24,000 km (14,913 miles), or")
}

// A recording is told by its bytes, kept as it is, and played back as what it is.
func TestARecordingIsKept(t *testing.T) {
	d := withJob(t)
	for media, data := range map[string]string{"audio/wav": "RIFF\x24\x00\x00\x00WAVEfmt ",
		"audio/webm": "\x1a\x45\xdf\xa3\x9f\x42\x82\x84webm rest",
		"audio/ogg":  "OggS\x00rest", "audio/mp4": "\x00\x00\x00\x18ftypM4A ",
		"audio/mpeg": "\xff\xfb\x90\x44rest"} {
		hash := d.recorded("job-0001", data)
		part, some := d.send(
			"GET",
			"/api/v1/sounds/"+hash,
			"",
			func(r *http.Request) { r.Header.Set("Range", "bytes=1-3") },
		)
		assert.Equal(t, http.StatusPartialContent, part, "a player seeks by parts")
		assert.Len(t, some, 3)
		status, text := d.send("GET", "/api/v1/sounds/"+hash, "")
		require.Equal(t, http.StatusOK, status, media)
		assert.Equal(t, data, text, media)
		status, _ = d.send("GET", "/api/v1/photos/"+hash, "")
		assert.Equal(t, http.StatusNotFound, status, "a sound is no picture")
	}
	hash := d.recorded("job-0001", "OggS\x00tick")
	state := d.happen(1, `"kind":"sound","after":true,"note":" even now ","file":"`+hash+`"`)
	assert.Equal(t, map[string]any{"note": "even now", "file": hash}, state["sound_after"])
	for why, data := range map[string]string{"no recording": "<svg onload=alert(1)>",
		"": strings.Repeat("x", 5<<20)} {
		status, text := d.send("POST", "/api/v1/jobs/job-0001/sounds", data)
		assert.GreaterOrEqual(t, status, 400)
		assert.Contains(t, text, why)
	}
	status, _ := d.send("POST", "/api/v1/jobs/no-such-job/sounds", "OggS\x00")
	assert.Equal(t, http.StatusNotFound, status)
}
