package clearance

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/golden"
)

// Over drawn windows, sets, rules and gaps: which leaves are advised one after the other, what the verdict is
// and how sure, which leaves would prove it and which would pin it down, all stay as they were.
func TestAdviceStays(t *testing.T) {
	chance := rand.New(rand.NewPCG(7, 7))
	var lines []string
	for range 500 {
		y, gap := drawnYardstick(chance)
		var readings []Reading
		var told []string
		for judged := y.Judge(nil); judged.TryNext != nil && len(readings) < 9; judged = y.Judge(readings) {
			r := Reading{Stack: judged.TryNext, Feel: feelOf(gap, judged.TryNext.Thickness())}
			if r.Feel == Drag {
				r.Feel = []Feel{Drag, Drag, DragLight, DragFirm}[chance.IntN(4)]
			}
			readings = append(readings, r)
			told = append(told, fmt.Sprintf("%s %s", r.Stack, r.Feel))
		}
		j := y.Judge(readings)
		down, up, _ := y.CrossCheck(readings)
		lines = append(lines, fmt.Sprintf(
			"%s %s %d: %s: %s %v %s %s %s pin %s cross %s %s",
			y.Limits,
			y.Rule,
			gap/um,
			strings.Join(told, ", "),
			j.Verdict,
			j.Sure,
			j.Side,
			fmt.Sprintf("%+v", j.Known()),
			j.Conflict,
			PinDown(readings, y.Owned),
			down,
			up,
		))
		if len(lines)%10 == 0 {
			lines = append(lines, j.Why(readings, measure.Millimetres), j.Why(readings, measure.Thousandths))
		}
	}
	golden.Hold(t, "advice", lines)
}

// drawnYardstick is a window, a set of leaves and a rule, and a true gap about the window.
func drawnYardstick(chance *rand.Rand) (y Yardstick, gap measure.Length) {
	lower := measure.Length(180+chance.IntN(80)) * um
	w := measure.Window{Lower: lower, Upper: lower + measure.Length(10+chance.IntN(60))*um}
	y = Yardstick{Limits: FromWindow(w), Rule: []Rule{Workshop, Workshop, Guarded, OneLeaf}[chance.IntN(4)],
		Feel: measure.Length(chance.IntN(9)) * um, Aim: w.Lower + (w.Upper-w.Lower)/2}
	y.Limits.NominalOnly = chance.IntN(4) == 0
	seen := map[measure.Length]bool{}
	for range 3 + chance.IntN(16) {
		marked := measure.Length(4+chance.IntN(38)) * 10 * um
		if seen[marked] {
			continue
		}
		seen[marked] = true
		leaf := gauge.Leaf{ID: gauge.ID{Marked: marked, Angled: chance.IntN(6) == 0}}
		if chance.IntN(2) == 0 {
			leaf.Measured = marked + measure.Length(chance.IntN(7)-3)*um
		}
		y.Owned = append(y.Owned, leaf)
	}
	return y, max(5*um, w.Lower+measure.Length(chance.IntN(190)-80)*um)
}
