//go:build !race

package api_test

import (
	"cmp"
	"compress/gzip"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
	"metronix/internal/store"
)

// wasSaid is what a released version said of a job in its own demo.
type wasSaid struct {
	Phase      string
	SignedBy   string `json:"signed_by"`
	Happenings int
	Now        map[string]any // of the newest versions: their rules are today's, but for what is superseded
	Valves     map[string]struct {
		AsFound  map[string]any `json:"as_found"`
		Last     map[string]any
		Adjusted int
	}
}

// asked is when the newest of those demos were made and asked: what is to be done now depends on the hour.
var asked = map[int]time.Time{9: time.Date(2026, 11, 29, 16, 9, 30, 0, time.UTC),
	10: time.Date(2026, 11, 29, 23, 44, 50, 0, time.UTC),
	11: time.Date(2026, 11, 30, 0, 16, 0, 0, time.UTC),
	12: time.Date(2026, 11, 30, 6, 48, 12, 0, time.UTC)}

// superseded is what is next by today's rules where those versions led over full turns: the valves that wait
// for a check were turned over on the way, each since its own nut was tight (common practice).
var superseded = map[string]map[string]any{
	"demo-job-saw": {"action": "turn", "stop": 2.0, "turn_deg": 142.0, "valve": ""}}

// A data file of every released version opens, is sound, and its jobs say of each valve what that version
// said itself: how it was found, how it was left, how often it was set. The files are the demos that those
// versions made.
func TestADataFileOfEveryVersionSaysTheSame(t *testing.T) {
	for version := 1; version <= 12; version++ {
		t.Run(fmt.Sprint(version), func(t *testing.T) {
			path, anew := released(t, version), filepath.Join(t.TempDir(), "anew.db")
			found, err := store.Inspect(path, api.Check(t.Context()))
			require.NoError(t, err)
			assert.Empty(t, found.Troubles, "as it is")
			_, err = store.Restore(anew, path, time.Now(), false, api.Check(t.Context()))
			require.NoError(t, err, "it is restored from as well")
			st, err := store.Open(path)
			require.NoError(t, err)
			t.Cleanup(st.Close)
			serves, err := api.Ready(
				t.Context(),
				st,
				api.Options{Clock: func() time.Time { return cmp.Or(asked[version], asked[12]) }},
			)
			require.NoError(t, err)
			found, err = api.Check(t.Context())(st)
			require.NoError(t, err)
			assert.Empty(t, found.Troubles)
			d := &door{t: t, st: st, http: serves, path: path}
			var said map[string]wasSaid
			data, err := os.ReadFile(fmt.Sprintf("testdata/released/v%d.json", version))
			require.NoError(t, err)
			require.NoError(t, json.Unmarshal(data, &said))
			require.NotEmpty(t, said)
			for id, was := range said {
				assertSame(t, id, was, d.ok("GET", "/api/v1/jobs/"+id, "")["state"].(map[string]any))
			}
			status, text := d.send("GET", "/api/v1/due", "")
			assert.Equal(t, http.StatusOK, status)
			if version >= 6 {
				assert.Contains(t, text, "demo-post-bus")
			}
		})
	}
}

func assertSame(t *testing.T, id string, was wasSaid, is map[string]any) {
	t.Helper()
	assert.Equal(t, was.Phase, is["phase"], id)
	assert.Equal(t, was.SignedBy, is["signed_by"], id)
	assert.Equal(t, float64(was.Happenings), is["happenings"], id)
	next := was.Now
	if next["action"] == "bar_over" {
		next = superseded[id]
	}
	for key, value := range next {
		assert.Equal(t, value, is["now"].(map[string]any)[key], "%s: %s", id, key)
	}
	for _, v := range is["valves"].([]any) {
		valve := v.(map[string]any)
		before := was.Valves[valve["name"].(string)]
		assert.Equal(t, float64(before.Adjusted), valve["adjusted"], "%s %s", id, valve["name"])
		for field, result := range map[string]map[string]any{"as_found": before.AsFound, "last": before.Last} {
			now, known := valve[field].(map[string]any)
			require.Equal(t, result != nil, known, "%s %s %s", id, valve["name"], field)
			if known {
				judged := now["judgement"].(map[string]any)
				assert.Equal(t, result["verdict"], judged["verdict"], "%s %s %s", id, valve["name"], field)
				assert.Equal(
					t,
					result["estimate_mm"],
					judged["estimate_mm"],
					"%s %s %s",
					id,
					valve["name"],
					field,
				)
			}
		}
	}
}

// released is a data file as a released version left it.
func released(t *testing.T, version int) string {
	t.Helper()
	packed, err := os.Open(fmt.Sprintf("testdata/released/v%d.db.gz", version))
	require.NoError(t, err)
	defer packed.Close()
	from, err := gzip.NewReader(packed)
	require.NoError(t, err)
	path := filepath.Join(t.TempDir(), "released.db")
	to, err := os.Create(path)
	require.NoError(t, err)
	defer to.Close()
	_, err = io.Copy(to, from)
	require.NoError(t, err)
	return path
}
