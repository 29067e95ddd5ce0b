package api_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/store"
)

// outsideAt is a sheet of another shop that found and left all valves of a four at one gap a kind.
func outsideAt(day string, odometer int, intake, exhaust float64) string {
	valves := ""
	for c := 1; c <= 4; c++ {
		valves += fmt.Sprintf(
			`,{"valve":"I%d","found_mm":%v,"left_mm":%v},{"valve":"E%d","found_mm":%v,"left_mm":%v}`,
			c,
			intake,
			intake,
			c,
			exhaust,
			exhaust,
		)
	}
	return fmt.Sprintf(
		`{"on":%q,"odometer_km":%d,"state":"cold","shop":"Lane end","valves":[%s]}`,
		day,
		odometer,
		valves[1:],
	)
}

// A sheet of another shop stands among a vehicle's visits by its day, gives its valves a rate, and a wider
// one than two visits here would (core/record has the figures).
func TestAnotherShopsSheetCountsAsAVisit(t *testing.T) {
	d := withJob(t)
	d.inspected("job-2026", time.Date(2026, 5, 4, 9, 0, 0, 0, time.UTC), 60_000, nil)
	h := d.ok(
		"PUT",
		"/api/v1/vehicles/vehicle-01/outside",
		`{"visits":[`+outsideAt("2025-05-03", 40_000, 0.24, 0.32)+`]}`,
	)
	visits := h["visits"].([]any)
	require.Len(t, visits, 2)
	first := visits[0].(map[string]any)
	assert.Equal(t, "", first["job_id"])
	assert.Equal(t, "Lane end", first["by"])
	assert.Equal(t, 40_000.0, first["odometer_km"])
	assert.Equal(t, 2.0, h["counted"])
	wear := h["wear"].([]any)[0].(map[string]any)
	assert.InDelta(t, -0.001, wear["rate_mm_per_1000"], 1e-9, "0.02 mm over 20,000 km")
	// the root of 0.0166² + 0.001²/3 over 20: the dial here is certain to 0.001
	assert.InDelta(t, 0.00083, wear["rate_u_mm_per_1000"], 0.00001)
	assert.Equal(t, false, wear["differs"])
	assert.Len(t, h["outside"], 1)

	h = d.ok("PUT", "/api/v1/vehicles/vehicle-01/outside", `{"visits":[]}`)
	assert.Len(t, h["visits"], 1)
	assert.Empty(t, h["wear"].([]any)[0].(map[string]any)["rate_mm_per_1000"])
}

// A slip in such a sheet is told with what, where and why, and nothing is stored of it.
func TestASlipInAnotherShopsSheet(t *testing.T) {
	d := withJob(t)
	d.inspected("job-2026", time.Date(2026, 5, 4, 9, 0, 0, 0, time.UTC), 60_000, nil)
	one := func(on string, km int, state, valves string) string {
		return fmt.Sprintf(
			`{"visits":[{"on":%q,"odometer_km":%d,"state":%q,"shop":"Lane end","valves":[%s]}]}`,
			on,
			km,
			state,
			valves,
		)
	}
	const good = `{"valve":"E1","left_mm":0.3}`
	for said, body := range map[string]string{
		"has not come yet":             one("2031-05-03", 40_000, "cold", good),
		"has no valve E9":              one("2025-05-03", 40_000, "cold", `{"valve":"E9","left_mm":0.3}`),
		"has E1 twice":                 one("2025-05-03", 40_000, "cold", good+","+good),
		"no gap of E1":                 one("2025-05-03", 40_000, "cold", `{"valve":"E1"}`),
		"a gap is 0 to 2 mm":           one("2025-05-03", 40_000, "cold", `{"valve":"E1","left_mm":30}`),
		"No hot limits are known":      one("2025-05-03", 40_000, "hot", good),
		"On 2026-05-04 it showed 60,0": one("2025-05-03", 71_000, "cold", good),
		"RFC 3339 date":                one("2025-02-30", 40_000, "cold", good),
	} {
		status, text := d.send("PUT", "/api/v1/vehicles/vehicle-01/outside", body)
		assert.Equal(t, 422, status, text)
		assert.Contains(t, text, said)
	}
	sheet := `{"on":"2025-05-03","state":"cold","shop":"Lane end","valves":[` + good + `]}`
	status, text := d.send("PUT", "/api/v1/vehicles/vehicle-01/outside", `{"visits":[`+sheet+`,`+sheet+`]}`)
	assert.Equal(t, 422, status, text)
	assert.Contains(t, text, "stands there twice")
	status, text = d.send("GET", "/api/v1/vehicles/vehicle-01/history", "")
	require.Equal(t, 200, status)
	assert.Contains(t, text, `"outside":[]`)
}

// Such sheets go out with the archive and come in again; one that was damaged is named, and holds nothing
// else up.
func TestAnotherShopsSheetIsKept(t *testing.T) {
	d := withJob(t)
	d.ok(
		"PUT",
		"/api/v1/vehicles/vehicle-01/outside",
		`{"visits":[`+outsideAt("2025-05-03", 4, 0.24, 0.32)+`]}`,
	)
	var archive bytes.Buffer
	manifest, err := d.st.WriteArchive(&archive, "test", time.Now())
	require.NoError(t, err)
	require.Empty(t, manifest.Damaged)
	again, err := store.Open(filepath.Join(t.TempDir(), "again.db"))
	require.NoError(t, err)
	t.Cleanup(again.Close)
	packed := bytes.NewReader(archive.Bytes())
	_, err = again.ReadArchive(packed, packed.Size(), time.Now(), api.Admission())
	require.NoError(t, err)
	there := &door{t: t, st: again, http: api.Handler(again, api.Options{})}
	outside := func(d *door) string {
		text, err := json.Marshal(d.ok("GET", "/api/v1/vehicles/vehicle-01/history", "")["outside"])
		require.NoError(t, err)
		return string(text)
	}
	assert.Contains(t, outside(d), "Lane end")
	assert.Equal(t, outside(d), outside(there))
}

// A vehicle with such a sheet keeps its counter: its kilometres would be no hours, and the sheet would read
// no more.
func TestAnotherShopsSheetHoldsTheCounter(t *testing.T) {
	d := withJob(t)
	d.ok(
		"POST",
		"/api/v1/vehicles",
		`{"id":"vehicle-02","name":"Crane","plate":"","odometer_km":0,"engine_id":"engine-01"}`,
	)
	d.ok(
		"PUT",
		"/api/v1/vehicles/vehicle-02/outside",
		`{"visits":[`+outsideAt("2025-05-03", 40_000, 0.24, 0.32)+`]}`,
	)
	status, text := d.send("PUT", "/api/v1/vehicles/vehicle-02",
		`{"name":"Crane","plate":"","counts":"h","hours":10,"engine_id":"engine-01"}`)
	assert.Equal(t, 409, status, text)
	h := d.ok("GET", "/api/v1/vehicles/vehicle-02/history", "")
	assert.Len(t, h["outside"], 1)
	assert.Empty(t, h["vehicle"].(map[string]any)["damaged"])
}
