package api_test

import (
	"context"
	"fmt"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/store"
)

// many fills a workshop with vehicles and finished jobs of them, fifty jobs a vehicle or fewer, and one open
// job.
func many(t testing.TB, vehicles, jobs int) *door {
	t.Helper()
	d := withJob(t)
	first := time.Date(2020, 1, 1, 8, 0, 0, 0, time.UTC)
	d.inspected("visit-001", first, 1_000, map[string]float64{"E1": 0.29})
	for i := range vehicles {
		d.ok("POST", "/api/v1/vehicles", fmt.Sprintf(
			`{"id":"many-%05d","name":"Mower %05d","plate":"M %d","odometer_km":0,"engine_id":"engine-01"}`,
			i, i, i))
	}
	var copies []store.Copy
	for i := range jobs {
		turn := i / vehicles
		copies = append(copies,
			store.Copy{ID: fmt.Sprintf("copy-%06d", i), VehicleID: fmt.Sprintf("many-%05d", i%vehicles),
				CreatedAt: first.AddDate(0, 0,
					30*turn).Add(time.Duration(i) * time.Second), Meter: 1_000 + 2_000*(turn+1)})
	}
	require.NoError(t, d.st.AddCopies("visit-001", copies))
	handler, err := api.Ready(context.Background(), d.st, api.Options{}) // and when each is due
	require.NoError(t, err)
	d.http = handler
	return d
}

// A copy opens as the job it was made of, and counts in its vehicle's history.
func TestCopiesAreWholeJobs(t *testing.T) {
	d := many(t, 3, 9)
	status, text := d.send("GET", "/api/v1/jobs/copy-000004", "")
	require.Equal(t, http.StatusOK, status, text)
	h := d.ok("GET", "/api/v1/vehicles/many-00001/history", "")
	assert.Len(t, h["visits"], 3)
	assert.Equal(t, 3.0, h["counted"])
	assert.Empty(t, d.st.Check().Troubles, "every checksum holds")
}

// What the screens ask of a workshop with 2,000 vehicles and 100,000 jobs, and of one with a tenth of both,
// in one run: the board, a search, a vehicle's page, what is due.
func BenchmarkManyJobs(b *testing.B) {
	for _, size := range []struct{ vehicles, jobs int }{{200, 10_000}, {2_000, 100_000}} {
		d := many(b, size.vehicles, size.jobs)
		for name, path := range map[string]string{"board": "/api/v1/jobs?open=yes",
			"signed": "/api/v1/jobs?open=no&limit=50",
			"search": "/api/v1/vehicles?search=00042&limit=50", "vehicles": "/api/v1/vehicles?limit=50",
			"history": "/api/v1/vehicles/many-00042/history", "due": "/api/v1/due",
			"job": "/api/v1/jobs/copy-000042"} {
			b.Run(fmt.Sprintf("%s/%d-jobs", name, size.jobs), func(b *testing.B) {
				for b.Loop() {
					status, _ := d.send("GET", path, "")
					if status != http.StatusOK {
						b.Fatal(status)
					}
				}
			})
		}
	}
}
