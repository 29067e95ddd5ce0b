package store_test

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/core/practice"
	"metronix/internal/store"
)

// A study comes back as it was stored, with its leaves as they were when it began; so does a feel that was
// agreed, and one that was taken back is none.
func TestAGaugeStudyComesBack(t *testing.T) {
	st, err := store.Open(filepath.Join(t.TempDir(), "test.db"))
	require.NoError(t, err)
	defer st.Close()
	const um = measure.Micrometre
	at := time.Date(2026, 12, 1, 9, 0, 0, 0, time.UTC)
	study := store.GaugeStudy{ID: "study-0001", Made: at, Ended: at.Add(time.Hour), MeasuredBy: "June", With: "dial", LeavesAre: "oiled",
		Readers: []string{"Tess", "Ivo"}, Sets: []store.StudiedSet{{Name: "Bench", Leaves: gauge.Set{{ID: gauge.ID{Marked: 200 * um}},
			{ID: gauge.ID{Marked: 250 * um, Angled: true}, Measured: 251 * um}}}},
		Study: practice.BenchStudy{Gaps: []practice.MeasuredGap{{True: 231 * um, Doubt: um}}, Readers: 2, Sets: 1, Times: 3, Seed: 1 << 63,
			Read: []measure.Length{200 * um, 251 * um}}}
	require.NoError(t, st.PutGaugeStudy(study))
	back, err := st.GaugeStudy("study-0001")
	require.NoError(t, err)
	back.Made, back.Ended = back.Made.UTC(), back.Ended.UTC()
	assert.Equal(t, study, back)
	list, err := st.GaugeStudies()
	require.NoError(t, err)
	assert.Len(t, list, 1)
	_, err = st.GaugeStudy("study-0002")
	assert.ErrorIs(t, err, store.ErrNotFound)

	feel := store.MeasuredFeel{Feel: 8 * um, Study: "study-0001", On: at, LeavesAre: "oiled", AgreedBy: "June", AgreedAt: at}
	require.NoError(t, st.PutMeasuredFeel(" Tess ", feel))
	got, err := st.MeasuredFeel("TESS")
	require.NoError(t, err)
	assert.Equal(t, feel, got)
	require.NoError(t, st.PutMeasuredFeel("Tess", store.MeasuredFeel{}))
	got, err = st.MeasuredFeel("Tess")
	require.NoError(t, err)
	assert.Zero(t, got.Study)
}
