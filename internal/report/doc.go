// Package report writes the files that leave the program: a job's sheet as PDF and as CSV, a set of leaves as
// CSV, a class of learners as CSV, and what is due as a calendar.
//
//	core/record: facts, valves, lists ──▶ WriteJobPDF · WriteJobCSV
//	core/gauge: leaves               ◀──▶ ReadGaugeCSV · WriteGaugeCSV
//	who is due, and when              ──▶ DueCalendar (RFC 5545)
//
// The words are those that the screen shows: they come composed, and nothing is worded here but the heads of
// columns, which docs/formats.md lists. A PDF brings its fonts. A cell that a spreadsheet would take for a
// formula is led by an apostrophe.
package report
