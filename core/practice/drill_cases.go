package practice

import (
	"math/rand/v2"
	"metronix/core/engine"
)

// Case is something that is met with, what it comes to, and why.
type Case struct {
	Says  string
	Comes string
	Why   string
}

// cases are a drill's, each with what it comes to in words.
func cases(list []struct {
	says  string
	right int
	why   string
}, choices []string,
) (out []Case) {
	for _, c := range list {
		out = append(out, Case{c.says, choices[c.right], c.why})
	}
	return out
}

// Heats are engines as they come in, and which card holds for each.
func Heats() []Case { return cases(heats, cards) }

// Nexts are what stands at a valve, and what comes next.
func Nexts() []Case { return cases(nexts, acts) }

// cards and acts are what the drills offer.
var (
	cards = []string{"The cold one", "The hot one", "Neither: it waits"}
	acts  = []string{"Leave it, the next valve", "Loosen the nut and set it", "Tighten the nut", "Feel it again",
		"Turn the crank"}
)

// HowItDrags says what a drag is.
const HowItDrags = "It falls through where the gap is wider; the nearer the gap is to the leaf the harder it drags; then it does " +
	"not go in."

// TwoCards is what there is to choose between.
const TwoCards = "One card says 0.20 cold, the other 0.25 hot."

// heats are engines of which it is asked which card holds (common practice).
var heats = []struct {
	says  string
	right int
	why   string
}{
	{"It stood overnight.", 0, "Overnight it is as cold as its surroundings."},
	{
		"Its fan cut in, and it was stopped four minutes ago.",
		1,
		"Hot figures hold for about ten minutes from its stopping.",
	},
	{
		"Its fan cut in, and it was stopped half an hour ago.",
		2,
		"It is not hot any more and not cold yet: no figure was given for that.",
	},
	{
		"It came in from the road an hour ago, and is hand warm.",
		2,
		"Hand warm is not cold: cold figures would set it wrong.",
	},
	{"It ran for two minutes to bring it into the bay, and its needle has not moved.", 2,
		"A run of two minutes makes it neither cold nor hot."},
}

func askCard(_ *engine.Sheet, chance *rand.Rand) (Question, error) {
	h := heats[chance.IntN(len(heats))]
	q := Question{
		Says: TwoCards + " " + h.says + " Which holds?",
		Why:  h.why,
	}
	return q.plain(h.right, cards...), nil
}

// nexts are what a mechanic does next (common practice).
var nexts = []struct {
	says  string
	right int
	why   string
}{
	{"The valve was felt: it is in.", 0, "What is in is left alone: every setting may go wrong."},
	{"The valve was felt: it is too loose.", 1, "What is out is set while its leaf is in the hand."},
	{"The leaf drags as it should, the nut is loose.", 2, "Until the nut is tight the screw may turn."},
	{"The nut was tightened.", 3, "Tightening a nut moves the gap: it is felt again."},
	{"All valves that are clear here are in and locked.", 4, "The others come clear at the next stop."},
	{
		"The nut is tight and the leaf does not go in any more.",
		1,
		"Locking has closed it: it is set once more, a hair looser.",
	},
}

func askNext(_ *engine.Sheet, chance *rand.Rand) (Question, error) {
	n := nexts[chance.IntN(len(nexts))]
	q := Question{Says: n.says + " What comes next?", Why: n.why}
	return q.plain(n.right, acts...), nil
}
