package measure_test

import (
	"math/big"
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/core/measure"
	"metronix/internal/checks"
)

var yard = checks.Standard("international yard and pound agreement, 1959: 1 in = 25.4 mm exactly")

func TestInchesAgainstTheOutside(t *testing.T) {
	for inches, mm := range map[string]string{
		"1": "25.4", "0.001": "0.0254", "0.004": "0.1016", "0.007": "0.1778", "0.008": "0.2032",
		"0.009": "0.2286",
		"0.010": "0.254", "0.012": "0.3048", "0.014": "0.3556", "0.020": "0.508", "0.025": "0.635",
	} {
		got, err := measure.ParseInches(inches)
		require.NoError(t, err)
		checks.Equal(t, yard, inches+" in, in mm", mm, got.Decimal())
	}
	for _, inches := range []string{"0.0005", "0.0135", "0.0625", "0.3125", "0.4375"} {
		got, err := measure.ParseInches(inches)
		require.NoError(t, err)
		exact, ok := new(big.Rat).SetString(inches)
		require.True(t, ok)
		nanometres := exact.Mul(exact, big.NewRat(25_400_000, 1))
		checks.Equal(t, checks.Library("math/big, rational arithmetic"), inches+" in, in nanometres",
			nanometres.RatString(), big.NewInt(int64(got)).String())
	}
}

func TestTorqueAgainstTheOutside(t *testing.T) {
	pound := checks.Standard("foot and pound of 1959, standard gravity of the 3rd CGPM: 0.3048 " +
		"× 0.45359237 × 9.80665")
	checks.Near(t, pound, "1 lbf·ft, in N·m", 1.3558179483314004, measure.PoundFoot, 1e-16)
	checks.Near(t, checks.Standard("NIST SP 811, appendix B.8"), "1 lbf·ft, in N·m as printed", 1.355818,
		measure.PoundFoot, 5e-7)
	nut := checks.Practice("a lock nut's torque as books print it in both units")
	checks.Near(t, nut, "14 N·m, in lbf·ft", 10, measure.PoundFeet(14), 0.5)
	checks.Near(t, nut, "24.4 N·m, in lbf·ft", 18, measure.PoundFeet(24.4), 0.05)
	exact := new(big.Rat)
	exact.SetString("1.3558179483314004")
	f, _ := new(big.Rat).Quo(big.NewRat(100, 1), exact).Float64()
	checks.Near(t, checks.Library("math/big, rational arithmetic"), "100 N·m, in lbf·ft", f,
		measure.PoundFeet(100), 1e-12)
}
