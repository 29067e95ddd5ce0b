package compute_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/internal/compute"
)

// seeds are requests that each operation takes, for the fuzzing to begin from.
func seeds(t testing.TB) map[string][]string {
	s := sheet(t)
	return map[string][]string{
		"check-sheet": {`{"sheet":` + s + `}`},
		"plan": {`{"school":"rocking_pairs","sheet":` + s + `}`,
			`{"school":"fewest_stops","stops":3,"positions":"marks","sheet":` + s + `}`},
		"compare": {`{"sheet":` + s + `}`},
		"locate": {`{"sheet":` + s +
			`,"seen":[{"what":"rocking","cylinder":1},{"what":"mark","mark_deg":0}]}`},
		"settable": {`{"sheet":` + s + `,"crank_deg":360.5}`},
		"judge": {`{"limits":{"lower_mm":0.2,"upper_mm":0.24},"readings":[{"leaves_mm":[0.15,0.06],` +
			`"feel":"drag"},{"dial_mm":0.22}],"owned":[{"marked_mm":0.15},{"marked_in":0.009,` +
			`"measured_mm":0.229}],"rule":"guarded","feel_mm":0.004}`,
			`{"limits":{"nominal_mm":0.3,"tolerance_mm":0.02},"readings":[],"owned":[]}`},
		"leaves": {`{"owned":[{"marked_mm":0.05},{"marked_mm":0.2}],"aim_mm":0.25,"lower_mm":0.2,` +
			`"upper_mm":0.3}`},
		"reach": {`{"owned":[{"marked_mm":0.05},{"marked_mm":0.2}],"lower_mm":0.2,"upper_mm":0.3}`},
		"turn": {`{"adjuster":{"kind":"centre_nut","pitch_mm":1.25,"ratio":1.5,"thread":"left"},` +
			`"gap_mm":0.4,"aim_mm":0.3}`,
			`{"adjuster":{"kind":"eccentric","eccentricity_mm":1.2},"gap_mm":0.4,"aim_mm":0.3}`},
		"rehearse": {`{"sheet":` + s + `,"school":"rocking_pairs","out":["E1"]}`,
			`{"sheet":` + s + `,"school":"two_stop","round":"free_first","check":"all"}`},
		"lock-shift": {`{"pairs":[{"before_mm":0.3,"after_mm":0.28}],"aim_mm":0.3}`},
		"shims": {`{"valves":[{"valve":"I1","fitted_mm":2.7,"measured_mm":0.1,"lower_mm":0.15,` +
			`"upper_mm":0.25,"aim_mm":0.2}],"sizes_mm":[2.6,2.65],"stock":[{"shim_mm":2.6,"count":1}]}`},
		"cooldown": {`{"ambient_c":18,"readings":[{"minute":0,"engine_c":85},{"minute":10,` +
			`"engine_c":72}],"gate_c":38}`},
		"forecast": {`{"visits":[{"date":"2025-01-31","odometer_km":1000,"valves":[{"valve":"I1",` +
			`"found_mm":0.3,"left_mm":0.25,"lower_mm":0.2,"upper_mm":0.3}]},{"date":"2025-08-31",` +
			`"odometer_km":11000,"valves":[{"valve":"I1","found_mm":0.24,"left_mm":0.24,"lower_mm":0.2,` +
			`"upper_mm":0.3}]}],"interval_months":6}`},
		"convert": {`{"length_mm":0.254}`, `{"torque_lbft":10}`},
	}
}

// Whatever is asked of whichever operation, there is an answer in JSON or a problem whose faults say
// something, and never a fault of ours.
func FuzzRun(f *testing.F) {
	names := compute.Names()
	for name, requests := range seeds(f) {
		for i, n := range names {
			if n == name {
				for _, r := range requests {
					f.Add(byte(i), []byte(r))
				}
			}
		}
	}
	f.Fuzz(func(t *testing.T, which byte, request []byte) {
		name := names[int(which)%len(names)]
		answer, problem := compute.Run(name, request)
		if problem == nil {
			require.True(t, json.Valid(answer), "%s: %s", name, answer)
			return
		}
		require.Less(t, problem.Status, 500, "%s: %s", name, problem.Detail)
		require.NotEmpty(t, problem.Errors, name)
		for _, fault := range problem.Errors {
			require.NotEmpty(t, fault.Message, name)
		}
	})
}

// The seeds are requests that are taken, one at least for every operation.
func TestSeedsOfTheFuzzing(t *testing.T) {
	all := seeds(t)
	for _, name := range compute.Names() {
		require.NotEmpty(t, all[name], name)
	}
	for name, requests := range all {
		for _, r := range requests {
			_, problem := compute.Run(name, []byte(r))
			if problem != nil {
				t.Errorf("%s: %s", name, problem.Detail)
			}
		}
	}
}
