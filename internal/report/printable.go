package report

import (
	"slices"
	"strings"

	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
	"golang.org/x/image/font/sfnt"
)

// standIn stands, to be seen, for what the embedded fonts do not have.
const standIn = '\uFFFD'

// beyond says that a sheet holds characters that the fonts do not have, and where the whole text is.
const beyond = "Characters that this print does not have stand as " + string(standIn) +
	": the whole text is in the CSV and JSON files of this job."

// fonts are those that are embedded: Latin, Greek and Cyrillic. They are asked themselves what they have.
var fonts = func() (list []*sfnt.Font) {
	for _, ttf := range [][]byte{goregular.TTF, gobold.TTF} {
		f, err := sfnt.Parse(ttf)
		if err != nil {
			panic(err) // they are part of the program
		}
		list = append(list, f)
	}
	return list
}()

// prints says whether every embedded font has a character. What no plain TrueType table reaches, above
// U+FFFF, none has.
func prints(r rune) bool {
	if r < ' ' {
		return r == '\n' || r == '\t'
	}
	var b sfnt.Buffer
	return r <= 0xFFFF && !slices.ContainsFunc(fonts, func(f *sfnt.Font) bool {
		glyph, err := f.GlyphIndex(&b, r)
		return err != nil || glyph == 0
	})
}

// printable is a text as it is printed: no print fails on a character.
func printable(text string) string {
	return strings.Map(func(r rune) rune {
		if prints(r) {
			return r
		}
		return standIn
	}, text)
}

// The page prints nothing but what is printable, and remembers whether something was not.

func (p *page) say(text string) string {
	said := printable(text)
	p.lacked = p.lacked || said != text && text != ""
	return said
}

// MultiCell is that of the page below, in what can be printed.
func (p *page) MultiCell(w, h float64, text, border, align string, fill bool) {
	p.Fpdf.MultiCell(w, h, p.say(text), border, align, fill)
}

// CellFormat is that of the page below, in what can be printed.
func (p *page) CellFormat(w, h float64, text, border string, ln int, align string, fill bool, link int,
	address string) {
	p.Fpdf.CellFormat(w, h, p.say(text), border, ln, align, fill, link, address)
}

// SplitText is that of the page below, of what can be printed.
func (p *page) SplitText(text string, w float64) []string { return p.Fpdf.SplitText(p.say(text), w) }
