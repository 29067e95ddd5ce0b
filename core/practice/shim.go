package practice

import (
	"errors"
	"fmt"
	"math/rand/v2"
	"slices"

	"metronix/core/adjust"
	"metronix/core/job"
	"metronix/core/measure"
)

// The shims of a practice engine (our own figures; sizes in steps of 0.025 mm are common practice).
const (
	thinnestShim  = 2 * measure.Millimetre
	thickestShim  = 3200 * um
	shimStep      = 25 * um
	wronglyMarked = 8 // one shim in so many is not as it is marked: somebody ground it, or it has worn
)

// FoundShim is a shim in the hand: what stands on it, and what a micrometer says of it.
type FoundShim struct{ Stamped, Measured measure.Length }

// Shimmed says that the gaps of the engine are set by shims.
func (e *Engine) Shimmed() bool { return e.exercise.Setup.Sheet.Shimmed() }

// shims lays one under every valve.
func (e *Engine) shims(chance *rand.Rand) {
	for _, name := range sortedKeys(e.valves) {
		v := e.valves[name]
		v.stamped = 2200*um + shimStep*measure.Length(chance.Int64N(25))
		v.shim = v.stamped
		if chance.IntN(wronglyMarked) == 0 {
			v.shim -= measure.Length(20+chance.Int64N(41)) * um
		}
	}
}

// ShimSizes are those that are to be had.
func ShimSizes() (list []measure.Length) {
	for size := thinnestShim; size <= thickestShim; size += shimStep {
		list = append(list, size)
	}
	return list
}

// supply is a workshop that has every size of shim, as many as there are valves: none is to be bought.
func supply(valves int) job.Shop {
	s := job.Shop{Sizes: ShimSizes()}
	for _, size := range s.Sizes {
		s.Stock = append(s.Stock, adjust.Count{Shim: size, N: valves})
	}
	return s
}

// toTheHundredth is by how much what is said of a shim may be off: a micrometer is read to a hundredth
// (common practice).
const toTheHundredth = 5 * um

// saidOfShim holds what is said of a valve's shim against the one that is there.
func (r *Run) saidOfShim(valve string, size measure.Length) {
	v, err := r.Engine.valve(valve)
	if err != nil {
		return
	}
	if by := (v.shim - size).Abs(); by > toTheHundredth {
		r.fault(Fault{Slip: WrongShim, Valve: valve, By: by})
	}
}

// Bare are the valves without a shim, in order: eyes see it.
func (e *Engine) Bare() (list []string) {
	for _, name := range sortedKeys(e.valves) {
		if e.valves[name].bare {
			list = append(list, name)
		}
	}
	return list
}

// Tray are the shims that were taken out and lie on the bench, by micrometer, the thinnest first.
func (e *Engine) Tray() []measure.Length { return slices.Clone(e.tray) }

// TakeShim takes a valve's shim out, and says what stands on it and what it measures. It errs where there is
// none, and where the lobe presses on it.
func (e *Engine) TakeShim(valve string) (FoundShim, error) {
	v, err := e.valve(valve)
	switch {
	case err != nil:
		return FoundShim{}, err
	case !e.Shimmed():
		return FoundShim{}, errors.New("this engine has no shims")
	case v.bare:
		return FoundShim{}, fmt.Errorf("there is no shim in %s", valve)
	case e.margin(valve) < 0:
		return FoundShim{}, fmt.Errorf("the lobe of %s presses on its shim: it does not come out", valve)
	}
	e.acts++
	v.bare = true
	e.tray = append(e.tray, v.shim)
	slices.Sort(e.tray)
	return FoundShim{v.stamped, v.shim}, nil
}

// FitShim lays a shim of a size under a valve: one from the tray, else a new one. It errs where one is in,
// and for a size that is not to be had. The gap is wider or narrower by what the shim is thinner or thicker.
func (e *Engine) FitShim(valve string, size measure.Length) error {
	v, err := e.valve(valve)
	switch {
	case err != nil:
		return err
	case !v.bare:
		return fmt.Errorf("take the shim of %s out first", valve)
	}
	at := slices.Index(e.tray, size)
	if at < 0 && !slices.Contains(ShimSizes(), size) {
		return fmt.Errorf("there is no shim of %s: on the tray, or from %s to %s in steps of %s", size, thinnestShim, thickestShim, shimStep)
	}
	if at >= 0 {
		e.tray = slices.Delete(e.tray, at, at+1)
	}
	e.acts++
	v.gap += v.shim - size
	v.changed = v.shim != size
	v.shim, v.stamped, v.bare = size, size, false
	return nil
}
