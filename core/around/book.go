package around

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"metronix/core/engine"
	"metronix/core/measure"
)

// Engine is what the steps around the bench follow from.
type Engine struct {
	Sheet  *engine.Sheet
	Hot    bool     // its gaps are set hot
	Valves []string // by their names, in the order of the sheet
	Leaves int      // how many feeler leaves are owned
	Speaks measure.Units
}

// Book is what was written down around the bench. The zero book is empty.
type Book struct {
	TakenIn     *Arrival // what the vehicle came in for; nil: not said
	SoundBefore Heard    // zero: not said
	SoundAfter  Heard
	Learned     []Learned // what came off that the sheet does not list
	Findings    []Finding
	Turning     Means // by what the engine is turned; zero: the tool that the sheet names

	marks map[string]Mark // of the steps, by their ids
	felt  map[string]bool // by their valves: lock nuts that were felt once more
	tools map[string]bool // by their ids: taken out, or back
}

// Work is a book open at an engine: the steps as they stand.
type Work struct {
	Engine
	*Book
}

// Arrival is what the vehicle came in for.
type Arrival struct {
	Complaints []Complaint
	Note       string // in the mechanic's words
	Sound      string // before the work, as a short note: "ticks when warm, at idle"
}

// Marked is what became of a step; the zero mark where it waits.
func (b *Book) Marked(step string) Mark { return b.marks[step] }

// Tick writes down what became of a step; the zero mark makes it wait again.
func (b *Book) Tick(step string, m Mark) {
	b.marks = with(b.marks, step, m)
}

// Move writes down that a tool is out, or back.
func (b *Book) Move(tool string, out bool) {
	b.tools = with(b.tools, tool, out)
}

// FeelNut writes down that a valve's lock nut was felt once more, or takes that back.
func (b *Book) FeelNut(valve string, felt bool) {
	b.felt = with(b.felt, valve, felt)
}

// NutFelt says whether a valve's lock nut was felt once more.
func (b *Book) NutFelt(valve string) bool { return b.felt[valve] }

// with is a copy of a map with one value more: a book that was copied is not changed by what is written
// later.
func with[T any](m map[string]T, key string, value T) map[string]T {
	m = maps.Clone(m)
	if m == nil {
		m = map[string]T{}
	}
	m[key] = value
	return m
}

// Felt are the valves whose lock nuts were felt once more, in the order of the sheet.
func (w Work) Felt() (list []string) {
	for _, v := range w.Valves {
		if w.felt[v] {
			list = append(list, v)
		}
	}
	return list
}

// CloseAgain makes what is done after the bench wait again: the hot pass opens the engine once more.
func (w Work) CloseAgain() {
	for _, s := range w.Tasks() {
		if s.Part == CloseUp || s.Part == StartUp {
			w.Tick(s.ID, Mark{})
		}
	}
	w.felt = nil
}

// Heard is how an engine sounded, in words and as it was recorded.
type Heard struct {
	Note string // "ticks when warm, at idle"; empty: not said
	File string // the hash of a recording; empty: none
}

// Finding is something seen besides the clearances: a broken spring, sludge, a gasket gone hard.
type Finding struct {
	ID    string // made by the client; the same one again replaces it
	Place string // a valve, a cylinder, the cover, a hose, a plug
	What  string
	Test  string // the test made: "no draught felt"; empty: none
	Part  string // part number; empty: none
	Price string // as written down; empty: none
	Photo string // the hash of its photograph; empty: none
	Later bool   // it is left for later, and comes back at the next job; false: done now
}

// String is a finding in a line: "cover: gasket hard (later)".
func (f Finding) String() string {
	text := f.Place + ": " + f.What
	if f.Test != "" {
		text += ", " + f.Test
	}
	for _, more := range []string{f.Part, f.Price} {
		if more != "" {
			text += ", " + more
		}
	}
	if f.Later {
		return text + " (later)"
	}
	return text + " (done)"
}

// Fitted is the part that a finding was cured with: what it was for, its number and its price as they were
// written down. It is empty where none was, or where it is left for later.
func (f Finding) Fitted() string {
	if f.Later || f.Part == "" {
		return ""
	}
	text := f.Place + ": " + f.Part
	if f.Price != "" {
		text += ", " + f.Price
	}
	return text
}

// Later are the findings that come back at the next job.
func (b *Book) Later() []Finding {
	return slices.DeleteFunc(slices.Clone(b.Findings), func(f Finding) bool { return !f.Later })
}

// Learned is one thing that a job found out comes off.
type Learned struct {
	ID string
	engine.StripStep
}

// stripStep is one thing to take off, with what its steps are told by: its place on the sheet, or its own id.
type stripStep struct {
	id string
	engine.StripStep
}

// stripList is the sheet's strip list, with what this job found out at its end.
func (w Work) stripList() (list []stripStep) {
	for i, s := range w.Sheet.StripList {
		list = append(list, stripStep{fmt.Sprint(i + 1), s})
	}
	for _, l := range w.Learned {
		list = append(list, stripStep{l.ID, l.StripStep})
	}
	return list
}

// String is the complaint in words.
func (a Arrival) String() string {
	var parts []string
	for _, c := range a.Complaints {
		parts = append(parts, strings.ReplaceAll(string(c), "_", " "))
	}
	if a.Note != "" {
		parts = append(parts, a.Note)
	}
	return strings.Join(parts, "; ")
}

// String is what was heard, in words.
func (h Heard) String() string {
	switch {
	case h.Note != "":
		return h.Note
	case h.File != "":
		return "recorded"
	}
	return ""
}
