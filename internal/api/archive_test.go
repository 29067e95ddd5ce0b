package api_test

import (
	"archive/zip"
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/csv"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/demo"
	"metronix/internal/store"
)

func unzipped(t *testing.T, data []byte) map[string]string {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	require.NoError(t, err)
	files := map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		text, err := io.ReadAll(r)
		require.NoError(t, err)
		files[f.Name] = string(text)
	}
	return files
}

// zipped makes an archive of files, with a manifest that fits them unless one is given.
func zipped(t *testing.T, files map[string]string) []byte {
	t.Helper()
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	m := store.Manifest{Format: store.ArchiveFormat}
	for name, text := range files {
		f, err := z.Create(name)
		require.NoError(t, err)
		_, err = f.Write([]byte(text))
		require.NoError(t, err)
		sum := sha256.Sum256([]byte(text))
		m.Files = append(m.Files,
			store.ManifestFile{Name: name, Bytes: int64(len(text)), SHA256: hex.EncodeToString(sum[:])})
	}
	if _, own := files["manifest.json"]; !own {
		text, err := json.Marshal(m)
		require.NoError(t, err)
		f, err := z.Create("manifest.json")
		require.NoError(t, err)
		_, err = f.Write(text)
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return out.Bytes()
}

// demoFile is a data file with the demo in it, made once.
var demoFile = sync.OnceValues(func() ([]byte, error) {
	folder, err := os.MkdirTemp("", "metronix-test-")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(folder)
	path := filepath.Join(folder, "demo.db")
	st, err := store.Open(path)
	if err != nil {
		return nil, err
	}
	err = demo.Load(st)
	st.Close()
	if err != nil {
		return nil, err
	}
	return os.ReadFile(path)
})

// demoDoor serves a copy of the demo.
func demoDoor(t *testing.T) *door {
	t.Helper()
	data, err := demoFile()
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "test.db")
	require.NoError(t, os.WriteFile(path, data, 0o600))
	st, err := store.Open(path)
	require.NoError(t, err)
	t.Cleanup(st.Close)
	return &door{t, api.Handler(st, api.Options{Version: "test"}), st, path}
}

// Out of one data file and into another, everything comes back: exported again it is the same, file by file;
// what is derived is the same too; and taken in twice it is known.
func TestEverythingGoesOutAndComesBack(t *testing.T) {
	from := demoDoor(t)
	from.ok("PUT", "/api/v1/jobs/demo-job-van/on-board", `{"on_board":false}`)
	from.ok("PUT", "/api/v1/vehicles/demo-tipper-7/cards", `{"cards":[`+changedCam+`]}`)
	recording := from.recorded("demo-job-tipper", "RIFF\x24\x00\x00\x00WAVEfmt ")
	status, archive := from.send("GET", "/api/v1/archive.zip", "")
	require.Equal(t, http.StatusOK, status)
	files := unzipped(t, []byte(archive))
	assert.Contains(t, files, "jobs/demo-job-bus.json")
	rows, err := csv.NewReader(bytes.NewReader([]byte(files["visits.csv"]))).ReadAll()
	require.NoError(t, err)
	assert.Len(
		t,
		rows,
		1+3*16+2*12+3,
		"three finished jobs of sixteen valves, two of twelve, and three valves of one put off",
	)

	to := opened(t)
	answer := to.ok("POST", "/api/v1/archive", archive)
	assert.Equal(t, 13.0, answer["jobs"])
	_, again := to.send("GET", "/api/v1/archive.zip", "")
	back := unzipped(t, []byte(again))
	delete(files, "manifest.json")
	delete(back, "manifest.json")
	assert.Equal(t, files, back)
	for _, path := range []string{"/api/v1/jobs", "/api/v1/jobs?off_board=true", "/api/v1/due",
		"/api/v1/vehicles/demo-post-bus/history", "/api/v1/shop", "/api/v1/sounds/" + recording,
		"/api/v1/vehicles/demo-tipper-7/history", "/api/v1/jobs/demo-job-bus/report.csv"} {
		_, a := from.send("GET", path, "")
		_, b := to.send("GET", path, "")
		assert.Equal(t, a, b, path)
	}
	answer = to.ok("POST", "/api/v1/archive", archive)
	assert.Zero(t, answer["jobs"])
	assert.Positive(t, answer["already"])

	// a job that went on meanwhile is never overwritten
	to.ok("POST", "/api/v1/jobs/demo-job-tipper/happenings", `{"id":"later-0001","kind":"doubted"}`)
	status, text := to.send("POST", "/api/v1/archive", archive)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "went on differently")
}

// A file of an earlier version, and one that was taken in, come up to date at the start: boards, visits and
// what is due.
func TestWhatIsDerivedIsMadeAnew(t *testing.T) {
	from := demoDoor(t)
	var out bytes.Buffer
	_, err := from.st.WriteArchive(&out, "test", time.Now())
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "taken.db")
	st, err := store.Open(path)
	require.NoError(t, err)
	defer st.Close()
	_, err = st.ReadArchive(bytes.NewReader(out.Bytes()), int64(out.Len()), time.Now(), api.Admission())
	require.NoError(t, err)
	handler, err := api.Ready(context.Background(), st, api.Options{})
	require.NoError(t, err)
	to := &door{t, handler, st, path}
	_, a := from.send("GET", "/api/v1/due", "")
	_, b := to.send("GET", "/api/v1/due", "")
	assert.Equal(t, a, b)
	assert.Contains(t, b, "demo-post-bus", fmt.Sprint(b))
}
