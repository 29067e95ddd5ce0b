package api_test

import (
	"fmt"
	"net/http"
	"os"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// largestJob is a job on an engine with 48 valves, with a set of 120 leaves, at a stop where half the valves
// may be read.
func largestJob(t testing.TB) *door {
	d := opened(t)
	sheet, err := os.ReadFile("../demo/engines/brindlow-6000.engine.json")
	require.NoError(t, err)
	d.ok("PUT", "/api/v1/engines/engine-01", string(sheet))
	leaves := make([]string, 120)
	for i := range leaves {
		leaves[i] = fmt.Sprintf(`{"marked_mm":%.4f}`, 0.02+float64(i)*0.0117)
	}
	d.ok("POST", "/api/v1/gauge-sets",
		`{"id":"gauges-01","name":"Set","leaves":[`+strings.Join(leaves, ",")+`]}`)
	d.ok("POST", "/api/v1/vehicles",
		`{"id":"vehicle-01","name":"Pump","plate":"","odometer_km":0,"engine_id":"engine-01"}`)
	d.ok("POST", "/api/v1/jobs",
		`{"id":"job-0001","vehicle_id":"vehicle-01","gauge_set_id":"gauges-01","card":0,"mechanic":"Tess",`+
			`"reason":"","odometer_km":0}`)
	d.happen(1, `"kind":"way_chosen","school":"two_stop"`)
	d.happen(2, `"kind":"prepared","engine_c":19,"ambient_c":18`)
	d.happen(3, `"kind":"turned","stop":0`)
	return d
}

// Nothing that the program answers about its largest job costs more than fifty megabytes, all counted that is
// allocated for it.
func TestTheLargestJobIsNotDear(t *testing.T) {
	d := largestJob(t)
	for _, path := range []string{"/api/v1/jobs/job-0001", "/api/v1/jobs", "/api/v1/jobs/job-0001/ways",
		"/api/v1/jobs/job-0001/shims", "/api/v1/engines", "/api/v1/gauge-sets"} {
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		status, text := d.send("GET", path, "")
		runtime.ReadMemStats(&after)
		require.Equal(t, http.StatusOK, status, "%s: %s", path, text)
		require.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(50<<20), path)
		t.Logf("%s: %d kB for %d kB", path, (after.TotalAlloc-before.TotalAlloc)>>10, len(text)>>10)
	}
}

// A job with 48 valves and 120 leaves: its whole state with the ladder of the valve to be read.
func BenchmarkLargestJob(b *testing.B) {
	d := largestJob(b)
	b.ReportAllocs()
	for b.Loop() {
		if status, text := d.send("GET", "/api/v1/jobs/job-0001", ""); status != http.StatusOK {
			b.Fatal(text)
		}
	}
}
