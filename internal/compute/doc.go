// Package compute carries out the computations of the core for those who ask in JSON: one table of
// operations, served by the command line and over HTTP alike.
//
//	metronix compute NAME < request ──┐
//	                                  ├── operations ── decode strictly ── a function of this package
//	POST /api/v1/compute/NAME ────────┘                                         │
//	                                     answer, or a problem  ◀── the core's answer, in figures as sent
//
// A function here reads, refuses with a place what cannot be, calls the core once, and writes. It rounds
// nothing: figures keep the precision they were reckoned with, unlike those of a bench's view. Lists have a
// largest size each, because anybody may send them; TestNoAcceptedRequestIsDear holds what the largest may
// cost. Names of operations and fields are fixed: others test against them.
package compute
