package sequence

import (
	"slices"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// school is one way of going round an engine, in a file of its own.
//
// A new school is a file with such a value, its line in schools, and its test: its title, how it is done
// and the orders it may be taken in are served with every plan, and neither the wire nor a screen knows
// any school by name.
type school struct {
	name     School
	title    string
	titleOf  func(valves int) string // where the title depends on how many there are
	howTo    string                  // how it is done, in one line
	numbered bool                    // its stops belong to cylinders or valves that have numbers
	// its stops stay as printed, and apply where they fall short too, with a caution
	printed bool
	// stops gives the stops in no order yet, or the reason why there are none on this engine. need is the
	// required margin.
	stops func(c *cycle.Cycle, q Request, need measure.Angle) ([]draft, string)
}

// schools is every school in the order they are shown.
var schools = []school{
	oneCylinder, rockingPairs, sumRule, exhaustOpen, twoStop, openingClosing, oneLobe, own, fewestStops,
}

// Schools lists all schools in the order they are shown.
func Schools() []School {
	names := make([]School, len(schools))
	for i, s := range schools {
		names[i] = s.name
	}
	return names
}

func (s School) school() (school, bool) {
	i := slices.IndexFunc(schools, func(k school) bool { return k.name == s })
	if i < 0 {
		return school{}, false
	}
	return schools[i], true
}

// Title is the name of the school on an engine, as the trade knows it; for a school that there is not, its
// word.
func (s School) Title(of *engine.Sheet) string { return s.TitleFor(len(of.Valves())) }

// TitleFor is the same on an engine with so many valves.
func (s School) TitleFor(valves int) string {
	k, ok := s.school()
	switch {
	case !ok:
		return string(s)
	case k.titleOf != nil:
		return k.titleOf(valves)
	}
	return k.title
}

// HowTo says in one line how the school goes.
func (s School) HowTo() string {
	k, _ := s.school()
	return k.howTo
}

// Orders lists the orders in which a school's stops can be taken: all in turning order, those of numbered
// cylinders or valves also by number.
func (s School) Orders() []Order {
	if k, _ := s.school(); k.numbered {
		return []Order{Turning, Numerical}
	}
	return []Order{Turning}
}
