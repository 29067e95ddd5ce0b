package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// How the trade speaks of what is seen (common practice): a cylinder rocks, a valve is pressed fully down, a
// mark is at the pointer.
func TestSightingsInWords(t *testing.T) {
	rocks := sequence.Sighting{What: sequence.Rocking, Cylinder: 4}
	assert.Equal(t, "cylinder 4 rocks", rocks.Until())
	assert.Equal(t, "cylinder 4 is rocking", rocks.Standing())
	assert.Equal(t, "Cylinder 4 is rocking", sequence.Stop{Watch: []sequence.Sighting{rocks}}.Standing())
	assert.Equal(t, "the TDC mark is at the pointer", sequence.Sighting{What: sequence.Mark}.Until())
	wheel := sequence.Sighting{What: sequence.Degrees, Mark: measure.FromDegrees(51.5)}
	assert.Equal(t, "the degree wheel reads 51.5°", sequence.Stop{Watch: []sequence.Sighting{wheel}}.Until())
	for _, what := range append(sequence.Visible(), sequence.Degrees) {
		s := sequence.Sighting{What: what, Cylinder: 2, Valve: "E2"}
		if what == sequence.Signed {
			continue // in the words of the engine's sheet
		}
		assert.NotEqual(t, sequence.Sighting{}.Until(), s.Until(), what)
		if what != sequence.Pressed { // nothing is watched for until it is pressed
			assert.NotEmpty(t, s.HowToSee(), what)
		}
	}
}

// A mark comes to the pointer twice in two turns: what tells the turns apart is said before it.
func TestAMarkIsToldFromItsOther(t *testing.T) {
	p := plan(t, enginetest.Four(), sequence.Request{Way: sequence.Way{School: sequence.TwoStop}})
	assert.Equal(t, "cylinder 1 is at firing TDC, the TDC mark is at the pointer", p.Stops[0].Until())
	assert.Equal(t, "cylinder 1 rocks, the TDC mark is at the pointer", p.Stops[1].Until())
	assert.Equal(t, "Turn the crank", p.How(0))
	assert.Equal(t, "Turn a further 360°", p.How(1))
	assert.Equal(t, "Turn back 90°", sequence.TurnBy(90*measure.Degree, sequence.Back))
}

// Every school has a name and says how it goes; the sum rule is named by its sum (common practice: of nine
// for eight valves).
func TestSchoolsHaveNames(t *testing.T) {
	four := enginetest.Four()
	for _, s := range sequence.Schools() {
		assert.NotEmpty(t, s.Title(four), s)
		assert.NotEmpty(t, s.HowTo(), s)
		assert.NotEmpty(t, s.Orders(), s)
	}
	assert.Equal(t, "Rule of nine", sequence.SumRule.Title(four))
	assert.Equal(t, "Rule of 13", sequence.SumRule.Title(six()))
	assert.Equal(t, "unheard", sequence.School("unheard").Title(four))
}
