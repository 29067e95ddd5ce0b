package report

import (
	"fmt"

	"metronix/internal/seal"
)

// How the seal stands on paper, mm: squares of 0.4 are read off a print by a telephone's camera (from
// memory).
const (
	square   = 0.4
	proofGap = 6.0
)

// proof is the workshop's seal: the code that carries what is sealed, and by which key it is checked. The
// file carries the same.
func (p *page) proof(j Job) {
	if j.Proof == "" {
		return
	}
	p.SetXmpMetadata(seal.Packed(j.Proof))
	squares, err := seal.Squares(j.Proof)
	if err != nil { // more than a code can hold: the file carries it all the same
		return
	}
	side := float64(len(squares)) * square
	p.Ln(4)
	if _, page := p.GetPageSize(); p.GetY()+side > page-margin-8 {
		p.AddPage()
	}
	left, top := margin, p.GetY()
	for y, row := range squares {
		for x, dark := range row {
			if dark {
				p.Rect(left+float64(x)*square, top+float64(y)*square, square, square, "F")
			}
		}
	}
	p.SetLeftMargin(left + side + proofGap)
	p.SetXY(left+side+proofGap, top)
	p.font("B", 11)
	p.MultiCell(0, 6, "Sealed by the workshop", "", "L", false)
	p.font("", bodySize)
	p.MultiCell(0, lineHigh, fmt.Sprintf("Key %s\n\nThe code carries each valve as it was left, who signed and when. A camera shows it; metronix "+
		"verify tells whether it, or this file, is what this key has sealed.", seal.Groups(j.Fingerprint)), "", "L", false)
	p.SetLeftMargin(margin)
	p.SetY(max(p.GetY(), top+side))
}
