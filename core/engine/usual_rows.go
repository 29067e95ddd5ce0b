package engine

import (
	"fmt"
	"strings"
)

// UsualRows is how the valves of every bank stand, as it is commonly met (common practice). None is claimed
// of any engine: a sheet made from one says so (KindsToConfirm) until somebody has followed the ports.
type UsualRows struct {
	Says  string // in words: how many rows, and where the intakes stand
	Banks []Bank // whole, front to rear
}

// crossflow are the numbers of intake and exhaust valves of a cylinder with a row of each (common practice).
var crossflow = [][2]int{{1, 1}, {2, 1}, {2, 2}, {3, 2}}

// Rows are the usual rows of an arrangement of cylinders, one row a bank first: like valves as neighbours
// ("EIIE"), or taking turns ("EIEI"), each from either kind; then a row of each kind, the intakes on the left
// or on the right of an upright head, and on the inner side of one that leans.
func (u Usual) Rows() (list []UsualRows) {
	firsts := []string{"EIIE", "IEEI", "EIEI", "IEIE"}
	if len(u.Banks[0]) == 1 {
		firsts = []string{"EI", "IE"}
	}
	for _, first := range firsts {
		list = append(list, u.oneRow(first))
	}
	sides := []Side{Left, Right}
	if len(u.Banks) > 1 {
		sides = []Side{innerSide}
	}
	for _, side := range sides {
		for _, each := range crossflow {
			list = append(list, u.twoRows(side, each[0], each[1]))
		}
	}
	return list
}

// innerSide is each bank's own, towards the middle of the engine.
const innerSide Side = ""

// oneRow gives every bank one row of two valves a cylinder, which begins at the front as told and goes on so.
func (u Usual) oneRow(first string) UsualRows {
	r := UsualRows{Says: "One row, from the front " + strings.Join(strings.Split(first, ""), " ")}
	for _, b := range u.heads() {
		n := len(b.Cylinders)
		b.Rows = []Row{{Side: b.IntakePorts, Valves: strings.Repeat(first, (n+1)/2)[:2*n]}}
		r.Banks = append(r.Banks, b)
	}
	return r
}

// twoRows gives every bank a row of intake valves on one side and a row of exhaust valves across from it.
func (u Usual) twoRows(intakes Side, in, ex int) UsualRows {
	where := "inside"
	if intakes != innerSide {
		where = "on the " + string(intakes)
	}
	r := UsualRows{Says: fmt.Sprintf("Two rows, %d intake and %d exhaust a cylinder, intakes %s", in, ex, where)}
	for _, b := range u.heads() {
		n := len(b.Cylinders)
		if intakes != innerSide {
			b.IntakePorts = intakes
		}
		b.Rows = []Row{{Side: b.IntakePorts, Valves: strings.Repeat("I", in*n)},
			{Side: b.IntakePorts.other(), Valves: strings.Repeat("E", ex*n)}}
		r.Banks = append(r.Banks, b)
	}
	return r
}

// heads are the banks of an arrangement without rows: name, lean, cylinders, and the inner side as that of
// the intake ports.
func (u Usual) heads() (list []Bank) {
	for i, numbers := range u.Banks {
		lean := leans(u.Layout, i, len(u.Banks))
		list = append(list, Bank{Name: bankName(lean), Angle: lean, Cylinders: append([]int{}, numbers...),
			IntakePorts: inner(lean)})
	}
	return list
}

// other is the side across.
func (s Side) other() Side {
	if s == Left {
		return Right
	}
	return Left
}

// Usuals are the usual arrangements of so many cylinders, in every layout, the commonest of each layout
// first.
func Usuals(cylinders int) (list []Usual) {
	for _, layout := range []Layout{Inline, Vee, Flat} {
		list = append(list, UsualOrders(layout, cylinders)...)
	}
	return list
}
