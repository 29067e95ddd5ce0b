package report

import (
	"encoding/csv"
	"io"
	"strconv"

	"metronix/core/practice"
	"metronix/internal/wire"
)

// Learner is how somebody comes on, as a line of the class.
type Learner struct {
	Name, Role                         string
	Runs, Correct, Valves, Clean       int // ended; valves that ended right, and of how many; runs with nothing to talk about
	DrillsRight, DrillsAsked, ItemsDue int
	SignedBy                           map[practice.Skill]string
}

// WriteLearnersCSV writes a class (RFC 4180), a line each: a column to each skill, with who signed it off.
func WriteLearnersCSV(w io.Writer, list []Learner) error {
	head := []string{
		"name",
		"role",
		"runs",
		"valves_right",
		"valves",
		"clean_runs",
		"drills_right",
		"drills_asked",
		"items_due",
	}
	for _, k := range practice.Skills() {
		head = append(head, "skill_"+string(k))
	}
	rows := [][]string{head}
	for _, p := range list {
		row := []string{p.Name, p.Role}
		for _, n := range []int{p.Runs, p.Correct, p.Valves, p.Clean, p.DrillsRight, p.DrillsAsked, p.ItemsDue} {
			row = append(row, strconv.Itoa(n))
		}
		for _, k := range practice.Skills() {
			row = append(row, p.SignedBy[k])
		}
		for i := range row {
			row[i] = wire.Cell(row[i])
		}
		rows = append(rows, row)
	}
	return csv.NewWriter(w).WriteAll(rows)
}
