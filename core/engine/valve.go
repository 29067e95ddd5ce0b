package engine

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"metronix/core/gear"
	"metronix/core/measure"
)

// Kind is intake or exhaust, by the letter used in rows and names.
type Kind byte

// The two kinds of valve.
const (
	Intake  Kind = 'I'
	Exhaust Kind = 'E'
)

// KindOf is the kind of a valve, by the letter that its name begins with; the zero Kind for an empty name.
func KindOf(valve string) Kind {
	if valve == "" {
		return 0
	}
	return Kind(valve[0])
}

// String is "intake" or "exhaust".
func (k Kind) String() string {
	if k == Intake {
		return "intake"
	}
	return "exhaust"
}

// Valve is one valve of a sheet and where it stands.
type Valve struct {
	Name      string // I1, E4, I1a …
	Kind      Kind
	Cylinder  int
	RowNumber int // 1 … N from the front where the engine has one head with one row, else 0
	Bank, Row int // indices into the sheet
	Place     int // index along its row, from the front
}

// Valves lists the valves of a sheet bank by bank, row by row, front to rear, with their names.
// The sheet must have passed Check; letters beyond a bank's cylinders are left out.
func (s *Sheet) Valves() []Valve {
	var all []Valve
	for b, bank := range s.Banks {
		for r, row := range bank.Rows {
			per := perCylinder(bank, row)
			for i := 0; i < len(row.Valves) && per > 0 && i/per < len(bank.Cylinders); i++ {
				all = append(all, Valve{Kind: Kind(row.Valves[i]), Cylinder: bank.Cylinders[i/per], Bank: b,
					Row: r, Place: i})
			}
		}
	}
	nameValves(s, all)
	if s.OneRow() {
		for i := range all {
			all[i].RowNumber = i + 1
		}
	}
	return all
}

// nameValves gives I1, E4; where a cylinder has several of a kind, I1a, I1b from front to rear, the left row
// first at the same place.
func nameValves(s *Sheet, all []Valve) {
	type group struct {
		kind     Kind
		cylinder int
	}
	members := map[group][]int{}
	for i, v := range all {
		g := group{v.Kind, v.Cylinder}
		members[g] = append(members[g], i)
	}
	depth := func(v Valve) float64 { // how far back along its row, 0 … 1
		return (float64(v.Place) + 0.5) / float64(len(s.Banks[v.Bank].Rows[v.Row].Valves))
	}
	for g, indices := range members {
		slices.SortStableFunc(indices, func(a, b int) int {
			side := func(v Valve) Side { return s.Banks[v.Bank].Rows[v.Row].Side }
			return cmp.Or(cmp.Compare(depth(all[a]), depth(all[b])), cmp.Compare(side(all[a]), side(all[b])))
		})
		for n, i := range indices {
			all[i].Name = fmt.Sprintf("%c%d", g.kind, g.cylinder)
			if len(indices) > 1 {
				all[i].Name += string(rune('a' + n))
			}
		}
	}
}

// perCylinder is how many letters of the row belong to each cylinder of its bank; 0 where they do not divide.
func perCylinder(b Bank, r Row) int {
	if len(b.Cylinders) == 0 || len(r.Valves)%len(b.Cylinders) != 0 {
		return 0
	}
	return len(r.Valves) / len(b.Cylinders)
}

// OneRow says whether the engine has one head with one row, so that valves carry row numbers.
func (s *Sheet) OneRow() bool { return len(s.Banks) == 1 && len(s.Banks[0].Rows) == 1 }

// FiringAngle is the crank angle at which a cylinder fires, from the firing TDC of the first in the order.
// A cylinder that is not in the order gives 0.
func (s *Sheet) FiringAngle(cylinder int) measure.Angle {
	i := slices.Index(s.FiringOrder, cylinder)
	if i < 0 {
		return 0
	}
	if s.FiringAngles != nil {
		return s.FiringAngles[i]
	}
	n := measure.Angle(len(s.FiringOrder))
	return (measure.Angle(i)*measure.Cycle + n/2) / n // to the nearest micro-degree
}

// EffectiveTiming is the sheet's cam card, or the typical one.
func (s *Sheet) EffectiveTiming() ValveTiming {
	if s.Timing != nil {
		return *s.Timing
	}
	return TypicalTiming()
}

// EffectiveMargin is the required margin in crank degrees: the sheet's, else 40 for a card quoted at a lift,
// else 20.
func (s *Sheet) EffectiveMargin() measure.Angle {
	switch {
	case s.RequiredMargin != nil:
		return *s.RequiredMargin
	case s.Timing != nil && s.Timing.AtLiftMM > 0:
		return LiftCardMargin
	}
	return DefaultMargin
}

// EffectiveMarks is the marks on the pulley, or the TDC mark alone.
func (s *Sheet) EffectiveMarks() []measure.Angle {
	if s.Marks == nil {
		return []measure.Angle{0}
	}
	return s.Marks
}

// Gear is all that follows from the kind of adjuster: the assumed one where none is stated, the zero value
// for a kind that is not known.
func (s *Sheet) Gear() gear.Gear {
	if s.Adjuster == nil {
		return gear.Assumed()
	}
	g, _ := gear.Of(s.Adjuster.Kind)
	return g
}

// HasLockNut says whether the adjuster is held by a nut that must be locked after it is moved; so it is taken
// where none is stated.
func (s *Sheet) HasLockNut() bool { return s.Gear().LockNut() }

// Shimmed says that a gap is changed by putting in another shim or bucket.
func (s *Sheet) Shimmed() bool { return s.Gear().Means == gear.Exchanged }

// Drawable says whether every row divides among its bank's cylinders and holds only I and E, so that the
// heads can be drawn, whatever else is wrong with the sheet.
func (s *Sheet) Drawable() bool {
	if len(s.Banks) == 0 || len(s.Banks) > MaxCylinders {
		return false
	}
	for _, b := range s.Banks {
		if len(b.Rows) == 0 || len(b.Cylinders) > MaxCylinders {
			return false
		}
		for _, r := range b.Rows {
			per := perCylinder(b, r)
			if per < 1 || per > MaxValvesPerCylinder || strings.Trim(r.Valves, "IE") != "" {
				return false
			}
		}
	}
	return true
}
