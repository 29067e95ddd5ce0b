package wear

import (
	"math"
	"time"
)

// Once is a check that falls due a single time: a few weeks after a new cam, when its lobes have run in and
// its followers have settled (common practice).
type Once struct {
	What      string    // "new cam"
	From      time.Time // when that was
	FromMeter float64   // what the counter showed then; NaN: not known
	Weeks     int       // 0: none by time
	Run       float64   // km or running hours; 0: none; it needs FromMeter
}

// Due is on which day it falls due, the zero time where only a run is given, and at what its counter shows,
// NaN where only a time is. ok is false once a job was finished after From: it was that check.
func (o Once) Due(finished []time.Time) (on time.Time, meter float64, ok bool) {
	// The job that fitted the cam may have been finished on the same day: it is not the check.
	for _, at := range finished {
		if at.After(o.From) {
			return time.Time{}, math.NaN(), false
		}
	}
	if o.Weeks > 0 {
		on = o.From.AddDate(0, 0, 7*o.Weeks)
	}
	meter = math.NaN()
	if o.Run > 0 {
		meter = o.FromMeter + o.Run
	}
	return on, meter, !on.IsZero() || !math.IsNaN(meter)
}

// Cause is what it is due for.
func (o Once) Cause() Cause { return Cause{Kind: OnceOnly, Run: o.Run, Weeks: o.Weeks, What: o.What} }
