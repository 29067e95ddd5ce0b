package sequence

import (
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// deal puts each valve to the stop at which its margin is largest; of equally deep ones to the smaller crank
// position.
//
// That is the rule that reproduces the trade's printed tables for stops that do not belong to one
// cylinder. The tie goes to the smaller position so that the same sheet always gives the same plan.
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
//
// Valves of one kind of one cylinder come down together; two stops a hair apart would be one place with
// two names.
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

// pulleySign is the pulley mark under the pointer at a position, else the reading of a degree wheel.
func pulleySign(s *engine.Sheet, crank measure.Angle) []Sighting {
	if m, ok := markAt(s, crank); ok {
		return []Sighting{{What: Mark, Mark: m}}
	}
	return []Sighting{{What: Degrees, Mark: onPulley(crank)}}
}

// onPulley is what a degree wheel on the crank reads, 0 ≤ m < 360°.
func onPulley(crank measure.Angle) measure.Angle { return crank.Wrap() % measure.Turn }

// placeSigns is what can be seen at a computed position: mark or degrees, then which cylinder fires or rocks
// there.
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
