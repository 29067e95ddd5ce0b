//go:build !race

package api_test

import (
	"archive/zip"
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What cannot be taken in says which file, why, and what to do, and nothing is stored.
func TestArchivesThatAreRefused(t *testing.T) {
	_, archive := demoDoor(t).send("GET", "/api/v1/archive.zip", "")
	files := func(change func(map[string]string)) []byte {
		all := unzipped(t, []byte(archive))
		delete(all, "manifest.json")
		change(all)
		return zipped(t, all)
	}
	tampered := unzipped(t, []byte(archive))
	tampered["vehicles.json"] = "[]"
	for says, data := range map[string][]byte{
		"it is no zip file":        []byte("PK not really"),
		"leads out of the archive": files(func(f map[string]string) { f["../../etc/passwd"] = "x" }),
		"its hash differs":         zipped(t, tampered),
		"has no manifest.json": func() []byte {
			var out bytes.Buffer
			z := zip.NewWriter(&out)
			_, _ = z.Create("engines.json")
			_ = z.Close()
			return out.Bytes()
		}(),
		"its format is": zipped(t, map[string]string{"manifest.json": `{"format":"metronix.archive/9"}`}),
		"larger than anything": files(func(f map[string]string) {
			f["workshop.json"] = string(make([]byte, 65<<20))
		}),
		"belongs to nothing": files(func(f map[string]string) { f["extra.json"] = "{}" }),
		"metronix.archive/2": zipped(t, map[string]string{"manifest.json": `{"format":` +
			`"metronix.archive/2","volumes":3}`}),
		"../../<b>": files(func(f map[string]string) {
			f["vehicles.json"] = strings.Replace(f["vehicles.json"], `"demo-post-bus"`, `"../../<b>"`, 1)
		}),
		"odometer_km": files(func(f map[string]string) {
			f["vehicles.json"] = `[{"id":"v","name":"V","plate":"","odometer_km":-5,"engine_id":"brindlow-1600",` +
				`"created":"2026-01-01T00:00:00Z","off_board":false}]`
		}),
		"vehicles.json does not read": files(func(f map[string]string) {
			f["vehicles.json"] = `[{"id":"v","name":"V","plate":"","odometer_km":5,"engine_id":"brindlow-1600",` +
				`"created":"2026-01-01T00:00:00Z","off_board":false,"intervals":"garbage"}]`
		}),
		"its intervals do not read": files(func(f map[string]string) {
			f["vehicles.json"] = `[{"id":"v","name":"V","plate":"","odometer_km":5,"engine_id":"brindlow-1600",` +
				`"created":"2026-01-01T00:00:00Z","off_board":false,"intervals":[{"km":5,"months":0,"source":"cam",` +
				`"once_from":"soon"}]}]`
		}),
		"intervals[0].km": files(func(f map[string]string) {
			f["vehicles.json"] = `[{"id":"v","name":"V","plate":"","odometer_km":5,"engine_id":"brindlow-1600",` +
				`"created":"2026-01-01T00:00:00Z","off_board":false,"intervals":[{"km":-5,"months":0,"source":"cam"}]}]`
		}),
		"cannot be written (U+202E)": files(func(f map[string]string) {
			f["gauge_sets.json"] = `[{"id":"g","name":"Set \u202e<script>","checked":"","created":` +
				`"2026-01-01T00:00:00Z","leaves":[{"marked_mm":0.2}]}]`
		}),
		"leaves[1]": files(func(f map[string]string) {
			f["gauge_sets.json"] = `[{"id":"g","name":"Set","checked":"","created":"2026-01-01T00:00:00Z",` +
				`"leaves":[{"marked_mm":0.2},{"marked_mm":0.2}]}]`
		}),
		"checked": files(func(f map[string]string) {
			f["gauge_sets.json"] = `[{"id":"g","name":"Set","checked":"<script>","created":"2026-01-01T00:00:00Z",` +
				`"leaves":[{"marked_mm":0.2}]}]`
		}),
		"there is no setting": files(func(f map[string]string) {
			f["workshop.json"] = `{"settings":{"colour":"blue"},"shims":[]}`
		}),
		"it is no JPEG": files(func(f map[string]string) {
			text := "<html>"
			sum := sha256.Sum256([]byte(text))
			hash := hex.EncodeToString(sum[:])
			f["photos/"+hash+".jpg"] = text
			f["photos.json"] = fmt.Sprintf(`[{"hash":%q,"job_id":"demo-job-bus","created":"2026-01-01T00:00:00Z"}]`, hash)
		}),
		"engine brindlow-1600": files(func(f map[string]string) {
			f["engines.json"] = `[{"id":"brindlow-1600","created":"2026-01-01T00:00:00Z",` +
				`"sheet":{"cylinders":"four"}}]`
		}),
		"checksums do not end": files(func(f map[string]string) {
			var j map[string]any
			require.NoError(t, json.Unmarshal([]byte(f["jobs/demo-job-bus.json"]), &j))
			j["happenings"] = j["happenings"].([]any)[:5]
			text, _ := json.Marshal(j)
			f["jobs/demo-job-bus.json"] = string(text)
		}),
		"stands in the future": files(func(f map[string]string) {
			f["jobs/demo-job-bus.json"] = strings.Replace(f["jobs/demo-job-bus.json"],
				`"created": "20`, `"created": "29`, 1)
		}),
		"does not read": files(func(f map[string]string) { f["workshop.json"] = `{"extra":1}` }),
	} {
		d := opened(t)
		status, text := d.send("POST", "/api/v1/archive", string(data))
		assert.Equal(t, http.StatusUnprocessableEntity, status, says)
		assert.Contains(t, text, says)
		ids, err := d.st.JobIDs()
		require.NoError(t, err)
		assert.Empty(t, ids, says)
		engines, _, err := d.st.Engines()
		require.NoError(t, err)
		assert.Empty(t, engines, says)
	}
}
