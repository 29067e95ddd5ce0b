package compute_test

import (
	"fmt"
	"os"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/internal/compute"
)

// joined writes n things apart by commas.
func joined(n int, thing func(i int) string) string {
	parts := make([]string, n)
	for i := range n {
		parts[i] = thing(i)
	}
	return strings.Join(parts, ",")
}

// sixteen is a sheet as large as one can be: sixteen cylinders in two banks with five valves each, a thousand
// cards, a mark at each half degree.
func sixteen(t testing.TB) string {
	t.Helper()
	bank := func(name string, angle, from int) string {
		return fmt.Sprintf(`{"name":%q,"angle_deg":%d,"cylinders":[%s],"intake_ports":"left",`+
			`"rows":[{"side":"left","valves":%q},{"side":"right","valves":%q}]}`,
			name, angle, joined(8, func(i int) string { return fmt.Sprint(from + i) }), strings.Repeat("III",
				8), strings.Repeat("EE", 8))
	}
	card := func(i int) string {
		return fmt.Sprintf(
			`{"source":"book %d","state":"cold","intake":{"lower_mm":0.2,"upper_mm":0.24},"exhaust":{"nominal_mm":0.3}}`,
			i,
		)
	}
	return fmt.Sprintf(
		`{"format":"metronix.engine/1","name":"the largest","cylinders":16,"firing_order":[%s],"rotation":"clockwise","may_turn_back":true,"layout":"vee",
		"banks":[%s,%s],"marks_deg":[%s],"valve_timing":{"ivo_btdc_deg":11.123457,"ivc_abdc_deg":47.654321,"evo_bbdc_deg":52.111111,"evc_atdc_deg":12.987653},"clearances":[%s]}`,
		joined(16, func(i int) string { return fmt.Sprint(1 + i/2 + 8*(i%2)) }),
		bank("left bank", 45,
			1),
		bank("right bank", -45, 9),
		joined(720, func(i int) string { return fmt.Sprintf("%g", float64(i)/2) }),
		joined(1000, card),
	)
}

// largest is, for each operation, the dearest request that I know of and that is taken.
func largest(t testing.TB) map[string]string {
	t.Helper()
	twelve, err := os.ReadFile("../demo/engines/brindlow-6000.engine.json")
	require.NoError(t, err)
	s := sixteen(t)
	leaves := joined(120, func(i int) string {
		return fmt.Sprintf(`{"marked_mm":%.4f}`,
			0.02+float64(i)*0.0117)
	})
	visit := func(i int) string {
		return fmt.Sprintf(`{"odometer_km":%d,"date":"20%02d-%02d-01","valves":[%s]}`, 1000*(i+1), 10+i/12,
			1+i%12,
			joined(48, func(v int) string {
				return fmt.Sprintf(`{"valve":"I%d","found_mm":0.24,"left_mm":0.25,"lower_mm":0.2,`+
					`"upper_mm":0.3}`, v+1)
			}))
	}
	return map[string]string{
		"check-sheet": `{"sheet":` + s + `}`,
		"compare":     `{"sheet":` + s + `}`,
		"compare 12":  `{"sheet":` + string(twelve) + `}`,
		"plan":        `{"school":"fewest_stops","sheet":` + s + `}`,
		"rehearse":    `{"school":"one_lobe","round":"free_first","check":"all","sheet":` + s + `}`,
		"settable":    `{"crank_deg":123.456789,"sheet":` + s + `}`,
		"locate":      `{"seen":[{"what":"pressed","valve":"I1a"}],"sheet":` + string(twelve) + `}`,
		"judge": `{"limits":{"lower_mm":0.7,"upper_mm":0.74},"rule":"guarded","feel_mm":0.1,"owned":[` +
			leaves + `],"readings":[]}`,
		"leaves": `{"aim_mm":1.2345,"lower_mm":1.23,"upper_mm":1.24,"owned":[` + leaves + `]}`,
		"reach":  `{"lower_mm":0.02,"upper_mm":1.5,"owned":[` + leaves + `]}`,
		"turn":   `{"adjuster":{"kind":"centre_nut","pitch_mm":1.25,"ratio":1.5},"gap_mm":0.4,"aim_mm":0.3}`,
		"lock-shift": `{"aim_mm":0.3,"pairs":[` + joined(1000,
			func(i int) string {
				return fmt.Sprintf(`{"before_mm":0.3,"after_mm":%.6f}`,
					0.27+float64(i)*1e-5)
			}) + `]}`,
		"shims": `{"sizes_mm":[` + joined(200,
			func(i int) string { return fmt.Sprintf("%.3f", 2+float64(i)*0.005) }) + `],"stock":[` +
			joined(200, func(i int) string {
				return fmt.Sprintf(`{"shim_mm":%.3f,"count":9}`,
					2+float64(i)*0.005)
			}) + `],"valves":[` +
			joined(48, func(i int) string {
				return fmt.Sprintf(`{"valve":"I%d","fitted_mm":%.3f,"measured_mm":%.3f,"lower_mm":0.15,`+
					`"upper_mm":0.25,"aim_mm":0.2}`, i+1, 2.3+float64(i%17)*0.01, 0.05+float64(i%13)*0.03)
			}) + `]}`,
		"cooldown": `{"ambient_c":18,"gate_c":38,"readings":[` + joined(1000,
			func(i int) string {
				return fmt.Sprintf(`{"minute":%d,"engine_c":%.3f}`, i,
					90-float64(i)*0.05)
			}) + `]}`,
		"forecast": `{"interval_months":6,"visits":[` + joined(60, visit) + `]}`,
		"convert":  `{"length_mm":0.254}`,
	}
}

// most is what an accepted request may cost in memory, bytes.
const most = 50 << 20

// No accepted request costs more than fifty megabytes, counted as all that is allocated for it. (What each
// takes of time: BenchmarkLargest.)
func TestNoAcceptedRequestIsDear(t *testing.T) {
	all := largest(t)
	for _, name := range compute.Names() {
		require.True(t, all[name] != "", "%s has no largest request here", name)
	}
	for name, request := range all {
		require.Less(t, len(request), 1<<20, name)
		operation, _, _ := strings.Cut(name, " ")
		var before, after runtime.MemStats
		runtime.ReadMemStats(&before)
		_, problem := compute.Run(operation, []byte(request))
		runtime.ReadMemStats(&after)
		if problem != nil {
			t.Errorf("%s: %.300s", name, problem.Detail)
			continue
		}
		require.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(most), name)
		t.Logf("%s: %d kB", name, (after.TotalAlloc-before.TotalAlloc)>>10)
	}
}

func BenchmarkLargest(b *testing.B) {
	for name, request := range largest(b) {
		operation, _, _ := strings.Cut(name, " ")
		b.Run(name, func(b *testing.B) {
			b.ReportAllocs()
			for b.Loop() {
				if _, problem := compute.Run(operation, []byte(request)); problem != nil {
					b.Fatal(problem.Detail)
				}
			}
		})
	}
}
