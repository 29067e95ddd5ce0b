package compute

import (
	"fmt"
	"strings"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

type ownedLeaf struct {
	Marked   MM   `json:"marked_mm,omitempty"`
	MarkedIn *IN  `json:"marked_in,omitempty"` // instead of marked_mm
	Measured *MM  `json:"measured_mm,omitempty"`
	Angled   bool `json:"angled,omitempty"`
}

type limits struct {
	Lower     *MM `json:"lower_mm,omitempty"`
	Upper     *MM `json:"upper_mm,omitempty"`
	Nominal   *MM `json:"nominal_mm,omitempty"`
	Tolerance *MM `json:"tolerance_mm,omitempty"`
}

type reading struct {
	Leaves      []MM   `json:"leaves_mm,omitempty"`
	Feel        string `json:"feel,omitempty"`
	Dial        *MM    `json:"dial_mm,omitempty"`
	Uncertainty *MM    `json:"uncertainty_mm,omitempty"`
}

type judgeRequest struct {
	Limits   limits      `json:"limits"`
	Readings []reading   `json:"readings"`
	Owned    []ownedLeaf `json:"owned"`
	Rule     string      `json:"rule,omitempty"`
	Feel     *MM         `json:"feel_mm,omitempty"`
}

type leafStack struct {
	Leaves []MM `json:"leaves_mm"`
}

type judgeResponse struct {
	Verdict  string     `json:"verdict"`
	Sure     bool       `json:"sure"`
	Estimate *MM        `json:"estimate_mm"`
	Low      MM         `json:"gap_low_mm"`
	High     *MM        `json:"gap_high_mm"`
	TryNext  *leafStack `json:"try_next"`
	Why      string     `json:"why"`
	Conflict string     `json:"conflict"`
}

func judge(q judgeRequest) (judgeResponse, *Problem) {
	var faults []Fault
	l, limitFaults := Clearance{Nominal: q.Limits.Nominal, Tolerance: q.Limits.Tolerance, Lower: q.Limits.Lower, Upper: q.Limits.Upper}.toCore().Limits()
	for _, f := range limitFaults {
		at := "limits"
		if f.Figure != "" {
			at += "." + f.Figure + "_mm"
		}
		faults = append(faults, Fault{Location: at, Message: f.Message})
	}
	oneOf(&faults, "rule", q.Rule, "", clearance.Workshop, clearance.Guarded)
	set := ownedSet(q.Owned, &faults)
	feel := clearance.DefaultFeel
	if q.Feel != nil {
		feel = measure.Length(*q.Feel)
		if feel < 0 || feel > clearance.MaxUncertainty {
			faults = append(faults, Fault{Location: "feel_mm", Value: *q.Feel, Message: "The uncertainty of feel is 0 to 0.1 mm, commonly 0.005."})
		}
	}
	readings := readReadings(q.Readings, set, &faults)
	if len(faults) > 0 {
		return judgeResponse{}, refused(faults...)
	}
	return judgeAnswer(clearance.Judge(l, readings, set, clearance.Rule(q.Rule), feel)), nil
}

func judgeAnswer(j clearance.Judgement) judgeResponse {
	r := judgeResponse{Verdict: string(j.Verdict), Sure: j.Sure, Estimate: (*MM)(j.Estimate), Low: MM(j.Low), High: (*MM)(j.High),
		Why: j.Why, Conflict: j.Conflict}
	if j.TryNext != nil {
		r.TryNext = &leafStack{millimetres(j.TryNext.Marked())}
	}
	return r
}

func millimetres(lengths []measure.Length) []MM {
	out := make([]MM, len(lengths))
	for i, l := range lengths {
		out[i] = MM(l)
	}
	return out
}

// ownedSet checks leaves as a stored set is checked: thickness in range, no leaf twice, a micrometer figure near its marking.
func ownedSet(owned []ownedLeaf, faults *[]Fault) gauge.Set {
	items := make([]gauge.Item, len(owned))
	for i, o := range owned {
		leaf := gauge.Plain(measure.Length(o.Marked))
		leaf.Angled = o.Angled
		if o.MarkedIn != nil {
			leaf.Marked, leaf.Thou = measure.Length(*o.MarkedIn), true
		}
		if o.Measured != nil {
			leaf.Measured = measure.Length(*o.Measured)
			if leaf.Measured <= 0 {
				*faults = append(*faults, Fault{Location: fmt.Sprintf("owned[%d].measured_mm", i), Value: *o.Measured, Message: "A micrometer's figure is above 0. Leave it out where none is known."})
			}
		}
		items[i].Leaf = leaf
	}
	for _, f := range gauge.Check(items) {
		at := "owned"
		if f.Index >= 0 {
			at = fmt.Sprintf("owned[%d].%s", f.Index, f.Field)
		}
		*faults = append(*faults, Fault{Location: at, Message: f.Message})
	}
	return gauge.Owned(items)
}

func checkLeaf(at string, l measure.Length, faults *[]Fault) {
	if l <= 0 || l > gauge.MaxLeaf {
		*faults = append(*faults, Fault{Location: at, Value: MM(l), Message: fmt.Sprintf("%s is not the thickness of a feeler leaf: above 0, at most %s.", l, gauge.MaxLeaf)})
	}
}

// mostReadings bounds the readings of one judgement, as the bench does.
const mostReadings = 200

func readReadings(in []reading, set gauge.Set, faults *[]Fault) []clearance.Reading {
	var out []clearance.Reading
	if len(in) > mostReadings {
		*faults = append(*faults, Fault{Location: "readings", Message: fmt.Sprintf("%d readings: at most %d are taken.", len(in), mostReadings)})
		return nil
	}
	for i, r := range in {
		at := fmt.Sprintf("readings[%d]", i)
		if r.Dial != nil {
			out = append(out, readDial(r, at, faults))
			continue
		}
		if r.Uncertainty != nil {
			*faults = append(*faults, Fault{Location: at + ".uncertainty_mm", Value: *r.Uncertainty, Message: "An uncertainty goes with a dial reading; a leaf's comes from its set."})
		}
		if len(r.Leaves) < 1 || len(r.Leaves) > 10 {
			*faults = append(*faults, Fault{Location: at + ".leaves_mm", Message: fmt.Sprintf("%d leaves: a reading needs at least one leaf, and at most 10 are taken.", len(r.Leaves))})
		}
		marked := make([]measure.Length, len(r.Leaves))
		for j, l := range r.Leaves {
			marked[j] = measure.Length(l)
			checkLeaf(fmt.Sprintf("%s.leaves_mm[%d]", at, j), marked[j], faults)
		}
		feel, ok := ParseFeel(r.Feel)
		if !ok {
			*faults = append(*faults, Fault{Location: at + ".feel", Value: echo(r.Feel), Message: "A feel is one of: free, drag, wont_go."})
		}
		out = append(out, clearance.Reading{Stack: set.Pick(gauge.Straight(marked...)), Feel: feel})
	}
	return out
}

// readDial reads a number off a dial indicator.
func readDial(r reading, at string, faults *[]Fault) clearance.Reading {
	if len(r.Leaves) > 0 || r.Feel != "" {
		*faults = append(*faults, Fault{Location: at, Message: "A reading is a leaf with its feel, or a number off a dial, not both."})
	}
	gapFault(at+".dial_mm", *r.Dial, faults)
	doubt := clearance.DialUncertainty
	if r.Uncertainty != nil {
		if doubt = measure.Length(*r.Uncertainty); doubt <= 0 || doubt > clearance.MaxUncertainty {
			*faults = append(*faults, Fault{Location: at + ".uncertainty_mm", Value: *r.Uncertainty, Message: "The uncertainty of a dial indicator is above 0, at most 0.1 mm."})
		}
	}
	return clearance.Reading{Dial: &clearance.Dial{Gap: measure.Length(*r.Dial), Uncertainty: doubt}}
}

// ParseFeel reads a feel; "won't go" is taken in any of its spellings.
func ParseFeel(s string) (clearance.Feel, bool) {
	switch plain := strings.NewReplacer("'", "", "’", "", " ", "_", "-", "_").Replace(s); plain {
	case string(clearance.Free), string(clearance.Drag), string(clearance.WontGo):
		return clearance.Feel(plain), true
	}
	return "", false
}

type leavesRequest struct {
	Owned    []ownedLeaf `json:"owned"`
	Aim      MM          `json:"aim_mm"`
	Lower    *MM         `json:"lower_mm,omitempty"`
	Upper    *MM         `json:"upper_mm,omitempty"`
	MaxStack *int        `json:"max_stack,omitempty"`
}

type leavesResponse struct {
	Leaves      []MM `json:"leaves_mm"`
	Thickness   MM   `json:"thickness_mm"`
	Uncertainty MM   `json:"uncertainty_mm"`
	Within      bool `json:"within"`
}

func leaves(q leavesRequest) (leavesResponse, *Problem) {
	var faults []Fault
	set := ownedSet(q.Owned, &faults)
	checkLeaf("aim_mm", measure.Length(q.Aim), &faults)
	most := stackLimit(q.MaxStack, &faults)
	var window *measure.Window
	switch {
	case (q.Lower == nil) != (q.Upper == nil):
		faults = append(faults, Fault{Location: "lower_mm", Message: "Give both limits or neither."})
	case q.Lower != nil && *q.Lower > *q.Upper:
		faults = append(faults, Fault{Location: "lower_mm", Value: *q.Lower, Message: "The lower limit is above the upper one. Are they swapped?"})
	case q.Lower != nil:
		window = &measure.Window{Lower: measure.Length(*q.Lower), Upper: measure.Length(*q.Upper)}
	}
	if len(set) == 0 {
		faults = append(faults, Fault{Location: "owned", Message: "No leaf is owned: list at least one."})
	}
	if len(faults) > 0 {
		return leavesResponse{}, refused(faults...)
	}
	choice, _ := set.Choose(measure.Length(q.Aim), window, most)
	return leavesResponse{millimetres(choice.Stack.Marked()), MM(choice.Stack.Thickness()), MM(choice.Stack.Uncertainty()), choice.Within}, nil
}

type reachRequest struct {
	Owned    []ownedLeaf `json:"owned"`
	Lower    MM          `json:"lower_mm"`
	Upper    MM          `json:"upper_mm"`
	MaxStack *int        `json:"max_stack,omitempty"`
}

type reachedStack struct {
	Leaves      []MM `json:"leaves_mm"`
	Thickness   MM   `json:"thickness_mm"`
	Uncertainty MM   `json:"uncertainty_mm"`
}

type hole struct {
	From MM `json:"from_mm"`
	To   MM `json:"to_mm"`
}

type reachResponse struct {
	Stacks []reachedStack `json:"stacks"`
	Holes  []hole         `json:"holes"`
}

// reach says which thicknesses a set reaches in a window, and the holes wider than a drag can bridge: twice the feel.
func reach(q reachRequest) (reachResponse, *Problem) {
	var faults []Fault
	set := ownedSet(q.Owned, &faults)
	gapFault("lower_mm", q.Lower, &faults)
	gapFault("upper_mm", q.Upper, &faults)
	if q.Lower > q.Upper {
		faults = append(faults, Fault{Location: "lower_mm", Value: q.Lower, Message: "The lower limit is above the upper one. Are they swapped?"})
	}
	most := stackLimit(q.MaxStack, &faults)
	if len(faults) > 0 {
		return reachResponse{}, refused(faults...)
	}
	stacks, holes := set.Reach(measure.Window{Lower: measure.Length(q.Lower), Upper: measure.Length(q.Upper)}, most, 2*clearance.DefaultFeel)
	r := reachResponse{Stacks: []reachedStack{}, Holes: []hole{}}
	for _, s := range stacks {
		r.Stacks = append(r.Stacks, reachedStack{millimetres(s.Marked()), MM(s.Thickness()), MM(s.Uncertainty())})
	}
	for _, h := range holes {
		r.Holes = append(r.Holes, hole{MM(h.From), MM(h.To)})
	}
	return r, nil
}

// stackLimit is the most leaves of a stack, where none is asked for the most there are.
func stackLimit(asked *int, faults *[]Fault) int {
	if asked == nil {
		return gauge.MaxStack
	}
	if *asked < 1 || *asked > gauge.MaxStack {
		*faults = append(*faults, Fault{Location: "max_stack", Value: *asked, Message: fmt.Sprintf("A stack has 1 to %d leaves.", gauge.MaxStack)})
	}
	return *asked
}
