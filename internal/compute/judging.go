package compute

import (
	"fmt"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/wire"
)

// This file is the operations on leaves and readings.

// limits are a clearance as cards print it: two limits, or a nominal with its tolerance.
type limits struct {
	Lower     *wire.MM `json:"lower_mm,omitempty"`
	Upper     *wire.MM `json:"upper_mm,omitempty"`
	Nominal   *wire.MM `json:"nominal_mm,omitempty"`
	Tolerance *wire.MM `json:"tolerance_mm,omitempty"`
}

// reading is one stack of leaves with how it felt, or a dial's figure. Leaves that were tried are told each
// by itself: two that fall through say more than the thicker of them.
type reading struct {
	Leaves      []wire.MM `json:"leaves_mm,omitempty"`
	Feel        string    `json:"feel,omitempty" doc:"free, drag (or graded: drag_light, drag_firm) or wont_go"`
	Dial        *wire.MM  `json:"dial_mm,omitempty" doc:"instead of leaves and feel"`
	Uncertainty *wire.MM  `json:"uncertainty_mm,omitempty" doc:"of the dial"`
}

// Owning is what requests about a set of leaves have in common.
type Owning struct {
	Owned wire.Leaves `json:"owned"`
}

// set checks the leaves as a stored set is checked: thickness in range, no leaf twice, a micrometer figure
// near its marking.
func (q Owning) set(f *wire.Faults) gauge.Set {
	q.Owned.Faults("owned", f)
	return gauge.Owned(q.Owned.Core())
}

// judgeRequest asks what readings say of a gap: limits, leaves that are owned, rule, and how sure the feel
// is.
type judgeRequest struct {
	Limits   limits    `json:"limits"`
	Readings []reading `json:"readings"`
	Owning
	Rule string   `json:"rule,omitempty" enum:",workshop,guarded,one_leaf"`
	Aim  *wire.MM `json:"aim_mm,omitempty" doc:"of the rule one_leaf; absent: the nominal, else the middle of the limits"`
	Feel *wire.MM `json:"feel_mm,omitempty" doc:"the uncertainty of feel, either way; absent: 0.005"`
}

// leafStack is what to try next: one leaf or several laid together.
type leafStack struct {
	Leaves []wire.MM `json:"leaves_mm"`
}

// judgeResponse is the verdict with the interval that it comes from, the leaf or stack that would decide
// more, and in words why; or that the readings disagree, and then no verdict.
type judgeResponse struct {
	wire.Judged
	TryNext  *leafStack `json:"try_next"`
	Why      string     `json:"why"`
	Conflict string     `json:"conflict"`
}

// judge gives the verdict of core/clearance on readings. The interval is what the readings leave possible,
// leaf and feel uncertainties added either way; the rule says how the interval is held against the limits.
func judge(q judgeRequest) (judgeResponse, *wire.Problem) {
	var faults wire.Faults
	with := clearance.Yardstick{Rule: clearance.Rule(q.Rule), Feel: clearance.DefaultFeel}
	stated := wire.Clearance{Nominal: q.Limits.Nominal, Tolerance: q.Limits.Tolerance, Lower: q.Limits.Lower,
		Upper: q.Limits.Upper}
	var wrong []clearance.Fault
	with.Limits, wrong = stated.Core().Limits()
	for _, f := range wrong {
		at := "limits"
		if f.Figure != "" {
			at += "." + f.Figure + "_mm"
		}
		faults.Add(at, nil, "%s", f.Message)
	}
	wire.OneOf(&faults, "rule", q.Rule, "", clearance.Workshop, clearance.Guarded, clearance.OneLeaf)
	if q.Aim != nil {
		with.Aim = aimOf(*q.Aim, with, &faults)
	}
	with.Owned = q.set(&faults)
	if q.Feel != nil {
		if with.Feel = measure.Length(*q.Feel); with.Feel < 0 || with.Feel > clearance.MaxUncertainty {
			faults.Add("feel_mm", *q.Feel, "The uncertainty of feel is 0 to 0.1 mm, commonly 0.005.")
		}
	}
	readings := readReadings(q.Readings, with.Owned, &faults)
	if len(faults) > 0 {
		return judgeResponse{}, wire.Refused(faults...)
	}
	j := with.Judge(readings)
	r := judgeResponse{Judged: wire.JudgedOf(j), Why: j.Why(readings, measure.BySource), Conflict: j.Conflict}
	if j.TryNext != nil {
		r.TryNext = &leafStack{wire.Millimetres(j.TryNext.Marked())}
	}
	return r, nil
}

// aimOf reads the wanted gap of the rule of one leaf: it lies within the limits, and no other rule has one.
func aimOf(aim wire.MM, with clearance.Yardstick, f *wire.Faults) measure.Length {
	switch {
	case with.Rule != clearance.OneLeaf:
		f.Add("aim_mm", aim, "Only the rule one_leaf has an aim.")
	case !with.Limits.Window.Contains(measure.Length(aim)):
		f.Add("aim_mm", aim, "The wanted gap lies within the limits, %s.", with.Limits)
	}
	return measure.Length(aim)
}

// mostReadings bounds the readings of one judgement, as the bench does; mostLeaves those of one reading.
const (
	mostReadings = 200
	mostLeaves   = 10
)

// readReadings reads each reading by the leaves that are owned: one with a leaf that nobody has is a slip of
// the pen.
func readReadings(in []reading, set gauge.Set, f *wire.Faults) []clearance.Reading {
	var out []clearance.Reading
	if len(in) > mostReadings {
		f.Add("readings", nil, "%d readings: at most %d are taken.", len(in), mostReadings)
		return nil
	}
	for i, r := range in {
		at := fmt.Sprintf("readings[%d]", i)
		if r.Dial != nil {
			out = append(out, readDial(r, at, f))
			continue
		}
		if r.Uncertainty != nil {
			f.Add(at+".uncertainty_mm", *r.Uncertainty,
				"An uncertainty goes with a dial reading; a leaf's comes from its set.")
		}
		if len(r.Leaves) < 1 || len(r.Leaves) > mostLeaves {
			f.Add(at+".leaves_mm", nil,
				"%d leaves: a reading needs at least one leaf, and at most %d are taken.",
				len(r.Leaves), mostLeaves)
		}
		stack := wire.Stack{Leaves: r.Leaves}
		stack.Faults(at, f)
		feel, ok := wire.ParseFeel(r.Feel)
		if !ok {
			f.Add(at+".feel", r.Feel, "A feel is one of: free, drag, drag_light, drag_firm, wont_go.")
		}
		out = append(out, clearance.Reading{Stack: set.Pick(stack.Core()), Feel: feel})
	}
	return out
}

// readDial reads a number off a dial indicator.
func readDial(r reading, at string, f *wire.Faults) clearance.Reading {
	if len(r.Leaves) > 0 || r.Feel != "" {
		f.Add(at, nil, "A reading is a leaf with its feel, or a number off a dial, not both.")
	}
	gapFault(at+".dial_mm", *r.Dial, f)
	doubt := clearance.DialUncertainty
	if r.Uncertainty != nil {
		if doubt = measure.Length(*r.Uncertainty); doubt <= 0 || doubt > clearance.MaxUncertainty {
			f.Add(at+".uncertainty_mm", *r.Uncertainty,
				"The uncertainty of a dial indicator is above 0, at most 0.1 mm.")
		}
	}
	return clearance.Reading{Dial: &clearance.Dial{Gap: measure.Length(*r.Dial), Uncertainty: doubt}}
}

// leavesRequest asks for the leaf or the stack that serves a thickness best, within limits where they are
// given.
type leavesRequest struct {
	Owning
	Aim      wire.MM  `json:"aim_mm"`
	Lower    *wire.MM `json:"lower_mm,omitempty"`
	Upper    *wire.MM `json:"upper_mm,omitempty"`
	MaxStack *int     `json:"max_stack,omitempty"`
}

// Stack is a stack of leaves with what it measures.
type Stack struct {
	Leaves      []wire.MM `json:"leaves_mm"`
	Thickness   wire.MM   `json:"thickness_mm"`
	Uncertainty wire.MM   `json:"uncertainty_mm"`
}

// stackOf is a stack as it is sent, with its thickness by measured leaves and what is not known of it.
func stackOf(s gauge.Stack) Stack {
	return Stack{wire.Millimetres(s.Marked()), wire.MM(s.Thickness()), wire.MM(s.Uncertainty())}
}

// leavesResponse is that stack, and whether it lies within the limits that were given.
type leavesResponse struct {
	Stack
	Within bool `json:"within"`
}

// swapped is said of limits whose lower one is above the upper.
const swapped = "The lower limit is above the upper one. Are they swapped?"

// leaves chooses among all stacks of at most max_stack leaves: fewest first, then nearest.
func leaves(q leavesRequest) (leavesResponse, *wire.Problem) {
	var faults wire.Faults
	set := q.set(&faults)
	wire.LeafFault("aim_mm", q.Aim, &faults)
	most := stackLimit(q.MaxStack, &faults)
	var window *measure.Window
	switch {
	case (q.Lower == nil) != (q.Upper == nil):
		faults.Add("lower_mm", nil, "Give both limits or neither.")
	case q.Lower != nil && *q.Lower > *q.Upper:
		faults.Add("lower_mm", *q.Lower, swapped)
	case q.Lower != nil:
		window = &measure.Window{Lower: measure.Length(*q.Lower), Upper: measure.Length(*q.Upper)}
	}
	if len(set) == 0 {
		faults.Add("owned", nil, "No leaf is owned: list at least one.")
	}
	if len(faults) > 0 {
		return leavesResponse{}, wire.Refused(faults...)
	}
	choice, _ := set.Choose(measure.Length(q.Aim), window, most)
	return leavesResponse{stackOf(choice.Stack), choice.Within}, nil
}

// reachRequest asks which thicknesses of a range a set can make.
type reachRequest struct {
	Owning
	Lower    wire.MM `json:"lower_mm"`
	Upper    wire.MM `json:"upper_mm"`
	MaxStack *int    `json:"max_stack,omitempty"`
}

// hole is a stretch of the range that no leaf or stack falls in.
type hole struct {
	From wire.MM `json:"from_mm"`
	To   wire.MM `json:"to_mm"`
}

// reachResponse is every stack within the range, thinnest first, and the holes between them.
type reachResponse struct {
	Stacks []Stack `json:"stacks"`
	Holes  []hole  `json:"holes"`
}

// reach says which thicknesses a set makes in a window, and the holes wider than a drag can bridge: twice the
// feel.
func reach(q reachRequest) (reachResponse, *wire.Problem) {
	var faults wire.Faults
	set := q.set(&faults)
	gapFault("lower_mm", q.Lower, &faults)
	gapFault("upper_mm", q.Upper, &faults)
	if q.Lower > q.Upper {
		faults.Add("lower_mm", q.Lower, swapped)
	}
	most := stackLimit(q.MaxStack, &faults)
	if len(faults) > 0 {
		return reachResponse{}, wire.Refused(faults...)
	}
	window := measure.Window{Lower: measure.Length(q.Lower), Upper: measure.Length(q.Upper)}
	stacks, holes := set.Reach(window, most, 2*clearance.DefaultFeel)
	r := reachResponse{Stacks: []Stack{}, Holes: []hole{}}
	for _, s := range stacks {
		r.Stacks = append(r.Stacks, stackOf(s))
	}
	for _, h := range holes {
		r.Holes = append(r.Holes, hole{wire.MM(h.From), wire.MM(h.To)})
	}
	return r, nil
}

// stackLimit is the most leaves of a stack, where none is asked for the most there are.
func stackLimit(asked *int, f *wire.Faults) int {
	if asked == nil {
		return gauge.MaxStack
	}
	if *asked < 1 || *asked > gauge.MaxStack {
		f.Add("max_stack", *asked, "A stack has 1 to %d leaves.", gauge.MaxStack)
	}
	return *asked
}
