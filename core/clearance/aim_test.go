package clearance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

func stated(nominal, tolerance measure.Length) clearance.Clearance {
	nominal, tolerance = nominal*um, tolerance*um
	return clearance.Clearance{Nominal: clearance.Figure{Metric: &nominal},
		Tolerance: clearance.Figure{Metric: &tolerance}}
}

// The loose end never lies below the nominal, and a valve set there with an unchecked leaf still reads in for
// sure.
func TestAims(t *testing.T) {
	wide := window(280, 320)
	assert.Equal(t, 300*um, wide.At(clearance.AimNominal))
	assert.Equal(t, 310*um, wide.At(clearance.AimLoose))
	assert.Equal(t, 300*um, wide.At(""))
	j := clearance.Yardstick{Limits: wide, Rule: clearance.Guarded,
		Feel: clearance.DefaultFeel}.Judge(felt(310, clearance.Drag))
	assert.Equal(t, clearance.In, j.Verdict)
	narrow := window(298, 302)
	assert.Equal(t, 300*um, narrow.At(clearance.AimLoose))
}

// One book says 0.20 for both, another 0.15 / 0.25; hot 0.30 against a shop's cold start: common practice
// shapes.
func TestDifferencesBetweenCards(t *testing.T) {
	a := clearance.Card{Source: "one", State: clearance.Cold, Intake: stated(200, 20),
		Exhaust: stated(200, 20)}
	b := clearance.Card{Source: "other", State: clearance.Cold, StoneCold: true, Intake: stated(150, 20),
		Exhaust: stated(200, 20)}
	assert.Empty(t, clearance.Differences(a, a, measure.Units{}))
	assert.Equal(t, []clearance.Difference{{"intake", "0.18–0.22 mm", "0.13–0.17 mm"},
		{"cold", "at most 38 °C (100.4 °F)", "stone cold"}}, clearance.Differences(a, b, measure.Units{}))
	hot := a
	hot.State = clearance.Hot
	assert.Equal(t, []clearance.Difference{{"state", "cold", "hot"}},
		clearance.Differences(a, hot, measure.Units{}))
}

// Towards a figure: the middle one of the leaves that may still drag; nothing once one has dragged.
func TestPinDown(t *testing.T) {
	owned := set(100, 150, 200, 250, 300)
	assert.Equal(t, "0.20", clearance.PinDown(felt(250, clearance.WontGo, 100, clearance.Free),
		owned[:3]).String())
	assert.Equal(t, "0.20", clearance.PinDown(felt(300, clearance.WontGo, 100, clearance.Free),
		owned).String())
	assert.Equal(t, "0.30", clearance.PinDown(felt(250, clearance.Free), owned).String())
	assert.Nil(t, clearance.PinDown(felt(300, clearance.WontGo, 250, clearance.Free), owned))
	assert.Nil(t, clearance.PinDown(felt(200, clearance.Drag), owned))
	assert.Nil(t, clearance.PinDown(nil, owned))
	assert.Nil(t, clearance.PinDown(felt(300, clearance.Free), gauge.Set{}))
}

func TestCardsSayWhenTheyHold(t *testing.T) {
	limit := 30.0
	assert.Equal(t, "engine at most 38 °C (100.4 °F)",
		clearance.Card{State: clearance.Cold}.Holds(measure.Units{}))
	assert.Equal(t, "engine at most 30 °C (86 °F), and within 5 °C (9 °F) of its surroundings",
		clearance.Card{State: clearance.Cold, StoneCold: true, MaxEngineC: &limit}.Holds(measure.Units{}))
	assert.Equal(t, "engine at 60 °C (140 °F) or more, read within 10 minutes",
		clearance.Card{State: clearance.Hot}.Holds(measure.Units{}))
}
