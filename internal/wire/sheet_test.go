package wire_test

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/measure"
	"metronix/internal/compute"
	"metronix/internal/wire"
)

func sheet(t testing.TB) string {
	t.Helper()
	data, err := os.ReadFile("../compute/testdata/four.engine.json")
	require.NoError(t, err)
	return string(data)
}

func TestSheetRoundTrip(t *testing.T) {
	first, problems := wire.ReadSheet([]byte(sheet(t)))
	require.Empty(t, problems)
	written, err := wire.WriteSheet(first)
	require.NoError(t, err)
	second, problems := wire.ReadSheet(written)
	require.Empty(t, problems)
	assert.Equal(t, first, second)
	assert.JSONEq(t, sheet(t), string(written))
}

// Whatever sound sheet there is, it survives export and import unchanged.
func TestAnySheetSurvivesExportAndImport(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		layout := rapid.SampledFrom([]engine.Layout{engine.Inline, engine.Vee, engine.Flat,
			engine.Other}).Draw(t, "layout")
		s, err := engine.Start(layout, rapid.IntRange(1, 16).Draw(t, "cylinders"),
			rapid.IntRange(2, 5).Draw(t, "valves"))
		require.NoError(t, err)
		s.Name = "Drawn " + rapid.StringMatching(`[A-Za-z0-9é .-]{1,40}`).Draw(t, "name")
		s.MayTurnBack = rapid.Bool().Draw(t, "back")
		if rapid.Bool().Draw(t, "margin") {
			margin := measure.Angle(rapid.IntRange(0, 90).Draw(t, "degrees")) * measure.Degree
			s.RequiredMargin = &margin
		}
		if rapid.Bool().Draw(t, "adjuster") {
			s.Adjuster = &engine.Adjuster{Kind: gear.CentreNut,
				Pitch: measure.Length(rapid.IntRange(500_000, 2_000_000).Draw(t,
					"pitch")), Ratio: 1.5, Locknut: engine.Torque{Nm: 20, LbfFt: 15}}
		}
		nominal := measure.Length(rapid.IntRange(50_000, 600_000).Draw(t, "nominal"))
		stated := clearance.Clearance{Nominal: clearance.Figure{Metric: &nominal}}
		s.Clearances = []clearance.Card{{Source: "drawn", State: clearance.Cold, Date: "2020", Remark: "none",
			StoneCold: rapid.Bool().Draw(t, "stone"), Intake: stated, Exhaust: stated}}
		if rapid.Bool().Draw(t, "work") {
			s.CheckTurns = rapid.SampledFrom([]int{0, 2, 4}).Draw(t, "turns")
			period := rapid.SampledFrom([]measure.Angle{measure.Turn, measure.Cycle}).Draw(t, "period")
			s.Signs = []engine.Sign{{ID: "up", Where: "cam sprocket", Text: "mark at the top",
				Doubtful: "the dowel",
				At: []measure.Angle{measure.Angle(rapid.Int64Range(0, int64(period)-1).Draw(t,
					"at"))}, Period: period}}
			s.StripList = []engine.StripStep{{Text: "coil", Fastener: "bolt", SocketMM: 10,
				Note: "clip breaks"}}
			s.Closing = &engine.Closing{Pattern: engine.Crosswise, Rounds: 2,
				Torque:        engine.Torque{Nm: 9.8, LbfFt: 7},
				SealantPoints: []string{"at the cam cap"}, OpenMinutes: 5, CureMinutes: 180,
				Gasket: engine.StuckFirst}
		}
		text, err := wire.WriteSheet(s)
		require.NoError(t, err)
		back, faults := wire.ReadSheet(text)
		require.Empty(t, faults, string(text))
		require.Equal(t, s, back)
	})
}

// Whatever the bytes, reading and checking a sheet ends in an answer, and a sheet that passes can be planned
// and written.
func FuzzCheckSheet(f *testing.F) {
	good := sheet(f)
	f.Add([]byte(good))
	for _, spoil := range [][2]string{{"[1, 3, 4, 2]", "[1,1,1,1]"}, {"EIIEEIIE", ""}, {"EIIEEIIE", "é"},
		{`"cylinders": 4`, `"cylinders": 1e300`},
		{`"cylinders": 4`, `"cylinders": -4`}, {"[0, 180, 360, 540]", "[]"}, {"0.22",
			"1e-7"}, {`"marks_deg": [0, 180]`, `"marks_deg": []`}} {
		f.Add([]byte(strings.Replace(good, spoil[0], spoil[1], 1)))
	}
	f.Add([]byte(`{"banks":[{"rows":[{"valves":"IE"}]}]}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		s, problems := wire.ReadSheet(data)
		if len(problems) > 0 {
			return
		}
		written, err := wire.WriteSheet(s)
		require.NoError(t, err)
		for _, op := range []string{"check-sheet", "plan"} {
			request := `{"sheet":` + string(written) + `}`
			if op == "plan" {
				request = `{"school":"sum_rule","sheet":` + string(written) + `}`
			}
			if _, problem := compute.Run(op, []byte(request)); problem != nil {
				t.Fatalf("%s refuses a sound sheet: %s", op, problem.Detail)
			}
		}
	})
}
