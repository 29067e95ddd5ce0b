package engine_test

import (
	"fmt"
	"slices"
	"testing"

	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/internal/checks"
)

// The firing orders commonly met: each is offered for its layout.
func TestFiringOrdersAgainstTheOutside(t *testing.T) {
	printed := checks.Memory("firing orders as workshop manuals print them")
	for _, c := range []struct {
		layout engine.Layout
		order  []int
	}{
		{engine.Inline, []int{1, 3, 2}},
		{engine.Inline, []int{1, 3, 4, 2}}, {engine.Inline, []int{1, 2, 4, 3}},
		{engine.Flat, []int{1, 4, 3, 2}},
		{engine.Inline, []int{1, 2, 4, 5, 3}},
		{engine.Inline, []int{1, 5, 3, 6, 2, 4}},
		{engine.Vee, []int{1, 2, 3, 4, 5, 6}}, {engine.Vee, []int{1, 4, 2, 5, 3, 6}},
		{engine.Vee, []int{1, 6, 5, 4, 3, 2}},
		{engine.Flat, []int{1, 6, 2, 4, 3, 5}},
		{engine.Vee, []int{1, 8, 4, 3, 6, 5, 7, 2}}, {engine.Vee, []int{1, 5, 4, 8, 6, 3, 7, 2}},
		{engine.Vee, []int{1, 3, 7, 2, 6, 5, 4, 8}},
	} {
		offered := slices.ContainsFunc(engine.UsualOrders(c.layout, len(c.order)),
			func(u engine.Usual) bool { return slices.Equal(u.Order, c.order) })
		checks.Equal(t, printed, fmt.Sprintf("%s %d: %v is offered", c.layout, len(c.order), c.order), true,
			offered)
	}
}

func TestTypicalTimingAgainstTheOutside(t *testing.T) {
	road := checks.Memory("a typical road cam: 12-52-52-12")
	typical := engine.TypicalTiming()
	for what, c := range map[string][2]measure.Angle{
		"intake opens, ° before TDC":  {12, typical.IVO},
		"intake closes, ° after BDC":  {52, typical.IVC},
		"exhaust opens, ° before BDC": {52, typical.EVO},
		"exhaust closes, ° after TDC": {12, typical.EVC},
	} {
		checks.Near(t, road, what, float64(c[0]), c[1].Degrees(), 0)
	}
}
