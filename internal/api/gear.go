package api

import (
	"math"
	"slices"
	"time"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/measure"
)

// HeatReading is one temperature written down.
type HeatReading struct {
	At       time.Time `json:"at"`
	EngineC  float64   `json:"engine_c"`
	AmbientC float64   `json:"ambient_c"`
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
	MedianMM float64 `json:"median_mm"`
	SpreadMM float64 `json:"spread_mm"`
}

// settings are the leaves that a job's valves are set by, each reckoned once: all valves of a kind have one aim and one window.
type settings struct {
	shift adjust.Shift
	known map[settingOf]gauge.Stack
}

type settingOf struct {
	aim    measure.Length
	window measure.Window
}

// leaf is the leaf or stack to set a valve by with the nut slack: the aim, corrected by what locking usually does.
func (s *settings) leaf(j *job.Job, v *job.ValveState) gauge.Stack {
	of := settingOf{j.AimOf(v), v.Limits.Window}
	if st, ok := s.known[of]; ok {
		return st
	}
	aim, window := of.aim, &of.window
	if pre, ok := s.shift.PreLockAim(aim); ok && j.Sheet.HasLockNut() {
		aim, window = pre, nil
	}
	choice, _ := j.Owned.Choose(aim, window, gauge.MaxStack)
	if s.known == nil {
		s.known = map[settingOf]gauge.Stack{}
	}
	s.known[of] = choice.Stack
	return choice.Stack
}

// screwView says how to turn the adjuster from the last kept estimate to the aim, where that can be said.
func screwView(j *job.Job, v *job.ValveState) *Screw {
	judged := v.Last.Judgement
	if j.Sheet.Adjuster == nil || (judged.Estimate == nil && j.Sheet.Adjuster.Kind != engine.Eccentric) {
		return nil
	}
	gap := v.Limits.Window.Upper
	switch {
	case judged.Estimate != nil:
		gap = *judged.Estimate
	case judged.Verdict == clearance.Tight:
		gap = v.Limits.Window.Lower
	}
	turn, err := adjust.Reckon(*j.Sheet.Adjuster, gap, j.AimOf(v))
	if err != nil {
		return nil
	}
	s := &Screw{Direction: string(turn.Direction), Rotation: string(turn.Rotation), Travel: string(turn.Way), ByFeel: turn.ByFeel, Why: turn.Why}
	if !turn.ByFeel {
		s.TurnDeg = &turn.Degrees
	}
	return s
}

// about is how far outside the limits a leaf is shown without asking (from memory: valves are seldom further out).
const about = 150 * measure.Micrometre

// ladder is every single leaf that is owned, and the useful stacks: those within the window at a thickness no single leaf has, the one
// worth trying next, those tried, and the one to set by.
func ladder(j *job.Job, v *job.ValveState, setting *settings) []Rung {
	set, next := setting.leaf(j, v), j.Judge(v).TryNext
	wanted := []gauge.Stack{next, set}
	for _, r := range v.Round {
		wanted = append(wanted, r.Stack)
	}
	stacks := slices.Concat(j.Owned.Singles(), usefulStacks(j, v), wanted)
	other := otherWindow(j, v)
	w := v.Limits.Window
	shown := measure.Window{Lower: w.Lower - about, Upper: w.Upper + about}
	out := []Rung{}
	for _, st := range stacks {
		if len(st) == 0 {
			continue
		}
		rung := Rung{LeavesMM: marked(st), Angled: angled(st), Name: st.String(), ThicknessMM: st.Thickness().Millimetres(), InWindow: w.Contains(st.Thickness()),
			Nominal: st.Same(set)}
		rung.Near = shown.Contains(st.Thickness()) || slices.ContainsFunc(wanted, st.Same)
		if !rung.InWindow && other != nil && other.Window.Contains(st.Thickness()) {
			rung.Other = otherKind(v.Kind).String()
		}
		out = append(out, rung)
	}
	return sortRungs(out)
}

// usefulStacks are at most four stacks of two within the window where no single leaf lies near.
func usefulStacks(j *job.Job, v *job.ValveState) []gauge.Stack {
	reached, _ := j.Owned.Reach(v.Limits.Window, 2, 0)
	singles := j.Owned.Singles()
	var out []gauge.Stack
	for _, st := range reached {
		near := slices.ContainsFunc(singles, func(s gauge.Stack) bool { return (s.Thickness() - st.Thickness()).Abs() <= 2*j.Feel })
		if len(st) > 1 && !near && len(out) < 4 {
			out = append(out, st)
		}
	}
	return out
}

func otherKind(k engine.Kind) engine.Kind {
	if k == engine.Intake {
		return engine.Exhaust
	}
	return engine.Intake
}

// otherWindow is the limits of the other kind of valve, where they differ.
func otherWindow(j *job.Job, v *job.ValveState) *clearance.Limits {
	for _, o := range j.Valves {
		if o.Kind != v.Kind && o.Limits.Window != v.Limits.Window {
			return &o.Limits
		}
	}
	return nil
}

func shiftView(s adjust.Shift) LockShift {
	return LockShift{s.Enough, s.Count, s.Median.Millimetres(), s.Spread.Millimetres()}
}

// curvePoints is how many points of the cooling line are sent for drawing.
const curvePoints = 24

func coolingView(j *job.Job) *Cooling {
	c, since, ok := j.Cooling()
	if !ok {
		return nil
	}
	out := &Cooling{Reachable: c.Reachable, Why: c.Why, Curve: []HeatReading{}}
	if !c.Reachable {
		return out
	}
	last := j.Temperatures[len(j.Temperatures)-1]
	ready := last.At.Add(time.Duration(c.Minutes * float64(time.Minute)))
	out.ReadyAt = &ready
	if math.IsNaN(c.K) {
		return out
	}
	out.KPerMin = &c.K
	end := ready.Sub(since).Minutes() * 1.15
	for i := range curvePoints + 1 {
		minute := end * float64(i) / curvePoints
		out.Curve = append(out.Curve, HeatReading{since.Add(time.Duration(minute * float64(time.Minute))), math.Round(c.At(minute)*10) / 10, last.AmbientC})
	}
	return out
}
