package engine_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gear"
	"metronix/core/measure"
)

func mm(micrometres int) clearance.Figure {
	l := measure.Length(micrometres) * measure.Micrometre
	return clearance.Figure{Metric: &l}
}

func TestCheckFindsEachFaultAtItsPlace(t *testing.T) {
	for name, c := range map[string]struct {
		spoil    func(*engine.Sheet)
		location string
		says     string
	}{
		"cylinder repeated": {func(s *engine.Sheet) { s.FiringOrder = []int{1, 3, 3, 2} },
			"firing_order[2]", "fires twice"},
		"cylinder missing": {func(s *engine.Sheet) { s.FiringOrder = []int{1, 3, 2} }, "firing_order",
			"Cylinder 4 is missing"},
		"cylinder unknown": {func(s *engine.Sheet) { s.FiringOrder = []int{1, 3, 4, 9} },
			"firing_order[3]", "cylinders 1 to 4"},
		"no cylinders":       {func(s *engine.Sheet) { s.Cylinders = 0 }, "cylinders", "1 to 16"},
		"too many cylinders": {func(s *engine.Sheet) { s.Cylinders = 17 }, "cylinders", "1 to 16"},
		"row does not divide": {func(s *engine.Sheet) { s.Banks[0].Rows[0].Valves = "EIIEEII" },
			"banks[0].rows[0].valves", "do not divide"},
		"strange letter": {func(s *engine.Sheet) { s.Banks[0].Rows[0].Valves = "EIIEEIXE" },
			"banks[0].rows[0].valves", "Letter 7"},
		"no exhaust": {func(s *engine.Sheet) { s.Banks[0].Rows[0].Valves = "IIEIEIEI" },
			"banks[0].rows[0].valves", "no exhaust"},
		"six valves each": {func(s *engine.Sheet) { s.Banks[0].Rows[0].Valves = "EEEIIIEEEIIIEEEIIIEEEIII" },
			"banks[0].rows[0].valves", "up to 5"},
		"angles not rising": {func(s *engine.Sheet) {
			s.FiringAngles = enginetest.Degrees(0, 180, 180,
				540)
		}, "firing_angles_deg[2]", "rise"},
		"angles too few": {func(s *engine.Sheet) { s.FiringAngles = enginetest.Degrees(0, 180, 540) },
			"firing_angles_deg", "3 firing angles for 4"},
		"first angle not 0": {func(s *engine.Sheet) {
			s.FiringAngles = enginetest.Degrees(10, 180, 360,
				540)
		}, "firing_angles_deg[0]", "must be 0"},
		"no name":  {func(s *engine.Sheet) { s.Name = "  " }, "name", "no name"},
		"rotation": {func(s *engine.Sheet) { s.Rotation = "up" }, "rotation", "clockwise"},
		"cylinder in no bank": {func(s *engine.Sheet) { s.Banks[0].Cylinders = []int{1, 2, 3} }, "banks",
			"Cylinder 4 is in no bank"},
		"no bank":  {func(s *engine.Sheet) { s.Banks = nil }, "banks", "No bank"},
		"cam card": {func(s *engine.Sheet) { tm := engine.TypicalTiming(); tm.EVC = 200 * measure.Degree; s.Timing = &tm }, "valve_timing.evc_atdc_deg", "−60 to 150"},
		"lobe centre": {func(s *engine.Sheet) {
			tm := engine.TypicalTiming()
			c := 300 * measure.Degree
			tm.IntakeCentre = &c
			s.Timing = &tm
		}, "valve_timing.intake_centre_atdc_deg", "outside"},
		"margin": {func(s *engine.Sheet) { m := -5 * measure.Degree; s.RequiredMargin = &m },
			"required_margin_deg", "0 to 300"},
		"margin of no cam": {func(s *engine.Sheet) { m := 300 * measure.Degree; s.RequiredMargin = &m },
			"required_margin_deg", "at most 238°"},
		"margin a hair more": {func(s *engine.Sheet) { m := 238*measure.Degree + 1; s.RequiredMargin = &m },
			"required_margin_deg", "at most 238°"},
		"mark": {func(s *engine.Sheet) { s.Marks = enginetest.Degrees(0, 360) }, "marks_deg[1]",
			"below 360"},
		"adjuster": {func(s *engine.Sheet) { s.Adjuster = &engine.Adjuster{Kind: "glue"} },
			"adjuster.kind", "not one of"},
		"maker's order": {func(s *engine.Sheet) {
			s.OwnSequence = []engine.OwnStop{{Crank: 0, Set: []string{"I1", "E1", "I1", "Q7"}}}
		}, "own_sequence[0].set[3]", "no valve"},
	} {
		t.Run(name, func(t *testing.T) {
			s := enginetest.Four()
			c.spoil(s)
			r := engine.Check(s)
			require.False(t, r.OK())
			for _, p := range r.Problems {
				if p.Location == c.location {
					assert.Contains(t, p.Message, c.says)
					return
				}
			}
			t.Fatalf("nothing at %s: %+v", c.location, r.Problems)
		})
	}
}

func TestSoundSheetSaysWhatIsAssumed(t *testing.T) {
	r := engine.Check(enginetest.Four())
	assert.Empty(t, r.Problems)
	assert.Empty(t, r.Warnings)
	assert.Len(t, r.Assumed, 7)
}

// A card quoted at a lift hides the ramps, so 40° is required instead of 20°: common practice.
func TestLiftCardRaisesTheMargin(t *testing.T) {
	s := enginetest.Four()
	tm := engine.TypicalTiming()
	tm.AtLiftMM = 1
	s.Timing = &tm
	assert.Equal(t, 40*measure.Degree, s.EffectiveMargin())
	assert.Contains(t, engine.Assumed(s)[1], "40°")
}

func TestWarnings(t *testing.T) {
	s := enginetest.Inline([]int{1, 2}, "EIIEEI")
	s.Adjuster = &engine.Adjuster{Kind: gear.Hydraulic}
	s.Clearances = []clearance.Card{{Source: "plate", State: clearance.Cold,
		Intake: clearance.Clearance{Nominal: mm(300)}, Exhaust: clearance.Clearance{Nominal: mm(200)}}}
	r := engine.Check(s)
	assert.Empty(t, r.Problems)
	places := map[string]bool{}
	for _, w := range r.Warnings {
		places[w.Location] = true
	}
	assert.Equal(t, map[string]bool{"banks[0].rows": true, "adjuster.kind": true,
		"clearances[0].exhaust": true}, places)
}

func TestValveNames(t *testing.T) {
	names := func(s *engine.Sheet) (out []string) {
		for _, v := range s.Valves() {
			out = append(out, v.Name)
		}
		return out
	}
	four := enginetest.Four()
	assert.Equal(t, []string{"E1", "I1", "I2", "E2", "E3", "I3", "I4", "E4"}, names(four))
	assert.Equal(t, 8, four.Valves()[7].RowNumber)
	crossflow := enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEE")
	assert.Equal(t, []string{"I1a", "I1b", "I2a", "I2b", "I3a", "I3b", "I4a", "I4b", "E1", "E2", "E3", "E4"},
		names(crossflow))
	assert.Zero(t, crossflow.Valves()[0].RowNumber, "two rows carry no row numbers")
	turned := enginetest.Four()
	turned.Banks[0].Cylinders = []int{4, 3, 2, 1}
	assert.Equal(t, "E4", turned.Valves()[0].Name, "cylinder 1 need not stand at the front")
}
