// Package wire holds every JSON shape that is sent, stored or written to a file, each declared once:
// quantities, engine sheet, leaf, sighting, plan, judgement, happening, problem. The HTTP interface, the
// command line, the store and the front end's generated types all come from here.
//
// Reading is strict and exact. A number of millimetres, inches or degrees is read from its text, never by way
// of a float, so that 0.22 is 220,000 nanometres and nothing else. A field that is not known, given twice,
// missing or of the wrong type is a fault with its place; all faults are found at once. A field tagged
// omitempty, or required:"false", may be left out, and every other is required. Limits stated in tags
// (minimum, maxLength, enum …) are those of the published schema, and hold too.
//
// Types that stand for something of the core have a method Core, and a function …Of for the way back.
package wire
