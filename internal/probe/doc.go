// Package probe speaks the line protocol of docs/probe.md: an outside device tells the engine's temperature
// and that of its surroundings over TCP. Reader listens to one; Simulate is one.
//
//	probe ── a greeting, then a line a reading ──▶ Reader ── Ask ──▶ Status
//
// A probe is asked only while somebody looks, and only at an address that was allowed when the program was
// started: a workshop's page must not become a way to knock at other machines. What it says fills a field, and
// the mechanic confirms it; a loss is told, and temperatures are typed meanwhile.
package probe
