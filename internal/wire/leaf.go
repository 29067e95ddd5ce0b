package wire

import (
	"fmt"
	"strings"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

// Leaf is one feeler leaf of a set.
type Leaf struct {
	Marked   MM   `json:"marked_mm,omitempty"`
	MarkedIn *IN  `json:"marked_in,omitempty" doc:"in inches, exact, instead of marked_mm; sent for leaves marked so"`
	Measured *MM  `json:"measured_mm,omitempty" doc:"by micrometer"`
	Thou     bool `json:"thou,omitempty" doc:"marked in thousandths of an inch"`
	Angled   bool `json:"angled,omitempty"`
	Missing  bool `json:"missing,omitempty" doc:"it belongs to the set and is not there"`
}

// Core is the leaf as the core knows it.
func (l Leaf) Core() gauge.Item {
	item := gauge.Item{Leaf: gauge.Plain(measure.Length(l.Marked)), Missing: l.Missing}
	item.Angled, item.Thou = l.Angled, l.Thou || l.MarkedIn != nil
	if l.MarkedIn != nil {
		item.Marked = measure.Length(*l.MarkedIn)
	}
	if l.Measured != nil {
		item.Measured = measure.Length(*l.Measured)
	}
	return item
}

// LeafOf writes a leaf.
func LeafOf(i gauge.Item) Leaf {
	out := Leaf{Marked: MM(i.Marked), Thou: i.Thou, Angled: i.Angled, Missing: i.Missing}
	if i.Thou {
		out.MarkedIn = (*IN)(&i.Marked)
	}
	if i.Measured > 0 {
		out.Measured = (*MM)(&i.Measured)
	}
	return out
}

// Leaves is a set of leaves.
type Leaves []Leaf

// Core is the set as the core knows it.
func (l Leaves) Core() []gauge.Item {
	items := make([]gauge.Item, len(l))
	for i, leaf := range l {
		items[i] = leaf.Core()
	}
	return items
}

// LeavesOf writes a set; it is never null.
func LeavesOf(items []gauge.Item) Leaves {
	out := Leaves{}
	for _, i := range items {
		out = append(out, LeafOf(i))
	}
	return out
}

// Faults notes what is wrong with a set, at its place.
func (l Leaves) Faults(at string, f *Faults) {
	for i, leaf := range l {
		if leaf.Measured != nil && *leaf.Measured <= 0 {
			f.Add(fmt.Sprintf("%s[%d].measured_mm", at, i), *leaf.Measured,
				"A micrometer's figure is above 0. Leave it out where none is known.")
		}
	}
	SetFaults(at, l.Core(), f)
}

// SetFaults notes what is wrong with the leaves of a set, each at its place.
func SetFaults(at string, items []gauge.Item, f *Faults) {
	for _, fault := range gauge.Check(items) {
		place := at
		if fault.Index >= 0 {
			place = fmt.Sprintf("%s[%d].%s", at, fault.Index, fault.Field)
		}
		f.Add(place, nil, "%s", fault.Message)
	}
}

// LeafFault notes what is no thickness of a leaf.
func LeafFault(at string, l MM, f *Faults) {
	if t := measure.Length(l); t <= 0 || t > gauge.MaxLeaf {
		f.Add(at, l, "%s is not the thickness of a feeler leaf: above 0, at most %s.", t, gauge.MaxLeaf)
	}
}

// Stack is one leaf or several, told by their markings; which of them are angled in their order, absent where
// none is.
type Stack struct {
	Leaves []MM   `json:"leaves_mm,omitempty" maxItems:"10"`
	Angled []bool `json:"angled,omitempty" maxItems:"10" doc:"which of the leaves is an angled one; absent: none"`
}

// Core is the stack as the core knows it; nil for none.
func (s Stack) Core() []gauge.ID {
	if len(s.Leaves) == 0 {
		return nil
	}
	ids := make([]gauge.ID, len(s.Leaves))
	for i, l := range s.Leaves {
		ids[i] = gauge.ID{Marked: measure.Length(l), Angled: i < len(s.Angled) && s.Angled[i]}
	}
	return ids
}

// StackOf writes a stack.
func StackOf(ids []gauge.ID) Stack {
	var s Stack
	for i, id := range ids {
		s.Leaves = append(s.Leaves, MM(id.Marked))
		if id.Angled && s.Angled == nil {
			s.Angled = make([]bool, len(ids))
		}
		if id.Angled {
			s.Angled[i] = true
		}
	}
	return s
}

// Laid is a stack as it is shown: of each leaf its marking and whether it is angled, and what stands on them.
type Laid struct {
	LeavesMM []MM   `json:"leaves_mm" doc:"empty for none"`
	Angled   []bool `json:"angled" doc:"which of them is angled"`
	Name     string `json:"name" doc:"what is stamped on them"`
}

// LaidOf shows a stack; its lists are never null.
func LaidOf(st gauge.Stack) Laid {
	s := StackOf(st.IDs())
	if s.Angled == nil {
		s.Angled = make([]bool, len(s.Leaves))
	}
	return Laid{List(s.Leaves), s.Angled, st.String()}
}

// Faults notes what is wrong with a stack at a place.
func (s Stack) Faults(at string, f *Faults) {
	if len(s.Angled) > len(s.Leaves) {
		f.Add(join(at, "angled"), nil, "There are fewer leaves than this.")
	}
	for i, l := range s.Leaves {
		LeafFault(fmt.Sprintf("%s[%d]", join(at, "leaves_mm"), i), l, f)
	}
}

// ParseFeel reads a feel; "won't go" is taken in any of its spellings.
func ParseFeel(s string) (clearance.Feel, bool) {
	switch plain := strings.NewReplacer("'", "", "’", "", " ", "_", "-", "_").Replace(s); plain {
	case string(clearance.Free), string(clearance.Drag), string(clearance.DragLight),
		string(clearance.DragFirm),
		string(clearance.WontGo):
		return clearance.Feel(plain), true
	}
	return "", false
}

// Judged is what readings say of a gap.
type Judged struct {
	Verdict  string `json:"verdict" enum:"in,tight,loose,undecided"`
	Sure     bool   `json:"sure"`
	Estimate *MM    `json:"estimate_mm" nullable:"true"`
	Low      MM     `json:"gap_low_mm"`
	High     *MM    `json:"gap_high_mm" nullable:"true"`
}

// JudgedOf writes a verdict and what it came from.
func JudgedOf(j clearance.Judgement) Judged {
	return Judged{string(j.Verdict), j.Sure, (*MM)(j.Estimate), MM(j.Low), (*MM)(j.High)}
}
