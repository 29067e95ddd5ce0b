package sequence

import (
	"fmt"
	"strings"

	"metronix/core/measure"
)

// This file is how sightings are spoken of, so that bench, board and finder say the same of a stop.

// Until is a sighting as something to turn the crank until: "cylinder 4 rocks".
func (s Sighting) Until() string {
	switch s.What {
	case Rocking:
		return fmt.Sprintf("cylinder %d rocks", s.Cylinder)
	case FullLift:
		if s.Row > 0 {
			return fmt.Sprintf("valve %d (%s) is fully down", s.Row, s.Valve)
		}
		return s.Valve + " is fully down"
	case TDCFiring:
		return fmt.Sprintf("cylinder %d is at firing TDC", s.Cylinder)
	case Mark:
		if s.Mark == 0 {
			return "the TDC mark is at the pointer"
		}
		return fmt.Sprintf("the %s mark is at the pointer", s.Mark)
	case Opening:
		return s.Valve + " just starts to open"
	case Closing:
		return s.Valve + " is nearly closed"
	case LobesAway:
		return fmt.Sprintf("the lobes of cylinder %d point away", s.Cylinder)
	case Loose, LobeAway:
		return "the lobe of " + s.Valve + " points straight away"
	case Pressed:
		return s.Valve + " is held open"
	case Degrees:
		return fmt.Sprintf("the degree wheel reads %s", s.Mark)
	}
	return "the stop is reached"
}

// Standing is a sighting as something that is so now: "cylinder 4 is rocking".
func (s Sighting) Standing() string {
	if s.What == Rocking {
		return fmt.Sprintf("cylinder %d is rocking", s.Cylinder)
	}
	return s.Until()
}

// HowToSee says how to tell a sighting from its look-alike a turn away.
func (s Sighting) HowToSee() string {
	switch s.What {
	case Rocking:
		return "Rocking: as the exhaust finishes closing, the intake starts to open. " +
			"Nothing of the cylinder you read may move."
	case FullLift:
		return "Fully down: the rocker neither sinks further nor rises when the crank is moved a little on."
	case Mark, Degrees:
		return "The pulley passes it twice in two turns: look at the rockers too, or the crank may be one " +
			"turn out."
	case LobeAway, LobesAway:
		return "Away is anywhere on the back of the lobe: at firing TDC both lean some way from straight up."
	case Opening:
		return "Turn slowly: the rocker has just begun to sink."
	case Closing:
		return "Turn slowly: the rocker has all but come up again."
	case Loose:
		return "The lobe points straight away from its follower: the valve has play and is in the middle " +
			"of its base circle."
	case TDCFiring:
		return "Firing TDC: both rockers of the cylinder have play. If they are rocking, the crank is one " +
			"turn out: " +
			"turn a further 360°."
	}
	return ""
}

// Until is what to turn the crank until at a stop: its own sign, and where that comes twice in two turns,
// what tells the turns apart before it.
func (s Stop) Until() string { return UntilSeen(s.Seen()) }

// Seen is what tells a stop: its own sign, and where that comes twice in two turns, what tells the turns
// apart before it.
func (s Stop) Seen() []Sighting {
	if len(s.Watch) > 1 && (s.Watch[0].What == Mark || s.Watch[0].What == Degrees) {
		return []Sighting{s.Watch[1], s.Watch[0]}
	}
	return s.Watch[:min(1, len(s.Watch))]
}

// UntilSeen is what is seen of one place, as something to turn the crank until.
func UntilSeen(seen []Sighting) string {
	if len(seen) == 0 {
		return Sighting{}.Until()
	}
	said := make([]string, len(seen))
	for i, w := range seen {
		said[i] = w.Until()
	}
	return strings.Join(said, ", ")
}

// TurnBy is how the crank is turned by an angle in a direction: "Turn a further 180°".
func TurnBy(by measure.Angle, d Direction) string {
	if d == Back {
		return fmt.Sprintf("Turn back %s", by)
	}
	return fmt.Sprintf("Turn a further %s", by)
}

// How is how the crank is turned to a stop of the plan from the one before.
func (p Plan) How(stop int) string {
	if stop == 0 {
		return "Turn the crank"
	}
	return TurnBy(p.Stops[stop].Turn, p.Direction)
}

// Standing is a stop as it stands now, as a sentence without its full stop: "Cylinder 4 is rocking".
func (s Stop) Standing() string {
	if len(s.Watch) > 0 && s.Watch[0].What == Rocking {
		return capital(s.Watch[0].Standing())
	}
	return capital(s.Until())
}

// HowToSee says how to tell the stop from its look-alike a turn away.
func (s Stop) HowToSee() string {
	if len(s.Watch) == 0 {
		return ""
	}
	return s.Watch[0].HowToSee()
}

// Why says in a sentence for a learner why the valves of a stop may be worked on there.
func (p Plan) Why(stop int) string {
	s := p.Stops[stop]
	if len(s.Watch) == 0 || len(s.Set) == 0 {
		return ""
	}
	least := s.Set[0]
	for _, set := range s.Set {
		if set.Margin < least.Margin {
			least = set
		}
	}
	clear := fmt.Sprintf("%s, the least clear, stands %s from its opening or closing.", least.Valve,
		least.Margin)
	if len(s.Set) == 1 {
		clear = fmt.Sprintf("%s stands %s from its opening or closing.", least.Valve, least.Margin)
	}
	switch sign := s.Watch[0]; {
	case sign.What == Rocking:
		return fmt.Sprintf("Where cylinder %d rocks, the one that runs with it is at firing TDC, "+
			"with its lobes away. %s",
			sign.Cylinder, clear)
	case sign.What == TDCFiring:
		return fmt.Sprintf("At firing TDC the valves of cylinder %d are shut, with their lobes away. %s",
			sign.Cylinder, clear)
	case sign.What == FullLift && sign.Row > 0:
		sum := len(p.Stops) + 1 // a stop for each valve
		return fmt.Sprintf("%d − %d = %d: where valve %d is right down, the lobe of valve %d "+
			"points straight away. %s",
			sum, sign.Row, sum-sign.Row, sign.Row, sum-sign.Row, clear)
	case sign.What == Opening:
		return "Where an exhaust begins to open, the intake of the same cylinder has long been " +
			"shut and is long from " +
			"opening. " + clear
	case sign.What == Closing:
		return "Where an intake is nearly shut, the exhaust of the same cylinder is shut " +
			"and far from opening. " + clear
	case sign.What == Loose:
		return "Where the lobe points straight away, the valve is in the middle of its base " +
			"circle: as deep as can be. " +
			clear
	}
	return "Here these valves stand on the backs of their lobes. " + clear
}

func capital(text string) string { return strings.ToUpper(text[:1]) + text[1:] }
