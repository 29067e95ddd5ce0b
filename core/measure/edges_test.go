package measure_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/measure"
)

// Lengths at the edges of what is taken: the longest either way, the finest, ten digits and eleven, a sign, a
// point.
func TestTheEdgesOfALength(t *testing.T) {
	longest := measure.MaxLength.Decimal()
	for text, want := range map[string]measure.Length{longest: measure.MaxLength, "-" + longest: -measure.MaxLength,
		longest + ".000000000000": measure.MaxLength,
		"0.000001":                1, "-0.000001": -1, "1.": measure.Millimetre, ".5": measure.Millimetre / 2, "0": 0, "-0": 0,
		"0.0000010": 1, "1.000000000": measure.Millimetre, "1.0000000000": measure.Millimetre} {
		got, err := measure.ParseMillimetres(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	for text, want := range map[string]error{longest + ".000001": measure.ErrLengthTooLong,
		"0.0000001": measure.ErrTooFine, "0.00000015": measure.ErrTooFine, "": measure.ErrNotANumber,
		"-": measure.ErrNotANumber, ".": measure.ErrNotANumber, "1.2.3": measure.ErrNotANumber,
		"0." + strings.Repeat("0", 39): measure.ErrNotANumber} {
		_, err := measure.ParseMillimetres(text)
		assert.ErrorIs(t, err, want, text)
	}
	forty := "0." + strings.Repeat("0", 38)
	got, err := measure.ParseMillimetres(forty)
	require.NoError(t, err, "forty characters are read")
	assert.Zero(t, got)
	inch, err := measure.ParseInches("-0.000005")
	require.NoError(t, err)
	assert.Equal(
		t,
		measure.Length(-127),
		inch,
		"25.4 mm exactly (international yard and pound agreement 1959)",
	)

	assert.Equal(t, 3*measure.Micrometre, (-3 * measure.Micrometre).Abs())
	assert.Equal(t, 3*measure.Micrometre, (3 * measure.Micrometre).Abs())
	assert.Equal(t, "0", measure.Length(0).Decimal())
	assert.Equal(t, "-0.000001", measure.Length(-1).Decimal())
	assert.Equal(t, "0.20 mm", (200 * measure.Micrometre).String(), "two places at least")
}

// Angles go the shorter way round; one that lies just beside a limit is written so that it shows; and figures
// are grouped, with a sign only where there is one.
func TestTheEdgesOfAnglesAndFigures(t *testing.T) {
	deg := func(d float64) measure.Angle { return measure.FromDegrees(d) }
	for pair, want := range map[[2]float64]float64{{10, 350}: 340, {10, 390}: 340, {700, 20}: 40, {0, 360}: 360,
		{0, 361}: 359, {359, 0}: 359, {5, 5}: 0} {
		assert.Equal(t, deg(want), measure.Apart(deg(pair[0]), deg(pair[1])), "%v", pair)
	}
	for _, c := range []struct {
		angle, limit float64
		says         string
	}{{39.999, 40, "39.999°"}, {40.001, 40, "40°"}, {39.96, 40, "39.96°"}, {40, 40, "40°"}, {39.999999, 40, "39.999999°"},
		{39.99999, 40, "39.99999°"}, {39.9, 40, "39.9°"}} {
		assert.Equal(t, c.says, deg(c.angle).Against(deg(c.limit)), "%v", c)
	}
	for x, says := range map[float64]string{0: "0", -0.4: "0", -0.6: "−1", 999: "999", 1000: "1,000", -1000: "−1,000",
		1234567: "1,234,567", 999.5: "1,000"} {
		assert.Equal(t, says, measure.Grouped(x), "%v", x)
	}
}
