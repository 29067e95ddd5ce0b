package engine

import (
	"fmt"
	"slices"
	"strings"

	"metronix/core/measure"
)

// UsualSource says where the catalogue of usual orders comes from.
const UsualSource = "widely printed, from memory: check it against the maker's book"

// Usual is a firing order commonly met, with the cylinders of each bank from front to rear as they are
// commonly numbered with it. Cylinder 1 may stand at the flywheel end on some makes.
type Usual struct {
	Layout Layout
	Order  []int
	Banks  [][]int // one for an engine in line; the bank that leans to the engine's right first
}

// usualOrders is the catalogue: firing orders widely printed (from memory).
var usualOrders = []Usual{
	{Inline, []int{1}, [][]int{{1}}},
	{Inline, []int{1, 2}, [][]int{{1, 2}}},
	{Inline, []int{1, 3, 2}, [][]int{{1, 2, 3}}},
	{Inline, []int{1, 3, 4, 2}, [][]int{{1, 2, 3, 4}}},
	{Inline, []int{1, 2, 4, 3}, [][]int{{1, 2, 3, 4}}},
	{Inline, []int{1, 2, 4, 5, 3}, [][]int{{1, 2, 3, 4, 5}}},
	{Inline, []int{1, 5, 3, 6, 2, 4}, [][]int{{1, 2, 3, 4, 5, 6}}},
	{Inline, []int{1, 6, 2, 5, 8, 3, 7, 4}, [][]int{{1, 2, 3, 4, 5, 6, 7, 8}}},
	{Flat, []int{1, 2}, [][]int{{1}, {2}}},
	{Flat, []int{1, 4, 3, 2}, [][]int{{1, 2}, {3, 4}}},
	{Flat, []int{1, 3, 2, 4}, [][]int{{1, 3}, {2, 4}}},
	{Flat, []int{1, 6, 2, 4, 3, 5}, [][]int{{1, 2, 3}, {4, 5, 6}}},
	{Vee, []int{1, 2}, [][]int{{1}, {2}}},
	{Vee, []int{1, 3, 4, 2}, [][]int{{1, 2}, {3, 4}}},
	{Vee, []int{1, 2, 3, 4, 5, 6}, [][]int{{1, 3, 5}, {2, 4, 6}}},
	{Vee, []int{1, 4, 2, 5, 3, 6}, [][]int{{1, 2, 3}, {4, 5, 6}}},
	{Vee, []int{1, 6, 5, 4, 3, 2}, [][]int{{2, 4, 6}, {1, 3, 5}}},
	{Vee, []int{1, 8, 4, 3, 6, 5, 7, 2}, [][]int{{2, 4, 6, 8}, {1, 3, 5, 7}}},
	{Vee, []int{1, 5, 4, 8, 6, 3, 7, 2}, [][]int{{1, 2, 3, 4}, {5, 6, 7, 8}}},
	{Vee, []int{1, 3, 7, 2, 6, 5, 4, 8}, [][]int{{1, 2, 3, 4}, {5, 6, 7, 8}}},
	{Vee, []int{1, 6, 5, 10, 2, 7, 3, 8, 4, 9}, [][]int{{1, 2, 3, 4, 5}, {6, 7, 8, 9, 10}}},
	{Vee, []int{1, 7, 5, 11, 3, 9, 6, 12, 2, 8, 4, 10}, [][]int{{1, 2, 3, 4, 5, 6}, {7, 8, 9, 10, 11, 12}}},
}

// UsualOrders lists the catalogue for a layout and number of cylinders, the commonest first; empty where none
// is known.
func UsualOrders(layout Layout, cylinders int) []Usual {
	var list []Usual
	for _, u := range usualOrders {
		if u.Layout == layout && len(u.Order) == cylinders {
			list = append(list, u)
		}
	}
	return list
}

// Start is a sheet to begin from: the first usual order of a layout (else the cylinders in turn), banks as
// commonly numbered, and one row of valves a bank, or two where a cylinder has more than two valves.
// perCylinder counts valves, 2 to 5. It errs where no engine can be so. Name and clearances are left to be
// filled in.
//
// It is what a new sheet is drawn from when a layout and a number are tapped, so that most engines are one
// tap from right. Nothing in it is claimed of any maker's engine: the order is offered as usual, the rows
// are the commonest, and all of it is there to be corrected.
func Start(layout Layout, cylinders, perCylinder int) (*Sheet, error) {
	if cylinders < 1 || cylinders > MaxCylinders {
		return nil, fmt.Errorf("%d cylinders: an engine sheet holds 1 to %d", cylinders, MaxCylinders)
	}
	if perCylinder < 2 || perCylinder > MaxValvesPerCylinder {
		return nil, fmt.Errorf("%d valves a cylinder: 2 to %d", perCylinder, MaxValvesPerCylinder)
	}
	u := inTurn(layout, cylinders)
	if usual := UsualOrders(layout, cylinders); len(usual) > 0 {
		u = usual[0]
	}
	s := &Sheet{Name: "", Cylinders: cylinders, FiringOrder: slices.Clone(u.Order), Rotation: Clockwise,
		Layout: layout}
	for _, b := range u.heads() {
		b.Rows = startRows(len(b.Cylinders), perCylinder, b.IntakePorts)
		s.Banks = append(s.Banks, b)
	}
	return s, nil
}

// inTurn fires the cylinders by number, in one bank, or in two halves where the layout has two.
func inTurn(layout Layout, cylinders int) Usual {
	u := Usual{Layout: layout}
	for c := 1; c <= cylinders; c++ {
		u.Order = append(u.Order, c)
	}
	u.Banks = [][]int{u.Order}
	if half := (cylinders + 1) / 2; (layout == Vee || layout == Flat) && cylinders > 1 {
		u.Banks = [][]int{u.Order[:half], u.Order[half:]}
	}
	return u
}

// leans is the usual lean of a bank: upright in line, 45° either way in a vee, 90° in a flat engine.
func leans(layout Layout, bank, banks int) measure.Angle {
	lean := map[Layout]measure.Angle{Vee: 45 * measure.Degree, Flat: 90 * measure.Degree}[layout]
	if banks < 2 || bank > 0 {
		return lean * measure.Angle(min(bank, 1))
	}
	return -lean
}

// bankName names a bank by its side, as seen from the rear: one that leans clockwise, seen from the front,
// lies to the left.
func bankName(lean measure.Angle) string {
	switch {
	case lean > 0:
		return "left bank"
	case lean < 0:
		return "right bank"
	}
	return "head"
}

// inner is the side towards the middle of a vee, where its intake ports commonly are; left for an upright
// head.
func inner(lean measure.Angle) Side {
	if lean > 0 {
		return Right
	}
	return Left
}

// startRows are the rows of a sheet that is begun: one row of both kinds with two valves a cylinder, else
// intakes on one side and exhausts on the other. They are a beginning and are confirmed by whoever looks.
func startRows(cylinders, perCylinder int, intakes Side) []Row {
	if perCylinder == 2 {
		return []Row{{Side: intakes, Valves: palindrome(cylinders)}}
	}
	many := (perCylinder + 1) / 2
	return []Row{
		{Side: intakes, Valves: strings.Repeat("I", many*cylinders)},
		{Side: intakes.other(), Valves: strings.Repeat("E", (perCylinder-many)*cylinders)},
	}
}

// palindrome is the row EI IE EI … so that neighbours share ports, the commonest of plain heads (common
// practice).
//
// Neighbours that share ports put their like valves side by side: E I, I E, E I … from the front. It is
// also the row on which the rule of nine holds.
func palindrome(cylinders int) string {
	return strings.Repeat("EIIE", (cylinders+1)/2)[:2*cylinders]
}
