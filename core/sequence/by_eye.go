package sequence

import (
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// This file is how a valve is come to by eye: what may be seen that leaves it clear, and how far the crank is
// turned until it is.

// ClearSigns are the things of which each, seen alone, leaves a valve clear by at least need wherever the
// crank may stand then: a cylinder that rocks, in the order of firing.
func ClearSigns(c *cycle.Cycle, need measure.Angle, v engine.Valve) (list []Sighting) {
	for _, cylinder := range c.Sheet.FiringOrder {
		rocks := Sighting{What: Rocking, Cylinder: cylinder}
		at := ranges(c, need, rocks)
		if len(at) == 1 && LeastMargin(c, v, at[0]) >= need {
			list = append(list, rocks)
		}
	}
	return list
}

// ClearAfter is how far the crank is turned from a place until a valve is clear by need wherever in that
// place it stood; 0 where it is clear there, ok is false where its base circle is too short for that.
//
// E3 of a four shuts at 12° after overlap TDC and must be clear by 20°: from overlap TDC that is 32° on.
func ClearAfter(c *cycle.Cycle, need measure.Angle, v engine.Valve, at Range, d Direction) (turn measure.Angle,
	ok bool) {
	from, to := (c.ShutsAt(v) + need).Wrap(), (c.OpensAt(v) - need).Wrap()
	shut := Range{c.ShutsAt(v), c.OpensAt(v)}.Length()
	if shut < 2*need || at.Length() > shut-2*need {
		return 0, false
	}
	if LeastMargin(c, v, at) >= need {
		return 0, true
	}
	if d == Back {
		return TurnBetween(at.To, to, d), true
	}
	return TurnBetween(at.From, from, d), true
}

// OffMiddle says that a stop sets a valve anywhere but about the middle of its base circle: there its lobe
// does not point away as an eye takes it.
func OffMiddle(c *cycle.Cycle, v engine.Valve, crank measure.Angle) bool {
	return measure.Apart(crank, c.DeepestAt(v)) > Narrow/2
}
