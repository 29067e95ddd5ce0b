package seen

import (
	"math"
	"time"

	"metronix/core/adjust"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/internal/wire"
)

// HeatReading is one temperature written down.
type HeatReading struct {
	At       time.Time    `json:"at"`
	EngineC  wire.Celsius `json:"engine_c"`
	AmbientC wire.Celsius `json:"ambient_c"`
}

// Cooling is when the gate of a cold card opens.
type Cooling struct {
	Reachable bool          `json:"reachable"`
	ReadyAt   *time.Time    `json:"ready_at"`
	KPerMin   *float64      `json:"k_per_min"`
	Why       string        `json:"why"`
	Curve     []HeatReading `json:"curve" doc:"the fitted line, for drawing"`
}

// Signed is who signed, and when.
type Signed struct {
	By string    `json:"by"`
	At time.Time `json:"at"`
}

// LockShift is what locking usually does in this mechanic's hands on this kind of adjuster.
type LockShift struct {
	Enough   bool    `json:"enough"`
	Count    int     `json:"count"`
	MedianMM wire.MM `json:"median_mm"`
	SpreadMM wire.MM `json:"spread_mm"`
	Way      string  `json:"way" enum:",closes,opens" doc:"which way it goes, known sooner than how much; empty: not known"`
}

// HotClock is the time that hot figures hold, and what is still ahead.
type HotClock struct {
	Until     time.Time  `json:"until" doc:"until when hot readings hold"`
	Stopped   bool       `json:"stopped" doc:"it counts from when the engine was said to be shut off; false: from its temperature"`
	StopsLeft int        `json:"stops_left" doc:"the stops at which a valve waits, the present one too"`
	StopSince *time.Time `json:"stop_since,omitempty" doc:"when the crank came to the present stop; absent: it stands at none"`
}

func hotClockOf(j *job.Job) *HotClock {
	until, ok := j.HotUntil()
	if !ok {
		return nil
	}
	c := &HotClock{Until: until, Stopped: !j.StoppedAt.IsZero(),
		StopsLeft: len(j.Plan.Stops) - len(j.Finished())}
	if j.Known() && j.Stop >= 0 && !j.StopSince.IsZero() {
		c.StopSince = &j.StopSince
	}
	return c
}

func LockShiftOf(s adjust.Shift) LockShift {
	return LockShift{s.Enough, s.Count, wire.MM(s.Median), wire.MM(s.Spread), s.Way}
}

func (s LockShift) core() adjust.Shift {
	return adjust.Shift{Enough: s.Enough, Count: s.Count, Median: measure.Length(s.MedianMM),
		Spread: measure.Length(s.SpreadMM), Way: s.Way}
}

// curvePoints is how many points of the cooling line are sent for drawing.
const curvePoints = 24

func coolingOf(j *job.Job) *Cooling {
	c, since, ok := j.Cooling()
	if !ok {
		return nil
	}
	out := &Cooling{Reachable: c.Reachable, Why: c.Why(j.Speaks), Curve: []HeatReading{}}
	if !c.Reachable {
		return out
	}
	ready, _ := j.ReadyAt()
	out.ReadyAt = &ready
	if math.IsNaN(c.K) {
		return out
	}
	out.KPerMin = &c.K
	last := j.Temperatures[len(j.Temperatures)-1]
	end := ready.Sub(since).Minutes() * 1.15
	for i := range curvePoints + 1 {
		minute := end * float64(i) / curvePoints
		at := since.Add(time.Duration(minute * float64(time.Minute)))
		out.Curve = append(out.Curve,
			HeatReading{at, wire.Celsius(math.Round(c.At(minute)*10) / 10), wire.Celsius(last.AmbientC)})
	}
	return out
}
