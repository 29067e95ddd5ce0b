package api_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// What is stored beside the lists is what follows from them after whatever was done; where the disk says
// otherwise the comparison names it, and a rebuild puts it right.
func TestDerivedRowsAreComparedAndRebuilt(t *testing.T) {
	ctx := context.Background()
	d := withJob(t).begun()
	d.happen(4, reading)
	d.happen(5, `"kind":"kept","valve":"E1"`)
	d.happen(6, `"kind":"undone","target":"happening-005"`)
	found, err := api.Check(ctx)(d.st)
	require.NoError(t, err)
	require.Empty(t, found.Troubles)

	d.ok("PUT", "/api/v1/vehicles/vehicle-01",
		`{"name":"Anew","plate":"","odometer_km":0,"engine_id":"engine-01"}`)
	found, err = api.Check(ctx)(d.st)
	require.NoError(t, err)
	require.Empty(t, found.Troubles, "a vehicle that is called otherwise is so on the board too")
	_, board := d.send("GET", "/api/v1/jobs", "")
	assert.Contains(t, board, `"vehicle":"Anew"`)

	for what, statement := range map[string]string{
		"what the board shows": `UPDATE job_states SET next = 'action=sign'`,
		"what was learned of locking": `INSERT INTO lock_pairs VALUES ('job-0001', 0, 'tess', ` +
			`'screw', 300000, 280000, NULL, NULL)`,
		"what was taken from the shop's shims": `INSERT INTO shims_used VALUES ('job-0001', 0, ` +
			`2500000, '2026-11-25')`,
	} {
		spoil(t, d.path, statement)
		found, err = api.Check(ctx)(d.st)
		require.NoError(t, err)
		require.Len(t, found.Troubles, 1, what)
		assert.Equal(t, "job-0001", found.Troubles[0].JobID)
		assert.Contains(t, found.Troubles[0].What, what)
		n, err := api.Rebuild(ctx, d.st)
		require.NoError(t, err)
		assert.Equal(t, 1, n)
		found, err = api.Check(ctx)(d.st)
		require.NoError(t, err)
		require.Empty(t, found.Troubles, what)
	}
}
