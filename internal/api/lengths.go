package api

import (
	"fmt"
	"strconv"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/compute"
)

// length takes a JSON number of millimetres exactly, by its shortest decimal; finer than a nanometre is refused.
func length(mm float64) (measure.Length, error) {
	return measure.ParseMillimetres(strconv.FormatFloat(mm, 'f', -1, 64))
}

// leavesOf checks leaves and turns them into a set.
func leavesOf(list []Leaf) (gauge.Set, []compute.Fault) {
	var set gauge.Set
	var faults []compute.Fault
	for i, l := range list {
		at := fmt.Sprintf("body.leaves[%d]", i)
		leaf := gauge.Leaf{Marked: leafLength(l.Marked, at+".marked_mm", &faults)}
		if l.Measured != nil {
			leaf.Measured = leafLength(*l.Measured, at+".measured_mm", &faults)
		}
		for _, before := range set {
			if before.Marked == leaf.Marked {
				faults = append(faults, compute.Fault{Location: at, Value: l.Marked, Message: fmt.Sprintf("The leaf %s is listed twice.", leaf.Marked)})
			}
		}
		set = append(set, leaf)
	}
	return set, faults
}

func leafLength(mm float64, at string, faults *[]compute.Fault) measure.Length {
	l, err := length(mm)
	if err != nil || l <= 0 || l > gauge.MaxLeaf {
		*faults = append(*faults, compute.Fault{Location: at, Value: mm,
			Message: fmt.Sprintf("%v mm is not the thickness of a feeler leaf: above 0, at most %s, no finer than six decimal places.", mm, gauge.MaxLeaf)})
	}
	return l
}

func millimetres(lengths []measure.Length) []float64 {
	out := make([]float64, len(lengths))
	for i, l := range lengths {
		out[i] = l.Millimetres()
	}
	return out
}
