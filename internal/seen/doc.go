// Package seen is a job as its screens see it: the shapes that go over the wire, and how they are made of
// what core/bench says. It knows neither HTTP nor the data file, so that the same state is made in the
// program and, compiled to WebAssembly by cmd/bench, beside the screen itself.
//
//	list of happenings ── core/job ── core/bench ──▶ StateOf ──▶ JobState
//	                                                  ▲
//	Opening: sheet, cards, leaves, list, what was learned, the shop's shims, units ── Open
//
// Nothing here asks the clock or the stock: both are told, so that every processor says the same.
package seen
