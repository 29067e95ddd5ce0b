package thermal_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/measure"
	"metronix/core/thermal"
)

func celsius(f float64) float64 { return (f - 32) * 5 / 9 }

// The cooling cake of Zill, Differential Equations, section 3.1: 300 °F out of the oven, 200 °F three minutes
// later, in a room of 70 °F. The book finds k = 0.19018 per minute, and 75 °F after 20.1, 73 °F after 22.8,
// 71 °F after 28.6 minutes.
func TestWorkedExampleOfAHandbook(t *testing.T) {
	readings := []thermal.Reading{{0, celsius(300)}, {3, celsius(200)}}
	for gateF, minutes := range map[float64]float64{75: 20.1, 73: 22.8, 71: 28.6} {
		c, err := thermal.Cool(celsius(70), readings, celsius(gateF))
		require.NoError(t, err)
		require.True(t, c.Reachable, c.Why(measure.Units{}))
		assert.InDelta(t, 0.19018, c.K, 5e-6)
		assert.InDelta(t, minutes, c.Minutes+3, 0.05, "%v °F", gateF)
	}
}

// Solved by hand: halving of the difference every ten minutes, k = ln 2 / 10; from 80 to 40 in surroundings
// of 20 takes from 60 to 20 of difference, log₂ 3 halvings.
func TestByHand(t *testing.T) {
	c, err := thermal.Cool(20, []thermal.Reading{{0, 140}, {10, 80}}, 40)
	require.NoError(t, err)
	assert.InDelta(t, math.Ln2/10, c.K, 1e-9)
	assert.InDelta(t, 10*math.Log2(3), c.Minutes, 1e-9)
	assert.InDelta(t, 50, c.At(20), 1e-6, "half of the 60 of difference at minute 10")
}

func TestGates(t *testing.T) {
	for name, c := range map[string]struct {
		ambient   float64
		readings  []thermal.Reading
		gate      float64
		reachable bool
		minutes   float64
		why       string
	}{
		"at the gate already": {20, []thermal.Reading{{0, 40}, {5, 38}}, 38, true, 0, ""},
		"below it, warming":   {20, []thermal.Reading{{0, 30}, {5, 31}}, 38, true, 0, ""},
		"heat soak":           {20, []thermal.Reading{{0, 80}, {5, 84}}, 38, false, 0, "Heat soaks"},
		"steady":              {20, []thermal.Reading{{0, 80}, {5, 80}}, 38, false, 0, "do not fall"},
		"a summer's day":      {40, []thermal.Reading{{0, 80}, {5, 70}}, 38, false, 0, "not above the 40 °C"},
	} {
		got, err := thermal.Cool(c.ambient, c.readings, c.gate)
		require.NoError(t, err, name)
		assert.Equal(t, c.reachable, got.Reachable, name)
		if c.reachable {
			assert.Equal(t, c.minutes, got.Minutes, name)
		} else {
			assert.True(t, math.IsNaN(got.Minutes), name)
			assert.Contains(t, got.Why(measure.Units{}), c.why, name)
		}
	}
}

func TestReadingsThatCannotBe(t *testing.T) {
	two := []thermal.Reading{{0, 80}, {5, 70}}
	for name, c := range map[string]struct {
		ambient  float64
		readings []thermal.Reading
		want     error
	}{
		"one reading":            {20, two[:1], thermal.ErrTooFew},
		"time runs backwards":    {20, []thermal.Reading{{5, 80}, {0, 70}}, thermal.ErrBackwards},
		"time stands":            {20, []thermal.Reading{{5, 80}, {5, 70}}, thermal.ErrBackwards},
		"below absolute zero":    {-300, two, thermal.ErrNoSuchC},
		"hotter than any engine": {20, []thermal.Reading{{0, 201}, {5, 70}}, thermal.ErrNoSuchC},
		"not a number":           {math.NaN(), two, thermal.ErrNoSuchC},
	} {
		_, err := thermal.Cool(c.ambient, c.readings, 38)
		assert.ErrorIs(t, err, c.want, name)
	}
}

// Readings made by the law itself give back its k and its wait, however many there are.
func TestLawIsFoundAgain(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		ambient := float64(rapid.IntRange(-20, 35).Draw(t, "ambient"))
		hot := ambient + float64(rapid.IntRange(40, 110).Draw(t, "above"))
		k := rapid.Float64Range(0.002, 0.1).Draw(t, "k")
		law := func(minute float64) float64 { return ambient + (hot-ambient)*math.Exp(-k*minute) }
		var readings []thermal.Reading
		for i := range rapid.IntRange(2, 6).Draw(t, "n") {
			readings = append(readings, thermal.Reading{Minute: float64(i) * 2, EngineC: law(float64(i) * 2)})
		}
		last := readings[len(readings)-1]
		gate := ambient + (last.EngineC-ambient)*0.5
		c, err := thermal.Cool(ambient, readings, gate)
		require.NoError(t, err)
		require.InDelta(t, k, c.K, 1e-7)
		require.InDelta(t, gate, law(last.Minute+c.Minutes), 1e-6)
	})
}

func TestStoneCold(t *testing.T) {
	assert.True(t, thermal.StoneCold(22, 17))
	assert.False(t, thermal.StoneCold(22.1, 17))
}

// While the engine stands above the gate the wait is never 0, whatever the fitted line says: ln((44 − 30)/(42
// − 30))/k, by hand.
func TestNotReadyAboveTheGate(t *testing.T) {
	c, err := thermal.Cool(30,
		[]thermal.Reading{{Minute: 0, EngineC: 90}, {Minute: 10, EngineC: 45}, {Minute: 20, EngineC: 44}}, 42)
	require.NoError(t, err)
	require.True(t, c.Reachable)
	assert.InDelta(t, math.Log(14.0/12)/c.K, c.Minutes, 1e-6)
	assert.Positive(t, c.Minutes)
}

// A last reading above the one before is heat soak, though the whole still falls.
func TestARisingEngineIsNotCooling(t *testing.T) {
	c, err := thermal.Cool(20,
		[]thermal.Reading{{Minute: 0, EngineC: 86}, {Minute: 20, EngineC: 60}, {Minute: 25, EngineC: 66}}, 38)
	require.NoError(t, err)
	assert.False(t, c.Reachable)
	assert.Contains(t, c.Why(measure.Units{}), "rose from 60 °C (140 °F) to 66 °C (150.8 °F)")
}

// Two readings a hair apart tell no rate: no date in another century.
func TestNoWaitOfCenturies(t *testing.T) {
	c, err := thermal.Cool(18, []thermal.Reading{{Minute: 0, EngineC: 84}, {Minute: 600, EngineC: 83.99999}},
		38)
	require.NoError(t, err)
	assert.False(t, c.Reachable)
	assert.Contains(t, c.Why(measure.Units{}), "longer than a week")
}
