package report

import (
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/wire"
)

// gaugeColumns are the columns of a gauge set's file, in the order they are written. Only marked is a must.
var gaugeColumns = []string{"marked", "unit", "measured_mm", "shape", "state"}

// WriteGaugeCSV writes a set: one leaf a line; marked in the unit beside it (mm or in), measured in
// millimetres or empty, shape straight or angled, state here or missing.
func WriteGaugeCSV(w io.Writer, items []gauge.Item) error {
	out := csv.NewWriter(w)
	rows := [][]string{gaugeColumns}
	for _, i := range items {
		row := []string{i.Marked.Decimal(), "mm", "", "straight", "here"}
		if i.Thou {
			row[0], row[1] = i.Marked.DecimalInches(), "in"
		}
		if i.Measured > 0 {
			row[2] = i.Measured.Decimal()
		}
		if i.Angled {
			row[3] = "angled"
		}
		if i.Missing {
			row[4] = "missing"
		}
		rows = append(rows, row)
	}
	return out.WriteAll(rows)
}

// ReadGaugeCSV reads what WriteGaugeCSV writes, the columns in any order. Faults are located as "line 3,
// measured_mm".
func ReadGaugeCSV(r io.Reader) ([]gauge.Item, []wire.Fault) {
	in := csv.NewReader(r)
	in.TrimLeadingSpace = true
	head, err := in.Read()
	if err != nil {
		return nil, []wire.Fault{{Location: "line 1", Message: fmt.Sprintf("The file cannot be read: %v. "+
			"Its first line names the columns: %s.", err, strings.Join(gaugeColumns, ", "))}}
	}
	columns, faults := columnsOf(head)
	if len(faults) > 0 {
		return nil, faults
	}
	var items []gauge.Item
	var lines []int
	for len(faults) < 50 {
		record, err := in.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, append(faults, wire.Fault{Location: "file", Message: fmt.Sprintf("The file cannot "+
				"be read: %v.", err)})
		}
		line, _ := in.FieldPos(0)
		items, lines = append(items, gaugeItem(record, columns, line, &faults)), append(lines, line)
	}
	if len(items) == 0 || len(items) > 100 {
		faults = append(faults, wire.Fault{Location: "file", Message: fmt.Sprintf("%d leaves: a set holds "+
			"1 to 100.", len(items))})
	}
	if len(faults) == 0 {
		for _, f := range gauge.Check(items) {
			faults = append(faults, wire.Fault{Location: fmt.Sprintf("line %d, %s", lines[f.Index], f.Field),
				Message: f.Message})
		}
	}
	return items, faults
}

// columnsOf finds each known column in the first line.
func columnsOf(head []string) (map[string]int, []wire.Fault) {
	columns := map[string]int{}
	var faults []wire.Fault
	for i, name := range head {
		name = strings.ToLower(strings.TrimSpace(strings.TrimPrefix(name, "\ufeff")))
		if !slices.Contains(gaugeColumns, name) {
			faults = append(faults, wire.Fault{Location: fmt.Sprintf("line 1, column %d", i+1), Value: name,
				Message: fmt.Sprintf("There is no column of this name. There are: %s.",
					strings.Join(gaugeColumns, ", "))})
		}
		columns[name] = i
	}
	if _, ok := columns["marked"]; !ok {
		faults = append(faults, wire.Fault{Location: "line 1", Message: "The column marked is missing."})
	}
	return columns, faults
}

// gaugeItem reads a line of a set; each fault is placed by line and column.
func gaugeItem(record []string, columns map[string]int, line int, faults *[]wire.Fault) gauge.Item {
	field := func(name string) string {
		if i, ok := columns[name]; ok {
			return strings.TrimSpace(record[i])
		}
		return ""
	}
	fault := func(name, message string) {
		*faults = append(*faults,
			wire.Fault{Location: fmt.Sprintf("line %d, %s", line, name), Value: field(name),
				Message: message})
	}
	item := gauge.Item{}
	read := measure.ParseMillimetres
	switch strings.ToLower(field("unit")) {
	case "", "mm":
	case "in", "inch":
		read, item.Thou = measure.ParseInches, true
	case "thou":
		read, item.Thou = parseThou, true
	default:
		fault("unit", "A unit is mm, in or thou.")
	}
	var err error
	if item.Marked, err = read(field("marked")); err != nil {
		fault("marked", sentence(err))
	}
	if text := field("measured_mm"); text != "" {
		if item.Measured, err = measure.ParseMillimetres(text); err != nil {
			fault("measured_mm", sentence(err))
		} else if item.Measured <= 0 {
			fault("measured_mm", "A leaf is thicker than nothing. Leave the field empty where no "+
				"micrometer has been on it.")
		}
	}
	item.Angled = oneOf(field("shape"), "straight", "angled",
		func() { fault("shape", "A leaf is straight or angled.") })
	item.Missing = oneOf(field("state"), "here", "missing",
		func() { fault("state", "A leaf is here or missing.") })
	return item
}

// parseThou reads thousandths of an inch, exactly.
func parseThou(text string) (measure.Length, error) {
	l, err := measure.ParseInches(text + "e-3")
	if err != nil {
		return 0, fmt.Errorf("%q: %w", text, measure.ErrNotANumber)
	}
	return l, nil
}

// oneOf says whether a word is the second of two; empty stands for the first.
func oneOf(got, no, yes string, wrong func()) bool {
	switch strings.ToLower(got) {
	case "", no:
		return false
	case yes:
		return true
	}
	wrong()
	return false
}

// sentence makes a fault of the cause of one.
func sentence(err error) string { return "This is " + err.Error() + "." }
