package adjust

import (
	"fmt"
	"math/rand/v2"
	"testing"

	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/measure"
	"metronix/internal/golden"
)

const micron = measure.Micrometre

// Over drawn engines' gaps, fitted shims, stocks and wishes: what goes where, what is bought and what
// remains, and the frontier between buying and coming near, all stay as they were.
func TestShimChoicesStay(t *testing.T) {
	chance := rand.New(rand.NewPCG(5, 9))
	var lines []string
	for range 90 {
		var valves []ShimValve
		for i := range 2 + chance.IntN(8) {
			w := measure.Window{Lower: measure.Length(150+chance.IntN(100)) * micron}
			w.Upper = w.Lower + measure.Length(30+10*chance.IntN(8))*micron
			v := ShimValve{
				Valve:    fmt.Sprintf("V%d", i),
				Fitted:   measure.Length(2400+25*chance.IntN(20)) * micron,
				Window:   w,
				Aim:      w.Lower + (w.Upper-w.Lower)/2,
				Measured: w.Lower + measure.Length(chance.IntN(260)-100)*micron,
			}
			switch chance.IntN(9) {
			case 0:
				v.Uncertainty = measure.Length(chance.IntN(20)) * micron
			case 1:
				v.Out = true
			case 2:
				v.Keeps, v.LeastGain = w.Contains(v.Measured), measure.Length(chance.IntN(15))*micron
			case 3:
				v.Tried = []measure.Length{v.Fitted + 25*micron, v.Fitted - 50*micron}
			case 4:
				v.Stays = w.Contains(v.Measured)
			}
			valves = append(valves, v)
		}
		var sizes []measure.Length
		step := measure.Length([]int{25, 50, 100}[chance.IntN(3)])
		for s := measure.Length(2000); s <= 3200 && chance.IntN(40) > 0; s += step {
			sizes = append(sizes, s*micron)
		}
		var stock []Count
		for range chance.IntN(9) {
			stock = append(
				stock,
				Count{Shim: measure.Length(2300+25*chance.IntN(24)) * micron, N: chance.IntN(3)},
			)
		}
		for _, prefer := range []Prefer{FewestBought, NearestAim} {
			p := ChooseShims(valves, sizes, stock, prefer)
			bought, moved, worst := p.Cost(func(valve string) measure.Length {
				for _, v := range valves {
					if v.Valve == valve {
						return v.Aim
					}
				}
				return 0
			})
			lines = append(
				lines,
				fmt.Sprintf(
					"%s %d %d %v: %+v buy %v spare %v not %v frontier %v",
					prefer,
					bought,
					moved,
					worst,
					p.Fit,
					p.Buy,
					p.Spare,
					p.Impossible,
					p.Frontier,
				),
			)
		}
	}
	golden.Hold(t, "shims", lines)
}

// What is learned of drawn pairs, exact and one-sided, and how far each kind of adjuster is turned, stay as
// they were.
func TestTurnsAndShiftsStay(t *testing.T) {
	chance := rand.New(rand.NewPCG(2, 8))
	var lines []string
	length := func(from, to int) measure.Length { return measure.Length(from+chance.IntN(to-from)) * micron }
	for range 150 {
		var pairs []Pair
		one := chance.IntN(3)
		for range chance.IntN(12) {
			p := Pair{Before: length(200, 320)}
			after := p.Before + length(-45, 25)
			switch {
			case one > 0 && chance.IntN(2) == 0:
				p.AfterHigh = new(after + length(1, 20))
			case one > 1 && chance.IntN(2) == 0:
				p.AfterLow = new(after - length(1, 20))
			default:
				p.After = after
			}
			pairs = append(pairs, p)
		}
		window := length(0, 60)
		s := LearnShift(pairs, window)
		pre, ok := s.PreLockAim(length(10, 300))
		lines = append(lines, fmt.Sprintf("%d pairs in %v: %+v pre %v %v", len(pairs), window, s, pre, ok))
	}
	for _, kind := range gear.Kinds() {
		for range 12 {
			a := engine.Adjuster{
				Kind:         kind,
				Pitch:        length(500, 1500),
				Ratio:        float64(100+chance.IntN(100)) / 100,
				Eccentricity: length(0, 2000),
				Thread:       []engine.Thread{"", engine.LeftHand}[chance.IntN(2)],
				Closes:       []gear.Way{"", gear.In, gear.Out}[chance.IntN(3)],
			}
			gap, aim := length(0, 500), length(50, 400)
			turn, err := Reckon(a, gap, aim)
			towards, err2 := Towards(a, []Direction{Close, Open}[chance.IntN(2)])
			lines = append(
				lines,
				fmt.Sprintf("%s %v %v: %+v %v towards %+v %v", kind, gap, aim, turn, err, towards, err2),
			)
		}
	}
	golden.Hold(t, "turns", lines)
}
