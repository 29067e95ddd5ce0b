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

// visit is one finished job of a vehicle: the odometer, km, the day, and its valves.
type visit struct {
	OdometerKM float64      `json:"odometer_km"`
	Date       string       `json:"date"`
	Valves     []visitValve `json:"valves"`
}

// forecastRequest asks when clearances leave their limits: visits in any order, at most mostGaps valves over
// all of them, and the interval that is due besides.
type forecastRequest struct {
	Visits         []visit  `json:"visits"`
	IntervalKM     *float64 `json:"interval_km,omitempty"`
	IntervalMonths *int     `json:"interval_months,omitempty"`
}

// wearOf is how one valve wears: its rate, mm per 1,000 km, fitted through what each visit left and the next
// one found, so that setting is not taken for wear; when it leaves its limits, and on which side.
type wearOf struct {
	Valve   string       `json:"valve"`
	Rate    *float64     `json:"rate_mm_per_1000km"`
	Leaves  *float64     `json:"leaves_window_at_km"`
	Side    string       `json:"side"`
	RateU   *float64     `json:"rate_u_mm_per_1000km" doc:"its standard uncertainty"`
	Differs bool         `json:"differs" doc:"the rate is more than readings of a valve that stands still would show"`
	Range   *[2]*float64 `json:"range_km,omitempty" doc:"the earliest and the latest at which it leaves, at either end of the rate's 90 % interval; null: never"`
}

// dueAt is the earliest of intervals and valves, and which of them it was.
type dueAt struct {
	OdometerKM *float64 `json:"odometer_km,omitempty"`
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
	visits := make([]wear.Visit, len(q.Visits))
	for i, v := range q.Visits {
		visits[i] = readVisit(v, fmt.Sprintf("visits[%d]", i), &faults)
	}
	interval, months := 0.0, 0
	if q.IntervalKM != nil {
		if interval = *q.IntervalKM; interval <= 0 || interval > 1e7 {
			faults.Add("interval_km", interval, "An interval is above 0 km.")
		}
	}
	if q.IntervalMonths != nil {
		if months = *q.IntervalMonths; months < 1 || months > 1200 {
			faults.Add("interval_months", months, "An interval is 1 to 1200 months.")
		}
	}
	if len(faults) > 0 {
		return forecastResponse{}, wire.Refused(faults...)
	}
	f, err := wear.Reckon(visits, interval, months)
	if err != nil {
		return forecastResponse{}, wire.Refused(wire.Fault{Location: "visits", Message: wire.Sentence(err)})
	}
	r := forecastResponse{Valves: []wearOf{},
		Due: dueAt{OdometerKM: number(f.Due.OdometerKM), Because: f.Due.Cause.String()}}
	if !f.Due.Date.IsZero() {
		r.Due.Date = f.Due.Date.Format(time.DateOnly)
	}
	for _, v := range f.Valves {
		r.Valves = append(r.Valves,
			wearOf{v.Valve, number(v.Rate), number(v.Leaves), string(v.Side), number(v.RateU), v.Differs,
				rangeOf(v.Range)})
	}
	return r, nil
}

// rangeOf is the earliest and the latest as they are sent; never is null.
func rangeOf(r *[2]float64) *[2]*float64 {
	if r == nil {
		return nil
	}
	return &[2]*float64{number(r[0]), number(r[1])}
}

// readVisit reads one visit and says of each figure that cannot be where it stands.
func readVisit(v visit, at string, f *wire.Faults) wear.Visit {
	date, err := time.Parse(time.DateOnly, v.Date)
	if err != nil {
		f.Add(at+".date", v.Date, "A date is written 2026-03-31.")
	}
	if v.OdometerKM < 0 || v.OdometerKM > 1e8 {
		f.Add(at+".odometer_km", v.OdometerKM, "An odometer stands at 0 km or more.")
	}
	out := wear.Visit{OdometerKM: v.OdometerKM, Date: date}
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
