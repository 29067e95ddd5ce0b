package around

import (
	"fmt"
	"math"
	"strings"

	"metronix/core/engine"
	"metronix/core/gear"
)

// Tool is one thing laid out for a job.
type Tool struct {
	ID, Text string
	OnCrank  bool // it turns the engine: it is off before the starter is touched
	Out      bool // it was taken out and is not back
	Counted  bool // it was taken out at some time
}

// Leaves is the id of the feeler leaves among the tools.
const Leaves = "leaves"

// Tools are the tools and leaves that this job needs, from its sheet, its adjuster and its gauge set;
// equivalents are named where another size fits.
func (w Work) Tools() []Tool {
	list := []Tool{{ID: "turning", Text: "What turns the engine", OnCrank: true}}
	if p := w.Sheet.TurningPoint; p != nil && p.Where != "" {
		list[0].Text = "Bar for the " + p.Where
		if p.SocketMM > 0 {
			list[0].Text = fmt.Sprintf("%s and bar for the %s", Socket(p.SocketMM), p.Where)
		}
	}
	if t, other := turnings[w.Turning]; other {
		list[0].Text = t.name
	}
	list = append(list, Tool{ID: Leaves,
		Text: "Feeler leaves, " + fmt.Sprint(w.Leaves)})
	for i, text := range w.Sheet.Gear().Tools {
		list = append(list, Tool{ID: fmt.Sprintf("setter_%d", i+1), Text: text})
	}
	if to, _ := w.Sheet.TorquesOf(engine.LockNut); to != nil {
		list = append(list, Tool{ID: "torque_wrench", Text: "Torque wrench, " + to.Say(w.Speaks)})
	}
	// Rockers hide the leaf from above on most heads: light and a mirror show whether it lies flat.
	list = append(list, Tool{ID: "lamp_mirror", Text: "Lamp and mirror"})
	for i := range list {
		state, ok := w.tools[list[i].ID]
		list[i].Out, list[i].Counted = state, ok
	}
	return list
}

// HotWork is what to mind where a tool is bent hot (common practice).
const HotWork = "Bent hot: away from fuel, oil and batteries, an extinguisher at hand. What was red loses its temper: it " +
	"is for light nuts, never for a torque."

// fits is how much larger a socket in inches may be than one in millimetres and still take its bolt, and how
// much smaller a marked size may be (from memory).
const (
	loosestFit  = 0.3
	tightestFit = 0.02
)

// Socket names a socket, mm, with the size in sixteenths of an inch that takes the same bolt: "22 mm socket
// (7/8 in)". 1 in is 25.4 mm (international yard and pound agreement, 1959).
func Socket(mm float64) string {
	const sixteenth = 25.4 / 16
	text := fmt.Sprintf("%v mm socket", mm)
	n := int(math.Round(mm / sixteenth))
	if over := float64(n)*sixteenth - mm; n == 0 || over > loosestFit || over < -tightestFit {
		return text
	}
	whole, num, den := n/16, n%16, 16
	for num > 0 && num%2 == 0 {
		num, den = num/2, den/2
	}
	switch {
	case num == 0:
		return fmt.Sprintf("%s (%d in)", text, whole)
	case whole > 0:
		return fmt.Sprintf("%s (%d-%d/%d in)", text, whole, num, den)
	}
	return fmt.Sprintf("%s (%d/%d in)", text, num, den)
}

// turningTool is what the crank is turned with, by its name.
func (w Work) turningTool() string {
	p := w.Sheet.TurningPoint
	switch {
	case p == nil || p.Where == "":
		return "whatever turns the engine"
	case p.SocketMM > 0:
		return fmt.Sprintf("the %s from the %s", Socket(p.SocketMM), p.Where)
	}
	return "the tool from the " + p.Where
}

// SayVariant is how a variant of an engine is told, and what is different: its socket with its near
// equivalent in the other unit.
func SayVariant(v engine.Variant) string {
	var said []string
	if v.Note != "" {
		said = append(said, v.Note)
	}
	if p := v.TurningPoint; p != nil && p.SocketMM > 0 {
		said = append(said, fmt.Sprintf("%s for the %s", Socket(p.SocketMM), p.Where))
	} else if p != nil {
		said = append(said, "turned at the "+p.Where)
	}
	if a := v.Adjuster; a != nil {
		g, _ := gear.Of(a.Kind)
		said = append(said, strings.ToLower(g.Title[:1])+g.Title[1:])
	}
	return strings.Join(said, "; ")
}
