// Package instrument speaks the line protocol of docs/instruments.md: outside devices at an engine that tell
// a figure over TCP, listened to by the package line.
//
//	crank   an encoder on the crank: degrees as it counts them, growing in the running direction
//	dial    a dial indicator at the valve: millimetres, and one taken at its button
//	wrench  a torque wrench on the lock nut: newton metres, and a click
//	pull    a scale that pulls the leaf: newtons, and the greatest of a pull
//
// An encoder knows no top dead centre: where its zero lies follows from a place of the crank that the
// mechanic confirmed, and is gone when it jumps or is lost. Zero keeps that. Bench is a simulated instrument,
// whose hands are lines that are typed.
package instrument
