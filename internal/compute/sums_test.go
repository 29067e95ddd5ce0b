package compute_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/compute"
)

// each request with its whole answer, or with the place of the fault that it is refused for. Figures: common
// practice where the trade gives them (0.10 mm too loose on M8×1 is 36°), else by hand.
var sums = []struct{ name, operation, request, answer, fault string }{
	{"a tenth of a turn", "turn",
		`{"adjuster":{"kind":"screw_valve_end","pitch_mm":1},"gap_mm":0.4,"aim_mm":0.3}`,
		`{"turn_deg":36,"direction":"close","rotation":"clockwise","travel":"in","turns":0.1,` +
			`"by_feel":false,"why":"0.10 mm to change, pitch 1.00 mm, gain 1: 360° × 0.1 / (1 × 1)."}`, ""},
	{"an eccentric", "turn",
		`{"adjuster":{"kind":"eccentric","eccentricity_mm":1.2},"gap_mm":0.2,"aim_mm":0.3}`,
		`{"turn_deg":null,"direction":"open","rotation":"","travel":"","turns":null,"by_feel":true,` +
			`"why":"An eccentric changes the gap unevenly: turn it by feel against the leaf. 10° changes ` +
			`it by at most 0.209 mm."}`, ""},
	{"a shim has no screw", "turn", `{"adjuster":{"kind":"shim"},"gap_mm":0.2,"aim_mm":0.3}`, "",
		"adjuster.kind"},
	{"no ratio", "turn", `{"adjuster":{"kind":"centre_nut","pitch_mm":1},"gap_mm":0.2,"aim_mm":0.3}`, "",
		"adjuster.ratio"},
	{"a finger's ratio is above 1", "turn",
		`{"adjuster":{"kind":"finger_pivot_at_cam","pitch_mm":1,"ratio":1},"gap_mm":0.2,"aim_mm":0.3}`, "",
		"adjuster.ratio"},
	{"no pitch", "turn", `{"adjuster":{"kind":"screw_valve_end"},"gap_mm":0.2,"aim_mm":0.3}`, "",
		"adjuster.pitch_mm"},
	{"a gap in thousandths", "turn",
		`{"adjuster":{"kind":"screw_valve_end","pitch_mm":1},"gap_mm":10,"aim_mm":0.3}`, "", "gap_mm"},
	{"an unknown field", "turn",
		`{"adjuster":{"kind":"screw_valve_end","pitch_mm":1,"colour":1},"gap_mm":0.1,"aim_mm":0.3}`, "",
		"adjuster.colour"},

	{"five pairs", "lock-shift",
		`{"pairs":[{"before_mm":0.3,"after_mm":0.28},{"before_mm":0.3,"after_mm":0.28},{"before_mm":0.3,` +
			`"after_mm":0.28},{"before_mm":0.3,"after_mm":0.28},{"before_mm":0.3,"after_mm":0.28}],` +
			`"aim_mm":0.3}`,
		`{"enough":true,"count":5,"median_mm":-0.02,"spread_mm":0,"pre_lock_aim_mm":0.32,"way":"closes"}`, ""},
	{"no pairs", "lock-shift", `{"pairs":[],"aim_mm":0.3}`,
		`{"enough":false,"count":0,"median_mm":null,"spread_mm":null,"pre_lock_aim_mm":null,"way":""}`, ""},
	{"a negative gap", "lock-shift", `{"pairs":[{"before_mm":-0.3,"after_mm":0.28}],"aim_mm":0.3}`, "",
		"pairs[0].before_mm"},

	{"two that change places", "shims",
		`{"valves":[{"valve":"I1","fitted_mm":2.7,"measured_mm":0.1,"lower_mm":0.15,"upper_mm":0.25,` +
			`"aim_mm":0.2},{"valve":"I2","fitted_mm":2.6,"measured_mm":0.3,"lower_mm":0.15,"upper_mm":0.25,` +
			`"aim_mm":0.2}],"sizes_mm":[]}`,
		`{"fit":[{"valve":"I1","shim_mm":2.6,"from":"I2","gap_mm":0.2},{"valve":"I2","shim_mm":2.7,` +
			`"from":"I1","gap_mm":0.2}],"buy":[],"spare_mm":[],"impossible":[],"frontier":[{"bought":0,` +
			`"worst_from_aim_mm":0}]}`, ""},
	{"one to buy", "shims",
		`{"valves":[{"valve":"I1","fitted_mm":2.7,"measured_mm":0.1,"lower_mm":0.15,"upper_mm":0.25,` +
			`"aim_mm":0.2}],"sizes_mm":[2.575,2.6]}`,
		`{"fit":[{"valve":"I1","shim_mm":2.6,"from":"stock","gap_mm":0.2}],"buy":[{"shim_mm":2.6,` +
			`"count":1}],"spare_mm":[2.7],"impossible":[],"frontier":[{"bought":1,"worst_from_aim_mm":0}]}`,
		""},
	{"a valve twice", "shims",
		`{"valves":[{"valve":"I1","fitted_mm":2.7,"measured_mm":0.1,"lower_mm":0.15,"upper_mm":0.25,` +
			`"aim_mm":0.2},{"valve":"I1","fitted_mm":2.7,"measured_mm":0.1,"lower_mm":0.15,"upper_mm":0.25,` +
			`"aim_mm":0.2}],"sizes_mm":[]}`, "", "valves[1].valve"},
	{"a shim of nothing", "shims", `{"valves":[],"sizes_mm":[0]}`, "", "sizes_mm[0]"},

	{"halving every ten minutes", "cooldown",
		`{"ambient_c":20,"readings":[{"minute":0,"engine_c":100},{"minute":10,"engine_c":60}],"gate_c":30}`,
		`{"k_per_min":0.069314718,"minutes_from_last":20,"reachable":true,"why":""}`, ""},
	{"one reading", "cooldown", `{"ambient_c":20,"readings":[{"minute":0,"engine_c":100}],"gate_c":30}`, "",
		"readings"},
	{"time runs backwards", "cooldown",
		`{"ambient_c":20,"readings":[{"minute":5,"engine_c":100},{"minute":4,"engine_c":90}],"gate_c":30}`,
		"", "readings[1].minute"},
	{"colder than can be", "cooldown",
		`{"ambient_c":-280,"readings":[{"minute":5,"engine_c":100},{"minute":6,"engine_c":90}],"gate_c":30}`,
		"", "ambient_c"},
	{"hotter than an engine", "cooldown",
		`{"ambient_c":20,"readings":[{"minute":5,"engine_c":300},{"minute":6,"engine_c":90}],"gate_c":30}`,
		"", "readings[0].engine_c"},

	{"ten thousandths", "convert", `{"length_in":0.010}`,
		`{"length_mm":0.254,"thou":10,"length_in":0.01,"torque_nm":null,"torque_lbft":null}`, ""},
	{"a pound-foot", "convert", `{"torque_lbft":1}`,
		`{"length_mm":null,"thou":null,"length_in":null,"torque_nm":1.3558179483314004,"torque_lbft":1}`, ""},
	{"two units at once", "convert", `{"length_in":0.010,"length_mm":1}`, "", "length_in"},

	{"one visit teaches no rate", "forecast",
		`{"visits":[{"odometer_km":100,"date":"2026-01-10","valves":[{"valve":"E1","found_mm":0.3,` +
			`"left_mm":0.3,"lower_mm":0.28,"upper_mm":0.32}]}],"interval_km":24000,"interval_months":12}`,
		`{"valves":[{"valve":"E1","rate_mm_per_1000km":null,"leaves_window_at_km":null,"side":"",` +
			`"rate_u_mm_per_1000km":null,"differs":false}],"due":{"odometer_km":24100,"date":"2027-01-10","because":"The interval of 24,000 km (14,913 ` +
			`miles), or the interval of 12 months, whichever comes first."}}`, ""},
	{"a date that is none", "forecast", `{"visits":[{"odometer_km":100,"date":"10.1.2026","valves":[]}]}`, "",
		"visits[0].date"},
	{"backwards", "forecast",
		`{"visits":[{"odometer_km":100,"date":"2026-01-10","valves":[]},{"odometer_km":90,` +
			`"date":"2026-02-10","valves":[]}]}`, "", "visits"},
	{"hours backwards", "forecast",
		`{"visits":[{"hours":100,"date":"2026-01-10","valves":[]},{"hours":90,"date":"2026-02-10",` +
			`"valves":[]}]}`, "", "visits"},
	{"two counters", "forecast",
		`{"visits":[{"hours":100,"date":"2026-01-10","valves":[]},{"odometer_km":900,` +
			`"date":"2026-02-10","valves":[]}]}`, "", "visits[1].odometer_km"},
	{"two counters at once", "forecast",
		`{"visits":[{"hours":100,"odometer_km":4000,"date":"2026-01-10","valves":[]}]}`, "",
		"visits[0].odometer_km"},
	{"no counter", "forecast", `{"visits":[{"date":"2026-01-10","valves":[]}]}`, "", "visits[0].odometer_km"},
	{"below 0", "forecast", `{"visits":[{"hours":-1,"date":"2026-01-10","valves":[]}]}`, "",
		"visits[0].hours"},
	{"an interval of the other counter", "forecast",
		`{"visits":[{"hours":100,"date":"2026-01-10","valves":[]}],"interval_km":1000}`, "", "interval_km"},
	{"an interval of no hours", "forecast",
		`{"visits":[{"hours":100,"date":"2026-01-10","valves":[]}],"interval_hours":0}`, "", "interval_hours"},
}

// An engine that counts running hours wears by the same sums: the answer is that by kilometres with the names
// of its figures changed, and no figure by kilometres stands in it.
func TestHoursAreReckonedAsKilometres(t *testing.T) {
	valve := `{"valve":"%s","found_mm":%v,"left_mm":%v,"lower_mm":0.25,"upper_mm":0.35}`
	visit := `{"date":"2026-0%d-31","odometer_km":%d,"valves":[` + valve + "," + valve + `]}`
	byKM := `{"interval_km":9000,"interval_months":30,"visits":[` +
		fmt.Sprintf(visit, 1, 1000, "I1", 0.3, 0.3, "E1", 0.3, 0.36) + "," +
		fmt.Sprintf(visit, 3, 3000, "I1", 0.28, 0.28, "E1", 0.3, 0.24) + "," +
		fmt.Sprintf(visit, 5, 4500, "I1", 0.26, "null", "E1", "null", 0.24) + `]}`
	named := strings.NewReplacer("rate_mm_per_1000km", "rate_mm_per_1000h", "rate_u_mm_per_1000km",
		"rate_u_mm_per_1000h", "leaves_window_at_km", "leaves_window_at_h", "range_km", "range_h", "odometer_km",
		"hours", "interval_km", "interval_hours", "9,000 km (5,592 miles)", "9,000 h")
	for _, request := range []string{byKM, strings.Replace(byKM, "0.24}", "0.3}", 2)} {
		km, problem := compute.Run("forecast", []byte(request))
		require.Nil(t, problem)
		hours, problem := compute.Run("forecast", []byte(named.Replace(request)))
		require.Nil(t, problem)
		assert.NotContains(t, string(hours), "km")
		assert.JSONEq(t, named.Replace(string(km)), string(hours))
	}
}

func TestSums(t *testing.T) {
	for _, c := range sums {
		answer, problem := compute.Run(c.operation, []byte(c.request))
		if c.fault != "" {
			require.NotNil(t, problem, c.name)
			assert.Equal(t, 422, problem.Status, c.name)
			assert.Equal(t, c.fault, problem.Errors[0].Location, c.name)
			assert.NotEmpty(t, problem.Errors[0].Message, c.name)
			continue
		}
		require.Nil(t, problem, "%s: %v", c.name, problem)
		var want, got any
		require.NoError(t, json.Unmarshal([]byte(c.answer), &want), c.name)
		require.NoError(t, json.Unmarshal(answer, &got), c.name)
		assert.Equal(t, want, got, c.name)
	}
}

// No answer holds a null list, whatever is asked.
func TestSumsSendEmptyListsAndNotNull(t *testing.T) {
	for operation, request := range map[string]string{
		"shims": `{"valves":[],"sizes_mm":[]}`, "forecast": `{"visits":[]}`,
	} {
		answer, problem := compute.Run(operation, []byte(request))
		require.Nil(t, problem)
		var fields map[string]json.RawMessage
		require.NoError(t, json.Unmarshal(answer, &fields))
		for name, value := range fields {
			assert.NotEqual(t, "null", string(value), "%s %s", operation, name)
		}
	}
}

// The worked figures of docs/judging.md are these answers.
func TestWorkedFiguresOfTheJudgingPage(t *testing.T) {
	const owned = `[{"marked_mm":0.15,"measured_mm":0.15},{"marked_mm":0.20,"measured_mm":0.201},` +
		`{"marked_mm":0.22},{"marked_mm":0.24},{"marked_mm":0.25,"measured_mm":0.249},{"marked_mm":0.06},` +
		`{"marked_mm":0.07}]`
	for _, c := range []struct {
		readings, rule, verdict string
		sure                    bool
		low, high, next         float64
	}{
		{`{"leaves_mm":[0.22],"feel":"drag"}`, "workshop", "in", true, 0.21, 0.23, 0},
		{`{"leaves_mm":[0.22],"feel":"drag"}`, "guarded", "in", true, 0.21, 0.23, 0},
		{`{"leaves_mm":[0.24],"feel":"drag"}`, "workshop", "in", false, 0.23, 0.25, 0},
		{`{"leaves_mm":[0.24],"feel":"drag"}`, "guarded", "undecided", false, 0.23, 0.25, 0.25},
		{`{"leaves_mm":[0.20],"feel":"free"},{"leaves_mm":[0.25],"feel":"wont_go"}`, "workshop", "undecided",
			false, 0.199, 0.251, 0.24},
		{`{"leaves_mm":[0.20],"feel":"free"},{"leaves_mm":[0.25],"feel":"wont_go"}`, "guarded", "undecided",
			false, 0.199, 0.251, 0.22},
		{`{"leaves_mm":[0.20],"feel":"free"},{"leaves_mm":[0.24],"feel":"wont_go"}`, "workshop", "in", false,
			0.199, 0.245, 0},
		{`{"leaves_mm":[0.20],"feel":"free"},{"leaves_mm":[0.24],"feel":"wont_go"}`, "guarded", "undecided",
			false, 0.199, 0.245, 0.22},
		{`{"leaves_mm":[0.20],"feel":"wont_go"}`, "workshop", "undecided", false, 0, 0.203, 0.15},
		{`{"leaves_mm":[0.15],"feel":"wont_go"}`, "guarded", "tight", true, 0, 0.152, 0},
	} {
		answer, problem := compute.Run("judge",
			[]byte(`{"limits":{"lower_mm":0.2,"upper_mm":0.24},"readings":[`+c.readings+`],"owned":`+owned+
				`,"rule":"`+c.rule+`"}`))
		require.Nil(t, problem)
		var got struct {
			Verdict string
			Sure    bool
			Low     float64 `json:"gap_low_mm"`
			High    float64 `json:"gap_high_mm"`
			Next    *struct {
				Leaves []float64 `json:"leaves_mm"`
			} `json:"try_next"`
		}
		require.NoError(t, json.Unmarshal(answer, &got))
		assert.Equal(t, c.verdict, got.Verdict, c)
		assert.Equal(t, c.sure, got.Sure, c)
		assert.Equal(t, [2]float64{c.low, c.high}, [2]float64{got.Low, got.High}, c)
		if c.next == 0 {
			assert.Nil(t, got.Next, c)
		} else if assert.NotNil(t, got.Next, c) {
			assert.Equal(t, []float64{c.next}, got.Next.Leaves, c)
		}
	}
}
