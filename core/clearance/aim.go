package clearance

import (
	"fmt"

	"metronix/core/measure"
	"metronix/core/thermal"
)

// Aim is where within its limits a valve is set.
type Aim string

// The schools: the middle, or the loose end ("a tight valve burns, a loose one only ticks": common practice),
// which may also mean that the leaf of the upper limit itself drags. The zero value is the nominal.
const (
	AimNominal Aim = "nominal"
	AimLoose   Aim = "loose"
	AimUpper   Aim = "upper"
)

// looseRoom is how far below the upper limit the loose end lies, so that a valve set there still reads in
// with an unchecked leaf: its uncertainty and the feel.
const looseRoom = 10 * measure.Micrometre

// At is the gap to set: the nominal, the upper limit, or for the loose end a little below it, never below the
// nominal.
//
// The trade is split. The middle gives the most room for error on both sides; the loose end spares the
// valve, which must have time on its seat to give off its heat, and is asked for on hard-worked engines.
// Neither ever goes below the lower limit.
func (l Limits) At(a Aim) measure.Length {
	switch a {
	case AimLoose:
		return max(l.Nominal, l.Window.Upper-looseRoom)
	case AimUpper:
		return l.Window.Upper
	}
	return l.Nominal
}

// Difference is what two cards say differently of one kind of valve, or of when they hold.
type Difference struct{ What, A, B string }

// Differences lists where two cards disagree, in words and a person's units; both must resolve. None: they
// say the same.
func Differences(a, b Card, speaks measure.Units) []Difference {
	var list []Difference
	add := func(what, x, y string) {
		if x != y {
			list = append(list, Difference{what, x, y})
		}
	}
	window := func(c Clearance) string {
		l, _ := c.Limits()
		return l.In(speaks.Length).String()
	}
	add("state", string(a.State), string(b.State))
	add("intake", window(a.Intake), window(b.Intake))
	add("exhaust", window(a.Exhaust), window(b.Exhaust))
	if a.State == Cold && b.State == Cold {
		add("cold", a.coldWords(speaks), b.coldWords(speaks))
	}
	return list
}

// Holds says at which engine temperature the card's figures hold, in words and a person's units.
func (c Card) Holds(speaks measure.Units) string {
	switch {
	case c.State == Hot:
		return fmt.Sprintf("engine at %s or more, read within %v minutes",
			speaks.Temperature(thermal.HotFromC),
			thermal.HotMinutes)
	case c.StoneCold:
		return fmt.Sprintf("engine at most %s, and within %s of its surroundings",
			speaks.Temperature(c.ColdLimitC()), speaks.TemperatureStep(thermal.StoneColdWithinC))
	}
	return "engine " + c.coldWords(speaks)
}

// coldWords is how cold an engine has to be for a card, in words.
func (c Card) coldWords(speaks measure.Units) string {
	if c.StoneCold {
		return "stone cold"
	}
	return "at most " + speaks.Temperature(c.ColdLimitC())
}

// ColdLimitC is the engine temperature at or below which a cold card's figures hold.
func (c Card) ColdLimitC() float64 {
	if c.MaxEngineC != nil {
		return *c.MaxEngineC
	}
	return DefaultColdC
}
