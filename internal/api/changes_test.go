package api_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"strings"
	"testing"
	"time"

	"metronix/internal/api"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// known is what a screen knows of a job: it puts what changed together with what it knew.
type known struct {
	d     *door
	state map[string]any
}

func (k *known) whole() map[string]any {
	return k.d.ok("GET", "/api/v1/jobs/job-0001", "")["state"].(map[string]any)
}

// takeIn puts what changed together with what was known.
func takeIn(was, now map[string]any) {
	if gone, ok := now["gone"].([]any); ok {
		for _, name := range gone {
			delete(was, name.(string))
		}
	}
	for name, value := range now {
		if name != "gone" {
			was[name] = value
		}
	}
}

// takes puts an answer that says only what changed together with what was known.
func (k *known) takes(answer map[string]any) {
	for _, v := range k.state["valves"].([]any) {
		for _, now := range answer["valves"].([]any) {
			if valve := v.(map[string]any); now.(map[string]any)["name"] == valve["name"] {
				takeIn(valve, now.(map[string]any))
			}
		}
	}
	delete(answer, "valves")
	delete(answer, "partial")
	takeIn(k.state, answer)
}

// does something, asking for what changed, and takes the answer in. It gives how long that was, bytes.
func (k *known) does(id, act string) int {
	k.d.t.Helper()
	status, text := k.d.send("POST", "/api/v1/jobs/job-0001/happenings?changes=true",
		fmt.Sprintf(`{"id":%q,"seen":%q,%s}`, id, k.state["newest"], act))
	require.Equal(k.d.t, 200, status, text)
	var answer map[string]any
	require.NoError(k.d.t, json.Unmarshal([]byte(text), &answer))
	require.Equal(k.d.t, true, answer["partial"], act)
	k.takes(answer)
	return len(text)
}

// Whoever asks for what changed, and knew the newest happening, is told that alone, whatever was done: put
// together with what was known it is what the job says by itself, over a whole job, and small for what is
// done most.
func TestAnAnswerHasWhatChanged(t *testing.T) {
	d := withJob(t)
	k := &known{d, nil}
	k.state = k.whole()
	most, n := map[string]int{}, 0
	for range 90 {
		now := k.state["now"].(map[string]any)
		act := map[string]string{"choose_way": `"kind":"way_chosen","school":"rocking_pairs","round":"set_as_you_go","check":"none"`,
			"prepare": `"kind":"prepared","engine_c":19,"ambient_c":18`, "turn": fmt.Sprintf(`"kind":"turned","stop":%v`, now["stop"]),
			"read":   fmt.Sprintf(`"kind":"reading","valve":%q,"leaves_mm":[%s],"feel":"drag"`, now["valve"], leafFor(now["valve"])),
			"keep":   fmt.Sprintf(`"kind":"kept","valve":%q`, now["valve"]),
			"adjust": fmt.Sprintf(`"kind":"adjusted","valve":%q`, now["valve"]), "lock": fmt.Sprintf(`"kind":"locked","valve":%q`, now["valve"]),
			"sign": `"kind":"signed","by":"Tess","tools_out":true`}[now["action"].(string)]
		if act == "" {
			break
		}
		if n == 4 {
			act = `"kind":"task","task":"clean"`
		} else if n == 6 {
			act = fmt.Sprintf(`"kind":"undone","target":%q`, k.state["undo"])
		}
		n++
		bytes := k.does(fmt.Sprintf("changes-%03d", n), act)
		most[act[:14]] = max(most[act[:14]], bytes)
		whole := k.whole()
		delete(whole, "clock")
		is := maps.Clone(k.state)
		delete(is, "clock")
		require.Equal(t, whole, is, act)
	}
	assert.Equal(t, "done", k.state["phase"])
	t.Log(most)
	for _, often := range []string{`"kind":"readin`, `"kind":"kept",`, `"kind":"adjust`, `"kind":"locked`} {
		assert.LessOrEqual(t, most[often], 4096, often)
	}
}

// leafFor is the leaf of a valve's aim, by the letter of its name.
func leafFor(valve any) string {
	if strings.HasPrefix(valve.(string), "I") {
		return "0.22"
	}
	return "0.3"
}

// Whoever does not ask, or knew less, is answered in full.
func TestWhoDoesNotAskIsAnsweredInFull(t *testing.T) {
	d := withJob(t).begun()
	const happenings = "/api/v1/jobs/job-0001/happenings"
	full := func(path, body string) {
		answer := d.ok("POST", path, body)
		assert.NotContains(t, answer, "partial", body)
		assert.Len(t, answer["valves"], 8, body)
		assert.Contains(t, answer, "plan", body)
	}
	full(happenings, `{"id":"changes-100","seen":"happening-003","kind":"picked","valve":"E1"}`)
	full(
		happenings+"?changes=true",
		`{"id":"changes-101","seen":"happening-001","kind":"picked","valve":"E1"}`,
	)
	full(happenings+"?changes=true", `{"id":"changes-102","kind":"picked","valve":"E1"}`)
}

// After a night every valve stands otherwise than a screen that slept believes: that is told with what
// changed.
func TestWhatChangedOverNight(t *testing.T) {
	d := withJob(t).begun()
	k := &known{d, nil}
	k.state = k.whole()
	now := time.Now().Add(7 * time.Hour)
	d.http = api.Handler(d.st, api.Options{Clock: func() time.Time { return now }})
	k.does("changes-050", `"kind":"picked","valve":"E1"`)
	assert.Nil(t, k.state["crank_deg"], "it is to be confirmed")
	whole := k.whole()
	assert.Equal(t, whole["valves"], k.state["valves"])
}
