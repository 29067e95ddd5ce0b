//go:build !race

package api_test

import (
	"io"
	"net/http"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/store"
)

// An archive goes out and comes in as a stream, one at a time; where it fails on its way the connection is
// cut, so that no half of one is taken for a whole.
func TestAnArchiveIsAStream(t *testing.T) {
	d := demoDoor(t)
	server := httptest.NewServer(d.http)
	defer server.Close()
	get := func() (*http.Response, error) {
		r, err := http.NewRequestWithContext(
			t.Context(),
			http.MethodGet,
			server.URL+"/api/v1/archive.zip",
			nil,
		)
		require.NoError(t, err)
		return http.DefaultClient.Do(r)
	}
	whole, err := get()
	require.NoError(t, err)
	data, err := io.ReadAll(whole.Body)
	require.NoError(t, err)
	require.NoError(t, whole.Body.Close())
	assert.NotEmpty(t, unzipped(t, data)["manifest.json"])

	spoil(t, d.path, "ALTER TABLE photos RENAME TO elsewhere") // what comes after the jobs is gone
	d.st.Close()
	st, err := store.Open(d.path)
	require.NoError(t, err)
	defer st.Close()
	server.Config.Handler = api.Handler(st, api.Options{})
	cut, err := get()
	require.NoError(t, err)
	_, err = io.ReadAll(cut.Body)
	require.NoError(t, cut.Body.Close())
	assert.ErrorIs(t, err, io.ErrUnexpectedEOF)
}
