package wear

import (
	"fmt"
	"math"
	"time"

	"metronix/core/measure"
)

// Once is a check that falls due a single time: a few weeks after a new cam, when its lobes have run in and
// its followers have settled (common practice).
type Once struct {
	What   string    // "new cam"
	From   time.Time // when that was
	FromKM float64   // the odometer then; NaN: not known
	Weeks  int       // 0: none by time
	KM     float64   // 0: none by distance; it needs FromKM
}

// Due is on which day it falls due, the zero time where only a distance is given, and at which odometer, NaN
// where only a time is. ok is false once a job was finished after From: it was that check.
func (o Once) Due(finished []time.Time) (on time.Time, km float64, ok bool) {
	// The job that fitted the cam may have been finished on the same day: it is not the check.
	for _, at := range finished {
		if at.After(o.From) {
			return time.Time{}, math.NaN(), false
		}
	}
	if o.Weeks > 0 {
		on = o.From.AddDate(0, 0, 7*o.Weeks)
	}
	km = math.NaN()
	if o.KM > 0 {
		km = o.FromKM + o.KM
	}
	return on, km, !on.IsZero() || !math.IsNaN(km)
}

// Because says what it is due for: "4 weeks or 800 km (497 miles) after the new cam."
func (o Once) Because() string {
	weeks := fmt.Sprintf("%d weeks", o.Weeks)
	if o.Weeks == 1 {
		weeks = "1 week"
	}
	switch far := (measure.Units{}).Distance(o.KM); {
	case o.Weeks > 0 && o.KM > 0:
		return fmt.Sprintf("Once, %s or %s after the %s.", weeks, far, o.What)
	case o.KM > 0:
		return fmt.Sprintf("Once, %s after the %s.", far, o.What)
	}
	return fmt.Sprintf("Once, %s after the %s.", weeks, o.What)
}
