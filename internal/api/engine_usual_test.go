package api_test

import (
	"context"
	"errors"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// What is offered by taps names its source, and every number of cylinders is answered: with an empty list
// where nothing is widely printed.
func TestUsualEnginesAreOffered(t *testing.T) {
	d := opened(t)
	six := d.ok("GET", "/api/v1/usual-engines?cylinders=6", "")
	assert.Contains(t, six["source"], "from memory")
	engines := six["engines"].([]any)
	require.Len(t, engines, 5)
	first := engines[0].(map[string]any)
	assert.Equal(t, "inline", first["layout"])
	rows := first["patterns"].([]any)[0].(map[string]any)["banks"].([]any)[0].(map[string]any)["rows"].([]any)
	assert.Equal(t, "EIIEEIIEEIIE", rows[0].(map[string]any)["valves"])
	assert.Empty(t, d.ok("GET", "/api/v1/usual-engines?cylinders=7", "")["engines"])
	status, _ := d.send("GET", "/api/v1/usual-engines?cylinders=17", "")
	assert.Equal(t, http.StatusUnprocessableEntity, status)
}

// A sheet that was made from a pattern asks for the kinds once: what a job confirmed at the ports is known to
// the engine's next one, and a step that was passed over is not.
func TestKindsConfirmedInAJobAreKnownToTheNext(t *testing.T) {
	d := withJob(t)
	pattern := `{"kinds_to_confirm": true, ` + sheet(t)[1:]
	flagged := func() any {
		return d.ok("GET", "/api/v1/engines/engine-01", "")["sheet"].(map[string]any)["kinds_to_confirm"]
	}
	asked := func(state map[string]any) any { return state["now"].(map[string]any)["confirm_kinds"] }
	for _, c := range []struct {
		job, how string
		known    bool
	}{
		{"job-0002", `"skip":true,"reason":"ports out of sight"`, false},
		{"job-0003", `"skip":false`, true},
	} {
		version := d.ok("GET", "/api/v1/engines/engine-01", "")["version"].(string)
		d.ok("PUT", "/api/v1/engines/engine-01?replaces="+version, pattern)
		d.ok("POST", "/api/v1/jobs", `{"id":"`+c.job+
			`","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,"mechanic":"Tess","reason":"","odometer_km":10}`)
		say := func(fields string) map[string]any {
			return d.ok("POST", "/api/v1/jobs/"+c.job+"/happenings", fields)
		}
		say(`{"id":"` + c.job + `-101","kind":"way_chosen","school":"rocking_pairs"}`)
		say(`{"id":"` + c.job + `-102","kind":"prepared","engine_c":19,"ambient_c":18}`)
		state := say(`{"id":"` + c.job + `-103","kind":"task","task":"safe"}`)
		assert.Equal(t, true, asked(state))
		assert.Contains(t, state["now"].(map[string]any)["headline"].(map[string]any)["before"], "Follow the ports")
		state = say(`{"id":"` + c.job + `-104","kind":"task","task":"kinds",` + c.how + `}`)
		assert.Equal(t, false, asked(state))
		assert.Equal(t, c.known, flagged() == nil, c.how)
	}
	way := d.ok("GET", "/api/v1/vehicles/vehicle-01/my-way?mechanic=Tess", "")
	assert.Equal(t, "rocking_pairs", way["way"].(map[string]any)["school"], "it is the same sheet, confirmed or not")
}

// The demo beside the workshop's own is served on a port of its own where there is one, and the trouble is
// told where there is none.
func TestTheDemoBesideIsOfferedOrRefused(t *testing.T) {
	d := opened(t)
	status, text := d.send("POST", "/api/v1/demo", "")
	assert.Equal(t, http.StatusNotFound, status)
	assert.Contains(t, text, "No demo is served")
	answer := func(port int, err error) (int, string) {
		d.http = api.Handler(d.st, api.Options{Demo: func(context.Context) (int, error) { return port, err }})
		return d.send("POST", "/api/v1/demo", "")
	}
	_, text = answer(8123, nil)
	assert.Contains(t, text, "8123")
	status, text = answer(0, errors.New("no room on the disk"))
	assert.Equal(t, http.StatusServiceUnavailable, status)
	assert.Contains(t, text, "no room on the disk")
}

// A variant is chosen where a job is started, comes back as the vehicle's own the next time, and is part of
// what was the same sheet; figures that are not to be used are refused with why.
func TestVariantsAndDistrustedFiguresAtTheStart(t *testing.T) {
	d := withJob(t)
	version := d.ok("GET", "/api/v1/engines/engine-01", "")["version"].(string)
	more := `{"variants":[{"name":"early","note":"grey cover","turning_point":{"where":"crank pulley bolt","socket_mm":22}}], ` +
		strings.Replace(sheet(t)[1:], `"clearances": [`, `"clearances": [{"source":"hearsay","state":"cold",`+
			`"distrusted":"the maker never gave it","intake":{"nominal_mm":0.1},"exhaust":{"nominal_mm":0.1}},`, 1)
	d.ok("PUT", "/api/v1/engines/engine-01?replaces="+version, more)
	again := strings.Replace(sheet(t), "Made-up", "Twice made-up", 1)
	first := d.ok("PUT", "/api/v1/engines/engine-02", again)
	assert.Equal(t, first, d.ok("PUT", "/api/v1/engines/engine-02", again), "sent again, because its answer was lost")
	_, list := d.send("GET", "/api/v1/engines", "")
	assert.Contains(t, list, "grey cover; 22 mm socket (7/8 in) for the crank pulley bolt")
	start := func(id, fields string) (int, string) {
		return d.send("POST", "/api/v1/jobs", `{"id":"`+id+`","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01",`+
			`"mechanic":"Tess","reason":"","odometer_km":10,`+fields+`}`)
	}
	status, text := start("job-0004", `"card":0`)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "not to be used: the maker never gave it")
	status, text = start("job-0004", `"card":1,"variant":"of 1931"`)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, `no variant \"of 1931\"`)
	status, text = start("job-0004", `"card":1,"variant":"early"`)
	require.Equal(t, http.StatusOK, status, text)
	assert.Contains(t, text, `"variant":"early"`)
	assert.Contains(t, text, `, early"`)
	d.ok("POST", "/api/v1/jobs/job-0004/happenings", `{"id":"job-0004-101","kind":"way_chosen","school":"two_stop"}`)
	way := d.ok("GET", "/api/v1/vehicles/vehicle-01/my-way?mechanic=Tess", "")
	assert.Equal(t, "early", way["variant"])
	assert.Equal(t, 1.0, way["card"], "the only one that may be used")
	assert.Equal(t, "two_stop", way["way"].(map[string]any)["school"])
	way = d.ok("GET", "/api/v1/vehicles/vehicle-01/my-way?mechanic=Tess&as_sheet=true", "")
	assert.Empty(t, way["variant"])
	assert.Nil(t, way["way"], "what was done on another variant is no way of this one")
}
