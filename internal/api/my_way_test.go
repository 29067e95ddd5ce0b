package api_test

import (
	"encoding/json"
	"fmt"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// wayOf asks how a mechanic goes about the only vehicle.
func (d *door) wayOf(mechanic, more string) map[string]any {
	d.t.Helper()
	return d.ok("GET", "/api/v1/vehicles/vehicle-01/my-way?mechanic="+url.QueryEscape(mechanic)+more, "")
}

// began starts a job by a mechanic and chooses a way in it.
func (d *door) began(id, mechanic, start, way string) {
	d.t.Helper()
	d.ok("POST", "/api/v1/jobs", fmt.Sprintf(`{"id":%q,"vehicle_id":"vehicle-01","gauge_set_id":"gauges-01",`+
		`"mechanic":%q,"card":0,%s}`, id, mechanic, start))
	if way != "" {
		d.ok("POST", "/api/v1/jobs/"+id+"/happenings", `{"id":"`+id+`-way","kind":"way_chosen",`+way+`}`)
	}
}

// What a mechanic chose last on the same sheet by the same card is proposed in a line, whoever worked
// between, and what belongs to the one job is not.
func TestAMechanicsWayIsProposedAgain(t *testing.T) {
	d := withJob(t)
	none := d.wayOf("June", "")
	assert.Empty(t, none["says"])
	assert.Nil(t, none["way"])
	assert.InDelta(t, 0, none["card"], 0, "the only one of the sheet")
	assert.Empty(t, none["gauge_set_id"])
	assert.Equal(t, []any{"Tess"}, none["names"])

	d.began("job-0002", "June", `"reason":"","rule":"one_leaf","feel_mm":0.004,"leaves_are":"oiled","aim":"loose"`,
		`"school":"rocking_pairs","order":"numerical","round":"read_first","check":"none","scope":["E1","I1"],`+
			`"check_turns":4,"one_kind_first":"exhaust","locking":"nip_then_torque","own_shift_mm":-0.02`)
	d.began("job-0003", "Tess", `"reason":""`, `"school":"one_cylinder"`)
	d.began("job-0004", "june", `"reason":""`, "") // nothing was chosen in it
	w := d.wayOf("JUNE", "")
	assert.Equal(t, []any{"june", "Tess"}, w["names"], "one person, whatever the capitals")
	assert.Equal(t, map[string]any{"school": "rocking_pairs", "order": "numerical", "round": "read_first",
		"check": "none", "check_turns": 4.0, "one_kind_first": "exhaust", "locking": "nip_then_torque",
		"own_shift_mm": -0.02}, w["way"])
	assert.Equal(t, "Rocking pairs, by number; read all first, no check, exhausts first, one leaf, to the loose end",
		w["says"])
	assert.Equal(t, "one_leaf", w["rule"])
	assert.Equal(t, "loose", w["aim"])
	assert.Equal(t, "gauges-01", w["gauge_set_id"])
	assert.Empty(t, w["leaves_are"], "of the last job")
	assert.Equal(t, "set_ones", d.wayOf("June", "&reason=After+a+new+cam")["way"].(map[string]any)["check"])

	// it is taken as it is proposed
	way := w["way"].(map[string]any)
	way["kind"], way["id"] = "way_chosen", "as-last-time"
	d.began("job-0005", "June", `"reason":""`, "")
	d.ok("POST", "/api/v1/jobs/job-0005/happenings", asJSON(t, way))

	// no check is no habit where all were freed
	d.began("job-0006", "June", `"reason":""`, `"school":"rocking_pairs","round":"free_first","check":"none"`)
	assert.Equal(t, "set_ones", d.wayOf("June", "")["way"].(map[string]any)["check"])

	// another sheet is another engine: leaves and the nut's word alone carry over
	version := d.ok("GET", "/api/v1/engines/engine-01", "")["version"].(string)
	d.ok("PUT", "/api/v1/engines/engine-01?replaces="+version, strings.Replace(sheet(t), `"required_margin_deg": 20`,
		`"required_margin_deg": 21`, 1))
	w = d.wayOf("June", "")
	assert.Nil(t, w["way"])
	assert.Empty(t, w["says"])
	assert.Equal(t, "gauges-01", w["gauge_set_id"])
	assert.NotEmpty(t, w["rule_why"], "not his habit, but what these leaves can tell")
}

// A habit that names what is gone says so, and nothing is lost; which of two cards holds is asked; and with
// leaves that tell sides alone one leaf is proposed.
func TestAHabitThatNamesWhatIsGone(t *testing.T) {
	d := withJob(t)
	d.began("job-0002", "June", `"reason":""`, `"school":"rocking_pairs"`)
	_, text := d.send("GET", "/api/v1/gauge-sets", "")
	var sets []map[string]any
	decode(t, text, &sets)
	d.ok("PUT", "/api/v1/gauge-sets/gauges-01?replaces="+sets[0]["version"].(string),
		`{"name":"Another","leaves":[{"marked_mm":0.22},{"marked_mm":0.3}]}`)
	w := d.wayOf("June", "")
	assert.Equal(t, []any{"The leaf set “Set” of your last job is not there any more: choose one."}, w["gone"])
	assert.Empty(t, w["gauge_set_id"])
	require.NotNil(t, w["way"], "the rest is as it was")
	w = d.wayOf("Somebody", "&gauge_set_id=gauges-01")
	assert.Equal(t, "one_leaf", w["rule"])
	assert.Contains(t, w["rule_why"], "one leaf tells on which side")
	d.ok("POST", "/api/v1/gauge-sets", `{"id":"gauges-02","name":"Full","leaves":[{"marked_mm":0.18},{"marked_mm":0.22},`+
		`{"marked_mm":0.26},{"marked_mm":0.3},{"marked_mm":0.34}]}`)
	assert.Equal(t, "workshop", d.wayOf("Somebody", "&gauge_set_id=gauges-02")["rule"])

	d.ok("PUT", "/api/v1/vehicles/vehicle-01/cards", `{"cards":[`+changedCam+`]}`)
	w = d.wayOf("June", "")
	assert.Equal(t, "Sources say different things: choose which this job is by.", w["card_asked"])
	assert.Nil(t, w["way"])
	assert.InDelta(t, 0, d.wayOf("June", "&card=0")["card"], 0)
	status, text := d.send("GET", "/api/v1/vehicles/vehicle-99/my-way?mechanic=June", "")
	assert.Equal(t, 404, status, text)
}

func asJSON(t testing.TB, v any) string {
	t.Helper()
	data, err := json.Marshal(v)
	require.NoError(t, err)
	return string(data)
}
