package gauge

import (
	"fmt"

	"metronix/core/measure"
)

// Fault is one thing wrong with a set: the index of the leaf (−1: the set as a whole), the field (marked_mm
// or measured_mm), and a sentence.
type Fault struct {
	Index          int
	Field, Message string
}

// farOff is how far a micrometer's figure may lie from the marking before one of the two is a slip, unless it
// is a tenth of the marking (from memory; worn leaves lose a few hundredths of a millimetre at most).
const farOff = 20 * measure.Micrometre

// Check finds thicknesses that no leaf has, leaves listed twice, and micrometer figures that cannot belong to
// their marking. A leaf may be there both straight and angled.
//
// Most faults of a set are slips of writing it down: a thickness in the other unit (a leaf of "8" among
// millimetres), a micrometer figure that belongs to the next leaf, the same marking twice. Each is said at
// its leaf, with what was probably meant.
func Check(items []Item) []Fault {
	var faults []Fault
	if len(items) > MaxLeaves {
		return []Fault{{-1, "", fmt.Sprintf("%d leaves: a set holds at most %d.", len(items), MaxLeaves)}}
	}
	for i, l := range items {
		if l.Marked <= 0 || l.Marked > MaxLeaf {
			faults = append(faults, Fault{i, "marked_mm", fmt.Sprintf("%s is not the thickness of a feeler "+
				"leaf: above 0, at most %s.", l.Marked, MaxLeaf)})
			continue
		}
		if l.Measured < 0 || l.Measured > MaxLeaf {
			faults = append(faults, Fault{i, "measured_mm", fmt.Sprintf("%s is not the thickness of a "+
				"feeler leaf: above 0, at most %s.", l.Measured, MaxLeaf)})
		} else if off := (l.Measured - l.Marked).Abs(); l.Measured > 0 && off > max(farOff, l.Marked/10) {
			faults = append(faults, Fault{i, "measured_mm", fmt.Sprintf("The micrometer's %s lies %s off "+
				"the marking %s (%s): is one of them in the other unit, or a slip?", l.Measured, off,
				l.Marked, l.Marked.Thou())})
		}
		for n, before := range items[:i] {
			if before.ID == l.ID {
				faults = append(faults, Fault{i, "marked_mm", fmt.Sprintf("The leaf %s is listed twice, as "+
					"number %d and %d.", l.Marked, n+1, i+1)})
				break
			}
		}
	}
	return faults
}
