package report

import (
	"bytes"
	"fmt"
	"io"
	"strings"
	"time"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"

	"metronix/core/record"
)

// Paper is the size of a printed report.
type Paper string

// ISO 216 A4, and North American letter.
const (
	A4     Paper = "A4"
	Letter Paper = "Letter"
)

// Millimetres on the page.
const (
	margin   = 15.0
	lineHigh = 5.0
	smallest = 8.5
	bodySize = 9.5
)

// page is a report as it is written down the pages.
type page struct {
	*fpdf.Fpdf
	width  float64 // between the margins
	lacked bool    // something stands in for characters that the fonts do not have
}

// WriteJobPDF prints a job: who signed, what it was done by, the valves as found and as left where they stand
// on the engine, the table, findings, parts, exceptions and corrections. Fonts are embedded, and the text
// stands in the order in which it is read. printed is when it is printed.
func WriteJobPDF(w io.Writer, j Job, paper Paper, printed time.Time) error {
	sheet := record.Of(j.State).Report(j.Record)
	p := &page{Fpdf: fpdf.New("P", "mm", string(paper), "")}
	p.AddUTF8FontFromBytes("go", "", goregular.TTF)
	p.AddUTF8FontFromBytes("go", "B", gobold.TTF)
	p.SetTitle(printable(sheet.Title), true)
	p.SetAuthor(printable(j.State.SignedBy), true)
	p.SetCreator("Metronix", true)
	p.SetLang("en")
	p.SetCreationDate(printed)
	p.SetModificationDate(printed)
	p.SetMargins(margin, margin, margin)
	p.SetAutoPageBreak(true, margin+5)
	p.AliasNbPages("")
	p.SetFooterFunc(func() {
		p.SetY(-margin)
		p.font("", smallest)
		p.CellFormat(
			0,
			lineHigh,
			fmt.Sprintf(
				"%s · printed %s · page %d of {nb}",
				sheet.Title,
				stamp(printed),
				p.PageNo(),
			),
			"",
			0,
			"C",
			false,
			0,
			"",
		)
	})
	p.AddPage()
	wide, _ := p.GetPageSize()
	p.width = wide - 2*margin

	p.font("B", 17)
	p.MultiCell(0, 8, sheet.Title, "", "L", false)
	p.font("B", 11)
	p.MultiCell(0, 6, sheet.Seal, "", "L", false)
	p.Ln(1)
	p.font("", 12.5) // the one sentence
	p.MultiCell(0, 6.5, sheet.Found, "", "L", false)
	p.Ln(2)
	for _, f := range sheet.Facts {
		p.fact(f)
	}
	p.Ln(3)
	p.head(j.State, sheet)
	p.table(sheet)
	for _, l := range sheet.Lists {
		p.list(l)
	}
	p.photos(j)
	p.proof(j)
	p.Ln(3)
	p.font("", smallest)
	p.MultiCell(0, lineHigh, sheet.Caution, "", "L", false)
	if p.lacked {
		p.MultiCell(0, lineHigh, beyond, "", "L", false)
	}
	if sheet.Signed {
		p.tag(sheet)
	}
	return p.Output(w)
}

// font chooses weight and size of the one family that is embedded.
func (p *page) font(style string, size float64) { p.SetFont("go", style, size) }

// fact is a line of the head: what it is, and what is said.
func (p *page) fact(f record.Fact) {
	const label = 28.0
	p.font("B", bodySize)
	p.CellFormat(label, lineHigh, f.Label, "", 0, "L", false, 0, "")
	p.font("", bodySize)
	p.MultiCell(p.width-label, lineHigh, f.Text, "", "L", false)
}

// list is one of the lists below the valves.
func (p *page) list(l record.ReportList) {
	p.Ln(3)
	p.font("B", 11)
	p.MultiCell(0, 6, l.Title, "", "L", false)
	p.font("", bodySize)
	for _, item := range l.Items {
		p.MultiCell(0, lineHigh, "• "+item.Text, "", "L", false)
	}
}

// photos are the pictures of findings, two abreast, each with its words.
func (p *page) photos(j Job) {
	wide := (p.width - 6) / 2
	column, bottom := 0, p.GetY()
	for _, f := range j.State.Findings {
		data, ok := j.Photos[f.Photo]
		if !ok {
			continue
		}
		info := p.RegisterImageOptionsReader(f.Photo, fpdf.ImageOptions{ImageType: "JPG"},
			bytes.NewReader(data))
		high := wide * info.Height() / info.Width()
		if column == 0 {
			p.SetY(bottom + 4)
		}
		top := p.GetY()
		if _, page := p.GetPageSize(); top+high+lineHigh > page-margin-8 {
			p.AddPage()
			column, top = 0, p.GetY()
		}
		x := margin + float64(column)*(wide+6)
		p.ImageOptions(f.Photo, x, top, wide, high, false, fpdf.ImageOptions{ImageType: "JPG"}, 0, "")
		p.SetXY(x, top+high)
		p.font("", smallest)
		p.CellFormat(wide, lineHigh, f.Place+": "+f.What, "", 0, "L", false, 0, "")
		bottom = max(bottom, top+high+lineHigh)
		column = 1 - column
		p.SetXY(margin, top)
	}
	p.SetY(bottom)
}

func (p *page) table(sheet record.Report) {
	titles := []string{"Valve", "Limits", "As found", "As left", "What was done"}
	parts := []float64{0.13, 0.15, 0.2, 0.2, 0.32}
	if sheet.Cold {
		titles = []string{"Valve", "Limits", "Cold start", "As found hot", "As left hot", "What was done"}
		parts = []float64{0.12, 0.13, 0.16, 0.17, 0.17, 0.25}
	}
	p.cells(titles, parts, "B")
	for _, r := range sheet.Rows {
		cells := []string{r.Valve + " " + r.Kind, r.Limits, said(r.Found), said(r.Left), r.Done}
		if sheet.Cold {
			cells = []string{
				r.Valve + " " + r.Kind,
				r.Limits,
				said(r.Cold),
				said(r.Found),
				said(r.Left),
				r.Done,
			}
		}
		p.cells(cells, parts, "")
	}
}

// cells is one line of the table; a text that does not fit its column goes on below, and the line grows.
func (p *page) cells(texts []string, parts []float64, style string) {
	p.font(style, smallest)
	lines, most := make([][]string, len(texts)), 1
	for i, text := range texts {
		lines[i] = p.SplitText(strings.TrimSpace(text), parts[i]*p.width-2)
		most = max(most, len(lines[i]))
	}
	high := float64(most)*4.2 + 1
	if _, page := p.GetPageSize(); p.GetY()+high > page-margin-8 {
		p.AddPage()
		p.font(style, smallest)
	}
	x, y := p.GetX(), p.GetY()
	for i := range texts {
		for n, line := range lines[i] {
			p.SetXY(x, y+0.5+float64(n)*4.2)
			p.CellFormat(parts[i]*p.width, 4.2, line, "", 0, "L", false, 0, "")
		}
		x += parts[i] * p.width
	}
	p.SetXY(margin, y+high)
	p.Line(margin, y+high, margin+p.width, y+high)
}

// said is what is known of a gap, in words; a dash where nothing is.
func said(c *record.Cell) string {
	if c == nil {
		return "–"
	}
	return c.Said
}
