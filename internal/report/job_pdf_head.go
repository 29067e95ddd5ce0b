package report

import (
	"fmt"

	"codeberg.org/go-pdf/fpdf"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/job"
	"metronix/core/record"
)

// Millimetres of the drawn head.
const (
	widestValve = 22.0
	tokenSize   = 4.0 // from the middle of a token to its edge
	rowHigh     = 25.0
	bankTitle   = 5.0
)

// head draws every valve where it stands, front on the left and as the screens have it: intakes round,
// exhausts with cut corners, the right row of a head above its left one; under each what it was found at and,
// in bold, what it was left at, each with the form of its verdict, never by colour alone.
func (p *page) head(j *job.Job, sheet record.Report) {
	p.font("", smallest)
	p.CellFormat(0, lineHigh, fmt.Sprintf("Front on the left. Under each valve: as found, then as left, in %s.", sheet.Unit),
		"", 1, "L", false, 0, "")
	for b, bank := range j.Sheet.Banks {
		rows := make([][]drawnValve, len(bank.Rows))
		most := 1
		for i, v := range j.Valves {
			if v.Bank == b {
				rows[v.Row] = append(rows[v.Row], drawnValve{v.Kind, sheet.Rows[i]})
				most = max(most, len(rows[v.Row]))
			}
		}
		if len(rows) > 1 && bank.Rows[0].Side == engine.Left {
			rows[0], rows[1] = rows[1], rows[0]
		}
		p.bank(bank.Name, rows, min(widestValve, p.width/float64(most)))
	}
	p.Ln(2)
}

// drawnValve is a valve as it is drawn: its kind, and what is known of it.
type drawnValve struct {
	kind engine.Kind
	row  record.ReportRow
}

// bank draws one head, its rows one above the other in a frame.
func (p *page) bank(name string, rows [][]drawnValve, wide float64) {
	high := rowHigh*float64(len(rows)) + bankTitle
	if _, page := p.GetPageSize(); p.GetY()+high > page-margin-8 {
		p.AddPage()
	}
	most := 0
	for _, row := range rows {
		most = max(most, len(row))
	}
	x, y := margin, p.GetY()
	p.SetLineWidth(0.25)
	p.RoundedRect(x, y, wide*float64(most), high-1, 3, "1234", "D")
	p.SetXY(x+2, y+0.5)
	p.font("", smallest)
	p.CellFormat(0, bankTitle, name, "", 0, "L", false, 0, "")
	for r, row := range rows {
		step := wide * float64(most) / float64(len(row))
		for i, v := range row {
			p.valve(v, x+(float64(i)+0.5)*step, y+bankTitle+float64(r)*rowHigh, step)
		}
	}
	p.SetXY(margin, y+high+1)
}

// valve draws one, about a place of the page: its token, and its two gaps below.
func (p *page) valve(v drawnValve, x, y, wide float64) {
	size := min(tokenSize, wide/2-0.5)
	at := y + tokenSize + 0.5
	p.SetLineWidth(0.4)
	if v.kind == engine.Intake {
		p.Circle(x, at, size, "D")
	} else {
		p.Polygon(octagon(x, at, size), "D")
	}
	p.SetXY(x-wide/2, at-2.5)
	p.font("B", min(8, size*2))
	p.CellFormat(wide, 5, v.row.Valve, "", 0, "C", false, 0, "")
	for i, c := range []*record.Cell{v.row.Found, v.row.Left} {
		style := []string{"", "B"}[i]
		top := y + 2*tokenSize + 1.5 + float64(i)*7
		p.font(style, min(7.5, wide*0.62))
		p.SetXY(x-wide/2, top)
		p.CellFormat(wide, 4, figure(c), "", 0, "C", false, 0, "")
		if c != nil {
			p.verdict(c.Verdict, x, top+5)
		}
	}
}

// figure is a gap in a drawing; its verdict stands below it.
func figure(c *record.Cell) string {
	if c == nil || c.Figure == "" {
		return "–"
	}
	return c.Figure
}

// octagon is the outline of a square with cut corners.
func octagon(x, y, r float64) []fpdf.PointType {
	c := r * 0.45
	return []fpdf.PointType{{X: x - r + c, Y: y - r}, {X: x + r - c, Y: y - r}, {X: x + r, Y: y - r + c},
		{X: x + r, Y: y + r - c}, {X: x + r - c, Y: y + r}, {X: x - r + c, Y: y + r}, {X: x - r, Y: y + r - c},
		{X: x - r, Y: y - r + c}}
}

// verdict draws the form of a verdict, as the screens do: wedges pressing a line, standing off a line, a
// closed pair, one wedge over a broken line.
func (p *page) verdict(v clearance.Verdict, x, y float64) {
	const unit = 0.09 // of the screens' drawing, in millimetres
	wedge := func(points ...float64) {
		list := make([]fpdf.PointType, 0, len(points)/2)
		for i := 0; i < len(points); i += 2 {
			list = append(list, fpdf.PointType{X: x + points[i]*unit, Y: y + points[i+1]*unit})
		}
		p.Polygon(list, "F")
	}
	line := func(x1, y1, x2, y2 float64) { p.Line(x+x1*unit, y+y1*unit, x+x2*unit, y+y2*unit) }
	p.SetFillColor(0, 0, 0)
	p.SetLineWidth(0.35)
	switch v {
	case clearance.Tight:
		wedge(-13, -14, 13, -14, 0, -3)
		wedge(-13, 14, 13, 14, 0, 3)
		line(-15, 0, 15, 0)
	case clearance.Loose:
		wedge(-9, -8, 9, -8, 0, -16)
		wedge(-9, 8, 9, 8, 0, 16)
		line(-15, 0, 15, 0)
	case clearance.In:
		line(-14, -5, 14, -5)
		line(-14, 5, 14, 5)
	case clearance.Undecided:
		wedge(-13, -12, 13, -12, 0, 1)
		line(-14, 9, -8, 9)
		line(-3, 9, 3, 9)
		line(8, 9, 14, 9)
	}
	p.SetLineWidth(0.2)
}

// tag is a strip to cut out and hang on the key: which vehicle, by whom and when, from when it may be
// started, and when it is due again.
func (p *page) tag(sheet record.Report) {
	const wide, high = 92.0, 34.0
	if _, page := p.GetPageSize(); p.GetY()+high+8 > page-margin-8 {
		p.AddPage()
	}
	p.Ln(4)
	x, y := margin, p.GetY()
	p.SetDashPattern([]float64{1.6, 1.2}, 0)
	p.RoundedRect(x, y, wide, high, 3, "1234", "D")
	p.Circle(x+wide-6, y+6, 2, "D")
	p.SetDashPattern([]float64{}, 0)
	p.SetXY(x+4, y+3)
	p.font("B", 12)
	p.CellFormat(wide-16, 6, p.fitted(sheet.Title, wide-16), "", 2, "L", false, 0, "")
	p.SetX(x + 4)
	p.font("", smallest)
	p.MultiCell(wide-8, 4.4, sheet.Seal, "", "L", false)
	for _, f := range sheet.Facts {
		if f.Label == record.NotBefore || f.Label == record.NextDue {
			p.SetX(x + 4)
			p.font("B", bodySize)
			p.MultiCell(wide-8, 4.8, f.Label+": "+f.Text, "", "L", false)
		}
	}
	p.SetXY(margin, y+high+2)
}

// fitted is as much of a text as fits a width.
func (p *page) fitted(text string, wide float64) string {
	for r := []rune(text); len(r) > 1; r = r[:len(r)-1] {
		if p.GetStringWidth(string(r)) <= wide {
			return string(r)
		}
	}
	return text
}
