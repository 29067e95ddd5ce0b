package sequence

import (
	"fmt"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// deal puts each valve to the stop at which its margin is largest; of equally deep ones to the smaller crank position.
func deal(c *cycle.Cycle, drafts []draft) []draft {
	for _, v := range c.Valves {
		best, margin := -1, measure.Angle(0)
		for i, d := range drafts {
			m := c.Margin(v, d.crank)
			if best < 0 || m > margin || (m == margin && d.crank < drafts[best].crank) {
				best, margin = i, m
			}
		}
		drafts[best].set = append(drafts[best].set, SetValve{v.Name, margin})
	}
	return drafts
}

// places makes one stop of positions within SameAngle, before valves are dealt out.
func places(drafts []draft) []draft {
	var out []draft
	for _, d := range drafts {
		same := -1
		for i, o := range out {
			if measure.Apart(o.crank, d.crank) < measure.SameAngle {
				same = i
			}
		}
		if same < 0 {
			out = append(out, d)
			continue
		}
		out[same].watch = append(out[same].watch, d.watch...)
	}
	return out
}

// exhaustOpen: a stop at each exhaust's full lift, each valve at its deepest stop.
func exhaustOpen(c *cycle.Cycle) []draft {
	var drafts []draft
	for _, v := range c.Valves {
		if v.Kind == engine.Exhaust {
			drafts = append(drafts, draft{crank: c.PeakAt(v), watch: []Sighting{{What: FullLift, Valve: v.Name}}})
		}
	}
	return deal(c, places(drafts))
}

// twoStop: firing TDC of the first cylinder, then one turn on.
func twoStop(c *cycle.Cycle) []draft {
	first := c.Sheet.FiringOrder[0]
	return deal(c, []draft{
		{crank: 0, watch: append(pulleySign(c.Sheet, 0), Sighting{What: TDCFiring, Cylinder: first})},
		{crank: measure.Turn, watch: append(pulleySign(c.Sheet, measure.Turn), Sighting{What: Rocking, Cylinder: first})},
	})
}

// openingClosing, per cylinder: its intakes as its exhaust starts to open, its exhausts as its intake nearly closes.
func openingClosing(c *cycle.Cycle) []draft {
	var drafts []draft
	for _, cylinder := range c.Sheet.FiringOrder {
		for _, half := range []struct {
			watch engine.Kind
			what  What
			theta measure.Angle
		}{{engine.Exhaust, Opening, c.Events(engine.Exhaust).Open}, {engine.Intake, Closing, c.Events(engine.Intake).Shut}} {
			d := draft{crank: c.CrankAt(cylinder, half.theta), ordinal: cylinder}
			for _, v := range c.Valves {
				switch {
				case v.Cylinder != cylinder:
				case v.Kind == half.watch:
					d.watch = append(d.watch, Sighting{What: half.what, Valve: v.Name})
				default:
					d.set = append(d.set, SetValve{v.Name, c.Margin(v, d.crank)})
				}
			}
			drafts = append(drafts, d)
		}
	}
	return drafts
}

// oneLobe: each valve at the middle of its base circle, its lobe straight away from the follower.
func oneLobe(c *cycle.Cycle) []draft {
	var drafts []draft
	for _, v := range c.Valves {
		at := c.DeepestAt(v)
		drafts = append(drafts, draft{crank: at, watch: []Sighting{{What: Loose, Valve: v.Name}}, set: []SetValve{{v.Name, c.Margin(v, at)}}})
	}
	return drafts
}

// own is the maker's printed order, stop by stop as printed.
func own(c *cycle.Cycle) ([]draft, string) {
	if len(c.Sheet.OwnSequence) == 0 {
		return nil, "The sheet holds no printed order of the maker's."
	}
	var drafts []draft
	for i, stop := range c.Sheet.OwnSequence {
		d := draft{crank: stop.Crank.Wrap(), ordinal: i, watch: placeSigns(c, stop.Crank)}
		for _, name := range stop.Set {
			if v, ok := c.Valve(name); ok {
				d.set = append(d.set, SetValve{name, c.Margin(v, d.crank)})
			}
		}
		drafts = append(drafts, d)
	}
	return drafts, ""
}

// disagreements names each valve that the geometry would not set where the maker does.
func disagreements(c *cycle.Cycle, drafts []draft, need measure.Angle) []string {
	var list []string
	for _, d := range drafts {
		for _, v := range d.set {
			if v.Margin >= need {
				continue
			}
			where := fmt.Sprintf("stands only %s from its opening or closing", v.Margin.Against(need))
			if v.Margin < 0 {
				where = fmt.Sprintf("is still open, %s inside its lift", -v.Margin)
			}
			list = append(list, fmt.Sprintf("%s %s at the maker's stop of %s; %s is required by this sheet. Check the printed order and the cam card before it is set there.",
				v.Valve, where, d.crank, need))
		}
	}
	return list
}

// pulleySign is the pulley mark under the pointer at a position, else the reading of a degree wheel.
func pulleySign(s *engine.Sheet, crank measure.Angle) []Sighting {
	if m, ok := markAt(s, crank); ok {
		return []Sighting{{What: Mark, Mark: m}}
	}
	return []Sighting{{What: Degrees, Mark: onPulley(crank)}}
}

// onPulley is what a degree wheel on the crank reads, 0 ≤ m < 360°.
func onPulley(crank measure.Angle) measure.Angle { return crank.Wrap() % measure.Turn }

// placeSigns is what can be seen at a computed position: mark or degrees, then which cylinder fires or rocks there.
func placeSigns(c *cycle.Cycle, crank measure.Angle) []Sighting {
	signs := pulleySign(c.Sheet, crank)
	for _, cylinder := range c.Sheet.FiringOrder {
		switch theta := c.Theta(cylinder, crank); {
		case measure.Apart(theta, cycle.FiringTDC) < measure.SameAngle:
			signs = append(signs, Sighting{What: TDCFiring, Cylinder: cylinder})
		case measure.Apart(theta, cycle.OverlapTDC) < measure.SameAngle:
			signs = append(signs, Sighting{What: Rocking, Cylinder: cylinder})
		}
	}
	return signs
}
