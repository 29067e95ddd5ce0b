package sequence_test

import (
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"strings"
	"testing"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
	"metronix/internal/golden"
)

// Over engines of one to twelve cylinders, evenly and unevenly firing, with cam cards and without: the stops
// of every school in both directions, the best plans, and where the crank may stand by what is seen, all stay
// as they were.
func TestPlansAndPlacesStay(t *testing.T) {
	var lines []string
	chance := rand.New(rand.NewPCG(11, 3))
	for _, s := range stayingEngines() {
		lines = append(
			lines,
			fmt.Sprintf("# %d %v %v %v", s.Cylinders, s.FiringOrder, s.FiringAngles, s.Banks[0].Rows),
		)
		for _, school := range sequence.Schools() {
			for _, d := range []sequence.Direction{"", sequence.Back} {
				lines = append(lines, planLine(s, sequence.Way{School: school, Direction: d}))
			}
		}
		for _, p := range sequence.Compare(s, nil).Frontier {
			lines = append(lines, fmt.Sprintf("frontier %+v", p))
		}
		c := cycle.New(s)
		for range 25 {
			lines = append(lines, placeLine(s, c, chance))
		}
	}
	golden.Hold(t, "plans", lines)
}

func stayingEngines() []*engine.Sheet {
	twin := enginetest.Inline([]int{1, 2}, "EIEI")
	twin.FiringAngles = enginetest.Degrees(0, 270)
	four := enginetest.Four()
	four.Timing = enginetest.Timing(14, 50, 52, 12)
	back := enginetest.Inline([]int{1, 3, 2}, "EIEIEI")
	back.Rotation, back.MayTurnBack = engine.Anticlockwise, true
	marked := enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEEEEEE")
	marked.Marks = enginetest.Degrees(0, 180)
	return []*engine.Sheet{enginetest.Inline([]int{1}, "EI"), twin, back, four, marked,
		enginetest.Inline(
			[]int{1, 2, 4, 5, 3},
			"EIEIEIEIEI",
		), enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE"),
		enginetest.Inline([]int{1, 8, 4, 3, 6, 5, 7, 2}, "EIIEEIIEEIIEEIIE"),
		enginetest.Inline([]int{1, 7, 5, 11, 3, 9, 6, 12, 2, 8, 4, 10}, "EIEIEIEIEIEIEIEIEIEIEIEI")}
}

func planLine(s *engine.Sheet, w sequence.Way) string {
	p, err := sequence.Make(s, sequence.Request{Way: w})
	if err != nil {
		return fmt.Sprintf("%s %s: %v", w.School, w.Direction, err)
	}
	var stops []string
	for _, stop := range p.Stops {
		stops = append(stops, fmt.Sprintf("%v +%v %v %s", stop.Crank, stop.Turn, stop.Set, stop.Until()))
	}
	h := fnv.New64a() // of the words, which are held to the letter elsewhere
	for i, stop := range p.Stops {
		fmt.Fprintln(h, p.How(i), stop.Standing(), stop.HowToSee(), p.Why(i), sequence.Marked(s, stop.Crank))
		for _, v := range s.Valves() {
			fmt.Fprintln(
				h,
				stop.Sets(v.Name),
				sequence.LeastMargin(cycle.New(s), v, sequence.Exactly(stop.Crank)),
				sequence.LeastMargin(
					cycle.New(s),
					v,
					sequence.Range{From: stop.Crank, To: (stop.Crank + 40*measure.Degree).Wrap()},
				),
			)
		}
	}
	return fmt.Sprintf(
		"%s %s: %v %s %v %v %v: %s %x",
		w.School,
		w.Direction,
		p.Applies,
		p.Reason,
		p.TotalTurn,
		len(p.Assumed),
		p.MarksNeeded(),
		strings.Join(stops, " | "),
		h.Sum64(),
	)
}

// placeLine is where the crank may stand by one to three things that are truly seen somewhere.
func placeLine(s *engine.Sheet, c *cycle.Cycle, chance *rand.Rand) string {
	crank := measure.Angle(chance.IntN(720)) * measure.Degree
	var seen []sequence.Sighting
	for range 1 + chance.IntN(3) {
		v := c.Valves[chance.IntN(len(c.Valves))]
		what := sequence.Loose
		if c.Margin(v, crank) < 0 {
			what = sequence.Pressed
		} else if chance.IntN(2) == 0 {
			what = sequence.LobeAway
		}
		seen = append(seen, sequence.Sighting{What: what, Valve: v.Name})
	}
	cylinder := 1 + chance.IntN(s.Cylinders)
	switch chance.IntN(9) {
	case 0:
		seen = append(seen, sequence.Sighting{What: sequence.Mark})
	case 1:
		seen = []sequence.Sighting{{What: sequence.TDCFiring, Cylinder: cylinder}}
	case 2:
		seen = []sequence.Sighting{{What: sequence.Rocking, Cylinder: cylinder}}
	case 3:
		seen = append(seen, sequence.Sighting{What: sequence.Degrees, Mark: crank % measure.Turn})
	case 4:
		seen = []sequence.Sighting{{What: sequence.LobesAway, Cylinder: cylinder}}
	case 5:
		seen = []sequence.Sighting{
			{What: []sequence.What{sequence.FullLift, sequence.Opening, sequence.Closing}[chance.IntN(3)],
				Valve: seen[0].Valve},
		}
	}
	margin := measure.Angle(chance.IntN(120)) * measure.Degree
	l, err := sequence.Locate(s, seen, &margin)
	said := ""
	for _, w := range seen {
		said += sequence.Describe(s, w) + "; "
	}
	return fmt.Sprintf("at %v seen %s for %v: %+v %v %s", crank, said, margin, l, err,
		sequence.OneTurnOut(s, seen, l.Positions, &crank))
}
