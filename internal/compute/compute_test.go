package compute_test

import (
	"encoding/json"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/compute"
)

func sheet(t testing.TB) string {
	t.Helper()
	data, err := os.ReadFile("testdata/four.engine.json")
	require.NoError(t, err)
	return string(data)
}

func run(t *testing.T, op, request string) map[string]any {
	t.Helper()
	data, problem := compute.Run(op, []byte(request))
	require.Nil(t, problem, "%+v", problem)
	var out map[string]any
	require.NoError(t, json.Unmarshal(data, &out))
	return out
}

func faults(t *testing.T, op, request string) map[string]string {
	t.Helper()
	_, problem := compute.Run(op, []byte(request))
	require.NotNil(t, problem)
	assert.Equal(t, 422, problem.Status)
	at := map[string]string{}
	for _, f := range problem.Errors {
		at[f.Location] = f.Message
	}
	return at
}

func TestCheckSheetAnswers(t *testing.T) {
	got := run(t, "check-sheet", `{"sheet":`+sheet(t)+`}`)
	assert.Equal(t, true, got["ok"])
	assert.Empty(t, got["problems"])
	assert.Equal(t, map[string]any{"name": "E1", "row_number": 1.0, "cylinder": 1.0, "kind": "exhaust"},
		got["valves"].([]any)[0])
	for _, field := range []string{"problems", "warnings", "assumed", "valves"} {
		assert.IsType(t, []any{}, got[field], "%s is a list, never null", field)
	}
}

// Everything wrong inside the sheet is a problem in the answer, located within the sheet.
func TestCheckSheetLocatesEveryFault(t *testing.T) {
	bad := strings.NewReplacer(
		`"firing_order": [1, 3, 4, 2]`, `"firing_order": [1, 3, 3, 2], "colour": "red"`,
		`"EIIEEIIE"`, `"EIIEEII"`,
		`"may_turn_back": false`, `"may_turn_back": "no"`,
		`"tolerance_mm": 0.02`, `"tolerance_mm": 0.2200001`,
		`"lower_mm": 0.28`, `"lower_mm": 0.38`,
		`"format": "metronix.engine/1"`, `"format": "metronix.engine/9"`,
	).Replace(sheet(t))
	got := run(t, "check-sheet", `{"sheet":`+bad+`}`)
	assert.Equal(t, false, got["ok"])
	at := map[string]string{}
	for _, p := range got["problems"].([]any) {
		at[p.(map[string]any)["location"].(string)] = p.(map[string]any)["message"].(string)
	}
	for _, location := range []string{"firing_order[2]", "firing_order", "colour", "banks[0].rows[0].valves",
		"may_turn_back",
		"clearances[0].intake.tolerance_mm", "clearances[0].exhaust.lower_mm", "format"} {
		assert.Contains(t, at, location)
	}
	for _, notAnObject := range []string{`null`, `7`, `"four"`, `[]`} {
		assert.Equal(t, false, run(t, "check-sheet", `{"sheet":`+notAnObject+`}`)["ok"])
	}
}

func TestInchFiguresAreNamedWhereTheyStand(t *testing.T) {
	bad := strings.Replace(sheet(t), `{ "nominal_mm": 0.22, "tolerance_mm": 0.02 }`, `{ "nominal_in": 0.25 }`,
		1)
	got := run(t, "check-sheet", `{"sheet":`+bad+`}`)
	p := got["problems"].([]any)[0].(map[string]any)
	assert.Equal(t, "clearances[0].intake.nominal_in", p["location"])
	assert.Contains(t, p["message"], "Did you mean 0.25 mm?")
}

func TestPlanAnswers(t *testing.T) {
	got := run(t, "plan", `{"school":"rocking_pairs","sheet":`+sheet(t)+`}`)
	assert.Equal(t, true, got["applies"])
	assert.Equal(t, 540.0, got["total_turn_deg"])
	first := got["stops"].([]any)[0].(map[string]any)
	assert.Equal(t, map[string]any{"what": "rocking", "cylinder": 4.0}, first["watch"].([]any)[0])
	assert.Equal(t, map[string]any{"what": "mark", "mark_deg": 0.0}, first["watch"].([]any)[1])
	assert.Equal(t, map[string]any{"valve": "E1", "margin_deg": 128.0}, first["set"].([]any)[0])

	got = run(t, "plan", `{"school":"sum_rule","sheet":`+strings.Replace(sheet(t), "EIIEEIIE", "EIEIEIEI",
		1)+`}`)
	assert.Equal(t, false, got["applies"])
	assert.Equal(t, []any{}, got["stops"])
	assert.Nil(t, got["total_turn_deg"])
	assert.Contains(t, got, "smallest_margin_deg")
	assert.NotEmpty(t, got["reason"])

	hydraulic := strings.Replace(sheet(t), "screw_valve_end", "hydraulic", 1)
	assert.Equal(t, false, run(t, "plan", `{"school":"one_cylinder","sheet":`+hydraulic+`}`)["applies"])
}

func TestCompareAnswers(t *testing.T) {
	got := run(t, "compare", `{"sheet":`+sheet(t)+`}`)
	byName := map[string]map[string]any{}
	for _, s := range got["schools"].([]any) {
		byName[s.(map[string]any)["school"].(string)] = s.(map[string]any)
	}
	assert.Len(t, byName, 9)
	assert.Equal(t, 4.0, byName["rocking_pairs"]["stops"])
	assert.Equal(t, 238.0, byName["one_lobe"]["smallest_margin_deg"])
	assert.Equal(t, false, byName["own"]["applies"])
	assert.Nil(t, byName["own"]["stops"])
	frontier := got["frontier"].([]any)
	assert.Equal(t, map[string]any{"stops": 2.0, "smallest_margin_deg": 128.0,
		"crank_deg": []any{0.0, 360.0}}, frontier[0])
	assert.Equal(t, 238.0, frontier[len(frontier)-1].(map[string]any)["smallest_margin_deg"])

	marked := run(t, "plan", `{"school":"fewest_stops","positions":"marks","sheet":`+sheet(t)+`}`)
	assert.Equal(t, true, marked["applies"])
	assert.Contains(t, faults(t, "plan", `{"school":"fewest_stops","stops":0,"sheet":`+sheet(t)+`}`), "stops")
}

func TestLocateAnswers(t *testing.T) {
	got := run(t, "locate", `{"sheet":`+sheet(t)+`,"seen":[{"what":"mark","mark_deg":0}]}`)
	assert.Equal(t, []any{map[string]any{"from_deg": 355.0, "to_deg": 365.0},
		map[string]any{"from_deg": 715.0, "to_deg": 5.0}}, got["positions"])
	first := got["tell_apart"].([]any)[0].(map[string]any)
	assert.Equal(t, map[string]any{"what": "rocking", "cylinder": 1.0}, first["look_at"])
	got = run(t, "locate", `{"sheet":`+sheet(t)+
		`,"seen":[{"what":"rocking","cylinder":1},{"what":"rocking","cylinder":2}]}`)
	assert.Equal(t, []any{}, got["positions"])
	assert.NotEmpty(t, got["conflict"])
	at := faults(t, "locate", `{"sheet":`+sheet(t)+`,"seen":[{"what":"mark"},{"what":"glow"}]}`)
	assert.Contains(t, at, "seen[0].mark_deg")
	assert.Contains(t, at, "seen[1].what")
	assert.Contains(t, faults(t, "locate", `{"sheet":`+sheet(t)+`,"seen":[{"what":"rocking","cylinder":7}]}`),
		"seen[0]")
}

func TestRequestsThatCannotBeRight(t *testing.T) {
	s := sheet(t)
	assert.Contains(t, faults(t, "plan", `{"school":"one_cylinder","shoe":1,"sheet":`+s+`}`), "shoe")
	assert.Contains(t, faults(t, "plan", `{"school":"guess","sheet":`+s+`}`), "school")
	assert.Contains(t, faults(t, "plan", `{"school":"one_cylinder","direction":"back","sheet":`+s+`}`),
		"direction")
	assert.Contains(t, faults(t, "plan", `{"school":"one_cylinder"}`), "sheet")
	assert.Contains(t, faults(t, "plan",
		`{"school":"one_cylinder","sheet":`+strings.Replace(s, "1, 3, 4, 2", "1, 3, 3, 2",
			1)+`}`), "sheet.firing_order[2]")
	assert.Contains(t, faults(t, "settable", `{"crank_deg":720,"sheet":`+s+`}`), "crank_deg")
	assert.Contains(t, faults(t, "settable", `{"crank_deg":"0","sheet":`+s+`}`), "crank_deg")
	assert.Contains(t, faults(t, "dance", `{}`), "operation")
	assert.Contains(t, faults(t, "plan", `{"school":`), "")
	assert.Contains(t, faults(t, "plan", `{} {}`), "")
	assert.Contains(t, faults(t, "judge",
		`{"limits":{"lower_mm":0.2,"upper_mm":0.24},"limits":{},"readings":[],"owned":[]}`), "limits")
}

func TestSettableAnswers(t *testing.T) {
	got := run(t, "settable", `{"crank_deg":250,"sheet":`+sheet(t)+`}`)
	valves := got["valves"].([]any)
	assert.Equal(t, map[string]any{"valve": "E1", "theta_deg": 250.0, "margin_deg": -122.0,
		"open_fraction": 1.0, "settable": false}, valves[0])
	assert.Equal(t, map[string]any{"valve": "E4", "theta_deg": 610.0, "margin_deg": 238.0,
		"open_fraction": 0.0, "settable": true}, valves[7])
}

func TestJudgeAnswers(t *testing.T) {
	got := run(
		t,
		"judge",
		`{"limits":{"lower_mm":0.28,"upper_mm":0.32},"owned":[{"marked_mm":0.25},{"marked_mm":0.28,"measured_mm":0.281}],
		"readings":[{"leaves_mm":[0.25],"feel":"drag"},{"leaves_mm":[0.28],"feel":"won't go"}]}`,
	)
	assert.Equal(t, "tight", got["verdict"])
	assert.Equal(t, true, got["sure"])
	assert.Equal(t, 0.25, got["estimate_mm"])
	assert.Equal(t, 0.24, got["gap_low_mm"])
	assert.Equal(t, 0.26, got["gap_high_mm"])
	assert.Nil(t, got["try_next"])
	assert.Contains(t, got["why"], "0.03 mm under the limit")

	got = run(t, "judge", `{"limits":{"nominal_mm":0.30},"readings":[],"owned":[{"marked_mm":0.28}]}`)
	assert.Equal(t, "undecided", got["verdict"])
	assert.Nil(t, got["gap_high_mm"])
	assert.Equal(t, map[string]any{"leaves_mm": []any{0.28}}, got["try_next"])

	at := faults(t, "judge",
		`{"limits":{"nominal_mm":0.2,"tolerance_mm":0.2},"readings":[{"leaves_mm":[0],"feel":"soft"}],`+
			`"owned":[{"marked_mm":0.2},{"marked_mm":0.2}]}`)
	for _, location := range []string{"limits.tolerance_mm", "readings[0].leaves_mm[0]", "readings[0].feel",
		"owned[1].marked_mm"} {
		assert.Contains(t, at, location)
	}
}

func TestLeavesAnswers(t *testing.T) {
	got := run(t, "leaves", `{"owned":[{"marked_mm":0.15},{"marked_mm":0.06}],"aim_mm":0.21}`)
	assert.Equal(t, []any{0.15, 0.06}, got["leaves_mm"])
	assert.Equal(t, 0.21, got["thickness_mm"])
	assert.Equal(t, 0.01, got["uncertainty_mm"])
	assert.Contains(t, faults(t, "leaves", `{"owned":[],"aim_mm":0.21}`), "owned")
}

// A rehearsal that does not apply says why and has no figures; one that does has a step a reading.
func TestRehearseAnswers(t *testing.T) {
	got := run(t, "rehearse", `{"school":"one_cylinder","out":["E1"],"sheet":`+sheet(t)+`}`)
	assert.Equal(t, true, got["applies"])
	assert.Equal(t, 540.0, got["total_turn_deg"])
	assert.Equal(t, map[string]any{"do": "read", "valve": "E1", "stop": 0.0}, got["steps"].([]any)[0])
	shims := strings.Replace(sheet(t), "screw_valve_end", "shim", 1)
	got = run(t, "rehearse", `{"school":"one_cylinder","sheet":`+shims+`}`)
	assert.Equal(t, false, got["applies"])
	assert.Contains(t, got["reason"], "every valve is read first")
	assert.Equal(t, []any{}, got["steps"])
	for _, figure := range []string{"total_turn_deg", "check_turn_deg", "leaf_changes", "gestures"} {
		assert.Contains(t, got, figure)
		assert.Nil(t, got[figure], figure)
	}
	assert.Contains(t, faults(t, "rehearse",
		`{"school":"one_cylinder","out":["X1"],"card":7,"round":"once","sheet":`+
			sheet(t)+`}`), "out[0]")
}
