package gear_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/core/gear"
	"metronix/internal/checks"
)

var levers = checks.Theorem("a lever: what the screw travels against what the gap changes by")

func TestGainsAgainstTheOutside(t *testing.T) {
	for _, c := range []struct {
		kind  gear.Kind
		ratio float64
		want  float64
	}{
		{gear.ScrewValveEnd, 0, 1}, {gear.ThreadedTappet, 0, 1},
		{gear.ScrewValveEndAtCam, 1.6, 1 / 1.6},
		{gear.ThreadedTappetAtValve, 1.5, 1.5}, {gear.ScrewPushrodEnd, 1.25, 1.25},
		{gear.CentreNut, 1.5, 2.5},
		{gear.FingerPivotAtCam, 1.6, 1 - 1/1.6}, {gear.FingerPivotAtValve, 1.6, 0.6},
	} {
		got, err := gear.Gain(c.kind, c.ratio)
		require.NoError(t, err)
		checks.Near(t, levers, fmt.Sprintf("%s, ratio %v: gain", c.kind, c.ratio), c.want, got, 1e-12)
	}
}
