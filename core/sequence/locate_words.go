package sequence

import (
	"fmt"
	"slices"
	"strings"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// contradictionOf names two sightings that cannot both be, or says that all together cannot.
func contradictionOf(c *cycle.Cycle, need measure.Angle, seen []Sighting) string {
	for i, a := range seen {
		if len(where(c, need, []Sighting{a})) == 0 {
			return fmt.Sprintf("%s: nowhere on this engine is that so with the required margin of %s.",
				capital(Describe(c.Sheet, a)), need)
		}
		for _, b := range seen[:i] {
			if len(where(c, need, []Sighting{b, a})) == 0 {
				return fmt.Sprintf("%s and %s cannot both be: look at the two again.",
					Describe(c.Sheet, b), Describe(c.Sheet, a))
			}
		}
	}
	all := make([]string, len(seen))
	for i, w := range seen {
		all[i] = Describe(c.Sheet, w)
	}
	return fmt.Sprintf("These cannot all be: %s. Look at each again.", strings.Join(all, "; "))
}

// Describe writes a sighting in a mechanic's words, with those of the sheet for its own signs.
func Describe(s *engine.Sheet, w Sighting) string {
	switch w.What {
	case TDCFiring:
		return fmt.Sprintf("cylinder %d at firing TDC", w.Cylinder)
	case Rocking:
		return fmt.Sprintf("cylinder %d rocking", w.Cylinder)
	case FullLift:
		return w.Valve + " fully down"
	case Opening:
		return w.Valve + " just starting to open"
	case Closing:
		return w.Valve + " nearly closed"
	case Loose:
		return w.Valve + " with play"
	case Pressed:
		return w.Valve + " held open"
	case LobeAway:
		return "the lobe of " + w.Valve + " pointing away"
	case LobesAway:
		return fmt.Sprintf("the lobes of cylinder %d pointing away", w.Cylinder)
	case Signed:
		if sign, ok := s.Sign(w.Sign); ok {
			return sign.String()
		}
		return w.Sign
	}
	return fmt.Sprintf("the %s mark at the pointer", w.Mark)
}

// OneTurnOut says in a sentence that the crank stands a whole turn from where it was expected; empty where it
// does not, or where that cannot be told yet. A nil expectation is the firing TDC of the first cylinder where
// its mark was seen.
func OneTurnOut(s *engine.Sheet, seen []Sighting, at []Range, expected *measure.Angle) string {
	first := s.FiringOrder[0]
	switch {
	case len(at) != 1:
		return ""
	case expected != nil && !at[0].Holds(*expected) && at[0].Holds((*expected + measure.Turn).Wrap()):
		return "One turn out: the same mark is at the pointer, but the crank is expected a whole turn from " +
			"here. Turn a further 360°."
	case expected != nil:
		return ""
	case slices.Contains(seen, Sighting{What: Mark}) && at[0].Holds(measure.Turn) && !at[0].Holds(0):
		return fmt.Sprintf("One turn out: the TDC mark is at the pointer, but cylinder %d is in overlap, "+
			"not firing. Turn a further 360° for its firing TDC.", first)
	}
	return ""
}
