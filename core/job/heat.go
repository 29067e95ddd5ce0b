package job

import (
	"fmt"
	"strings"
	"time"

	"metronix/core/clearance"
	"metronix/core/thermal"
)

// minHereC is the coldest an engine or a workshop may be said to be, °C: below it a figure was mistyped.
const minHereC = -60.0

// noteTemperature writes a reading down; the gate is not asked.
func (j *Job) noteTemperature(h Happening) error {
	if err := j.temperatureFault(h); err != nil {
		return err
	}
	j.Temperatures = append(j.Temperatures, Temperature{h.At, h.EngineC, h.AmbientC})
	return nil
}

func (j *Job) temperatureFault(h Happening) error {
	for _, t := range []struct {
		field string
		c     float64
	}{{"engine_c", h.EngineC}, {"ambient_c", h.AmbientC}} {
		if !thermal.Possible(t.c) || t.c < minHereC {
			return refuse(t.field, fmt.Sprintf("%v °C is not a temperature of this job: %v to %v.", t.c, minHereC, thermal.MaxC))
		}
	}
	if n := len(j.Temperatures); n > 0 && h.At.Before(j.Temperatures[n-1].At) {
		return refuse("kind", "This reading is older than the one before it: set the clock of the machine right.")
	}
	return nil
}

// prepare passes the temperature gate, or overrides it with a written reason.
func (j *Job) prepare(h Happening) error {
	if j.Way.School == "" {
		return refuse("kind", "Choose the way round first.")
	}
	if err := j.temperatureFault(h); err != nil {
		return err
	}
	reason := strings.TrimSpace(h.Reason)
	if gate := j.gate(h.EngineC, h.AmbientC); gate != "" && reason == "" {
		return refuse("engine_c", gate)
	} else if gate == "" {
		reason = ""
	}
	j.Temperatures = append(j.Temperatures, Temperature{h.At, h.EngineC, h.AmbientC})
	j.Prepared, j.PreparedAt, j.EngineC, j.AmbientC = true, h.At, h.EngineC, h.AmbientC
	if reason != "" {
		j.Override = reason
	}
	return nil
}

// gate says why the engine's temperature does not suit the card; empty where it does.
func (j *Job) gate(engineC, ambientC float64) string {
	switch limit := j.Card.ColdLimitC(); {
	case j.Card.State == clearance.Cold && engineC > limit:
		return fmt.Sprintf("The engine is at %v °C and these are cold figures, good up to %v °C. Let it cool and measure again.", engineC, limit)
	case j.Card.State == clearance.Cold && j.Card.StoneCold && !thermal.StoneCold(engineC, ambientC):
		return fmt.Sprintf("The engine is at %v °C and it is %v °C around it: stone cold is within %v °C. Let it stand and measure again.", engineC, ambientC, thermal.StoneColdWithinC)
	case j.Card.State == clearance.Hot && engineC < thermal.HotFromC:
		return fmt.Sprintf("The engine is at %v °C and these are hot figures, good from %v °C. Run it warm first.", engineC, thermal.HotFromC)
	}
	return ""
}

// GateC is the engine temperature that a cold card waits for, °C; ok is false for a hot card. Stone cold depends on the surroundings.
func (j *Job) GateC(ambientC float64) (gate float64, ok bool) {
	if j.Card.State != clearance.Cold {
		return 0, false
	}
	gate = j.Card.ColdLimitC()
	if j.Card.StoneCold {
		gate = min(gate, ambientC+thermal.StoneColdWithinC)
	}
	return gate, true
}

// Cooling forecasts when a cold card's gate opens, from the readings since the engine last warmed; ok is false where there is no gate
// to wait for or fewer than two readings. The wait counts from the last reading.
// since is when the first of them was taken, from which Cooldown.At counts its minutes.
func (j *Job) Cooling() (c thermal.Cooldown, since time.Time, ok bool) {
	list := j.fallingTemperatures()
	if len(list) < 2 {
		return thermal.Cooldown{}, since, false
	}
	since = list[0].At
	last := list[len(list)-1]
	gate, ok := j.GateC(last.AmbientC)
	if !ok {
		return thermal.Cooldown{}, since, false
	}
	var readings []thermal.Reading
	for _, t := range list {
		readings = append(readings, thermal.Reading{Minute: t.At.Sub(since).Minutes(), EngineC: t.EngineC})
	}
	c, err := thermal.Cool(last.AmbientC, readings, gate)
	return c, since, err == nil
}

// fallingTemperatures are the last readings that do not rise, each later than the one before.
func (j *Job) fallingTemperatures() []Temperature {
	var list []Temperature
	for _, t := range j.Temperatures {
		if n := len(list); n > 0 && t.EngineC > list[n-1].EngineC {
			list = nil
		} else if n > 0 && !t.At.After(list[n-1].At) {
			list = list[:n-1]
		}
		list = append(list, t)
	}
	return list
}

// HotUntil is until when hot readings hold; ok is false for a cold card, an engine not warmed yet, and an overridden gate.
func (j *Job) HotUntil() (until time.Time, ok bool) {
	if j.Card.State != clearance.Hot || !j.Prepared || j.Override != "" {
		return time.Time{}, false
	}
	return j.PreparedAt.Add(time.Duration(thermal.HotMinutes * float64(time.Minute))), true
}

// stale says that a hot reading came too late.
func (j *Job) stale(at time.Time) bool {
	until, ok := j.HotUntil()
	return ok && at.After(until)
}

// goHot begins the hot pass of a provisional job: the hot card, every valve to be read anew, the engine to be warmed first. What was
// found and left cold stays on the sheet.
func (j *Job) goHot(Happening) error {
	if j.Phase() != AwaitHot {
		return refuse("kind", "The hot pass comes after the cold start is signed.")
	}
	limits, err := limitsOf(*j.Hot)
	if err != nil {
		return err
	}
	j.Cold = &Signature{j.SignedBy, j.SignedAt}
	j.Card = *j.Hot
	j.SignedBy, j.SignedAt, j.Prepared, j.Override, j.barred, j.picked = "", time.Time{}, false, "", false, ""
	for _, v := range j.Valves {
		v.Limits, v.ColdFound, v.ColdLeft = limits[v.Kind], v.AsFound, v.Last
		v.AsFound, v.Last, v.Verified, v.Left, v.Adjustments, v.Stage = nil, nil, false, "", 0, Untouched
		v.reading(nil)
	}
	return nil
}
