package job

import (
	"fmt"
	"time"

	"metronix/core/clearance"
	"metronix/core/thermal"
)

// This file is what a card asks of the engine's temperature, and when a cooling engine comes to it.

// gate says why the engine's temperature does not suit the card; empty where it does.
func (j *Job) gate(engineC, ambientC float64) string {
	say := j.Speaks.Temperature
	switch limit := j.Card.ColdLimitC(); {
	case j.Card.State == clearance.Cold && engineC > limit:
		return fmt.Sprintf("The engine is at %s and these are cold figures, good up to %s. Let it "+
			"cool and measure again.", say(engineC), say(limit))
	case j.Card.State == clearance.Cold && j.Card.StoneCold && !thermal.StoneCold(engineC, ambientC):
		return fmt.Sprintf("The engine is at %s and its surroundings at %s: stone cold is within %s. "+
			"Let it stand and measure again.", say(engineC), say(ambientC),
			j.Speaks.TemperatureStep(thermal.StoneColdWithinC))
	case j.Card.State == clearance.Hot && engineC < thermal.HotFromC:
		return fmt.Sprintf("The engine is at %s and these are hot figures, good from %s. Run it warm "+
			"first.", say(engineC), say(thermal.HotFromC))
	}
	return ""
}

// GateC is the engine temperature that a cold card waits for, °C; ok is false for a hot card. Stone cold
// depends on the surroundings.
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

// ReadyAt is when a cooling engine may be worked on, by what was read of it; ok is false where nobody knows.
func (j *Job) ReadyAt() (at time.Time, ok bool) {
	c, _, ok := j.Cooling()
	if !ok || !c.Reachable {
		return at, false
	}
	last := j.Temperatures[len(j.Temperatures)-1]
	return last.At.Add(time.Duration(c.Minutes * float64(time.Minute))), true
}

// Cooling forecasts when a cold card's gate opens, from the readings since the engine last warmed; ok is
// false where there is no gate to wait for or fewer than two readings. The wait counts from the last reading.
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

// fallingTemperatures are the last readings that do not rise, each later than the one before; where a clock
// was put back they begin anew, for how much time passed is not known.
func (j *Job) fallingTemperatures() []Temperature {
	var list []Temperature
	for _, t := range j.Temperatures {
		switch n := len(list); {
		case n > 0 && (t.EngineC > list[n-1].EngineC || t.At.Before(list[n-1].At)):
			list = nil
		case n > 0 && t.At.Equal(list[n-1].At):
			list = list[:n-1]
		}
		list = append(list, t)
	}
	return list
}
