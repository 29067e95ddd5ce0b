package keeping_test

import (
	"context"
	"database/sql"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/demo"
	"metronix/internal/keeping"
	"metronix/internal/store"
)

var noon = time.Date(2026, 11, 30, 12, 0, 0, 0, time.UTC)

// loaded is the demo's data file, loaded once.
var loaded = sync.OnceValues(func() ([]byte, error) {
	folder, err := os.MkdirTemp("", "metronix-keeping")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder)
	path := filepath.Join(folder, "demo.db")
	if err := store.Filled(path, demo.Load); err != nil {
		return nil, err
	}
	return os.ReadFile(path)
})

// workshop is the demo's data file, its identity, and a way to enter something in it.
func workshop(t *testing.T) (data, id string, enter func()) {
	t.Helper()
	demo, err := loaded()
	require.NoError(t, err)
	data = filepath.Join(t.TempDir(), "shop.db")
	require.NoError(t, os.WriteFile(data, demo, 0o600))
	st, err := store.Open(data)
	require.NoError(t, err)
	t.Cleanup(st.Close)
	id, err = st.Workshop()
	require.NoError(t, err)
	door, n := api.Handler(st, api.Options{}), 0
	return data, id, func() {
		n++
		body := `{"id":"entered-` + strings.Repeat("1", n) + `","kind":"doubted"}`
		r := httptest.NewRequest(http.MethodPost, "/api/v1/jobs/demo-job-tipper/happenings", strings.NewReader(body))
		r.Host = "127.0.0.1:8080"
		r.Header.Set("Content-Type", "application/json")
		w := httptest.NewRecorder()
		door.ServeHTTP(w, r)
		require.Equal(t, http.StatusOK, w.Code, w.Body)
	}
}

func TestCopiesDrillAndTakeover(t *testing.T) {
	data, id, enter := workshop(t)
	folder := filepath.Join(t.TempDir(), "copies")
	check := api.Check(context.Background())
	_, err := keeping.Drill(data, t.TempDir(), noon, check)
	assert.ErrorIs(t, err, keeping.ErrNone)
	made, found, err := keeping.Make(data, folder, id, noon, check)
	require.NoError(t, err)
	assert.True(t, made.Sound)
	assert.Positive(t, found.Entries)
	_, _, err = keeping.Make(data, folder, "another", noon, check)
	assert.ErrorIs(t, err, keeping.ErrAnother)
	_, _, err = keeping.Make(data, folder, id, noon, check)
	assert.ErrorIs(t, err, store.ErrThere, "nothing is written over")

	d, err := keeping.Drill(data, folder, noon, check)
	require.NoError(t, err)
	assert.Equal(t, found.Entries, d.Entries)
	assert.Zero(t, d.Since)
	enter()
	enter()
	d, err = keeping.Drill(data, folder, noon, check)
	require.NoError(t, err)
	assert.Equal(t, 2, d.Since)
	assert.Empty(t, d.Changed)

	theirs := filepath.Join(t.TempDir(), "theirs.db")
	other, err := store.Open(theirs)
	require.NoError(t, err)
	_, err = other.Workshop()
	require.NoError(t, err)
	other.Close()
	_, err = keeping.Drill(theirs, folder, noon, check)
	assert.ErrorIs(t, err, store.ErrAnotherShop)

	// on another machine
	there := filepath.Join(t.TempDir(), "there", "shop.db")
	took, err := keeping.TakeOver(there, folder, noon, false, check)
	require.NoError(t, err)
	assert.Equal(t, found.Entries, took.Entries)
	assert.NoError(t, took.Unmarked)
	_, err = keeping.TakeOver(there, folder, noon, false, check)
	assert.NoError(t, err, "once more: what is there is what the copy holds")
	_, _, err = keeping.Make(data, folder, id, noon.Add(time.Hour), check)
	assert.ErrorIs(t, err, keeping.ErrTakenOver, "the first machine came back")
	_, _, err = keeping.Make(there, folder, id, noon.Add(time.Hour), check)
	assert.NoError(t, err, "it goes on into the same folder")

	// the data file has more than the copy: it is not given up unasked
	st, err := store.Open(there)
	require.NoError(t, err)
	st.Close()
	more := filepath.Join(t.TempDir(), "more.db")
	_, err = store.Backup(data, more, check)
	require.NoError(t, err)
	_, err = keeping.TakeOver(more, folder, noon, false, check)
	assert.ErrorIs(t, err, keeping.ErrMore)
	took, err = keeping.TakeOver(more, folder, noon, true, check)
	require.NoError(t, err)
	assert.FileExists(t, took.Aside)
}

func TestADamagedFileIsToldAndNothingGoes(t *testing.T) {
	data, id, enter := workshop(t)
	folder, now := filepath.Join(t.TempDir(), "copies"), noon
	plan := keeping.Plan{Data: data, Folder: folder, Workshop: id, Every: time.Hour, Check: api.Check(context.Background()),
		Clock: func() time.Time { return now }}
	k := keeping.New(plan)
	assert.False(t, k.State().Old, "it has just begun")
	require.NoError(t, k.Now())
	assert.Equal(t, noon, k.State().Last)
	enter()
	db, err := sql.Open("sqlite3", data)
	require.NoError(t, err)
	_, err = db.ExecContext(t.Context(), "UPDATE happenings SET body = '{}' WHERE client_id = 'entered-1'")
	require.NoError(t, err)
	require.NoError(t, db.Close())
	now = noon.Add(3 * time.Hour)
	assert.ErrorContains(t, k.Now(), "damaged")
	s := k.State()
	assert.Contains(t, s.Trouble, "demo-job-tipper")
	assert.Equal(t, noon, s.Last, "the good one is the newest still")
	assert.Equal(t, 2, s.Copies)
	assert.True(t, s.Old)
	newest, err := keeping.Newest(folder)
	require.NoError(t, err)
	assert.Equal(t, noon, newest.At)
	assert.Equal(t, noon, keeping.New(plan).State().Last, "a program that starts anew knows it")
}

func TestItRunsByItself(t *testing.T) {
	data, id, _ := workshop(t)
	k := keeping.New(keeping.Plan{Data: data, Folder: filepath.Join(t.TempDir(), "copies"), Workshop: id, Every: time.Hour,
		Check: api.Check(context.Background())})
	ctx, stop := context.WithCancel(context.Background())
	ended := make(chan bool)
	go func() { k.Run(ctx); close(ended) }()
	require.Eventually(t, func() bool { return k.State().Copies == 1 && !k.State().Making }, time.Minute, 10*time.Millisecond)
	first := k.State().Last
	require.Eventually(t, func() bool { return time.Since(first) > time.Second }, 2*time.Second, 10*time.Millisecond) // names go by the second
	k.Ask()
	require.Eventually(t, func() bool { return k.State().Last.After(first) }, time.Minute, 10*time.Millisecond)
	stop()
	<-ended
}
