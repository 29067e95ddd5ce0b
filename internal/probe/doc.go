// Package probe speaks the line protocol of docs/probe.md: an outside device tells the engine's temperature
// and that of its surroundings over TCP. NewReader listens to one, by the package line; Simulated is one.
package probe
