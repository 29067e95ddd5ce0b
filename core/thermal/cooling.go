package thermal

import (
	"errors"
	"fmt"
	"math"

	"gonum.org/v1/gonum/stat"

	"metronix/core/measure"
)

// Temperatures that a reading may have, °C: below absolute zero there are none, above 200 no engine block
// stands.
const (
	AbsoluteZeroC = -273.15
	MaxC          = 200.0
)

// StoneColdWithinC is how near the surroundings an engine must be to count as stone cold (common practice).
const StoneColdWithinC = 5.0

// HotFromC is the least engine temperature at which hot figures may be used (from memory). HotMinutes is how
// long after shutting off they hold (common practice).
const (
	HotFromC   = 60.0
	HotMinutes = 10.0
)

// MaxWaitMinutes is the longest wait that is forecast, a week: beyond it two readings were too near each
// other to tell a rate.
const MaxWaitMinutes = 7 * 24 * 60.0

// Reading is the engine's temperature at a time in minutes from any fixed beginning.
type Reading struct{ Minute, EngineC float64 }

// Cooldown is when an engine reaches a gate by Newton's law of cooling, T = Ta + (T0 − Ta)·e^(−kt).
type Cooldown struct {
	Reachable bool
	K         float64 // per minute; NaN where it cannot be told
	Minutes   float64 // from the last reading, 0 only at or below the gate; NaN where the gate is not reached

	why                 string    // where it is not reachable, the reason, with a gap for each figure
	figures             []float64 // temperatures, °C
	ambientC, intercept float64   // of the fitted line
}

// Why says where the gate is not reachable for what reason, in a person's units; empty where it is.
func (c Cooldown) Why(speaks measure.Units) string {
	said := make([]any, len(c.figures))
	for i, t := range c.figures {
		said[i] = speaks.Temperature(t)
	}
	return fmt.Sprintf(c.why, said...)
}

// At is the temperature on the fitted line at a minute counted as the readings' are; NaN where there is no
// line.
func (c Cooldown) At(minute float64) float64 {
	return c.ambientC + math.Exp(c.intercept-c.K*minute)
}

// What is wrong with the readings of a Cooldown; the wrapped text says where.
var (
	ErrTooFew    = errors.New("cooling needs two readings")
	ErrBackwards = errors.New("time runs backwards")
	ErrNoSuchC   = errors.New("no temperature of an engine")
)

// Cool fits ln(T − Ta) to a line by least squares, takes its slope k, and gives the wait from the last
// reading T until the gate, ln((T − Ta)/(gate − Ta))/k. It errs with ErrTooFew for fewer than two readings,
// ErrBackwards where minutes do not rise, and ErrNoSuchC for a temperature that cannot be. At or below the
// gate already the wait is 0. A last reading above the one before (heat soak), a gate not above ambient, and
// readings not above ambient give Reachable false.
//
// From 80 °C to 60 in ten minutes with 20 around it, the difference fell from 60 to 40: k is ln(60/40)/10,
// and to 38 °C, a difference of 18, it takes another ln(40/18)/k minutes, just under twenty.
func Cool(ambientC float64, readings []Reading, gateC float64) (Cooldown, error) {
	if err := check(ambientC, readings, gateC); err != nil {
		return Cooldown{}, err
	}
	k, intercept, cooling := fit(ambientC, readings)
	last := readings[len(readings)-1]
	switch {
	case last.EngineC <= gateC:
		return Cooldown{Reachable: true, K: exit(k), Minutes: 0, ambientC: ambientC,
			intercept: intercept}, nil
	case gateC <= ambientC:
		return unreachable("The gate of %s is not above the %s around the engine: it never cools so "+
			"far.", gateC, ambientC), nil
	case last.EngineC > readings[len(readings)-2].EngineC:
		return unreachable("The engine rose from %s to %s. Heat soaks out of it for a while after it is "+
			"shut off: read again later.", readings[len(readings)-2].EngineC, last.EngineC), nil
	case !cooling:
		return unreachable("The readings do not fall towards the %s around the engine. Heat soaks out "+
			"of it for a while after it is shut off: read again later.", ambientC), nil
	}
	wait := math.Log((last.EngineC-ambientC)/(gateC-ambientC)) / k
	if wait > MaxWaitMinutes {
		return unreachable("At this rate it takes longer than a week to %s. Read again later, or set "+
			"the engine at a place that is cooler.", gateC), nil
	}
	return Cooldown{Reachable: true, K: exit(k), Minutes: exit(wait), ambientC: ambientC,
		intercept: intercept}, nil
}

func unreachable(why string, temperatures ...float64) Cooldown {
	return Cooldown{K: math.NaN(), Minutes: math.NaN(), why: why, figures: temperatures,
		intercept: math.NaN()}
}

func check(ambientC float64, readings []Reading, gateC float64) error {
	if len(readings) < 2 {
		return fmt.Errorf("%w: there is %d", ErrTooFew, len(readings))
	}
	for _, t := range []float64{ambientC, gateC} {
		if !Possible(t) {
			return fmt.Errorf("%v °C is %w", t, ErrNoSuchC)
		}
	}
	for i, r := range readings {
		if !Possible(r.EngineC) {
			return fmt.Errorf("%v °C is %w", r.EngineC, ErrNoSuchC)
		}
		if math.IsNaN(r.Minute) || math.IsInf(r.Minute, 0) || (i > 0 && r.Minute <= readings[i-1].Minute) {
			return fmt.Errorf("%w: reading %d at minute %v does not come after the one before", ErrBackwards,
				i+1, r.Minute)
		}
	}
	return nil
}

// Possible says whether a figure can be a temperature here.
func Possible(c float64) bool { return c >= AbsoluteZeroC && c <= MaxC }

// fit is the least-squares line through ln(T − Ta): k is minus its slope. cooling is false where a reading
// does not stand above the surroundings or the line does not fall; k is then NaN.
func fit(ambientC float64, readings []Reading) (k, intercept float64, cooling bool) {
	minutes, logs := make([]float64, len(readings)), make([]float64, len(readings))
	for i, r := range readings {
		minutes[i], logs[i] = r.Minute, math.Log(r.EngineC-ambientC)
	}
	intercept, slope := stat.LinearRegression(minutes, logs, nil, false)
	if !(slope < 0) || math.IsInf(slope, 0) { // NaN too: a reading not above the surroundings
		return math.NaN(), math.NaN(), false
	}
	return -slope, intercept, true
}

// exit drops float noise below a thousand-millionth: the one rounding at the formula's exit.
func exit(f float64) float64 { return math.Round(f*1e9) / 1e9 }

// StoneCold says whether an engine is near enough to its surroundings to count as stone cold.
func StoneCold(engineC, ambientC float64) bool { return engineC <= ambientC+StoneColdWithinC }
