package api_test

import (
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// A signed sheet is of the vehicle as it was called when it was signed, on every paper and screen, whatever
// becomes of the vehicle; and what its job was started from is what was signed, or the job does not open.
func TestASignedSheetStaysWhatItWas(t *testing.T) {
	d := withJob(t)
	d.inspected("visit-001", time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC), 10_000, nil)
	before := d.ok("GET", "/api/v1/jobs/visit-001", "")["vehicle"].(map[string]any)
	status, text := d.send("PUT", "/api/v1/vehicles/vehicle-01",
		`{"name":"Another Bus","plate":"ZZ 1","odometer_km":10000,"engine_id":"engine-01"}`)
	require.Equal(t, http.StatusOK, status, text)
	after := d.ok("GET", "/api/v1/jobs/visit-001", "")["vehicle"].(map[string]any)
	assert.Equal(t, before["name"], after["name"])
	assert.Equal(t, before["plate"], after["plate"])
	for _, path := range []string{"report.csv", "report.json"} {
		_, text := d.send("GET", "/api/v1/jobs/visit-001/"+path, "")
		assert.NotContains(t, text, "Another Bus", path)
	}
	_, board := d.send("GET", "/api/v1/jobs", "")
	assert.Contains(t, board, before["name"].(string))
	assert.Equal(
		t,
		"Another Bus",
		d.ok("GET", "/api/v1/jobs/job-0001", "")["vehicle"].(map[string]any)["name"],
		"one that is open goes by what it is called now",
	)

	// signing once more by the same id is the same, though it was renamed meanwhile
	found, err := api.Check(t.Context())(d.st)
	require.NoError(t, err)
	assert.Empty(t, found.Troubles)
	spoil(t, d.path, `UPDATE jobs SET card_reason = 'because' WHERE id = 'visit-001'`)
	d.http = api.Handler(d.st, api.Options{}) // as after a restart
	status, text = d.send("GET", "/api/v1/jobs/visit-001", "")
	assert.Equal(t, http.StatusInternalServerError, status)
	assert.Contains(t, text, "is not what was signed")
}
