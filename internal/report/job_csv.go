package report

import (
	"encoding/csv"
	"io"
	"strconv"
	"time"

	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/internal/wire"
)

// jobColumns are the columns of a job's file: one line a valve, each with what identifies its job.
var jobColumns = []string{"job", "vehicle", "plate", "engine", "odometer_km", "mechanic", "signed_by",
	"signed_at", "state",
	"source", "valve", "kind", "lower_mm", "upper_mm", "found_mm", "found", "left_mm",
	"left", "times_set", "shim_mm",
	"checked", "left_because", "cold_left_mm", "cold_left", "done", "gone_round", "warmth", "cold_warmth",
	"hours"}

// WriteJobCSV writes a job's valves (RFC 4180): figures in millimetres with a point, empty where a side only
// is known; verdicts tight, in, loose, undecided; times in UTC (RFC 3339). No cell is a formula: text that a
// spreadsheet would take for one is led by an apostrophe.
func WriteJobCSV(w io.Writer, j Job) error {
	out := csv.NewWriter(w)
	rows := [][]string{jobColumns}
	s, told := j.State, record.Of(j.State)
	signed, counted := "", wire.CountedOf(j.Counter, j.Meter)
	if !s.SignedAt.IsZero() {
		signed = s.SignedAt.UTC().Format(time.RFC3339)
	}
	for _, v := range s.Valves {
		cold, coldIs := resultCells(v.ColdLeft)
		found, foundIs := resultCells(v.AsFound)
		left, leftIs := resultCells(v.Last)
		row := []string{j.ID, j.Vehicle, j.Plate, s.Sheet.Called(), wire.Shown(counted.OdometerKM), j.Mechanic,
			s.SignedBy, signed,
			string(s.Card.State), s.Card.Source, v.Name, v.Kind.String(), v.Limits.Window.Lower.Decimal(),
			v.Limits.Window.Upper.Decimal(), found, foundIs, left, leftIs,
			strconv.Itoa(v.Adjustments), length(v.Shim),
			strconv.FormatBool(
				v.Verified,
			), v.LeaveReason, cold, coldIs, told.Done(v), told.Walk(), told.Warmth(),
			told.ColdWarmth(), wire.Shown(counted.Hours)}
		for i := range row {
			row[i] = wire.Cell(row[i])
		}
		rows = append(rows, row)
	}
	return out.WriteAll(rows)
}

// resultCells are a result's figure and verdict; a side alone has no figure.
func resultCells(r *job.Result) (mm, verdict string) {
	if r == nil {
		return "", ""
	}
	if e := r.Judgement.Estimate; e != nil {
		mm = e.Decimal()
	}
	return mm, string(r.Judgement.Verdict)
}

// length is a length in millimetres; 0 stands for none and is empty.
func length(l measure.Length) string {
	if l == 0 {
		return ""
	}
	return l.Decimal()
}
