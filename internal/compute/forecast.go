package compute

import (
	"fmt"
	"time"

	"metronix/core/measure"
	"metronix/core/wear"
	"metronix/internal/wire"
)

// visitValve is one valve at one visit: what it was found at and left at, mm, each with its standard
// uncertainty, and the limits that held then. A gap known by a side alone is null, and then tells no rate.
type visitValve struct {
	Valve  string   `json:"valve"`
	Found  *wire.MM `json:"found_mm" nullable:"true" doc:"null: not as a figure"`
	Left   *wire.MM `json:"left_mm" nullable:"true" doc:"null: not as a figure"`
	FoundU *wire.MM `json:"found_u_mm,omitempty" doc:"standard uncertainty of found_mm; left out: 0.004"`
	LeftU  *wire.MM `json:"left_u_mm,omitempty" doc:"standard uncertainty of left_mm; left out: 0.004"`
	Lower  wire.MM  `json:"lower_mm"`
	Upper  wire.MM  `json:"upper_mm"`
}

// visit is one finished job of a vehicle: what its counter showed, the day, and its valves.
type visit struct {
	OdometerKM *float64     `json:"odometer_km,omitempty" doc:"or hours; the same in all visits"`
	Hours      *float64     `json:"hours,omitempty" doc:"running hours, in place of odometer_km"`
	Date       string       `json:"date"`
	Valves     []visitValve `json:"valves"`
}

// forecastRequest asks when clearances leave their limits: visits in any order, at most mostGaps valves over
// all of them, and the interval that is due besides.
type forecastRequest struct {
	Visits         []visit  `json:"visits"`
	IntervalKM     *float64 `json:"interval_km,omitempty"`
	IntervalHours  *float64 `json:"interval_hours,omitempty" doc:"with hours; interval_km with odometer_km"`
	IntervalMonths *int     `json:"interval_months,omitempty"`
}

// wearOf is how one valve wears: its rate, fitted through what each visit left and the next one found, so
// that setting is not taken for wear; when it leaves its limits, and on which side. The figures are by km or
// by hours, as the visits are, and those of the other counter are absent.
type wearOf struct {
	Valve   string     `json:"valve"`
	Rate    **float64  `json:"rate_mm_per_1000km,omitempty" nullable:"true"`
	RateH   **float64  `json:"rate_mm_per_1000h,omitempty" nullable:"true"`
	Leaves  **float64  `json:"leaves_window_at_km,omitempty" nullable:"true"`
	LeavesH **float64  `json:"leaves_window_at_h,omitempty" nullable:"true"`
	Side    string     `json:"side"`
	RateU   **float64  `json:"rate_u_mm_per_1000km,omitempty" nullable:"true" doc:"its standard uncertainty"`
	RateUH  **float64  `json:"rate_u_mm_per_1000h,omitempty" nullable:"true" doc:"its standard uncertainty"`
	Differs bool       `json:"differs" doc:"the rate is more than readings of a valve that stands still would show"`
	Range   *fromUntil `json:"range_km,omitempty" doc:"the earliest and the latest at which it leaves, at either end of the rate's 90 % interval; null: never"`
	RangeH  *fromUntil `json:"range_h,omitempty" doc:"the same by hours"`
}

// fromUntil is the earliest and the latest; null: never.
type fromUntil [2]*float64

// dueAt is the earliest of intervals and valves, and which of them it was.
type dueAt struct {
	OdometerKM *float64 `json:"odometer_km,omitempty"`
	Hours      *float64 `json:"hours,omitempty"`
	Date       string   `json:"date,omitempty"`
	Because    string   `json:"because"`
}

// forecastResponse is the wear of every valve, and what comes first.
type forecastResponse struct {
	Valves []wearOf `json:"valves"`
	Due    dueAt    `json:"due"`
}

// mostGaps bounds what is reckoned at once: sixty visits of an engine with forty-eight valves.
const mostGaps = 48 * 60

// forecast hands visits to core/wear, which owns the reckoning; here they are only read, and refused with
// their places.
func forecast(q forecastRequest) (forecastResponse, *wire.Problem) {
	var faults wire.Faults
	gaps := 0
	for _, v := range q.Visits {
		gaps += len(v.Valves)
	}
	if gaps > mostGaps {
		return forecastResponse{}, wire.Refused(wire.Fault{Location: "visits", Value: gaps,
			Message: fmt.Sprintf("%d valves over all visits: at most %d are reckoned at once. Leave out "+
				"the oldest visits.", gaps, mostGaps)})
	}
	every := wear.Every{By: q.counter()}
	visits := make([]wear.Visit, len(q.Visits))
	for i, v := range q.Visits {
		visits[i] = readVisit(v, every.By, fmt.Sprintf("visits[%d]", i), &faults)
	}
	q.readEvery(&every, &faults)
	if len(faults) > 0 {
		return forecastResponse{}, wire.Refused(faults...)
	}
	f, err := wear.Reckon(visits, every)
	if err != nil {
		return forecastResponse{}, wire.Refused(wire.Fault{Location: "visits", Message: wire.Sentence(err)})
	}
	hours := every.By == measure.HourMeter
	r := forecastResponse{Valves: []wearOf{}, Due: dueAt{Because: f.Due.Cause.String()}}
	if hours {
		r.Due.Hours = number(f.Due.Meter)
	} else {
		r.Due.OdometerKM = number(f.Due.Meter)
	}
	if !f.Due.Date.IsZero() {
		r.Due.Date = f.Due.Date.Format(time.DateOnly)
	}
	for _, v := range f.Valves {
		w := wearOf{Valve: v.Valve, Side: string(v.Side), Differs: v.Differs}
		rate, rateU, leaves, between := number(v.Rate), number(v.RateU), number(v.Leaves), rangeOf(v.Range)
		if hours {
			w.RateH, w.RateUH, w.LeavesH, w.RangeH = &rate, &rateU, &leaves, between
		} else {
			w.Rate, w.RateU, w.Leaves, w.Range = &rate, &rateU, &leaves, between
		}
		r.Valves = append(r.Valves, w)
	}
	return r, nil
}

// counter is what the visits of a request are counted by: hours where the first of them says so, or where an
// interval in hours stands without any.
func (q forecastRequest) counter() measure.Counter {
	if len(q.Visits) > 0 && q.Visits[0].Hours != nil || len(q.Visits) == 0 && q.IntervalHours != nil {
		return measure.HourMeter
	}
	return measure.Odometer
}

// readEvery reads the intervals, and refuses one that is counted otherwise than the visits.
func (q forecastRequest) readEvery(every *wear.Every, faults *wire.Faults) {
	own, place, unit, other, otherPlace := q.IntervalKM, "interval_km", "km", q.IntervalHours, "interval_hours"
	if every.By == measure.HourMeter {
		own, place, unit, other, otherPlace = other, otherPlace, "h", own, place
	}
	if other != nil {
		faults.Add(otherPlace, *other, "The visits are counted in %s: give the interval as %s.",
			map[string]string{"km": "kilometres", "h": "running hours"}[unit], place)
	}
	if own != nil {
		if every.Run = *own; every.Run <= 0 || every.Run > 1e7 {
			faults.Add(place, every.Run, "An interval is above 0 %s.", unit)
		}
	}
	if q.IntervalMonths != nil {
		if every.Months = *q.IntervalMonths; every.Months < 1 || every.Months > 1200 {
			faults.Add("interval_months", every.Months, "An interval is 1 to 1200 months.")
		}
	}
}

// rangeOf is the earliest and the latest as they are sent; never is null.
func rangeOf(r *[2]float64) *fromUntil {
	if r == nil {
		return nil
	}
	return &fromUntil{number(r[0]), number(r[1])}
}

// readVisit reads one visit and says of each figure that cannot be where it stands.
func readVisit(v visit, by measure.Counter, at string, f *wire.Faults) wear.Visit {
	date, err := time.Parse(time.DateOnly, v.Date)
	if err != nil {
		f.Add(at+".date", v.Date, "A date is written 2026-03-31.")
	}
	own, other, place, otherPlace := v.OdometerKM, v.Hours, ".odometer_km", ".hours"
	if by == measure.HourMeter {
		own, other, place, otherPlace = other, own, otherPlace, place
	}
	out := wear.Visit{Date: date}
	switch {
	case other != nil:
		f.Add(at+otherPlace, *other, "Visits are counted in kilometres or in running hours, all of them alike: "+
			"the first visit has %s.", place[1:])
	case own == nil:
		f.Add(at+place, nil, "Say what its counter showed: odometer_km, or hours, as the first visit does.")
	case *own < 0 || *own > 1e8:
		f.Add(at+place, *own, "A counter stands at 0 or more.")
	default:
		out.Meter = *own
	}
	for i, w := range v.Valves {
		place := fmt.Sprintf("%s.valves[%d]", at, i)
		if w.Found != nil {
			gapFault(place+".found_mm", *w.Found, f)
		}
		if w.Left != nil {
			gapFault(place+".left_mm", *w.Left, f)
		}
		for name, u := range map[string]*wire.MM{"found_u_mm": w.FoundU, "left_u_mm": w.LeftU} {
			if u != nil && (*u < 0 || measure.Length(*u) > measure.Millimetre) {
				f.Add(place+"."+name, *u, "A standard uncertainty is 0 to 1 mm.")
			}
		}
		if w.Lower > w.Upper {
			f.Add(place+".lower_mm", w.Lower, "The lower limit is above the upper one. Are they swapped?")
		}
		out.Valves = append(out.Valves,
			wear.Found{Valve: w.Valve, Found: (*measure.Length)(w.Found), Left: (*measure.Length)(w.Left),
				FoundU: (*measure.Length)(w.FoundU), LeftU: (*measure.Length)(w.LeftU),
				Window: measure.Window{Lower: measure.Length(w.Lower), Upper: measure.Length(w.Upper)}})
	}
	return out
}
