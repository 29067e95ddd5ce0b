package compute

import (
	"errors"
	"fmt"
	"math"
	"time"

	"metronix/core/adjust"
	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/core/thermal"
	"metronix/core/wear"
)

// number sends a figure that may not be there: NaN is null.
func number(f float64) *float64 {
	if math.IsNaN(f) || math.IsInf(f, 0) {
		return nil
	}
	return &f
}

// Bounds of a gap that may be asked about.
const maxGap = 5 * measure.Millimetre

func gapFault(at string, l MM, faults *[]Fault) {
	if g := measure.Length(l); g < 0 || g > maxGap {
		*faults = append(*faults, Fault{Location: at, Value: l, Message: fmt.Sprintf("%s is not a valve clearance: 0 to %s. Is the unit right?", g, maxGap)})
	}
}

type turnRequest struct {
	Adjuster Adjuster `json:"adjuster"`
	Gap      MM       `json:"gap_mm"`
	Aim      MM       `json:"aim_mm"`
}

type turnResponse struct {
	Turn      *float64 `json:"turn_deg"`
	Direction string   `json:"direction"`
	Turns     *float64 `json:"turns"`
	ByFeel    bool     `json:"by_feel"`
	Why       string   `json:"why"`
}

func turn(q turnRequest) (turnResponse, *Problem) {
	var faults []Fault
	a := adjusterOf(q.Adjuster, &faults)
	gapFault("gap_mm", q.Gap, &faults)
	gapFault("aim_mm", q.Aim, &faults)
	if len(faults) > 0 {
		return turnResponse{}, refused(faults...)
	}
	t, err := adjust.Reckon(a, measure.Length(q.Gap), measure.Length(q.Aim))
	if err != nil {
		at := map[error]string{adjust.ErrNoScrew: "adjuster.kind", adjust.ErrPitch: "adjuster.pitch_mm", adjust.ErrRatio: "adjuster.ratio"}
		for cause, location := range at {
			if errors.Is(err, cause) {
				return turnResponse{}, refused(Fault{Location: location, Message: sentence(err)})
			}
		}
		return turnResponse{}, refused(Fault{Location: "adjuster", Message: sentence(err)})
	}
	r := turnResponse{Direction: string(t.Direction), ByFeel: t.ByFeel, Why: t.Why, Turn: number(t.Degrees)}
	if r.Turn != nil {
		turns := measure.RoundAngle(t.Degrees / 360)
		r.Turns = &turns
	}
	return r, nil
}

// adjusterOf checks an adjuster as it stands on a sheet.
func adjusterOf(dto Adjuster, faults *[]Fault) engine.Adjuster {
	a := dto.toCore()
	for _, p := range engine.CheckAdjuster(a) {
		*faults = append(*faults, Fault{Location: p.Location, Message: p.Message})
	}
	return *a
}

// sentence writes an error as a sentence.
func sentence(err error) string {
	text := err.Error()
	return string(text[0]-'a'+'A') + text[1:] + "."
}

type lockPair struct {
	Before MM `json:"before_mm"`
	After  MM `json:"after_mm"`
}

type lockShiftRequest struct {
	Pairs []lockPair `json:"pairs"`
	Aim   MM         `json:"aim_mm"`
}

type lockShiftResponse struct {
	Enough     bool `json:"enough"`
	Count      int  `json:"count"`
	Median     *MM  `json:"median_mm"`
	Spread     *MM  `json:"spread_mm"`
	PreLockAim *MM  `json:"pre_lock_aim_mm"`
}

func lockShift(q lockShiftRequest) (lockShiftResponse, *Problem) {
	var faults []Fault
	gapFault("aim_mm", q.Aim, &faults)
	pairs := make([]adjust.Pair, len(q.Pairs))
	for i, p := range q.Pairs {
		gapFault(fmt.Sprintf("pairs[%d].before_mm", i), p.Before, &faults)
		gapFault(fmt.Sprintf("pairs[%d].after_mm", i), p.After, &faults)
		pairs[i] = adjust.Pair{Before: measure.Length(p.Before), After: measure.Length(p.After)}
	}
	if len(faults) > 0 {
		return lockShiftResponse{}, refused(faults...)
	}
	s := adjust.LearnShift(pairs)
	r := lockShiftResponse{Enough: s.Enough, Count: s.Count}
	if pre, ok := s.PreLockAim(measure.Length(q.Aim)); ok {
		r.Median, r.Spread, r.PreLockAim = (*MM)(&s.Median), (*MM)(&s.Spread), (*MM)(&pre)
	}
	return r, nil
}

type shimValve struct {
	Valve    string `json:"valve"`
	Fitted   MM     `json:"fitted_mm"`
	Measured MM     `json:"measured_mm"`
	Lower    MM     `json:"lower_mm"`
	Upper    MM     `json:"upper_mm"`
	Aim      MM     `json:"aim_mm"`
}

type shimCount struct {
	Shim  MM  `json:"shim_mm"`
	Count int `json:"count"`
}

type shimsRequest struct {
	Valves []shimValve `json:"valves"`
	Sizes  []MM        `json:"sizes_mm"`
	Stock  []shimCount `json:"stock,omitempty"`
}

type shimFit struct {
	Valve string `json:"valve"`
	Shim  MM     `json:"shim_mm"`
	From  string `json:"from"`
	Gap   MM     `json:"gap_mm"`
}

type lacking struct {
	Valve  string `json:"valve"`
	Reason string `json:"reason"`
}

type shimsResponse struct {
	Fit        []shimFit   `json:"fit"`
	Buy        []shimCount `json:"buy"`
	Spare      []MM        `json:"spare_mm"`
	Impossible []lacking   `json:"impossible"`
}

const maxShim = 20 * measure.Millimetre

func shims(q shimsRequest) (shimsResponse, *Problem) {
	var faults []Fault
	valves := readShimValves(q.Valves, &faults)
	var sizes []measure.Length
	if len(q.Sizes) > 500 || len(q.Stock) > 500 {
		faults = append(faults, Fault{Location: "sizes_mm", Message: "At most 500 sizes are taken."})
	}
	for i, s := range q.Sizes {
		shimFault(fmt.Sprintf("sizes_mm[%d]", i), s, &faults)
		sizes = append(sizes, measure.Length(s))
	}
	var stock []adjust.Count
	for i, s := range q.Stock {
		shimFault(fmt.Sprintf("stock[%d].shim_mm", i), s.Shim, &faults)
		if s.Count < 0 || s.Count > 10_000 {
			faults = append(faults, Fault{Location: fmt.Sprintf("stock[%d].count", i), Value: s.Count, Message: "A stock holds 0 to 10 000 of a size."})
		}
		stock = append(stock, adjust.Count{Shim: measure.Length(s.Shim), N: s.Count})
	}
	if len(faults) > 0 {
		return shimsResponse{}, refused(faults...)
	}
	return shimsAnswer(adjust.ChooseShims(valves, sizes, stock)), nil
}

func readShimValves(in []shimValve, faults *[]Fault) []adjust.ShimValve {
	if len(in) > engine.MaxCylinders*engine.MaxValvesPerCylinder {
		*faults = append(*faults, Fault{Location: "valves", Message: fmt.Sprintf("%d valves: an engine has at most %d.", len(in), engine.MaxCylinders*engine.MaxValvesPerCylinder)})
		return nil
	}
	var valves []adjust.ShimValve
	seen := map[string]bool{}
	for i, v := range in {
		at := fmt.Sprintf("valves[%d]", i)
		switch {
		case v.Valve == "" || v.Valve == adjust.FromStock:
			*faults = append(*faults, Fault{Location: at + ".valve", Value: echo(v.Valve), Message: "Name the valve."})
		case seen[v.Valve]:
			*faults = append(*faults, Fault{Location: at + ".valve", Value: echo(v.Valve), Message: "This valve is listed twice."})
		}
		seen[v.Valve] = true
		shimFault(at+".fitted_mm", v.Fitted, faults)
		gapFault(at+".measured_mm", v.Measured, faults)
		gapFault(at+".lower_mm", v.Lower, faults)
		gapFault(at+".upper_mm", v.Upper, faults)
		switch {
		case v.Lower > v.Upper:
			*faults = append(*faults, Fault{Location: at + ".lower_mm", Value: v.Lower, Message: "The lower limit is above the upper one. Are they swapped?"})
		case v.Upper-v.Lower > MM(measure.Millimetre):
			*faults = append(*faults, Fault{Location: at + ".upper_mm", Value: v.Upper, Message: "The limits lie more than a millimetre apart. Is the unit right?"})
		case v.Aim < v.Lower || v.Aim > v.Upper:
			*faults = append(*faults, Fault{Location: at + ".aim_mm", Value: v.Aim, Message: "The aim lies outside the limits."})
		}
		valves = append(valves, adjust.ShimValve{Valve: v.Valve, Fitted: measure.Length(v.Fitted), Measured: measure.Length(v.Measured),
			Window: measure.Window{Lower: measure.Length(v.Lower), Upper: measure.Length(v.Upper)}, Aim: measure.Length(v.Aim)})
	}
	return valves
}

func shimFault(at string, s MM, faults *[]Fault) {
	if l := measure.Length(s); l <= 0 || l > maxShim {
		*faults = append(*faults, Fault{Location: at, Value: s, Message: fmt.Sprintf("%s is not the thickness of a shim: above 0, at most %s.", l, maxShim)})
	}
}

func shimsAnswer(p adjust.ShimPlan) shimsResponse {
	r := shimsResponse{Fit: []shimFit{}, Buy: []shimCount{}, Spare: millimetres(p.Spare), Impossible: []lacking{}}
	for _, f := range p.Fit {
		r.Fit = append(r.Fit, shimFit{f.Valve, MM(f.Shim), f.From, MM(f.Gap)})
	}
	for _, b := range p.Buy {
		r.Buy = append(r.Buy, shimCount{MM(b.Shim), b.N})
	}
	for _, l := range p.Impossible {
		r.Impossible = append(r.Impossible, lacking(l))
	}
	return r
}

type coolReading struct {
	Minute  float64 `json:"minute"`
	EngineC float64 `json:"engine_c"`
}

type cooldownRequest struct {
	AmbientC float64       `json:"ambient_c"`
	Readings []coolReading `json:"readings"`
	GateC    float64       `json:"gate_c"`
}

type cooldownResponse struct {
	K         *float64 `json:"k_per_min"`
	Minutes   *float64 `json:"minutes_from_last"`
	Reachable bool     `json:"reachable"`
	Why       string   `json:"why"`
}

func cooldown(q cooldownRequest) (cooldownResponse, *Problem) {
	readings := make([]thermal.Reading, len(q.Readings))
	for i, r := range q.Readings {
		readings[i] = thermal.Reading(r)
	}
	c, err := thermal.Cool(q.AmbientC, readings, q.GateC)
	if err != nil {
		return cooldownResponse{}, refused(Fault{Location: coolingPlace(q, err), Message: "This cannot be reckoned: " + err.Error() + "."})
	}
	return cooldownResponse{K: number(c.K), Minutes: number(c.Minutes), Reachable: c.Reachable, Why: c.Why}, nil
}

// coolingPlace is where in a request the cause of a cooling error stands.
func coolingPlace(q cooldownRequest, err error) string {
	switch {
	case errors.Is(err, thermal.ErrNoSuchC) && !thermal.Possible(q.AmbientC):
		return "ambient_c"
	case errors.Is(err, thermal.ErrNoSuchC) && !thermal.Possible(q.GateC):
		return "gate_c"
	}
	for i, r := range q.Readings {
		if errors.Is(err, thermal.ErrNoSuchC) && !thermal.Possible(r.EngineC) {
			return fmt.Sprintf("readings[%d].engine_c", i)
		}
		if errors.Is(err, thermal.ErrBackwards) && i > 0 && r.Minute <= q.Readings[i-1].Minute {
			return fmt.Sprintf("readings[%d].minute", i)
		}
	}
	return "readings"
}

type convertRequest struct {
	LengthMM   *MM      `json:"length_mm,omitempty"`
	LengthIn   *IN      `json:"length_in,omitempty"`
	TorqueNm   *float64 `json:"torque_nm,omitempty"`
	TorqueLbft *float64 `json:"torque_lbft,omitempty"`
}

type convertResponse struct {
	LengthMM   *MM      `json:"length_mm"`
	Thou       *float64 `json:"thou"`
	LengthIn   *float64 `json:"length_in"`
	TorqueNm   *float64 `json:"torque_nm"`
	TorqueLbft *float64 `json:"torque_lbft"`
}

func convert(q convertRequest) (convertResponse, *Problem) {
	var r convertResponse
	length := (*measure.Length)(q.LengthMM)
	if length == nil {
		length = (*measure.Length)(q.LengthIn)
	}
	switch {
	case q.LengthMM != nil && q.LengthIn != nil:
		return r, refused(Fault{Location: "length_in", Message: "Give the length in one unit."})
	case q.TorqueNm != nil && q.TorqueLbft != nil:
		return r, refused(Fault{Location: "torque_lbft", Message: "Give the torque in one unit."})
	case length == nil && q.TorqueNm == nil && q.TorqueLbft == nil:
		return r, refused(Fault{Location: "", Message: "Give a length or a torque to convert."})
	}
	if length != nil {
		thou, in := length.Thousandths(), length.Thousandths()/1000
		r.LengthMM, r.Thou, r.LengthIn = (*MM)(length), &thou, &in
	}
	if nm := torque(q); nm != nil {
		lbft := measure.PoundFeet(*nm)
		r.TorqueNm, r.TorqueLbft = nm, &lbft
	}
	return r, nil
}

func torque(q convertRequest) *float64 {
	if q.TorqueLbft != nil {
		nm := *q.TorqueLbft * measure.PoundFoot
		return &nm
	}
	return q.TorqueNm
}

type visitValve struct {
	Valve string `json:"valve"`
	Found MM     `json:"found_mm"`
	Left  MM     `json:"left_mm"`
	Lower MM     `json:"lower_mm"`
	Upper MM     `json:"upper_mm"`
}

type visit struct {
	OdometerKM float64      `json:"odometer_km"`
	Date       string       `json:"date"`
	Valves     []visitValve `json:"valves"`
}

type forecastRequest struct {
	Visits         []visit  `json:"visits"`
	IntervalKM     *float64 `json:"interval_km,omitempty"`
	IntervalMonths *int     `json:"interval_months,omitempty"`
}

type wearOf struct {
	Valve  string      `json:"valve"`
	Rate   *float64    `json:"rate_mm_per_1000km"`
	Leaves *float64    `json:"leaves_window_at_km"`
	Side   string      `json:"side"`
	Range  *[2]float64 `json:"range_km,omitempty"`
}

type dueAt struct {
	OdometerKM *float64 `json:"odometer_km,omitempty"`
	Date       string   `json:"date,omitempty"`
	Because    string   `json:"because"`
}

type forecastResponse struct {
	Valves []wearOf `json:"valves"`
	Due    dueAt    `json:"due"`
}

func forecast(q forecastRequest) (forecastResponse, *Problem) {
	var faults []Fault
	visits := make([]wear.Visit, len(q.Visits))
	for i, v := range q.Visits {
		visits[i] = readVisit(v, fmt.Sprintf("visits[%d]", i), &faults)
	}
	interval, months := 0.0, 0
	if q.IntervalKM != nil {
		if interval = *q.IntervalKM; interval <= 0 || interval > 1e7 {
			faults = append(faults, Fault{Location: "interval_km", Value: interval, Message: "An interval is above 0 km."})
		}
	}
	if q.IntervalMonths != nil {
		if months = *q.IntervalMonths; months < 1 || months > 1200 {
			faults = append(faults, Fault{Location: "interval_months", Value: months, Message: "An interval is 1 to 1200 months."})
		}
	}
	if len(faults) > 0 {
		return forecastResponse{}, refused(faults...)
	}
	f, err := wear.Reckon(visits, interval, months)
	if err != nil {
		return forecastResponse{}, refused(Fault{Location: "visits", Message: sentence(err)})
	}
	r := forecastResponse{Valves: []wearOf{}, Due: dueAt{OdometerKM: number(f.Due.OdometerKM), Because: f.Due.Because}}
	if !f.Due.Date.IsZero() {
		r.Due.Date = f.Due.Date.Format(time.DateOnly)
	}
	for _, v := range f.Valves {
		r.Valves = append(r.Valves, wearOf{v.Valve, number(v.Rate), number(v.Leaves), string(v.Side), v.Range})
	}
	return r, nil
}

func readVisit(v visit, at string, faults *[]Fault) wear.Visit {
	date, err := time.Parse(time.DateOnly, v.Date)
	if err != nil {
		*faults = append(*faults, Fault{Location: at + ".date", Value: echo(v.Date), Message: "A date is written 2026-03-31."})
	}
	if v.OdometerKM < 0 || v.OdometerKM > 1e8 {
		*faults = append(*faults, Fault{Location: at + ".odometer_km", Value: v.OdometerKM, Message: "An odometer stands at 0 km or more."})
	}
	out := wear.Visit{OdometerKM: v.OdometerKM, Date: date}
	for i, w := range v.Valves {
		place := fmt.Sprintf("%s.valves[%d]", at, i)
		gapFault(place+".found_mm", w.Found, faults)
		gapFault(place+".left_mm", w.Left, faults)
		if w.Lower > w.Upper {
			*faults = append(*faults, Fault{Location: place + ".lower_mm", Value: w.Lower, Message: "The lower limit is above the upper one. Are they swapped?"})
		}
		out.Valves = append(out.Valves, wear.Found{Valve: w.Valve, Found: measure.Length(w.Found), Left: measure.Length(w.Left),
			Window: measure.Window{Lower: measure.Length(w.Lower), Upper: measure.Length(w.Upper)}})
	}
	return out
}
