package wire

import (
	"fmt"
	"time"

	"metronix/core/measure"
	"metronix/core/wear"
)

// Interval is after how far or how long a vehicle is due, and who says so. Several may be in dispute: each is
// kept.
type Interval struct {
	KM     int    `json:"km" minimum:"0" maximum:"1000000" doc:"0: none by distance"`
	Hours  int    `json:"hours,omitempty" minimum:"0" maximum:"1000000" doc:"of a vehicle that counts running hours, in place of km"`
	Months int    `json:"months" minimum:"0" maximum:"240" doc:"0: none by time"`
	Source string `json:"source" minLength:"1" maxLength:"100"`
	// a new cam: it is due a single time
	OnceFrom  string `json:"once_from,omitempty" format:"date" doc:"due once only, counted from this day, such as after a new cam; the source says from what"`
	Weeks     int    `json:"weeks,omitempty" minimum:"0" maximum:"104" doc:"for once_from: after so many weeks"`
	FromKM    int    `json:"from_km,omitempty" minimum:"0" maximum:"9999999" doc:"for once_from: what the counter showed then; 0: not known"`
	FromHours int    `json:"from_hours,omitempty" minimum:"0" maximum:"9999999" doc:"for once_from, of a vehicle that counts running hours"`
}

// CoreIntervals are intervals of a vehicle as the core knows them; it errs where the day of one is none, or
// one is by a counter that the vehicle does not have.
func CoreIntervals(list []Interval, by measure.Counter) (out []wear.Interval, err error) {
	for _, i := range list {
		c := wear.Interval{Months: i.Months, Source: i.Source, Weeks: i.Weeks}
		if c.Run, _, err = (Counted{i.KM, i.Hours}).Shown(by); err == nil {
			c.FromMeter, _, err = (Counted{i.FromKM, i.FromHours}).Shown(by)
		}
		if err != nil {
			return nil, fmt.Errorf("the interval of %s: %w", i.Source, err)
		}
		if i.OnceFrom != "" {
			if c.OnceFrom, err = time.Parse(time.DateOnly, i.OnceFrom); err != nil {
				return nil, fmt.Errorf(
					"the interval of %s is counted from %q, which is no day",
					i.Source,
					i.OnceFrom,
				)
			}
		}
		out = append(out, c)
	}
	return out, nil
}

// IntervalsOf writes intervals; the list is never null.
func IntervalsOf(list []wear.Interval, by measure.Counter) []Interval {
	out := []Interval{}
	for _, i := range list {
		run, from := CountedOf(by, i.Run), CountedOf(by, i.FromMeter)
		w := Interval{KM: run.OdometerKM, Hours: run.Hours, Months: i.Months, Source: i.Source, Weeks: i.Weeks,
			FromKM: from.OdometerKM, FromHours: from.Hours}
		if !i.OnceFrom.IsZero() {
			w.OnceFrom = i.OnceFrom.Format(time.DateOnly)
		}
		out = append(out, w)
	}
	return out
}
