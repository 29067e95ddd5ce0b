package wire

import "strings"

// Cell makes a cell of a CSV text where a spreadsheet would run it as a formula (common practice: what begins
// with = + - @, a tab or a return): an apostrophe leads it.
func Cell(text string) string {
	if text != "" && strings.ContainsRune("=+-@\t\r", rune(text[0])) {
		return "'" + text
	}
	return text
}
