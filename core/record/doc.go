// Package record is what is told of a job to those who were not there: its sheet, what its vehicle keeps of
// it, and what the board shows. It is composed here once, and printed, shown and written to files alike.
//
//	core/job ── Of ──▶ Report (facts, valves, lists) · Warmth · Walk · Done
//	                   Visit ──▶ History ──▶ core/wear
//	                   Glance ──▶ a row of the board
//
// Nothing that happens in a job follows from it. Visit and Glance are stored, and hold no words but what
// somebody wrote.
package record

import "metronix/core/job"

// Told is a job that is told of.
type Told struct{ *job.Job }

// Of tells of a job.
func Of(j *job.Job) Told { return Told{j} }
