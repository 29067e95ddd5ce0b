package api_test

import (
	"encoding/json"
	"fmt"
	"testing"
	"time"

	"metronix/internal/api"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A reading is answered with what changed only, where that was asked for and the screen knew the newest
// happening; put together with what was known before it is what the job says by itself. Whoever does not ask,
// or knew less, or did more than read, is answered in full.
func TestAReadingIsAnsweredWithWhatChanged(t *testing.T) {
	d := withJob(t).begun()
	const happenings = "/api/v1/jobs/job-0001/happenings"
	whole := func() map[string]any {
		return d.ok("GET", "/api/v1/jobs/job-0001", "")["state"].(map[string]any)
	}
	byName := func(state map[string]any) map[string]any {
		out := map[string]any{}
		for _, v := range state["valves"].([]any) {
			out[v.(map[string]any)["name"].(string)] = v
		}
		return out
	}
	before := whole()
	newest := before["newest"].(string)
	for i, act := range []string{`"kind":"reading","valve":"E1","leaves_mm":[0.25],"feel":"free"`,
		`"kind":"dial","valve":"E1","gap_mm":0.3`, `"kind":"withdrawn","valve":"E1","index":0`,
		`"kind":"picked","valve":"E1"`} {
		id := fmt.Sprintf("changes-%03d", i)
		answer := d.ok("POST", happenings+"?changes=true",
			fmt.Sprintf(`{"id":%q,"seen":%q,%s}`, id, newest, act))
		require.Equal(t, true, answer["partial"], act)
		require.Len(t, answer["valves"], 1, act)
		require.NotContains(t, answer, "plan")
		valves := byName(before)
		valves["E1"] = answer["valves"].([]any)[0]
		after := whole()
		assert.Equal(t, byName(after), valves, act)
		for field, value := range after {
			if field != "valves" && field != "plan" && field != "clock" {
				assert.Equal(t, value, answer[field], "%s after %s", field, act)
			}
		}
		before, newest = after, id
	}
	short, err := json.Marshal(before["now"])
	require.NoError(t, err)
	assert.Contains(t, string(short), "E1")

	// After a night every valve stands otherwise than a screen that slept believes: it is answered in full.
	now := time.Now().Add(7 * time.Hour)
	morning := &door{t: t, st: d.st, path: d.path,
		http: api.Handler(d.st, api.Options{Clock: func() time.Time { return now }})}
	quiet := morning.ok("POST", happenings+"?changes=true",
		fmt.Sprintf(`{"id":"changes-050","seen":%q,"kind":"picked","valve":"E1"}`, newest))
	assert.NotContains(t, quiet, "partial")
	assert.Nil(t, quiet["crank_deg"], "it is to be confirmed")

	full := func(path, body string) {
		answer := d.ok("POST", path, body)
		assert.NotContains(t, answer, "partial", body)
		assert.Len(t, answer["valves"], 8, body)
		assert.Contains(t, answer, "plan", body)
	}
	full(happenings, `{"id":"changes-100","seen":"changes-050","kind":"picked","valve":"E1"}`)
	full(happenings+"?changes=true", `{"id":"changes-101","seen":"changes-003","kind":"picked","valve":"E1"}`)
	full(happenings+"?changes=true", `{"id":"changes-102","seen":"changes-101","kind":"kept","valve":"E1"}`)
}
