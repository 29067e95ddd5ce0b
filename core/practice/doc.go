// Package practice is an engine to learn on: its gaps, its nuts' habit and where its crank stands are hidden,
// and hands find them out as they would on a real one. What is believed of it is a job like any other
// (core/job); how the two compare is said at the end, as a good mechanic would say it.
//
// Everything follows from the exercise and what was done: the same seed and the same acts give the same
// engine, leaf by leaf. Nothing of what is hidden is exported while a run lasts but by what a hand, an ear or
// an eye would know.
package practice
