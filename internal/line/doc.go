// Package line listens to outside devices that tell something over TCP, a line at a time: a temperature probe
// (docs/probe.md) and the instruments at an engine (docs/instruments.md).
//
//	device ── a greeting, then a line a value ──▶ Reader ── Ask ──▶ Status
//
// What all of them have in common stands here: where one may stand, how it is reached, when it counts as
// lost, and that it is tried again. What a line means is its Protocol's. A device is asked only while
// somebody looks, and only at an address that was allowed when the program was started: a workshop's page
// must not become a way to knock at other machines. What one tells is shown and fills fields; nothing of it
// is believed until the mechanic has confirmed it.
package line
