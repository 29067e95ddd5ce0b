package cycle

import (
	"math"

	"metronix/core/engine"
	"metronix/core/measure"
)

// Named angles of a cylinder's own cycle.
const (
	FiringTDC  measure.Angle = 0
	OverlapTDC               = measure.Turn
)

// Events are the opening, peak and closing of one kind of valve in its cylinder's own cycle.
// Open < Peak < Shut; Shut may pass 720°.
type Events struct{ Open, Peak, Shut measure.Angle }

// Duration is how long the valve is open.
func (e Events) Duration() measure.Angle { return e.Shut - e.Open }

// EventsOf turns a cam card into the events of intake and exhaust valves. Peak lift is the middle of the open
// interval unless the card gives the lobe centre.
func EventsOf(t engine.ValveTiming) (intake, exhaust Events) {
	in, ex := t.Open()
	intake = Events{in.From, (in.From + in.To) / 2, in.To}
	exhaust = Events{ex.From, (ex.From + ex.To) / 2, ex.To}
	if t.IntakeCentre != nil {
		intake.Peak = OverlapTDC + *t.IntakeCentre
	}
	if t.ExhaustCentre != nil {
		exhaust.Peak = OverlapTDC - *t.ExhaustCentre
	}
	return intake, exhaust
}

// Cycle answers for one sheet, which must have passed engine.Check.
type Cycle struct {
	Sheet           *engine.Sheet
	Valves          []engine.Valve
	intake, exhaust Events
	firing          [engine.MaxCylinders + 1]measure.Angle
}

// New prepares the answers for a checked sheet.
func New(s *engine.Sheet) *Cycle {
	c := &Cycle{Sheet: s, Valves: s.Valves()}
	c.intake, c.exhaust = EventsOf(s.EffectiveTiming())
	for _, cylinder := range s.FiringOrder {
		c.firing[cylinder] = s.FiringAngle(cylinder)
	}
	return c
}

// Valve finds a valve by name.
func (c *Cycle) Valve(name string) (engine.Valve, bool) {
	for _, v := range c.Valves {
		if v.Name == name {
			return v, true
		}
	}
	return engine.Valve{}, false
}

// Events of a kind of valve.
func (c *Cycle) Events(k engine.Kind) Events {
	if k == engine.Intake {
		return c.intake
	}
	return c.exhaust
}

// Theta is the cylinder's own cycle angle at a crank position, 0 ≤ θ < 720: 0 firing TDC, 360 overlap TDC.
func (c *Cycle) Theta(cylinder int, crank measure.Angle) measure.Angle {
	return (crank - c.firing[cylinder]).Wrap()
}

// CrankAt is the crank position, 0 ≤ a < 720, at which a cylinder stands at its own cycle angle theta.
func (c *Cycle) CrankAt(cylinder int, theta measure.Angle) measure.Angle {
	return (theta + c.firing[cylinder]).Wrap()
}

// Margin is how far a valve stands from its nearest opening or closing; negative when it is open.
//
// With the typical road cam an exhaust valve is shut from 372 to 128 of its cylinder's cycle, 476 degrees:
// at firing TDC its margin is 128, to its opening; in the middle of its base circle it is 238, the most
// there is; at full lift it is −122.
func (c *Cycle) Margin(v engine.Valve, crank measure.Angle) measure.Angle {
	e := c.Events(v.Kind)
	sinceOpen := (c.Theta(v.Cylinder, crank) - e.Open).Wrap()
	if d := e.Duration(); sinceOpen < d {
		return -min(sinceOpen, d-sinceOpen)
	} else {
		return min(sinceOpen-d, measure.Cycle-sinceOpen)
	}
}

// OpenFraction is 0 shut and 1 at peak lift; between, a smooth rise and fall (sine squared: a drawing's
// curve, not the cam's).
func (c *Cycle) OpenFraction(v engine.Valve, crank measure.Angle) float64 {
	e := c.Events(v.Kind)
	since := (c.Theta(v.Cylinder, crank) - e.Open).Wrap()
	rise := e.Peak - e.Open
	var t float64
	switch {
	case since >= e.Duration():
		return 0
	case since <= rise:
		t = float64(since) / float64(rise)
	default:
		t = float64(e.Duration()-since) / float64(e.Duration()-rise)
	}
	return math.Pow(math.Sin(t*math.Pi/2), 2)
}

// PeakAt is the crank position of a valve's peak lift.
func (c *Cycle) PeakAt(v engine.Valve) measure.Angle {
	return c.CrankAt(v.Cylinder, c.Events(v.Kind).Peak)
}

// OpensAt and ShutsAt are the crank positions of a valve's opening and closing.
func (c *Cycle) OpensAt(v engine.Valve) measure.Angle {
	return c.CrankAt(v.Cylinder, c.Events(v.Kind).Open)
}

// ShutsAt is the crank position of a valve's closing.
func (c *Cycle) ShutsAt(v engine.Valve) measure.Angle {
	return c.CrankAt(v.Cylinder, c.Events(v.Kind).Shut)
}

// DeepestAt is the crank position of the middle of a valve's base circle, where its margin is largest, to the
// micro-degree.
func (c *Cycle) DeepestAt(v engine.Valve) measure.Angle {
	e := c.Events(v.Kind)
	return c.CrankAt(v.Cylinder, e.Shut+(measure.Cycle-e.Duration())/2)
}

// DeepestMargin is the largest margin a kind of valve can have: half of its closed interval.
func (c *Cycle) DeepestMargin(k engine.Kind) measure.Angle {
	return (measure.Cycle - c.Events(k).Duration()) / 2
}

// MaySet is the arc of crank positions at which a valve has at least the required margin; ok is false where
// there is none. from greater than to wraps through 0.
func (c *Cycle) MaySet(v engine.Valve, required measure.Angle) (from, to measure.Angle, ok bool) {
	if c.DeepestMargin(v.Kind) < required {
		return 0, 0, false
	}
	e := c.Events(v.Kind)
	return c.CrankAt(v.Cylinder, e.Shut+required), c.CrankAt(v.Cylinder, e.Open-required), true
}

// Companion is the cylinder that fires 360° away, if there is one: when one rocks, the other is at firing
// TDC.
func (c *Cycle) Companion(cylinder int) (int, bool) {
	for _, other := range c.Sheet.FiringOrder {
		if other != cylinder && measure.Apart(c.firing[cylinder],
			c.firing[other]) > measure.Turn-measure.SameAngle {
			return other, true
		}
	}
	return 0, false
}
