package report_test

import (
	"bytes"
	"encoding/csv"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/ledongthuc/pdf"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/around"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/sequence"
	"metronix/internal/report"
	"metronix/internal/wire"
)

// update writes the files that are compared anew, to be looked at before they are committed.
var update = flag.Bool("update", false, "write the golden files anew")

const um = measure.Micrometre

var day = time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)

// signed is a job on a four, done and signed: E2 found tight and set, everything else in; with findings, a
// task skipped, and a correction.
func signed(t *testing.T) report.Job {
	t.Helper()
	text, err := os.ReadFile("../compute/testdata/four.engine.json")
	require.NoError(t, err)
	s, faults := wire.ReadSheet(text)
	require.Empty(t, faults)
	var owned gauge.Set
	for _, marked := range []measure.Length{200, 220, 240, 280, 300, 320} {
		owned = append(owned, gauge.Leaf{ID: gauge.ID{Marked: marked * um}})
	}
	j, err := job.New(job.Setup{Sheet: s, Card: s.Clearances[0], Owned: owned, Feel: 5 * um})
	require.NoError(t, err)
	n := 0
	do := func(act job.Act) {
		n++
		j, err = j.Take(job.Happening{ID: fmt.Sprint("h", n), At: day.Add(time.Duration(n) * time.Minute),
			Act: act})
		require.NoError(t, err, "%#v", act)
	}
	do(job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}, Round: job.Round{Going: job.SetAsYouGo,
		Check: job.CheckNone}})
	do(job.Prepared{EngineC: 19, AmbientC: 18})
	do(job.TakenIn{Complaints: []around.Complaint{around.RoughIdle}, Note: "=HYPERLINK(1)"})
	do(job.FindingNoted{Finding: around.Finding{ID: "f1", Place: "gasket", What: "hard", Part: "BR 16-204",
		Later: true}})
	do(job.TaskMarked{Task: "clean", Skip: true, Reason: "washed yesterday"})
	for _, task := range []string{"safe", "plugs", "cover_off"} {
		do(job.TaskMarked{Task: task})
	}
	for range 100 {
		next := j.Next()
		v, _ := j.Valve(next.Valve)
		switch next.Action {
		case job.DoTurn:
			do(job.Turned{Stop: next.Stop})
		case job.DoRead:
			gap := v.Limits.Nominal
			if next.Valve == "E2" && v.Adjustments == 0 {
				gap -= 40 * um
			}
			do(job.DialRead{Valve: next.Valve, Gap: gap, Uncertainty: 2 * um})
		case job.DoKeep:
			do(job.Kept{Valve: next.Valve})
		case job.DoAdjust:
			do(job.Adjusted{Valve: next.Valve})
		case job.DoLock:
			do(job.Locked{Valve: next.Valve, By: job.ByTorque})
		default:
			do(job.Signed{By: "Tess Ardal", ToolsOut: true, Exceptions: "towed home"})
			do(job.Amended{Text: "E3 was read by lamp light", By: "Tess Ardal"})
			do(job.Countersigned{By: "June Halloway"})
			return report.Job{
				State: j,
				Record: record.Record{ID: "job-0001", Vehicle: "Tipper 7", Plate: "=LM 407",
					Mechanic: "Tess Ardal", Gauges: "Oskar's set", Meter: 182_400, CreatedAt: day,
					Due: "1 Mar 2027, about 206400 km"},
			}
		}
	}
	t.Fatal("the job does not come to an end")
	return report.Job{}
}

// readElsewhere is the text of a PDF as another library reads it, its white space made single.
func readElsewhere(t *testing.T, file []byte) string {
	t.Helper()
	r, err := pdf.NewReader(bytes.NewReader(file), int64(len(file)))
	require.NoError(t, err)
	plain, err := r.GetPlainText()
	require.NoError(t, err)
	var text bytes.Buffer
	_, err = text.ReadFrom(plain)
	require.NoError(t, err)
	return strings.Join(strings.Fields(text.String()), " ")
}

// The text of the PDF, read by another library: everything that a customer has to see, in the order in which
// it is read, on both papers; the fonts are inside.
func TestThePDFIsReadElsewhere(t *testing.T) {
	for _, paper := range []report.Paper{report.A4, report.Letter} {
		var out bytes.Buffer
		require.NoError(t, report.WriteJobPDF(&out, signed(t), paper, day))
		assert.Contains(t, out.String(), "/FontFile2", "the fonts are embedded")
		assert.Contains(t, out.String(), "/Lang")
		says := readElsewhere(t, out.Bytes())
		at := 0
		for _, want := range []string{"Tipper 7", "Signed by Tess Ardal", "countersigned by June Halloway",
			"firing order 1-3-4-2",
			"maker's book", "engine 19 °C", "Oskar's set",
			"as the crank turns; set as you go, no check", "182,400 km (113,338 miles)", "rough idle",
			"1 Mar 2027", "As found", "E2",
			"0.26 tight", "0.30 in", "set, nut to its torque", "Findings",
			"gasket: hard, BR 16-204 (later)", "Exceptions",
			"skipped, washed yesterday", "Signed with steps left: towed home", "Added after signing",
			"E3 was read by lamp light"} {
			i := strings.Index(strings.ReplaceAll(says[at:], "  ", " "), want)
			if !assert.GreaterOrEqual(t, i, 0, "%q after %d in %s", want, at, says) {
				break
			}
			at += i
		}
	}
}

// The CSV re-read: a line a valve, figures exact, and no cell a formula.
func TestTheCSVIsReadElsewhere(t *testing.T) {
	var out bytes.Buffer
	require.NoError(t, report.WriteJobCSV(&out, signed(t)))
	// a spreadsheet library reads it beside the front end's tests
	golden := filepath.Join("testdata", "job.csv")
	if *update {
		require.NoError(t, os.WriteFile(golden, out.Bytes(), 0o644))
	}
	want, err := os.ReadFile(golden)
	require.NoError(t, err)
	require.Equal(t, string(want), out.String())
	rows, err := csv.NewReader(&out).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 9)
	cell := func(row int, column string) string {
		for i, name := range rows[0] {
			if name == column {
				return rows[row][i]
			}
		}
		t.Fatalf("there is no column %s", column)
		return ""
	}
	byValve := map[string]int{}
	for i := range rows[1:] {
		byValve[cell(i+1, "valve")] = i + 1
		for _, c := range rows[i+1] {
			assert.NotRegexp(t, "^[=+@-]", c, "%q would be run", c)
		}
	}
	e2 := byValve["E2"]
	assert.Equal(t, "'=LM 407", cell(e2, "plate"))
	assert.Equal(t, []string{"0.26", "tight", "0.3", "in", "1"},
		[]string{cell(e2, "found_mm"), cell(e2, "found"),
			cell(e2, "left_mm"), cell(e2, "left"), cell(e2, "times_set")})
	assert.Equal(t, []string{"0.28", "0.32"}, []string{cell(e2, "lower_mm"), cell(e2, "upper_mm")})
	signedAt, err := time.Parse(time.RFC3339, cell(e2, "signed_at"))
	require.NoError(t, err)
	assert.True(t, signedAt.After(day))
	assert.Equal(t, string(clearance.Cold), cell(e2, "state"))
	s := record.Of(signed(t).State) // what the screen shows and the PDF prints, word for word
	v, _ := s.Valve("E2")
	assert.Equal(t, []string{s.Done(v), s.Walk(), s.Warmth()},
		[]string{cell(e2, "done"), cell(e2, "gone_round"), cell(e2, "warmth")})
}

// What begins so is run by a spreadsheet (common practice).
func TestACellIsNoFormula(t *testing.T) {
	for _, text := range []string{"=1+1", "+1", "-AAAAAAA", "@SUM(A1)", "\tx", "\rx"} {
		assert.Equal(t, "'"+text, wire.Cell(text))
	}
	for _, text := range []string{"", "E1", "0.30", "a=b"} {
		assert.Equal(t, text, wire.Cell(text))
	}
}

// A job that is not signed says so, and one by one leaf tells a side and no figure.
func TestAReportBeforeTheEnd(t *testing.T) {
	j := signed(t)
	fresh, err := job.New(j.State.Setup)
	require.NoError(t, err)
	j.State = fresh
	var out bytes.Buffer
	require.NoError(t, report.WriteJobPDF(&out, j, report.A4, day))
	says := readElsewhere(t, out.Bytes())
	assert.Contains(t, says, "NOT SIGNED YET")
	assert.Contains(t, says, "not chosen")
}

// No print fails on a character: Latin, Greek and Cyrillic are printed, what the fonts lack is seen to be
// lacking, and the sheet says where the whole text is.
func TestThePDFTakesEveryCharacter(t *testing.T) {
	j := signed(t)
	j.Vehicle, j.Plate, j.Mechanic = "Łódź Ωμέγα Тягач", "😀𝕏", "שלום مرحبا 東京\u0000"
	j.State.SignedBy = "Ørjan 🧰"
	read := func() string {
		var out bytes.Buffer
		require.NoError(t, report.WriteJobPDF(&out, j, report.A4, day))
		return readElsewhere(t, out.Bytes())
	}
	says := read()
	seen := func(text string) string { // the reader knows the lower byte of a character alone
		return strings.Map(func(r rune) rune { return r & 0xFF }, text)
	}
	for _, want := range []string{"Łódź", "Тягач \uFFFD\uFFFD", "Signed by Ørjan \uFFFD",
		"CSV and JSON files of this job"} {
		assert.Contains(t, says, seen(want))
	}
	j = signed(t)
	assert.NotContains(t, read(), "CSV and JSON files", "nothing is lacking")
}

// What docs/formats.md says the columns are is what the file has.
func TestTheColumnsAreThoseOfTheDocs(t *testing.T) {
	text, err := os.ReadFile("../../docs/formats.md")
	require.NoError(t, err)
	var out bytes.Buffer
	require.NoError(t, report.WriteJobCSV(&out, signed(t)))
	header, _, _ := strings.Cut(out.String(), "\n")
	require.Contains(t, string(text), "`"+strings.TrimSpace(header)+"`")
}
