// Package demo loads a made-up workshop through the same doors that a user has: engines, sets and vehicles
// are put, jobs are started and worked reading by reading, each at an hour of its own, until they stand where
// a screen has something to show. Every name and figure in it is invented.
//
//	scenario.go   who and what: the vehicles, the sets, each job's true gaps and where it stops
//	load.go       the hands: they do what the bench asks for, and read by those gaps
//	engines/      the sheets
//
// It is also a second look at the whole program: where the bench asks for something that the hands do not
// know, loading fails.
package demo
