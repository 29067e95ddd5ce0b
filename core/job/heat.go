package job

import (
	"fmt"
	"slices"
	"time"

	"metronix/core/around"
	"metronix/core/clearance"
	"metronix/core/measure"
	"metronix/core/thermal"
)

// Heat is the one thermal state of a job: how warm the engine is taken to be, by what, and until when.
//
// Every run of the engine begins a new epoch. The shut-off, the temperature gate and what is read belong to
// the epoch in which they were said or made, and count in no other: a gate that was passed before the engine
// ran says nothing of the engine now, a reading that waited to be sent is of the engine as it was, and the
// ten minutes of hot figures count from the shut-off of this run and no other.
type Heat struct {
	Prepared   bool      // the gate was passed, and was not shut since; see Job.GateOpen
	PreparedAt time.Time // when it was passed last
	StoppedAt  time.Time // when the engine was shut off, in this epoch; zero: not said
	EngineC    float64   // by the thermometer, as the gate was passed; only where neither judgement stands
	AmbientC   float64
	Judged     *JudgedCold // how it was judged cold without a thermometer; nil: it was not
	JudgedHot  *JudgedHot  // how it was judged hot without one; nil: it was not
	Override   string      // why the gate stands passed all the same; empty: it does not
	Overrides  []Override  // every time it was, in all passes
	// why the gate has to be passed again; empty: it was not passed yet, or stands passed
	Closed       string
	Temperatures []Temperature

	epoch    int       // how often the engine ran, as far as was said or follows
	ranAt    time.Time // when this epoch began: the engine ran up to here; zero: it did not in this job
	passedIn int       // the epoch in which the gate was passed last; −1: it never was
	putBack  bool      // the clock was put back since the engine's temperature was taken
}

// cold is the heat of a job before anything was said.
var cold = Heat{passedIn: -1}

// GateOpen says that the temperature gate stands passed for the engine as it is now: since it ran last.
func (j *Job) GateOpen() bool { return j.Prepared && j.passedIn == j.epoch }

// Measured says that the gate was passed last by a thermometer.
func (h Heat) Measured() bool { return h.passedIn >= 0 && h.Judged == nil && h.JudgedHot == nil }

// ran begins a new epoch: the engine ran, and was shut off then; zero: nobody said when. Where its crank
// stands is not known any more, and readings that were not kept are void.
func (j *Job) ran(stopped time.Time) {
	j.lose()
	j.epoch++
	j.ranAt, j.StoppedAt, j.putBack = j.now, stopped, false
	switch {
	case !j.Prepared:
	case j.Card.State == clearance.Hot:
		j.Closed = "The engine ran again. Say how warm it is now."
	default:
		j.Closed = "The engine ran. Let it cool, and judge its temperature again."
	}
}

// shut makes the gate to be passed again within this epoch, and says why.
func (j *Job) shut(why string) { j.Prepared, j.Closed = false, why }

// pass opens the gate of this epoch. Where nobody said that the engine ran since it was shut, that it is
// passed again says so: the epoch begins here.
func (j *Job) pass() {
	again := j.passedIn == j.epoch
	switch hot := j.Card.State == clearance.Hot; {
	case again && j.Closed != "", hot && j.StoppedAt.IsZero() && !(again && j.clockRuns()):
		j.ran(time.Time{})
	case hot && again && j.StoppedAt.IsZero():
		j.lose() // it may have run; the ten minutes go on from the first word
		j.Prepared, j.Closed = true, ""
		return
	}
	j.Prepared, j.PreparedAt, j.passedIn = true, j.now, j.epoch
	j.Judged, j.JudgedHot, j.Override, j.Closed, j.putBack = nil, nil, "", "", false
}

// overrides opens the gate for a reason; engineC is nil where nobody measured it.
func (j *Job) overrides(reason string, engineC *float64) {
	j.Override = reason
	j.Overrides = append(slices.Clone(j.Overrides), Override{reason, engineC, j.Cold != nil, j.now})
}

// stopSaid says that it was said when the engine was shut off, and the gate was not passed since.
func (j *Job) stopSaid() bool { return !j.StoppedAt.IsZero() && j.passedIn != j.epoch }

// clockRuns says that a gate that stands passed has its ten minutes.
func (j *Job) clockRuns() bool { return j.Prepared && j.Override == "" }

// HotUntil is until when hot readings hold: from when the engine was shut off, in this epoch, or from when
// the gate was passed where that was not said. ok is false for a cold card, an engine not warmed yet, and an
// overridden gate.
func (j *Job) HotUntil() (until time.Time, ok bool) {
	switch {
	case j.Card.State != clearance.Hot, j.GateOpen() && j.Override != "":
		return time.Time{}, false
	case !j.StoppedAt.IsZero():
		return j.StoppedAt.Add(HotFor), true
	}
	return j.PreparedAt.Add(HotFor), j.GateOpen()
}

// HotFor is how long hot figures hold.
const HotFor = time.Duration(thermal.HotMinutes * float64(time.Minute))

// stale says that a hot reading came too late. Where the clock was put back meanwhile, how long ago the
// engine was shut off is not known, and so it counts as too late.
func (j *Job) stale(at time.Time) bool {
	until, ok := j.HotUntil()
	return ok && (at.After(until) || j.putBack)
}

// tooLate refuses to pass the gate of hot figures once their ten minutes from the shut-off are over; nil
// where they are not, or where it was not said when the engine was shut off.
func (j *Job) tooLate(field string) error {
	if j.Card.State != clearance.Hot || j.StoppedAt.IsZero() || j.passedIn == j.epoch && j.Closed != "" ||
		!j.now.After(j.StoppedAt.Add(HotFor)) {
		return nil
	}
	return refuse(field, "It was shut off "+around.Minutes(j.now.Sub(j.StoppedAt).Truncate(time.Minute))+
		" ago, and hot figures hold for "+around.Minutes(HotFor)+". Run it warm again, and say when it stops.")
}

// warmAt is when the engine was last known to be warm: it ran, or a thermometer showed more than cold figures
// are good for. Zero: not in this job.
func (j *Job) warmAt() time.Time {
	at := j.ranAt
	for _, t := range j.Temperatures {
		if gate, ok := j.GateC(t.AmbientC); ok && t.EngineC > gate && t.At.After(at) {
			at = t.At
		}
	}
	return at
}

// soundTemperatures refuses what no thermometer here shows; most often the unit is the other one.
func soundTemperatures(engineC, ambientC float64, speaks measure.Units) error {
	for _, t := range []struct {
		field string
		c     float64
	}{{"engine_c", engineC}, {"ambient_c", ambientC}} {
		if !thermal.Possible(t.c) || t.c < minHereC {
			return refuse(t.field, fmt.Sprintf("%s is not a temperature of this job: %s to %s.",
				speaks.Temperature(t.c), speaks.Temperature(minHereC), speaks.Temperature(thermal.MaxC)))
		}
	}
	return nil
}

// minHereC is the coldest an engine or a workshop may be said to be, °C (from memory: below the coldest place
// where anybody works on engines a figure was mistyped).
const minHereC = -60.0
