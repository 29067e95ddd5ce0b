package clearance_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/checks"
)

// Clearances as books and plates state them, and the limits that they mean.
func TestStatedClearancesAgainstTheOutside(t *testing.T) {
	seen := checks.Practice("clearances as books and plates state them")
	mm := func(text string) clearance.Figure {
		l, err := measure.ParseMillimetres(text)
		require.NoError(t, err)
		return fig(l)
	}
	in := func(text string) clearance.Figure {
		l, err := measure.ParseInches(text)
		require.NoError(t, err)
		return inch(l)
	}
	around := func(nominal, tolerance string) clearance.Clearance {
		return clearance.Clearance{Nominal: mm(nominal), Tolerance: mm(tolerance)}
	}
	between := func(lower, upper string) clearance.Clearance {
		return clearance.Clearance{Lower: mm(lower), Upper: mm(upper)}
	}
	inches := func(lower, upper string) clearance.Clearance {
		return clearance.Clearance{Lower: in(lower), Upper: in(upper)}
	}
	for _, c := range []struct {
		what         string
		stated       clearance.Clearance
		lower, upper string
	}{
		{"0.22 ± 0.02 mm", around("0.22", "0.02"), "0.2", "0.24"},
		{"0.30 ± 0.02 mm", around("0.30", "0.02"), "0.28", "0.32"},
		{"0.20 ± 0.02 mm", around("0.20", "0.02"), "0.18", "0.22"},
		{"0.25 ± 0.02 mm", around("0.25", "0.02"), "0.23", "0.27"},
		{"0.05–0.12 mm", between("0.05", "0.12"), "0.05", "0.12"},
		{"0.15–0.22 mm", between("0.15", "0.22"), "0.15", "0.22"},
		{"0.22–0.28 mm", between("0.22", "0.28"), "0.22", "0.28"},
		{"0.27–0.33 mm", between("0.27", "0.33"), "0.27", "0.33"},
		{"0.008–0.010 in", inches("0.008", "0.010"), "0.2032", "0.254"},
		{"0.010–0.011 in", inches("0.010", "0.011"), "0.254", "0.2794"},
		{"0.30 mm alone: ± 0.02", clearance.Clearance{Nominal: mm("0.30")}, "0.28", "0.32"},
		{"0.25 mm alone: ± 0.02", clearance.Clearance{Nominal: mm("0.25")}, "0.23", "0.27"},
		{"0.010 in alone: ± 0.02 mm", clearance.Clearance{Nominal: in("0.010")}, "0.234", "0.274"},
		{"0.020 in alone: ± 0.02 mm", clearance.Clearance{Nominal: in("0.020")}, "0.488", "0.528"},
		{"0.025 in alone: ± 0.02 mm", clearance.Clearance{Nominal: in("0.025")}, "0.615", "0.655"},
	} {
		l, faults := c.stated.Limits()
		require.Empty(t, faults, c.what)
		checks.Equal(t, seen, c.what+", limits in mm", c.lower+" to "+c.upper,
			l.Window.Lower.Decimal()+" to "+l.Window.Upper.Decimal())
	}
	for what, pair := range map[string][2]clearance.Figure{
		"6 thou printed as 0.15 mm":   {mm("0.15"), in("0.006")},
		"0.014 in printed as 0.35 mm": {mm("0.35"), in("0.014")},
		"0.008 in printed as 0.20 mm": {mm("0.20"), in("0.008")},
		"0.012 in printed as 0.30 mm": {mm("0.30"), in("0.012")},
	} {
		_, faults := clearance.Clearance{Nominal: clearance.Figure{Metric: pair[0].Metric,
			Imperial: pair[1].Imperial}}.Limits()
		checks.Equal(t, checks.Practice("books round one unit from the other, by half a thou at most"),
			what+": faults", 0,
			len(faults))
	}
}

// One answer of the standards' two ways to decide about a figure with its uncertainty, limits inclusive.
func TestVerdictsAgainstTheOutside(t *testing.T) {
	simple := checks.Standard("JCGM 106:2012, 8.2: simple acceptance, the estimate decides")
	guarded := checks.Standard("ISO 14253-1: conformity proved only inside the limits less the uncertainty")
	type readings = []clearance.Reading
	for _, c := range []struct {
		from     checks.Source
		rule     clearance.Rule
		what     string
		readings readings
		want     clearance.Verdict
	}{
		{simple, clearance.Workshop, "0.22 drags", felt(220, clearance.Drag), clearance.In},
		{simple, clearance.Workshop, "0.20, the lower limit, drags", felt(200, clearance.Drag), clearance.In},
		{simple, clearance.Workshop, "0.24, the upper limit, drags", felt(240, clearance.Drag), clearance.In},
		{simple, clearance.Workshop, "0.195 drags", felt(195, clearance.Drag), clearance.Tight},
		{simple, clearance.Workshop, "0.245 drags", felt(245, clearance.Drag), clearance.Loose},
		{simple, clearance.Workshop, "0.20 won't go", felt(200, clearance.WontGo), clearance.Tight},
		{simple, clearance.Workshop, "0.24 falls through", felt(240, clearance.Free), clearance.Loose},
		{simple, clearance.Workshop, "0.20 free, 0.24 won't go",
			felt(200, clearance.Free, 240, clearance.WontGo),
			clearance.In},
		{simple, clearance.Workshop, "0.18 free", felt(180, clearance.Free), clearance.Undecided},
		{guarded, clearance.Guarded, "0.22 drags, ± 0.01", felt(220, clearance.Drag), clearance.In},
		{guarded, clearance.Guarded, "0.21 drags, ± 0.01: inside to the limit", felt(210, clearance.Drag),
			clearance.In},
		{guarded, clearance.Guarded, "0.205 drags, ± 0.01", felt(205, clearance.Drag), clearance.Undecided},
		{guarded, clearance.Guarded, "0.24 drags, ± 0.01", felt(240, clearance.Drag), clearance.Undecided},
		{guarded, clearance.Guarded, "0.185 drags, ± 0.01", felt(185, clearance.Drag), clearance.Tight},
		{guarded, clearance.Guarded, "0.255 drags, ± 0.01", felt(255, clearance.Drag), clearance.Loose},
		{checks.Practice("an inch set serves a metric engine"), clearance.Workshop, ".009 drags",
			readings{{Stack: gauge.Stack{
				gauge.Plain(9 * measure.Thou)}, Feel: clearance.Drag}}, clearance.In},
		{checks.Practice("an inch set serves a metric engine"), clearance.Workshop, ".010 drags",
			readings{{Stack: gauge.Stack{
				gauge.Plain(10 * measure.Thou)}, Feel: clearance.Drag}}, clearance.Loose},
	} {
		j := clearance.Yardstick{Limits: window(200, 240), Owned: set(150, 200, 220, 250), Rule: c.rule,
			Feel: clearance.DefaultFeel}.Judge(c.readings)
		checks.Equal(t, c.from, fmt.Sprintf("limits 0.20–0.24: %s", c.what), c.want, j.Verdict)
	}
}
