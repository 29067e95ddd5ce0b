package gauge_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/checks"
)

func TestLeavesAgainstTheOutside(t *testing.T) {
	micrometre := measure.Micrometre
	missing := checks.Practice("a leaf that is missing is made of two")
	for what, c := range map[string]struct {
		leaves []measure.Length
		want   string
	}{
		"0.15 + 0.06, mm": {[]measure.Length{150 * micrometre, 60 * micrometre}, "0.21"},
		"0.15 + 0.07, mm": {[]measure.Length{150 * micrometre, 70 * micrometre}, "0.22"},
		"0.20 + 0.05, mm": {[]measure.Length{200 * micrometre, 50 * micrometre}, "0.25"},
		".010 + .002, mm": {[]measure.Length{10 * measure.Thou, 2 * measure.Thou}, "0.3048"},
	} {
		var stack gauge.Stack
		for _, l := range c.leaves {
			stack = append(stack, gauge.Plain(l))
		}
		checks.Equal(t, missing, what, c.want, stack.Thickness().Decimal())
	}
	stamped := checks.Practice("a leaf is called as it is stamped")
	checks.Equal(t, stamped, "a leaf of 0.25 mm", "0.25", gauge.Plain(250*micrometre).String())
	thou := gauge.Leaf{ID: gauge.ID{Marked: 9 * measure.Thou}, Thou: true}
	checks.Equal(t, stamped, "a leaf of nine thousandths", ".009", thou.String())
	doubt := checks.Theorem("the thicknesses of a stack add up, and so do their greatest errors")
	checks.Equal(t, doubt, "a checked leaf and a plain one, ± µm", 7*micrometre,
		gauge.Stack{{ID: gauge.ID{Marked: 220 * micrometre}, Measured: 221 * micrometre},
			gauge.Plain(50 * micrometre)}.Uncertainty())
	choice, ok := gauge.Set{gauge.Plain(150 * micrometre), gauge.Plain(60 * micrometre),
		gauge.Plain(250 * micrometre)}.Choose(
		210*micrometre, &measure.Window{Lower: 200 * micrometre, Upper: 220 * micrometre}, 2)
	require.True(t, ok)
	checks.Equal(t, missing, "set to 0.21 with 0.06, 0.15 and 0.25 owned: by", "0.15 + 0.06",
		choice.Stack.String())
}
