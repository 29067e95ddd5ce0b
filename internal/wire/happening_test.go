package wire_test

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/around"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/wire"
)

var noon = time.Date(2026, 11, 25, 12, 0, 0, 0, time.UTC)

// filled is each kind of act with every field of it filled, and the fields as they stand on the wire. The
// names are those that outsiders were promised.
var filled = []struct {
	act    job.Act
	fields string
}{
	{job.WayChosen{Way: sequence.Way{School: sequence.FewestStops, Order: sequence.Numerical,
		Direction: sequence.Back, Positions: sequence.MarksOnly, StopCount: 3},
		BackReason: "overshot by a hair",
		Round:      job.Round{Going: job.ReadOnly, Check: job.CheckNone}},
		`"school":"fewest_stops","order":"numerical","direction":"back","positions":"marks","stop_count":3,` +
			`"back_reason":"overshot by a hair","round":"read_only","check":"none"`},
	{job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckSetOnes,
		KindFirst:  job.ExhaustFirst,
		CheckTurns: 4, Scope: []string{"E1"}, Locking: job.InTwoGoes, OwnShift: new(measure.Length(-20_000)),
		ToAim: job.AllToAim}},
		`"round":"set_as_you_go","check":"set_ones","one_kind_first":"exhaust","check_turns":4,` +
			`"scope":["E1"],"locking":"nip_then_torque","own_shift_mm":-0.02,"aiming":"all_to_aim"`},
	{job.TemperatureNoted{EngineC: 18.5, AmbientC: -3}, `"engine_c":18.5,"ambient_c":-3`},
	{job.Prepared{EngineC: 19, AmbientC: 17, Reason: "r"}, `"engine_c":19,"ambient_c":17,"reason":"r"`},
	{job.JudgedCold{By: job.ByHours, Hours: 6, Helped: []string{job.HelpFan}, AmbientC: new(17.5),
		Reason: "r"}, `"by":"hours","hours":6,"helped":["fan"],"ambient_c":17.5,"reason":"r"`},
	{job.JudgedHot{How: job.ByFan, RanMin: 20, Note: "n", Reason: "r"},
		`"how":"fan","ran_min":20,"note":"n","reason":"r"`},
	{job.EngineStopped{}, ``},
	{job.Turned{Stop: 2}, `"stop":2`},
	{job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 2},
		{What: sequence.Mark, Mark: 100_000}}, Take: "E3"},
		`"seen":[{"what":"rocking","cylinder":2},{"what":"mark","mark_deg":0.1}],"take":"E3"`},
	{job.Doubted{}, ``},
	{job.Picked{Valve: "E1"}, `"valve":"E1"`},
	{job.PlayFelt{Valve: "E1", Play: job.NoPlay}, `"valve":"E1","play":"none"`},
	{job.ReadingTaken{Valve: "E1", Leaves: []gauge.ID{{Marked: 150_000, Angled: true}, {Marked: 228_600}},
		Feel: clearance.WontGo, MadeThere: true, KeepSure: true},
		`"valve":"E1","leaves_mm":[0.15,0.2286],"angled":[true,false],"feel":"wont_go","made_there":true,` +
			`"keep_sure":true`},
	{job.DialRead{Valve: "E1", Gap: 220_001, Uncertainty: 10_000, MadeThere: true, KeepSure: true},
		`"valve":"E1","gap_mm":0.220001,"uncertainty_mm":0.01,"made_there":true,"keep_sure":true`},
	{job.Withdrawn{Valve: "E1", Index: 1}, `"valve":"E1","index":1`},
	{job.Sized{Valve: "E1", Shim: 2_650_000, Stamped: 2_680_000},
		`"valve":"E1","shim_mm":2.65,"stamped_mm":2.68`},
	{job.ShimsChosen{Prefer: adjust.NearestAim, CamsOut: true}, `"prefer":"nearest_aim","cams_out":true`},
	{job.Kept{Valve: "E1"}, `"valve":"E1"`},
	{job.Adjusted{Valve: "E1", Leaves: []gauge.ID{{Marked: 300_000}}, Shim: 2_600_000, From: "I2",
		CamsOut: true, StandIn: true, Reason: "to the aim"},
		`"valve":"E1","leaves_mm":[0.3],"shim_mm":2.6,"from":"I2","cams_out":true,"stand_in":true,` +
			`"reason":"to the aim"`},
	{job.Nipped{Valve: "E1"}, `"valve":"E1"`},
	{job.Locked{Valve: "E1", By: job.ByFeel}, `"valve":"E1","by":"feel"`},
	{job.LeftAsIs{Valve: "E1", Reason: "seized",
		Deferred: job.Deferral{Waits: job.WaitsForDate, Until: "2027-03-01"}},
		`"valve":"E1","reason":"seized","deferred":{"waits_for":"date","until":"2027-03-01"}`},
	{job.Freed{Valve: "E1"}, `"valve":"E1"`},
	{job.BarredOver{Stop: new(2)}, `"stop":2`},
	{job.Undone{Target: "before"}, `"target":"before"`},
	{job.Signed{By: "Tess", ToolsOut: true, Exceptions: "waits for gasket",
		Deferred: job.Deferral{Waits: job.WaitsForDate, Until: "2027-03-01"},
		Seal:     job.Seal{Vehicle: "Tipper", Plate: "LM 407", Facts: "abc"}},
		`"by":"Tess","tools_out":true,"deferred":{"waits_for":"date","until":"2027-03-01"},` +
			`"exceptions":"waits for gasket","vehicle":"Tipper","plate":"LM 407","facts":"abc"`},
	{job.WentHot{}, ``},
	{job.TakenIn{Complaints: []around.Complaint{around.Ticks}, Note: "warm", Sound: "at idle"},
		`"complaints":["ticks"],"note":"warm","sound":"at idle"`},
	{job.SoundNoted{After: true, Heard: around.Heard{Note: "even", File: strings.Repeat("b", 64)}},
		`"after":true,"note":"even","file":"` + strings.Repeat("b", 64) + `"`},
	{job.TaskMarked{Task: "start", With: []string{"road"}, Skip: true, Back: true, Reason: "r"},
		`"task":"start","with":["road"],"skip":true,"back":true,"reason":"r"`},
	{job.TurningBy{Means: around.ByFan}, `"by":"fan"`},
	{job.Stripped{Step: "s1", StripStep: engine.StripStep{Text: "hose", Fastener: "spring clip",
		SocketMM: 10, Note: "n"}},
		`"step":"s1","text":"hose","fastener":"spring clip","socket_mm":10,"note":"n"`},
	{job.NutFelt{Valve: "E1", Back: true}, `"valve":"E1","back":true`},
	{job.Waiting{Deferral: job.Deferral{Waits: job.WaitsForParts, Until: "gasket"}},
		`"waits_for":"parts","until":"gasket"`},
	{job.HandedOver{To: "June", Note: "E2 is next"}, `"to":"June","note":"E2 is next"`},
	{job.ToolMoved{Tool: "turning", Back: true}, `"tool":"turning","back":true`},
	{job.FindingNoted{Finding: around.Finding{ID: "f1", Place: "cover", What: "gasket hard", Test: "bent",
		Part:  "12-3",
		Price: "9.50", Photo: strings.Repeat("a", 64), Later: true}},
		`"finding":"f1","place":"cover","what":"gasket hard","test":"bent","part":"12-3","price":"9.50","photo":"` + strings.Repeat(
			"a",
			64,
		) + `","later":true`},
	{job.SetTold{Valve: "E3", Leaves: gauge.Straight(300 * measure.Micrometre), By: job.ByTorque, Asked: true},
		`"valve":"E3","leaves_mm":[0.3],"by":"torque","asked":true`},
	{job.Amended{Text: "E2 was 0.31", By: "Tess"}, `"text":"E2 was 0.31","by":"Tess"`},
	{job.Countersigned{By: "June"}, `"by":"June"`},
}

// sent is a happening with fields as a client sends it.
func sent(kind job.Kind, fields string) string {
	if fields != "" {
		fields = "," + fields
	}
	return fmt.Sprintf(`{"id":"happening-1","kind":%q%s}`, kind, fields)
}

// Every kind reads from what clients send as exactly the act that it says, writes as the same, and is stored
// and read again.
func TestEveryKindReadsAndWrites(t *testing.T) {
	require.Len(t, filled, len(job.Acts()), "one of each")
	for _, c := range filled {
		text := sent(c.act.Kind(), c.fields)
		h, faults := wire.ReadHappening([]byte(text), noon)
		require.Empty(t, faults, text)
		assert.Equal(t, job.Happening{ID: "happening-1", At: noon, Act: c.act}, h)

		written, err := json.Marshal(wire.Happening{Happening: h})
		require.NoError(t, err)
		assert.JSONEq(t, text, string(written))

		stored, err := wire.WriteAct(c.act)
		require.NoError(t, err)
		again, err := wire.ReadAct(c.act.Kind(), stored)
		require.NoError(t, err, string(stored))
		assert.Equal(t, c.act, again)
		for i := range reflect.TypeOf(c.act).NumField() {
			field := reflect.TypeOf(c.act).Field(i)
			assert.True(t, !field.IsExported() || !reflect.ValueOf(c.act).Field(i).IsZero(),
				"%T.%s is left out of this test", c.act, field.Name)
		}
	}
}

// A field of another kind is refused by name with every kind, and one that is missing where the kind cannot
// do without.
func TestForeignAndMissingFieldsAreNamed(t *testing.T) {
	places := func(text string) (at []string) {
		_, faults := wire.ReadHappening([]byte(text), noon)
		for _, f := range faults {
			at = append(at, f.Location)
			assert.NotEmpty(t, f.Message)
		}
		return at
	}
	for _, c := range filled {
		fields := c.fields
		if fields != "" {
			fields += ","
		}
		assert.Equal(t, []string{"torque"}, places(sent(c.act.Kind(), fields+`"torque":14`)), c.act.Kind())
		if c.act.Kind() != "located" {
			assert.Equal(t, []string{"seen"}, places(sent(c.act.Kind(), fields+`"seen":[]`)),
				"%s: what its screen knew is an id", c.act.Kind())
		}
	}
	for kind, missing := range map[job.Kind][]string{
		"way_chosen": {"school"}, "temperature": {"engine_c", "ambient_c"}, "prepared": {"engine_c",
			"ambient_c"}, "turned": {"stop"},
		"located": {"seen"}, "picked": {"valve"}, "reading": {"valve", "feel"}, "dial": {"valve",
			"gap_mm"}, "withdrawn": {"valve", "index"},
		"sized": {"valve", "shim_mm"}, "kept": {"valve"}, "adjusted": {"valve"}, "locked": {"valve"},
		"left_as_is": {"valve"}, "undone": {"target"},
	} {
		assert.Equal(t, missing, places(sent(kind, "")), kind)
	}
	assert.Equal(t, []string{"kind"}, places(sent("sung", "")))
	assert.Equal(t, []string{"id"}, places(`{"kind":"doubted"}`))
	assert.Equal(t, []string{"id"}, places(`{"id":"short","kind":"doubted"}`))
	assert.Equal(t, []string{"done_at"}, places(`{"id":"happening-1","kind":"doubted","done_at":"noon"}`))
	assert.Equal(t, []string{"leaves_mm[0]"},
		places(sent("reading", `"valve":"E1","leaves_mm":[0.1234567],"feel":"drag"`)))
	assert.Equal(t, []string{"leaves_mm[1]"},
		places(sent("reading", `"valve":"E1","leaves_mm":[0.1,20],"feel":"drag"`)))
	assert.Equal(t, []string{"reason"},
		places(sent("left_as_is",
			`"valve":"E1","reason":"`+string(make([]byte, 0))+fmt.Sprintf("%0201d", 0)+`"`)))
	assert.NotEmpty(t, places(`[]`))
}

// A time said in another zone is the same instant; a queued happening keeps what its screen knew.
func TestAHappeningSaysWhenAndByWhoseView(t *testing.T) {
	h, faults := wire.ReadHappening(
		[]byte(`{"id":"happening-1","kind":"picked","valve":"E1","seen":"before",`+
			`"done_at":"2026-11-25T13:00:00.5+02:00"}`), noon)
	require.Empty(t, faults)
	assert.Equal(t, "before", h.Since)
	assert.Equal(t, time.Date(2026, 11, 25, 11, 0, 0, 500_000_000, time.UTC), h.DoneAt)
}

// spelled are fields that are kept as they are meant, and may be written otherwise than they were said.
var spelled = []string{"done_at", "seen", "feel", "angled"}

// Whatever happening is accepted holds, written again, the same keys and values, defaults aside.
func FuzzHappeningKeepsWhatItSays(f *testing.F) {
	for _, c := range filled {
		f.Add([]byte(sent(c.act.Kind(), c.fields)))
	}
	for _, seed := range []string{`{"id":"happening-1","kind":"kept","valve":"E1","seen":"x",` +
		`"done_at":"2026-11-25T10:00:00Z"}`, `{"id":"a","ID":"b"}`, `[]`, `{"seen":null}`} {
		f.Add([]byte(seed))
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		if len(wire.Loose(data)) > 0 {
			return
		}
		h, faults := wire.ReadHappening(data, noon)
		if len(faults) > 0 {
			require.NotEmpty(t, faults[0].Message)
			return
		}
		written, err := json.Marshal(wire.Happening{Happening: h})
		require.NoError(t, err)
		said, kept := map[string]any{}, map[string]any{}
		require.NoError(t, json.Unmarshal(data, &said))
		require.NoError(t, json.Unmarshal(written, &kept))
		for key, value := range said {
			if again, ok := kept[key]; !ok {
				require.True(t, isDefault(value), "%s: %v was said and is not kept", key, value)
			} else if !slices.Contains(spelled, key) {
				require.Equal(t, value, again, key)
			}
		}
		read, faults := wire.ReadHappening(written, noon)
		require.Empty(t, faults, string(written))
		require.Equal(t, h, read)
	})
}

// isDefault says that a value may be left out.
func isDefault(v any) bool {
	return v == nil || v == "" || v == 0.0 || v == false || fmt.Sprint(v) == "[]"
}
