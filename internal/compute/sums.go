package compute

import (
	"errors"
	"fmt"
	"math"

	"metronix/core/adjust"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/thermal"
	"metronix/internal/wire"
)

// number sends a figure that may not be there: NaN is null.
func number(f float64) *float64 {
	if math.IsNaN(f) || math.IsInf(f, 0) {
		return nil
	}
	return &f
}

// gapFault refuses what is no valve clearance, which is most often a figure in the other unit.
func gapFault(at string, l wire.MM, f *wire.Faults) {
	if g := measure.Length(l); g < 0 || g > job.MaxGap {
		f.Add(at, l, "%s is not a valve clearance: 0 to %s. Is the unit right?", g, job.MaxGap)
	}
}

// turnRequest is an adjuster, the gap as it is and as it is wanted, mm.
type turnRequest struct {
	Adjuster wire.Adjuster `json:"adjuster"`
	Gap      wire.MM       `json:"gap_mm"`
	Aim      wire.MM       `json:"aim_mm"`
}

// turnResponse is how far to turn, degrees, seen from the driver's end, and which way the part travels; null
// where the adjuster changes the gap unevenly, and then by feel with a bound.
type turnResponse struct {
	Turn      *float64 `json:"turn_deg"`
	Direction string   `json:"direction"`
	Rotation  string   `json:"rotation"`
	Travel    string   `json:"travel"`
	Turns     *float64 `json:"turns"`
	ByFeel    bool     `json:"by_feel"`
	Why       string   `json:"why"`
}

// turn reckons angle = 360° × change / (pitch × gain); the gain is what the kind of adjuster makes of its
// travel (core/gear).
func turn(q turnRequest) (turnResponse, *wire.Problem) {
	var faults wire.Faults
	a := adjusterOf(q.Adjuster, &faults)
	gapFault("gap_mm", q.Gap, &faults)
	gapFault("aim_mm", q.Aim, &faults)
	if len(faults) > 0 {
		return turnResponse{}, wire.Refused(faults...)
	}
	t, err := adjust.Reckon(a, measure.Length(q.Gap), measure.Length(q.Aim))
	if err != nil {
		at := map[error]string{gear.ErrNoScrew: "adjuster.kind", adjust.ErrPitch: "adjuster.pitch_mm",
			gear.ErrRatio: "adjuster.ratio"}
		for cause, location := range at {
			if errors.Is(err, cause) {
				return turnResponse{}, wire.Refused(wire.Fault{Location: location,
					Message: wire.Sentence(err)})
			}
		}
		return turnResponse{}, wire.Refused(wire.Fault{Location: "adjuster", Message: wire.Sentence(err)})
	}
	r := turnResponse{Direction: string(t.Direction), Rotation: string(t.Rotation), Travel: string(t.Way),
		ByFeel: t.ByFeel, Why: t.Why, Turn: number(t.Degrees)}
	if r.Turn != nil {
		turns := measure.FromDegrees(t.Degrees / 360).Degrees()
		r.Turns = &turns
	}
	return r, nil
}

// adjusterOf checks an adjuster as it stands on a sheet.
func adjusterOf(dto wire.Adjuster, f *wire.Faults) engine.Adjuster {
	a := dto.Core()
	for _, p := range engine.CheckAdjuster(a) {
		f.Add(p.Location, nil, "%s", p.Message)
	}
	return *a
}

// lockPair is the gap before and after one lock nut was tightened; after may be known by a side alone.
type lockPair struct {
	Before    wire.MM  `json:"before_mm"`
	After     *wire.MM `json:"after_mm,omitempty" doc:"left out where only a side is known"`
	AfterLow  *wire.MM `json:"after_low_mm,omitempty" doc:"the gap after is wider than this: the same leaf fell through"`
	AfterHigh *wire.MM `json:"after_high_mm,omitempty" doc:"the gap after is narrower than this: the same leaf would not go"`
}

// pair reads one; what cannot be is a fault at its place.
func (p lockPair) pair(at string, faults *wire.Faults) adjust.Pair {
	gapFault(at+".before_mm", p.Before, faults)
	for name, figure := range map[string]*wire.MM{"after_mm": p.After, "after_low_mm": p.AfterLow,
		"after_high_mm": p.AfterHigh} {
		if figure != nil {
			gapFault(at+"."+name, *figure, faults)
		}
	}
	switch sided := p.AfterLow != nil || p.AfterHigh != nil; {
	case p.After == nil && !sided:
		*faults = append(*faults, wire.Fault{Location: at + ".after_mm",
			Message: "Give the gap after locking, or what bounds it: after_low_mm, after_high_mm."})
	case p.After != nil && sided:
		*faults = append(*faults, wire.Fault{Location: at + ".after_mm", Value: *p.After,
			Message: "Give the gap after locking or what bounds it, not both."})
	case p.AfterLow != nil && p.AfterHigh != nil && *p.AfterLow > *p.AfterHigh:
		*faults = append(*faults, wire.Fault{Location: at + ".after_low_mm", Value: *p.AfterLow,
			Message: "The lower bound lies above the upper one."})
	}
	out := adjust.Pair{Before: measure.Length(p.Before), AfterLow: (*measure.Length)(p.AfterLow),
		AfterHigh: (*measure.Length)(p.AfterHigh)}
	if p.After != nil {
		out.After = measure.Length(*p.After)
	}
	return out
}

// lockShiftRequest is what was noticed of one mechanic's locking, and the gap that is wanted.
type lockShiftRequest struct {
	Pairs  []lockPair `json:"pairs"`
	Aim    wire.MM    `json:"aim_mm"`
	Window *wire.MM   `json:"window_mm,omitempty" doc:"how wide the limits are: a spread as wide teaches nothing"`
}

// lockShiftResponse is the median of what locking does, how far the pairs spread, and what to set before the
// nut is tightened. Below the number that core/adjust asks for, only that it is not enough.
type lockShiftResponse struct {
	Enough     bool     `json:"enough"`
	Count      int      `json:"count"`
	Median     *wire.MM `json:"median_mm" nullable:"true"`
	Spread     *wire.MM `json:"spread_mm" nullable:"true"`
	PreLockAim *wire.MM `json:"pre_lock_aim_mm" nullable:"true"`
	Way        string   `json:"way" enum:",closes,opens" doc:"which way locking goes; empty: not known"`
}

// lockShift takes the median, which one slip does not move; a spread as wide as the limits teaches nothing.
func lockShift(q lockShiftRequest) (lockShiftResponse, *wire.Problem) {
	var faults wire.Faults
	gapFault("aim_mm", q.Aim, &faults)
	pairs := make([]adjust.Pair, len(q.Pairs))
	for i, p := range q.Pairs {
		pairs[i] = p.pair(fmt.Sprintf("pairs[%d]", i), &faults)
	}
	window := measure.Length(0)
	if q.Window != nil {
		gapFault("window_mm", *q.Window, &faults)
		window = measure.Length(*q.Window)
	}
	if len(faults) > 0 {
		return lockShiftResponse{}, wire.Refused(faults...)
	}
	s := adjust.LearnShift(pairs, window)
	r := lockShiftResponse{Enough: s.Enough, Count: s.Count, Way: s.Way}
	if s.Enough {
		r.Median, r.Spread = (*wire.MM)(&s.Median), (*wire.MM)(&s.Spread)
	}
	if pre, ok := s.PreLockAim(measure.Length(q.Aim)); ok {
		r.PreLockAim = (*wire.MM)(&pre)
	}
	return r, nil
}

// coolReading is the engine's temperature at a minute, °C.
type coolReading struct {
	Minute  float64 `json:"minute"`
	EngineC float64 `json:"engine_c"`
}

// cooldownRequest is a cooling engine: its readings, the air around it, and the temperature it is to reach.
type cooldownRequest struct {
	AmbientC float64       `json:"ambient_c"`
	Readings []coolReading `json:"readings"`
	GateC    float64       `json:"gate_c"`
}

// cooldownResponse is the rate k per minute and the minutes from the last reading; why says where there is no
// answer.
type cooldownResponse struct {
	K         *float64 `json:"k_per_min"`
	Minutes   *float64 `json:"minutes_from_last"`
	Reachable bool     `json:"reachable"`
	Why       string   `json:"why"`
}

// cooldown fits Newton's law, T(t) = Ta + (T0 − Ta) e^(−kt), through the readings (core/thermal).
func cooldown(q cooldownRequest) (cooldownResponse, *wire.Problem) {
	readings := make([]thermal.Reading, len(q.Readings))
	for i, r := range q.Readings {
		readings[i] = thermal.Reading(r)
	}
	c, err := thermal.Cool(q.AmbientC, readings, q.GateC)
	if err != nil {
		return cooldownResponse{},
			wire.Refused(wire.Fault{Location: coolingPlace(q, err),
				Message: "This cannot be reckoned: " + err.Error() + "."})
	}
	return cooldownResponse{K: number(c.K), Minutes: number(c.Minutes), Reachable: c.Reachable,
			Why: c.Why(measure.Units{})},
		nil
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

// convertRequest is one length or one torque, in one unit.
type convertRequest struct {
	LengthMM   *wire.MM `json:"length_mm,omitempty"`
	LengthIn   *wire.IN `json:"length_in,omitempty"`
	TorqueNm   *float64 `json:"torque_nm,omitempty"`
	TorqueLbft *float64 `json:"torque_lbft,omitempty"`
}

// convertResponse is the same in every unit there is here.
type convertResponse struct {
	LengthMM   *wire.MM `json:"length_mm" nullable:"true"`
	Thou       *float64 `json:"thou"`
	LengthIn   *float64 `json:"length_in"`
	TorqueNm   *float64 `json:"torque_nm"`
	TorqueLbft *float64 `json:"torque_lbft"`
}

// convert goes by exact definitions: 25.4 mm to the inch, and the pound-foot of the exact foot and pound
// under standard gravity.
func convert(q convertRequest) (convertResponse, *wire.Problem) {
	var r convertResponse
	length := (*measure.Length)(q.LengthMM)
	if length == nil {
		length = (*measure.Length)(q.LengthIn)
	}
	switch {
	case q.LengthMM != nil && q.LengthIn != nil:
		return r, wire.Refused(wire.Fault{Location: "length_in", Message: "Give the length in one unit."})
	case q.TorqueNm != nil && q.TorqueLbft != nil:
		return r, wire.Refused(wire.Fault{Location: "torque_lbft", Message: "Give the torque in one unit."})
	case length == nil && q.TorqueNm == nil && q.TorqueLbft == nil:
		return r, wire.Refused(wire.Fault{Location: "", Message: "Give a length or a torque to convert."})
	}
	if length != nil {
		thou, in := length.Thousandths(), length.Thousandths()/1000
		r.LengthMM, r.Thou, r.LengthIn = (*wire.MM)(length), &thou, &in
	}
	if nm := torque(q); nm != nil {
		if !(math.Abs(*nm) <= maxTorqueNm) {
			return r, wire.Refused(wire.Fault{Location: "torque_nm",
				Message: fmt.Sprintf("This is no torque of a lock nut or cover bolt: "+
					"at most %v N·m is taken.", maxTorqueNm)})
		}
		lbft := measure.PoundFeet(*nm)
		r.TorqueNm, r.TorqueLbft = nm, &lbft
	}
	return r, nil
}

// maxTorqueNm is more than any spanner gives (from memory).
const maxTorqueNm = 10_000.0

// torque is the torque that was given, N·m.
func torque(q convertRequest) *float64 {
	if q.TorqueLbft != nil {
		nm := *q.TorqueLbft * measure.PoundFoot
		return &nm
	}
	return q.TorqueNm
}
