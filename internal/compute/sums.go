package compute

import (
	"errors"
	"fmt"
	"math"

	"metronix/core/adjust"
	"metronix/core/engine"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/thermal"
)

// number sends a figure that may not be there: NaN is null.
func number(f float64) *float64 {
	if math.IsNaN(f) || math.IsInf(f, 0) {
		return nil
	}
	return &f
}

func gapFault(at string, l MM, faults *[]Fault) {
	if g := measure.Length(l); g < 0 || g > job.MaxGap {
		*faults = append(*faults, Fault{Location: at, Value: l, Message: fmt.Sprintf("%s is not a valve clearance: 0 to %s. Is the unit right?", g, job.MaxGap)})
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
	Rotation  string   `json:"rotation"`
	Travel    string   `json:"travel"`
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
	r := turnResponse{Direction: string(t.Direction), Rotation: string(t.Rotation), Travel: string(t.Way), ByFeel: t.ByFeel, Why: t.Why, Turn: number(t.Degrees)}
	if r.Turn != nil {
		turns := measure.FromDegrees(t.Degrees / 360).Degrees()
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
	if s.Enough {
		r.Median, r.Spread = (*MM)(&s.Median), (*MM)(&s.Spread)
	}
	if pre, ok := s.PreLockAim(measure.Length(q.Aim)); ok {
		r.PreLockAim = (*MM)(&pre)
	}
	return r, nil
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
		if !(math.Abs(*nm) <= maxTorqueNm) {
			return r, refused(Fault{Location: "torque_nm", Message: fmt.Sprintf("This is no torque of a lock nut or cover bolt: at most %v N·m is taken.", maxTorqueNm)})
		}
		lbft := measure.PoundFeet(*nm)
		r.TorqueNm, r.TorqueLbft = nm, &lbft
	}
	return r, nil
}

// maxTorqueNm is more than any spanner gives (from memory).
const maxTorqueNm = 10_000.0

func torque(q convertRequest) *float64 {
	if q.TorqueLbft != nil {
		nm := *q.TorqueLbft * measure.PoundFoot
		return &nm
	}
	return q.TorqueNm
}
