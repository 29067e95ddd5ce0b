package compute

import (
	"fmt"
	"slices"
	"strings"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

type ownedLeaf struct {
	Marked   MM  `json:"marked_mm"`
	Measured *MM `json:"measured_mm,omitempty"`
}

type limits struct {
	Lower     *MM `json:"lower_mm,omitempty"`
	Upper     *MM `json:"upper_mm,omitempty"`
	Nominal   *MM `json:"nominal_mm,omitempty"`
	Tolerance *MM `json:"tolerance_mm,omitempty"`
}

type reading struct {
	Leaves []MM   `json:"leaves_mm"`
	Feel   string `json:"feel"`
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
		if feel < 0 || feel > measure.Millimetre/10 {
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

// ownedSet checks leaves: thickness in range, no marking twice, a micrometer figure near its marking.
func ownedSet(owned []ownedLeaf, faults *[]Fault) gauge.Set {
	if len(owned) > 100 {
		*faults = append(*faults, Fault{Location: "owned", Message: fmt.Sprintf("%d leaves: a set holds at most 100.", len(owned))})
		return nil
	}
	set := gauge.Set{}
	for i, o := range owned {
		at := fmt.Sprintf("owned[%d]", i)
		leaf := gauge.Leaf{Marked: measure.Length(o.Marked)}
		checkLeaf(at+".marked_mm", leaf.Marked, faults)
		if o.Measured != nil {
			leaf.Measured = measure.Length(*o.Measured)
			checkLeaf(at+".measured_mm", leaf.Measured, faults)
		}
		if slices.ContainsFunc(set, func(l gauge.Leaf) bool { return l.Marked == leaf.Marked }) {
			*faults = append(*faults, Fault{Location: at, Value: o.Marked, Message: fmt.Sprintf("The leaf %s is listed twice.", leaf.Marked)})
		}
		set = append(set, leaf)
	}
	return set
}

func checkLeaf(at string, l measure.Length, faults *[]Fault) {
	if l <= 0 || l > gauge.MaxLeaf {
		*faults = append(*faults, Fault{Location: at, Value: MM(l), Message: fmt.Sprintf("%s is not the thickness of a feeler leaf: above 0, at most %s.", l, gauge.MaxLeaf)})
	}
}

func readReadings(in []reading, set gauge.Set, faults *[]Fault) []clearance.Reading {
	var out []clearance.Reading
	for i, r := range in {
		at := fmt.Sprintf("readings[%d]", i)
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
		out = append(out, clearance.Reading{Stack: set.Pick(marked), Feel: feel})
	}
	return out
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
	most := gauge.MaxStack
	if q.MaxStack != nil {
		most = *q.MaxStack
	}
	if most < 1 || most > gauge.MaxStack {
		faults = append(faults, Fault{Location: "max_stack", Value: most, Message: fmt.Sprintf("A stack has 1 to %d leaves.", gauge.MaxStack)})
	}
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
