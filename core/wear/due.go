package wear

import (
	"math"
	"time"

	"metronix/core/measure"
)

// Due is when the next job is due, and why: what the counter shows then, km or running hours, NaN where that
// is not known, and the day, the zero time likewise.
type Due struct {
	Meter float64
	Date  time.Time
	Cause Cause
}

// History is what is known of a vehicle: what its finished jobs tell, and after how long its makers want it
// back.
type History struct {
	By        measure.Counter // what counts how far it runs
	Visits    []Visit         // those that wear is reckoned from, in the order of distance and time
	Intervals []Interval
	Finished  []Finished // every finished job, oldest first
}

// Finished is how a finished job left an engine.
type Finished struct {
	At     time.Time
	PutOff time.Time // the day until which a valve, or the whole job, was put off; the zero time: none
	Left   []LeftOut // the valves that it left out of their limits
}

// LeftOut is a valve that was left out of its limits, and on which side.
type LeftOut struct {
	Valve string
	Side  Side
}

// Reckon gives the wear of its valves, as [Reckon] does with the shortest of its intervals, and when it is
// due by all that is known of it: the first valve to leave its limits, how far, how long, what the last job
// left, and what falls due once.
//
// A run becomes a day by how far the vehicle goes; the earliest day decides (common practice: whichever
// comes first), and where no day is known, a counter.
func (h History) Reckon() (Forecast, error) {
	every := Shortest(h.Intervals)
	every.By = h.By
	f, err := Reckon(h.Visits, every)
	if err != nil {
		return f, err
	}
	f.Due = h.once(h.putOff(h.byDay(f.Due)))
	f.Due.Cause.By = h.By
	return f, nil
}

// byDay turns the counter of what is due into a day, where that comes before the day that is known.
func (h History) byDay(due Due) Due {
	if by := h.reached(due.Meter); !by.IsZero() && (due.Date.IsZero() || by.Before(due.Date)) {
		due.Date = by
	}
	return due
}

// reached is the day on which a counter is reached, at the vehicle's pace; the zero time: nobody knows.
func (h History) reached(meter float64) time.Time {
	if len(h.Visits) == 0 {
		return time.Time{}
	}
	return On(h.Visits[len(h.Visits)-1], meter, PerDay(h.Visits))
}

// putOff keeps a vehicle due whose last job left a valve out of its limits, or was itself put off: from the
// day that was named, else from that job on.
func (h History) putOff(due Due) Due {
	if len(h.Finished) == 0 {
		return due
	}
	last := h.Finished[len(h.Finished)-1]
	if len(last.Left) == 0 && last.PutOff.IsZero() {
		return due
	}
	on := last.PutOff
	if on.IsZero() {
		on = last.At
	}
	if due.Date.IsZero() || earlier(on, due.Date) {
		due.Date, due.Cause = on, Cause{Kind: PutOff}
		if len(last.Left) > 0 {
			due.Cause = Cause{Kind: Left, Left: last.Left}
		}
	}
	return due
}

// once is when a vehicle is due where something that falls due once comes before: after a new cam.
func (h History) once(due Due) Due {
	var finished []time.Time
	for _, f := range h.Finished {
		finished = append(finished, f.At)
	}
	for _, i := range h.Intervals {
		o, is := i.once()
		if !is {
			continue
		}
		on, meter, ok := o.Due(finished)
		if !ok {
			continue
		}
		one := Due{Meter: meter, Date: on, Cause: o.Cause()}
		one = h.byDay(one)
		nothing := due.Date.IsZero() && math.IsNaN(due.Meter)
		if nothing || !one.Date.IsZero() && (due.Date.IsZero() || earlier(one.Date, due.Date)) {
			due = one
		}
	}
	return due
}

// earlier says that a day lies before another: when of the day does not matter.
func earlier(a, b time.Time) bool { return a.Format(time.DateOnly) < b.Format(time.DateOnly) }

// due is the earliest of the first valve leaving its window, the interval by running and that by time.
//
// Whichever comes first, as every maker's table says. What decided is told with it, so that a foreman sees
// whether the calendar or a valve calls the vehicle in.
func due(valves []Valve, last Visit, every Every) Due {
	d := Due{Meter: math.NaN(), Cause: Cause{Kind: Unknown}}
	if every.Run > 0 {
		d.Meter, d.Cause.Kind, d.Cause.Run = last.Meter+every.Run, Distance, every.Run
	}
	for _, v := range valves {
		if v.Side == None || v.Leaves >= d.Meter {
			continue
		}
		d.Meter, d.Cause = v.Leaves, Cause{Kind: Leaves, Valve: v.Valve, Side: v.Side}
		if v.Out {
			d.Cause.Kind = WasOut
		}
	}
	if every.Months > 0 && !last.Date.IsZero() {
		d.Date, d.Cause.Months = MonthsOn(last.Date, every.Months), every.Months
		if math.IsNaN(d.Meter) {
			d.Cause.Kind = Time
		}
	}
	d.Cause.By = every.By
	return d
}
