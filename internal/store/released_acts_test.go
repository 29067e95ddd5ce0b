package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/sequence"
)

// Bodies as the first and second version of the rules stored them, one of each kind at least, read as what
// was done. The texts were written by those versions.
func TestReleasedBodiesRead(t *testing.T) {
	for _, c := range []struct {
		kind  string
		rules int
		body  string
		act   job.Act
	}{
		{"way_chosen", 2, `{"school":"fewest_stops","order":"turning","direction":"back",` +
			`"positions":"marks","stop_count":3}`,
			job.WayChosen{Way: sequence.Way{School: sequence.FewestStops, Order: sequence.Turning,
				Direction: sequence.Back, Positions: sequence.MarksOnly, StopCount: 3}}},
		{"temperature", 2, `{"engine_c":18.5,"ambient_c":-3}`,
			job.TemperatureNoted{EngineC: 18.5, AmbientC: -3}},
		{"prepared", 2, `{"engine_c":0,"ambient_c":0,"reason":"in a hurry"}`,
			job.Prepared{Reason: "in a hurry"}},
		{"prepared", 1, `{}`, job.Prepared{}}, // the first rules left zeros out
		{"turned", 2, `{"since":"x","stop":2}`, job.Turned{Stop: 2}},
		{"turned", 1, `{}`, job.Turned{}},
		{"located", 2, `{"seen":[{"what":"rocking","cylinder":2},{"what":"mark","mark_deg":0.1}]}`,
			job.Located{Seen: []sequence.Sighting{{What: sequence.Rocking, Cylinder: 2},
				{What: sequence.Mark, Mark: 100_000}}}},
		{"doubted", 2, `{}`, job.Doubted{}},
		{"picked", 2, `{"valve":"E3"}`, job.Picked{Valve: "E3"}},
		{"reading", 2, `{"valve":"I1","leaves_nm":[150000,60000],"angled":[true,false],"feel":"drag",` +
			`"made_there":true}`,
			job.ReadingTaken{Valve: "I1",
				Leaves: []gauge.ID{{Marked: 150_000, Angled: true},
					{Marked: 60_000}}, Feel: clearance.Drag, MadeThere: true}},
		{"dial", 2, `{"valve":"I1","gap_nm":220000,"uncertainty_nm":10000}`,
			job.DialRead{Valve: "I1", Gap: 220_000, Uncertainty: 10_000}},
		{"dial", 1, `{"valve":"I1"}`, job.DialRead{Valve: "I1"}},
		{"withdrawn", 2, `{"valve":"I1","index":1}`, job.Withdrawn{Valve: "I1", Index: 1}},
		{"withdrawn", 1, `{"valve":"I1"}`, job.Withdrawn{Valve: "I1"}},
		{"sized", 2, `{"valve":"I1","shim_nm":2650000}`, job.Sized{Valve: "I1", Shim: 2_650_000}},
		{"kept", 2, `{"valve":"I1"}`, job.Kept{Valve: "I1"}},
		{"adjusted", 2, `{"valve":"I1","shim_nm":2600000,"from":"I2","cams_out":true}`,
			job.Adjusted{Valve: "I1", Shim: 2_600_000, From: "I2", CamsOut: true}},
		{"locked", 2, `{"valve":"I1"}`, job.Locked{Valve: "I1"}},
		{"left_as_is", 2, `{"valve":"I1","reason":"seized"}`, job.LeftAsIs{Valve: "I1", Reason: "seized"}},
		{"barred_over", 2, `{}`, job.BarredOver{}},
		{"undone", 2, `{"target":"y"}`, job.Undone{Target: "y"}},
		{"signed", 2, `{"by":"Tess","tools_out":true}`, job.Signed{By: "Tess", ToolsOut: true}},
		{"went_hot", 2, `{}`, job.WentHot{}},
	} {
		h, err := happeningRow{ClientID: "id", Kind: c.kind, Rules: c.rules, Body: c.body}.toHappening()
		require.NoError(t, err, c.kind)
		assert.Equal(t, c.act, h.Act, "%s of rules %d", c.kind, c.rules)
	}
	read, err := happeningRow{Kind: "turned", Rules: 2, Body: `{"since":"x","stop":2}`}.toHappening()
	require.NoError(t, err)
	assert.Equal(t, "x", read.Since)
	for _, bad := range [][2]string{{"turned", `{}`}, {"prepared", `{"engine_c":1}`}, {"dial", `{}`},
		{"sung", `{}`}, {"kept", `[]`}} {
		_, err := happeningRow{Kind: bad[0], Rules: 2, Body: bad[1]}.toHappening()
		assert.ErrorIs(t, err, ErrDamaged, bad[0])
	}
	assert.Len(t, releasedKinds, 19, "every kind there was when this form was given up")
}

// Leaves as the first versions stored them.
func TestReleasedLeavesRead(t *testing.T) {
	items, err := readItems(`[{"marked_nm":228600,"measured_nm":229000,"thou":true},{"marked_nm":50000,` +
		`"angled":true,"missing":true}]`)
	require.NoError(t, err)
	assert.Equal(t, []gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 228_600}, Measured: 229_000,
		Thou: true}},
		{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 50_000, Angled: true}}, Missing: true}}, items)
	text, err := writeItems(items)
	require.NoError(t, err)
	again, err := readItems(text)
	require.NoError(t, err)
	assert.Equal(t, items, again)
}
