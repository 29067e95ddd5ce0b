package api

import (
	"fmt"
	"strconv"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/compute"
	"metronix/internal/store"
)

// length takes a JSON number of millimetres exactly, by its shortest decimal; finer than a nanometre is refused.
func length(mm float64) (measure.Length, error) {
	return measure.ParseMillimetres(strconv.FormatFloat(mm, 'f', -1, 64))
}

// leavesOf checks leaves as they come from a client.
func leavesOf(list []Leaf) ([]gauge.Item, []compute.Fault) {
	var items []gauge.Item
	var faults []compute.Fault
	for i, l := range list {
		at := fmt.Sprintf("body.leaves[%d]", i)
		item := gauge.Item{Leaf: gauge.Leaf{ID: gauge.ID{Marked: markedLength(l, at, &faults), Angled: l.Angled}, Thou: l.Thou || l.MarkedIn != nil}, Missing: l.Missing}
		if l.Measured != nil {
			item.Measured = leafLength(*l.Measured, at+".measured_mm", &faults)
		}
		items = append(items, item)
	}
	return items, append(faults, leafFaults(items)...)
}

// leafFaults is what is wrong with the leaves of a set, each at its place.
func leafFaults(items []gauge.Item) (faults []compute.Fault) {
	for _, f := range gauge.Check(items) {
		at := "body.leaves"
		if f.Index >= 0 {
			at = fmt.Sprintf("body.leaves[%d].%s", f.Index, f.Field)
		}
		faults = append(faults, compute.Fault{Location: at, Message: f.Message})
	}
	return faults
}

// setFaults is what is wrong with a stored set: one of an earlier version may hold what is not taken any more.
func setFaults(set store.GaugeSet) (faults []compute.Fault) {
	for _, f := range leafFaults(set.Items) {
		faults = append(faults, compute.Fault{Location: "body.gauge_set_id", Value: set.ID, Message: set.Name + ": " + f.Message})
	}
	return faults
}

// markedLength reads a leaf's marking in whichever unit it is given.
func markedLength(l Leaf, at string, faults *[]compute.Fault) measure.Length {
	if l.MarkedIn == nil {
		return leafLength(l.Marked, at+".marked_mm", faults)
	}
	marked, err := measure.ParseInches(strconv.FormatFloat(*l.MarkedIn, 'f', -1, 64))
	if err != nil {
		*faults = append(*faults, compute.Fault{Location: at + ".marked_in", Value: *l.MarkedIn,
			Message: fmt.Sprintf("%v in cannot be read exactly: give at most six decimal places.", *l.MarkedIn)})
	}
	return marked
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
