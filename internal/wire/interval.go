package wire

import (
	"fmt"
	"time"

	"metronix/core/wear"
)

// Interval is after how far or how long a vehicle is due, and who says so. Several may be in dispute: each is
// kept.
type Interval struct {
	KM     int    `json:"km" minimum:"0" maximum:"1000000" doc:"0: none by distance"`
	Months int    `json:"months" minimum:"0" maximum:"240" doc:"0: none by time"`
	Source string `json:"source" minLength:"1" maxLength:"100"`
	// a new cam: it is due a single time
	OnceFrom string `json:"once_from,omitempty" format:"date" doc:"due once only, counted from this day, such as after a new cam; the source says from what"`
	Weeks    int    `json:"weeks,omitempty" minimum:"0" maximum:"104" doc:"for once_from: after so many weeks"`
	FromKM   int    `json:"from_km,omitempty" minimum:"0" maximum:"9999999" doc:"for once_from: the odometer then; 0: not known"`
}

// CoreIntervals are intervals as the core knows them; it errs where the day of one is none.
func CoreIntervals(list []Interval) (out []wear.Interval, err error) {
	for _, i := range list {
		c := wear.Interval{KM: i.KM, Months: i.Months, Source: i.Source, Weeks: i.Weeks, FromKM: i.FromKM}
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
func IntervalsOf(list []wear.Interval) []Interval {
	out := []Interval{}
	for _, i := range list {
		w := Interval{KM: i.KM, Months: i.Months, Source: i.Source, Weeks: i.Weeks, FromKM: i.FromKM}
		if !i.OnceFrom.IsZero() {
			w.OnceFrom = i.OnceFrom.Format(time.DateOnly)
		}
		out = append(out, w)
	}
	return out
}
