// Package rehearse plays a job through before it is begun, to say what it will take.
//
//	sheet, sequence, round, check, valves that are out ── Play ──▶ steps, degrees, leaf changes, gestures
//	the times between a job's happenings ── PaceOf ──▶ Pace ── Forecast ──▶ when the last hot valve comes
//
// Nothing is estimated by a formula: a job is made and worked, act by act, by a mechanic who does what the
// bench says and reads each valve once with the leaf that is offered. So it costs what the bench costs, and
// where the bench grows better the rehearsal does too. Which gaps are out nobody knows beforehand: a valve
// that is not named as out is in.
package rehearse
