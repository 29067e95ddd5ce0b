package thermal_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"metronix/core/thermal"
	"metronix/internal/checks"
)

// Newton's law of cooling as textbooks work it, in °F there.
func TestCoolingAgainstTheOutside(t *testing.T) {
	zill := checks.Memory("Zill, Differential Equations, 3.1, the cooling cake: 300 °F, 200 °F " +
		"after 3 min, room of 70 °F")
	stewart := checks.Memory("Stewart, Calculus, 6.5, the bottle in the refrigerator: 72 °F, 61 °F " +
		"after 30 min, 44 °F inside")
	boyce := checks.Memory("Boyce and DiPrima, Elementary Differential Equations, 2.3: 98.6 °F to 85 °F in " +
		"1.129 h, room of 68 °F")
	for _, c := range []struct {
		from           checks.Source
		room, t0, t1   float64
		after          float64
		gate           float64
		want, within   float64
		k, kWithin     float64
		what, kUnit    string
		alreadyStarted float64
	}{
		{zill, 70, 300, 200, 3, 75, 20.1, 0.05, 0.19018, 5e-6, "to 75 °F, min from the start", "per min", 3},
		{zill, 70, 300, 200, 3, 73, 22.8, 0.05, 0.19018, 5e-6, "to 73 °F, min from the start", "per min", 3},
		{zill, 70, 300, 200, 3, 71, 28.6, 0.05, 0.19018, 5e-6, "to 71 °F, min from the start", "per min", 3},
		{stewart, 44, 72, 61, 30, 50, 92.6, 0.05, 0.01663, 5e-6, "to 50 °F, min from the start", "per min",
			30},
		{boyce, 68, 98.6, 85, 1.129, 74, 3.129, 0.002, 0.5207, 3e-4, "to 74 °F, h from the start", "per h",
			1.129},
	} {
		got, err := thermal.Cool(celsius(c.room),
			[]thermal.Reading{{0, celsius(c.t0)}, {c.after, celsius(c.t1)}},
			celsius(c.gate))
		require.NoError(t, err)
		checks.Near(t, c.from, c.what, c.want, got.Minutes+c.alreadyStarted, c.within)
		checks.Near(t, c.from, "k, "+c.kUnit+" ("+c.what+")", c.k, got.K, c.kWithin)
	}
	bottle, err := thermal.Cool(celsius(44), []thermal.Reading{{0, celsius(72)}, {30, celsius(61)}},
		celsius(50))
	require.NoError(t, err)
	checks.Near(t, stewart, "after another half hour, °F", 54.3, bottle.At(60)*9/5+32, 0.05)
	halving := checks.Theorem("a difference that halves every ten minutes: k = ln 2 / 10")
	half, err := thermal.Cool(20, []thermal.Reading{{0, 140}, {10, 80}}, 40)
	require.NoError(t, err)
	checks.Near(t, halving, "k, per min", math.Ln2/10, half.K, 1e-9)
	checks.Near(t, halving, "from 80 °C to 40 °C in 20 °C: log₂ 3 halvings, min", 10*math.Log2(3),
		half.Minutes, 1e-9)
	checks.Near(t, halving, "after 20 min, °C", 50, half.At(20), 1e-6)
}

// Several readings: k is the slope of ln(T − Ta) against time.
func TestFitAgainstTheOutside(t *testing.T) {
	for _, list := range [][]thermal.Reading{
		{{0, 90}, {5, 82}, {12, 71.5}, {20, 62}}, {{0, 85}, {10, 70}, {25, 54}, {40, 44}, {60, 35}},
	} {
		var x, y []float64
		for _, r := range list {
			x, y = append(x, r.Minute), append(y, math.Log(r.EngineC-18))
		}
		_, slope := stat.LinearRegression(x, y, nil, false)
		got, err := thermal.Cool(18, list, 30)
		require.NoError(t, err)
		checks.Near(t, checks.Library("gonum stat.LinearRegression of the logarithms"),
			fmt.Sprintf("k of %d readings, per min",
				len(list)), -slope, got.K, 1e-9)
	}
}

func TestGatesAgainstTheOutside(t *testing.T) {
	stone := checks.Practice("stone cold: within 5 °C of the surroundings")
	for what, c := range map[string]struct {
		engine, ambient float64
		want            bool
	}{
		"engine 22 °C, ambient 18 °C": {22, 18, true}, "engine 23 °C, ambient 18 °C": {23, 18, true},
		"engine 24 °C, ambient 18 °C": {24, 18, false},
	} {
		checks.Equal(t, stone, what, c.want, thermal.StoneCold(c.engine, c.ambient))
	}
	zero := checks.Standard("ISO 80000-5: 0 K = −273.15 °C")
	checks.Equal(t, zero, "−273.15 °C can be", true, thermal.Possible(-273.15))
	checks.Equal(t, zero, "−273.16 °C can be", false, thermal.Possible(-273.16))
}
