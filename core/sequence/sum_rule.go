package sequence

import (
	"fmt"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
)

// sumRule is the rule of nine and its kin: valve w pressed right down, the valve numbered N + 1 − w is set.
// It holds only where that partner is the same kind of valve on the companion cylinder, on one head with one
// row of one intake and one exhaust each.
//
// On a straight four in the row E I I E E I I E, numbered 1 to 8 from the front, the rule of nine pairs 1
// with 8, 2 with 7, 3 with 6, 4 with 5 (common practice). It works because such a row reads the same from
// both ends, so that the partner is the same kind of valve of the companion cylinder: one is at the top of
// its lobe exactly where the other is in the middle of its base circle, 360 degrees apart. A straight six
// with a row of that kind has the rule of thirteen.
//
// It is the deepest place that a stop can have, half of the valve's whole closed interval, which is why it
// is liked for long cams. It has as many stops as valves.
//
// On a row such as E I E I E I E I the numbers pair an exhaust with an intake and the rule would set a
// valve that is open or near it. So the rule is never assumed: each pair is checked, and the first that
// fails is named as the reason.
//
// In the order of the numbers the crank is turned far more than in the order in which the valves come
// down; both are taught.
var sumRule = school{
	name: SumRule, numbered: true,
	titleOf: func(valves int) string {
		if valves == 8 {
			return "Rule of nine"
		}
		return fmt.Sprintf("Rule of %d", valves+1)
	},
	howTo: "With one valve fully down, its partner is mid base circle.",
	stops: sumRuleStops,
}

func sumRuleStops(c *cycle.Cycle, _ Request, _ measure.Angle) ([]draft, string) {
	if reason := sumRuleShape(c); reason != "" {
		return nil, reason
	}
	sum := len(c.Valves) + 1
	var drafts []draft
	for _, watched := range c.Valves {
		partner := c.Valves[sum-watched.RowNumber-1]
		if reason := notPartners(c, watched, partner, sum); reason != "" {
			return nil, reason
		}
		at := c.PeakAt(watched)
		drafts = append(drafts, draft{
			crank: at, ordinal: watched.RowNumber,
			watch: []Sighting{{What: FullLift, Valve: watched.Name, Row: watched.RowNumber}},
			set:   []SetValve{{partner.Name, c.Margin(partner, at)}},
		})
	}
	return drafts, ""
}

// sumRuleShape is the rule's precondition on the shape of the head: why it does not hold, empty where it
// does.
func sumRuleShape(c *cycle.Cycle) string {
	if !c.Sheet.OneRow() {
		return "The valves are not numbered in one row from front to rear: this rule needs one head with " +
			"one row."
	}
	counts := map[int][2]int{}
	for _, v := range c.Valves {
		n := counts[v.Cylinder]
		if v.Kind == engine.Intake {
			n[0]++
		} else {
			n[1]++
		}
		counts[v.Cylinder] = n
		if n[0] > 1 || n[1] > 1 {
			return fmt.Sprintf("Cylinder %d has several valves of a kind: this rule needs one intake and "+
				"one exhaust each.", v.Cylinder)
		}
	}
	return ""
}

// notPartners says why the numbers would pair two valves that are no partners, empty where they are: no
// companion, another kind of valve, or a cylinder that is not the companion. The sentence names both
// valves by number and by name, as a learner says them.
func notPartners(c *cycle.Cycle, watched, partner engine.Valve, sum int) string {
	said := fmt.Sprintf("The rule of %d would pair valve %d (%s) with valve %d (%s)",
		sum, watched.RowNumber, watched.Name, partner.RowNumber, partner.Name)
	companion, ok := c.Companion(watched.Cylinder)
	switch {
	case !ok:
		return fmt.Sprintf("%s, but cylinder %d has no companion firing one turn away.", said,
			watched.Cylinder)
	case partner.Kind != watched.Kind:
		return fmt.Sprintf("%s, an %s with an %s: it would set the wrong valve.", said, watched.Kind,
			partner.Kind)
	case partner.Cylinder != companion:
		return fmt.Sprintf("%s, but cylinder %d's companion is %d: it would set the wrong valve.", said,
			watched.Cylinder, companion)
	}
	return ""
}
