package sequence

import (
	"fmt"

	"metronix/core/cycle"
	"metronix/core/measure"
)

// own is the maker's printed order, stop by stop as printed. It wins over the geometry, and is cautioned of
// where they disagree.
//
// A maker may want a position off the middle of the base circle: to have a decompressor clear, or because
// a chain lies easier there. So the printed stops are kept as they are, in their order, and each valve is
// held against the geometry all the same: where it would not be clear by what this sheet requires, a
// caution says so and asks to check the order and the cam card. A slip in copying the table is found so as
// well.
var own = school{
	name: Own, title: "The maker’s own order", printed: true,
	howTo: "As printed for this engine. Where given it wins.",
	stops: ownStops,
}

func ownStops(c *cycle.Cycle, _ Request, _ measure.Angle) ([]draft, string) {
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
			list = append(list, fmt.Sprintf("%s %s at the maker's stop of %s; %s is required by this sheet. "+
				"Check the printed order and the cam card before it is set there.", v.Valve, where, d.crank,
				need))
		}
	}
	return list
}
