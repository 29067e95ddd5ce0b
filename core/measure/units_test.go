package measure_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"metronix/core/measure"
)

// The factors are those of NIST SP 811, appendix B.8: degree Fahrenheit, mile, pound-force foot (printed
// there as 1.355 818 N·m).
func TestEachPersonsUnitComesFirst(t *testing.T) {
	home, away := measure.Units{}, measure.Units{PoundFeet: true, Fahrenheit: true, Miles: true}
	assert.Equal(t, "38 °C (100.4 °F)", home.Temperature(38))
	assert.Equal(t, "100.4 °F (38 °C)", away.Temperature(38))
	assert.Equal(t, "-40 °F (-40 °C)", away.Temperature(-40), "where both scales meet")
	assert.Equal(t, "5 °C (9 °F)", home.TemperatureStep(5), "a difference has no zero point")
	assert.Equal(t, "14 N·m (10.3 lbf·ft)", home.Torque(14))
	assert.Equal(t, "100 lbf·ft (136 N·m)", away.Torque(135.5818))
	assert.Equal(t, "20,000 km (12,427 miles)", home.Distance(20000))
	assert.Equal(t, "100 miles (161 km)", away.Distance(160.9344))
	assert.Equal(t, "0 N·m (0 lbf·ft)", home.Torque(0))
}

// ISO 80000-1:2009, annex B: to the nearest multiple of the range, and of two that are as near the greater in
// amount (rule B of B.3), on both sides of zero. Its worked examples: 12.223 and 12.275 by tenths, 1225.0 by
// tens.
func TestRoundingByTheStandard(t *testing.T) {
	assert.Equal(t, "12.2 °C (54 °F)", measure.Units{}.Temperature(12.223))
	assert.Equal(t, "12.3 °C (54.1 °F)", measure.Units{}.Temperature(12.275))
	assert.Equal(t, "1230 N·m (904 lbf·ft)", measure.Units{}.Torque(1225.0))
	assert.Equal(t, "-0.3 °C (31.6 °F)", measure.Units{}.Temperature(-0.25),
		"halves away from zero below it too")
	assert.Equal(t, "0 °C (31.9 °F)", measure.Units{}.Temperature(-0.04),
		"nothing is written as a zero below zero")
	assert.Equal(t, "13 km (8 miles)", measure.Units{}.Distance(12.5))
}

func TestAGapIsSpokenOfInItsSourcesUnitUnlessSaid(t *testing.T) {
	assert.True(t, measure.BySource.InThou(true))
	assert.False(t, measure.BySource.InThou(false))
	assert.True(t, measure.Thousandths.InThou(false))
	assert.False(t, measure.Millimetres.InThou(true))
}

// What is typed in a person's unit comes back as it was typed: whole miles over whole kilometres, tenths of a
// degree Fahrenheit, and the gate at 38 °C typed as 100.4 °F is not a bit above it.
func TestBothWaysRound(t *testing.T) {
	assert.Equal(t, 38.0, measure.Celsius(100.4))
	rapid.Check(t, func(t *rapid.T) {
		miles := rapid.IntRange(0, 1_000_000).Draw(t, "miles")
		km := math.Round(measure.Kilometres(float64(miles)))
		assert.Equal(t, float64(miles), math.Round(measure.Miles(km)))
		tenths := float64(rapid.IntRange(-760, 3920).Draw(t, "tenths of a degree Fahrenheit"))
		assert.Equal(t, tenths, math.Round(measure.Fahrenheit(measure.Celsius(tenths/10))*10))
	})
}
