package api_test

import (
	"encoding/json"
	"net/http"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/job"
)

// A sheet survives export and import unchanged, is changed only over the version that was read, and stays
// while a vehicle has it.
func TestTheLibraryOfEngines(t *testing.T) {
	d := withJob(t)
	whole := d.ok("GET", "/api/v1/engines/engine-01", "")
	exported, err := json.Marshal(whole["sheet"])
	require.NoError(t, err)
	again := d.ok("PUT", "/api/v1/engines/engine-02", string(exported))
	assert.Equal(t, whole["sheet"], again["sheet"])
	assert.Equal(t, whole["version"], again["version"])

	renamed := strings.Replace(string(exported), `"name":"`, `"name":"Anew `, 1)
	status, text := d.send("PUT", "/api/v1/engines/engine-02", renamed)
	assert.Equal(t, http.StatusConflict, status, "without a version nothing stored is overwritten: %s", text)
	version := again["version"].(string)
	changed := d.ok("PUT", "/api/v1/engines/engine-02?replaces="+version, renamed)
	assert.NotEqual(t, version, changed["version"])
	status, text = d.send("PUT", "/api/v1/engines/engine-02?replaces="+version, string(exported))
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, text, "changed this sheet meanwhile")

	status, text = d.send("DELETE", "/api/v1/engines/engine-01", "")
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, text, "sits in Tipper")
	status, _ = d.send("DELETE", "/api/v1/engines/engine-02", "")
	assert.Equal(t, http.StatusNoContent, status)
	status, _ = d.send("GET", "/api/v1/engines/engine-02", "")
	assert.Equal(t, http.StatusNotFound, status)
}

func TestLookingAtASheetStoresNothing(t *testing.T) {
	d := opened(t)
	sound := d.ok("POST", "/api/v1/look-at-sheet", sheet(t))
	assert.Equal(t, true, sound["ok"])
	valves := sound["engine"].(map[string]any)["valves"].([]any)
	assert.Len(t, valves[0].(map[string]any)["lift"], 145)

	twice := strings.Replace(sheet(t), "[1, 3, 4, 2]", "[1, 3, 3, 2]", 1)
	faulty := d.ok("POST", "/api/v1/look-at-sheet", twice)
	assert.Equal(t, false, faulty["ok"])
	assert.Equal(t, "firing_order[2]", faulty["problems"].([]any)[0].(map[string]any)["location"])
	valves = faulty["engine"].(map[string]any)["valves"].([]any)
	assert.Empty(t, valves[0].(map[string]any)["lift"], "drawn, but standing still")

	crooked := d.ok("POST", "/api/v1/look-at-sheet", strings.Replace(sheet(t), "EIIEEIIE", "EIIEEII", 1))
	assert.NotContains(t, crooked, "engine", "rows that do not divide are not drawn")
	assert.Contains(t, d.ok("POST", "/api/v1/look-at-sheet",
		`[]`)["problems"].([]any)[0].(map[string]any)["message"], "object")
	_, list := d.send("GET", "/api/v1/engines", "")
	assert.Equal(t, "[]", strings.TrimSpace(list))
}

func TestSheetsToBeginFrom(t *testing.T) {
	d := opened(t)
	start := d.ok("GET", "/api/v1/sheet-start?layout=vee&cylinders=8&valves=2", "")
	assert.Len(t, start["orders"], 3)
	assert.Contains(t, start["source"], "from memory")
	status, _ := d.send("GET", "/api/v1/sheet-start?layout=vee&cylinders=80&valves=2", "")
	assert.Equal(t, http.StatusUnprocessableEntity, status)
}

func TestWaysOfAnEngine(t *testing.T) {
	d := withJob(t)
	ways := d.ok("GET", "/api/v1/engines/engine-01/ways?stops=3", "")
	fewest := map[string]any{}
	for _, p := range ways["plans"].([]any) {
		if plan := p.(map[string]any); plan["school"] == "fewest_stops" {
			fewest = plan
		}
	}
	assert.Len(t, fewest["stops"], 3)
	assert.NotEmpty(t, ways["frontier"])
	status, text := d.send("GET", "/api/v1/engines/engine-01/ways?direction=back", "")
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Contains(t, text, "must not be turned back")
}

// Where am I: a mark alone leaves two places, a rocking cylinder tells; the answer is stored only as a
// happening, and comes back from the file.
func TestFindingTheCrank(t *testing.T) {
	d := withJob(t).begun()
	ask := func(seen string) map[string]any {
		return d.ok("POST", "/api/v1/jobs/job-0001/find", `{"seen":[`+seen+`]}`)
	}
	mark, rocks := `{"what":"mark","cylinder":0,"valve":"","mark_deg":0}`,
		`{"what":"rocking","cylinder":1,"valve":"","mark_deg":0}`
	doubt := ask(mark)
	assert.Equal(t, false, doubt["known"])
	assert.NotEmpty(t, doubt["tell_apart"])
	found := ask(mark + "," + rocks)
	assert.Equal(t, true, found["known"])
	assert.Equal(t, 360.0, found["crank_deg"])
	assert.Contains(t, found["one_turn_out"], "One turn out", "the job stands at 0")
	status, text := d.send("POST", "/api/v1/jobs/job-0001/find",
		`{"seen":[{"what":"rocking","cylinder":9,"valve":"","mark_deg":0}]}`)
	assert.Equal(t, http.StatusConflict, status)
	assert.Contains(t, text, "seen[0]")

	state := d.happen(4, `"kind":"located","seen":[`+mark+","+rocks+`]`)
	assert.Equal(t, 360.0, state["crank_deg"])
	assert.Equal(t, map[string]any{"from_deg": 355.0, "to_deg": 365.0}, state["place"])
	list, err := d.st.Happenings("job-0001")
	require.NoError(t, err)
	seen := list.Happenings[3].Act.(job.Located).Seen
	require.Len(t, seen, 2)
	assert.Equal(t, 1, seen[1].Cylinder)
}
