package demo_test

import (
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/internal/demo"
	"metronix/internal/store"
)

// The made-up workshop goes in once, with jobs at different points and one signed, and a second load leaves
// it as it is.
func TestDemoLoadsOnce(t *testing.T) {
	st, err := store.Open(filepath.Join(t.TempDir(), "demo.db"))
	require.NoError(t, err)
	defer st.Close()
	require.NoError(t, demo.Load(st))
	phases := phasesOf(t, st)
	assert.Equal(t, map[job.Phase]int{job.ChooseWay: 1, job.Prepare: 1, job.AsFound: 2, job.Adjust: 2,
		job.Verify: 1, job.Done: 6}, phases)
	engines, damaged, err := st.Engines()
	require.NoError(t, err)
	assert.Empty(t, damaged)
	assert.GreaterOrEqual(t, len(engines), 10)
	require.NoError(t, demo.Load(st))
	assert.Equal(t, phases, phasesOf(t, st))
}

func phasesOf(t *testing.T, st *store.Store) map[job.Phase]int {
	t.Helper()
	ids, err := st.JobIDs()
	require.NoError(t, err)
	phases := map[job.Phase]int{}
	for _, id := range ids {
		r, err := st.Job(id)
		require.NoError(t, err)
		list, err := st.Happenings(r.ID)
		require.NoError(t, err)
		j, err := job.Replay(job.Setup{Sheet: r.Sheet, Card: r.Sheet.Clearances[r.Card], Owned: r.Leaves,
			Feel: clearance.DefaultFeel}, list.Happenings)
		require.NoError(t, err)
		phases[j.Phase()]++
	}
	return phases
}
