package measure_test

import (
	"math"
	"math/big"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/measure"
)

// Inch: 25.4 mm exactly, international yard and pound agreement of 1959. The products are done by hand.
func TestInchesAreExact(t *testing.T) {
	for text, want := range map[string]measure.Length{
		"0.004": 101_600, "0.007": 177_800, "0.008": 203_200, "0.009": 228_600,
		"0.010": 254_000, "0.012": 304_800, "1": 25_400_000, "-0.001": -25_400,
	} {
		got, err := measure.ParseInches(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	_, err := measure.ParseInches("0.0000001")
	assert.ErrorIs(t, err, measure.ErrTooFine)
}

func TestMillimetresAreExactToTheNanometre(t *testing.T) {
	for text, want := range map[string]measure.Length{
		"0.22": 220_000, "0.000001": 1, "2e-1": 200_000, "-0.05": -50_000, ".5": 500_000,
		"10000": measure.MaxLength,
	} {
		got, err := measure.ParseMillimetres(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got, text)
	}
	for text, want := range map[string]error{
		"0.0000001": measure.ErrTooFine, "abc": measure.ErrNotANumber, "": measure.ErrNotANumber,
		"NaN":  measure.ErrNotANumber,
		"0x10": measure.ErrNotANumber, "1e999999999": measure.ErrNotANumber,
		"10000.1": measure.ErrLengthTooLong, "1e99": measure.ErrLengthTooLong,
	} {
		_, err := measure.ParseMillimetres(text)
		assert.ErrorIs(t, err, want, text)
	}
}

// 0.20 − 0.02 must hold a reading of 0.18: with float64 millimetres it does not.
func TestWindowEndsBelong(t *testing.T) {
	nominal, tolerance := 200*measure.Micrometre, 20*measure.Micrometre
	w := measure.Window{Lower: nominal - tolerance, Upper: nominal + tolerance}
	assert.True(t, w.Contains(180*measure.Micrometre))
	assert.True(t, w.Contains(220*measure.Micrometre))
	assert.False(t, w.Contains(220*measure.Micrometre+1))
	assert.Equal(t, "0.18–0.22 mm", w.String())
	assert.Equal(t, nominal, w.Middle())
}

func TestPrinting(t *testing.T) {
	assert.Equal(t, "0.30 mm", (300 * measure.Micrometre).String())
	assert.Equal(t, "0.2286 mm", (9 * measure.Thou).String())
	assert.Equal(t, "9 thou", (9 * measure.Thou).Thou())
	assert.Equal(t, "-0.05 mm", (-50 * measure.Micrometre).String())
}

func TestDecimalRoundTrips(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := measure.Length(rapid.Int64Range(-int64(measure.MaxLength), int64(measure.MaxLength)).Draw(t,
			"nm"))
		back, err := measure.ParseMillimetres(l.Decimal())
		require.NoError(t, err)
		require.Equal(t, l, back)
		exact, _ := new(big.Rat).SetFrac64(int64(l), int64(measure.Millimetre)).Float64()
		require.InDelta(t, exact, l.Millimetres(), 1e-9)
		require.Equal(t, l, measure.FromMillimetres(l.Millimetres()))
	})
}

func TestFromMillimetresRefusesWhatIsNoLength(t *testing.T) {
	for _, bad := range []float64{math.NaN(), math.Inf(1), 1e9} {
		assert.Panics(t, func() { measure.FromMillimetres(bad) })
	}
}

// 1.355 818 N·m: NIST SP 811, appendix B.8. 14 N·m is about 10 lbf·ft: common practice.
func TestPoundFoot(t *testing.T) {
	assert.Equal(t, 1.3558179483314004, measure.PoundFoot)
	assert.InDelta(t, 1.355818, measure.PoundFoot, 5e-7)
	assert.InDelta(t, 10, measure.PoundFeet(14), 0.5)
}

func TestAnglesAreWholeMicrodegrees(t *testing.T) {
	for deg, want := range map[float64]measure.Angle{0: 0, 720: 720_000_000, -0.0000004: 0,
		51.4285714: 51_428_571, 1e300: 1_000_000_000_000} {
		assert.Equal(t, want, measure.FromDegrees(deg), deg)
	}
	assert.Zero(t, measure.FromDegrees(math.NaN()))
	for in, want := range map[measure.Angle]measure.Angle{0: 0, measure.Cycle: 0,
		-measure.Turn / 2: 540 * measure.Degree, 2*measure.Cycle + 1: 1, -1: measure.Cycle - 1} {
		assert.Equal(t, want, in.Wrap(), in)
	}
	assert.Equal(t, 20*measure.Degree, measure.Apart(10*measure.Degree, 710*measure.Degree))
	assert.Equal(t, "51.4°", (measure.Turn / 7).String())
	assert.Equal(t, "0°", measure.Angle(-4).String(), "never minus zero")
}

// An angle just below a limit is not written as the limit: '39.9991° … 40° is required' and not '40° … 40°'.
func TestAnAngleIsWrittenOnItsSideOfALimit(t *testing.T) {
	limit := 40 * measure.Degree
	for _, want := range []struct {
		angle measure.Angle
		shown string
	}{{39_999_100, "39.999°"}, {39_999_999, "39.999999°"}, {40_000_000, "40°"}, {128_000_000,
		"128°"}, {-12_000_000, "-12°"}} {
		assert.Equal(t, want.shown, want.angle.Against(limit))
	}
}

// What is written in degrees comes back as the same whole number of micro-degrees.
func TestDegreesRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a := measure.Angle(rapid.Int64Range(-720_000_000, 720_000_000).Draw(t, "angle"))
		require.Equal(t, a, measure.FromDegrees(a.Degrees()))
		require.GreaterOrEqual(t, a.Wrap(), measure.Angle(0))
		require.Less(t, a.Wrap(), measure.Cycle)
		require.Zero(t, (a.Wrap()-a)%measure.Cycle)
	})
}

// Whatever reads as a length is written back as the same one, in both units; nothing is rounded on the way.
func FuzzParseLength(f *testing.F) {
	for _, s := range []string{"0.22", "-0.000001", "9999.999999", "1e3", "0x10", ".5", "5.", "+1", " 1",
		"1_0", "0.0000001", "1e-7", "NaN", "١"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		if l, err := measure.ParseMillimetres(s); err == nil {
			require.LessOrEqual(t, l.Abs(), measure.MaxLength)
			again, err := measure.ParseMillimetres(l.Decimal())
			require.NoError(t, err, s)
			require.Equal(t, l, again, s)
			require.Equal(t, l, measure.FromMillimetres(l.Millimetres()), s)
		}
		if l, err := measure.ParseInches(s); err == nil {
			require.LessOrEqual(t, l.Abs(), measure.MaxLength)
		}
	})
}

// Whatever is written is read as math/big reads it.
func TestLengthsAsTheStandardLibraryReadsThem(t *testing.T) {
	written := regexp.MustCompile(`^[+-]?(\d+(\.\d*)?|\.\d+)([eE][+-]?\d{1,2})?$`)
	limit := new(big.Rat).SetInt64(int64(measure.MaxLength))
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.OneOf(rapid.StringMatching(`[+-]?0{0,3}\d{0,6}\.?\d{0,8}0{0,3}([eE][+-]?\d{1,3})?`),
			rapid.StringMatching(`[-+.eE0-9]{0,8}`)).Draw(t, "text")
		for unit, read := range map[measure.Length]func(string) (measure.Length, error){
			measure.Millimetre: measure.ParseMillimetres, measure.Inch: measure.ParseInches} {
			got, err := read(s)
			if !written.MatchString(s) {
				require.ErrorIs(t, err, measure.ErrNotANumber, s)
				continue
			}
			exact, _ := new(big.Rat).SetString(s)
			exact.Mul(exact, new(big.Rat).SetInt64(int64(unit)))
			switch long := new(big.Rat).Abs(exact).Cmp(limit) > 0; {
			case !long && exact.IsInt():
				require.NoError(t, err, s)
				require.Equal(t, exact.Num().Int64(), int64(got), s)
			case long && exact.IsInt():
				require.ErrorIs(t, err, measure.ErrLengthTooLong, s)
			case !long:
				require.ErrorIs(t, err, measure.ErrTooFine, s)
			default: // both
				require.Error(t, err, s)
			}
		}
	})
}
