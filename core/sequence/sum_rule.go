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
var sumRule = school{
	name: SumRule, numbered: true,
	titleOf: func(valves int) string {
		if valves == 8 {
			return "Rule of nine"
		}
		return fmt.Sprintf("Rule of %d", valves+1)
	},
	howTo: "Press-down of one valve puts its partner in the middle of its base circle.",
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
			watch: []Sighting{{What: FullLift, Valve: watched.Name}},
			set:   []SetValve{{partner.Name, c.Margin(partner, at)}},
		})
	}
	return drafts, ""
}

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
