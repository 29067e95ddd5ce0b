package bench

import (
	"fmt"
	"strings"

	"metronix/core/adjust"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// This file is every sentence of the bench, one function a sentence.

func sayChoose() Headline { return Headline{Before: "Choose the ", Strong: "sequence."} }

// sayTemperature asks for the engine's temperature, or for another one of a series.
func sayTemperature(again bool) Headline {
	if again {
		return Headline{Before: "Take the ", Strong: "temperature."}
	}
	return Headline{Before: "Take the engine’s ", Strong: "temperature."}
}

// sayMakeSafe comes before hands do.
func sayMakeSafe() Headline { return Headline{Before: "Make the vehicle ", Strong: "safe."} }

// sayConfirmKinds comes before the first verdict on a head that was drawn from a common pattern.
func sayConfirmKinds() Headline {
	return Headline{Before: "Follow the ports: are the ", Strong: "kinds", After: " as drawn?"}
}

// sayTurn turns the crank until something is seen, or has it confirmed where it is believed to stand.
func sayTurn(i job.Instruction, confirm bool) Headline {
	if confirm {
		return Headline{Before: i.How + " ", Strong: i.Until + ".",
			Sub: "Nothing was entered for hours: somebody may have turned the crank."}
	}
	return Headline{Before: i.How + " until ", Strong: i.Until + "."}
}

// sayBarOver turns the crank before the check round; led says that it is known until what is seen.
func sayBarOver(i job.Instruction, led, all bool) Headline {
	h := Headline{Before: "Turn the crank full turns.",
		Sub: "Then each valve that was set is read again, and every lock nut felt."}
	if led {
		h.Before, h.Strong = i.How+" until ", i.Until+"."
	}
	if all {
		h.Sub = "Then every valve is read again, and every lock nut felt."
	}
	return h
}

// sayFree slackens a valve that is freed before any is set.
func sayFree(standing, valve string) Headline {
	return Headline{Before: standing + "Slacken ", Strong: valve + "."}
}

// sayRead reads a valve; in the check round the word is another, so that nobody takes it for the first.
func sayRead(standing, valve string, check bool) Headline {
	if check {
		return Headline{Before: standing + "Check ", Strong: valve + "."}
	}
	return Headline{Before: standing + "Read ", Strong: valve + "."}
}

// sayChange asks for another leaf before a valve is read: the wrong one in hand is felt as a wrong gap.
func sayChange(leaf, valve string, check bool) Headline {
	h := Headline{Before: "Change leaf: ", Strong: leaf, After: ". Read " + valve + "."}
	if check {
		h.After = ". Check " + valve + "."
	}
	return h
}

// sayReadAgain reads a valve after it was set: a lock nut that moved the gap shows here and nowhere else.
func sayReadAgain(valve string, nut bool) Headline {
	if nut {
		return Headline{Before: "Locked. Read ", Strong: valve, After: " again."}
	}
	return Headline{Before: "Fitted. Read ", Strong: valve, After: " again."}
}

// sayDisagree asks for one of the readings to be taken back. Which one only the hand knows.
func sayDisagree(valve string) Headline {
	return Headline{
		Before: valve + ": the readings ",
		Strong: "disagree.",
		Sub:    "Take back the one you trust least.",
	}
}

// sayTry offers the leaf that decides most.
func sayTry(valve, leaf string) Headline {
	return Headline{Before: valve + ": try ", Strong: leaf + "."}
}

// sayKeep gives a verdict that is not sure, and names the leaves that would make it so.
func sayKeep(valve string, is clearance.Verdict, down, up string, mayProve bool) Headline {
	h := Headline{Before: valve + " is ", Strong: verdict(is) + "."}
	if mayProve {
		h.Sub = fmt.Sprintf("To prove it: %s falls through, %s will not go.", down, up)
	}
	return h
}

// saySet sets by feel alone, where no figure says how far to turn.
func saySet(valve, leaf string, w gear.Words) Headline {
	return Headline{Before: "Set " + valve + " to ", Strong: leaf + ".", Sub: w.Until(leaf)}
}

// sayScrew says which way an adjuster goes and how far: "Screw E3 in 36°, clockwise."
func sayScrew(valve, leaf string, t adjust.Turn, w gear.Words) Headline {
	way := map[gear.Way]string{gear.In: w.In, gear.Out: w.Out}[t.Way]
	words := []string{w.Part, valve, way,
		fmt.Sprintf("%v°,", t.Degrees), string(t.Rotation) + "."}
	words = nonEmpty(words)
	return Headline{Strong: strings.Join(words, " "), Sub: w.Until(leaf)}
}

// sayLock tightens the nut in one go.
func sayLock(valve, torque string) Headline {
	return Headline{Before: "Lock ", Strong: valve, After: ", then check again.", Sub: torque}
}

// sayTold is the button that tells three steps in one.
func sayTold(leaf string, torqued bool) string {
	if torqued {
		return "Set, torqued, " + leaf + " drags"
	}
	return "Set, locked, " + leaf + " drags"
}

// sayNip tightens it lightly, its torque to follow: two stages keep the screw from being carried round.
func sayNip(valve string) Headline {
	return Headline{Before: "Nip the nut of ", Strong: valve, After: ".",
		Sub: "A ring spanner on the nut, a driver in the screw to hold it."}
}

// sayTorqueUp is the second stage.
func sayTorqueUp(valve, torque string) Headline {
	return Headline{Before: "Torque ", Strong: valve, After: ", then read it again.", Sub: torque}
}

// sayTorque is a lock nut's torque in a person's units, with what other sources say, or what to do without a
// figure.
func sayTorque(s *engine.Sheet, speaks measure.Units) string {
	text := "No torque is printed: by hand feel, short of straining the thread."
	if to, _ := s.TorquesOf(engine.LockNut); to != nil {
		text = "Lock nut " + to.Say(speaks) + "."
	}
	if others := s.SayOthers(engine.LockNut, speaks); others != "" {
		text += " " + others
	}
	return text + " Hold the screw still."
}

// saySign asks for the tools before the name: a leaf left on a cam costs an engine.
func saySign() Headline {
	return Headline{Before: "Account for all tools and leaves, ", Strong: "then sign."}
}

func sayGoHot() Headline { return Headline{Before: "Warm it up for the ", Strong: "hot pass."} }

func sayDone(by string) Headline { return Headline{Before: "Signed by ", Strong: by + "."} }

func sayWhichShim(valve string) Headline {
	return Headline{Before: "Which shim is under ", Strong: valve + "?", Sub: "Read it off, or measure it."}
}

// sayNoShim names the one that may be tried all the same, or may be once it was bought; 0: there is none.
func sayNoShim(valve string, try, order measure.Length) Headline {
	const surely = "No shim surely serves "
	switch {
	case try > 0:
		return Headline{Before: surely, Strong: valve + ".",
			Sub: "Try " + bare(try) + " and read it, leave it with a reason, or wait for another size."}
	case order > 0:
		return Headline{Before: surely, Strong: valve + ".",
			Sub: bare(order) + " may, and is not here: order it and wait, or leave the valve with a reason."}
	}
	return Headline{Before: "No shim serves ", Strong: valve + ".",
		Sub: "Leave it with a reason, or wait for another size."}
}

// sayWaits names the shim that a valve waits for; one that is not there is to be ordered.
func sayWaits(valve string, shim measure.Length, order bool) Headline {
	h := Headline{Before: valve + " waits for a shim of ", Strong: shim.String() + "."}
	if order {
		h.Sub = "Order it and wait, or leave the valve with a reason."
	}
	return h
}

// sayWaitsForValve is a chain: the giver's own shim has not come, so it gives none.
func sayWaitsForValve(valve, giver string) Headline {
	return Headline{
		Before: valve + " waits for the shim of ",
		Strong: giver + ".",
		Sub:    giver + " keeps it until its own has come. Wait, or leave the valve with a reason.",
	}
}

// sayShim is a shim, or one that stands in for it, that goes in.
func sayShim(s job.ShimStep) Headline {
	switch {
	case s.Source == job.Stays:
		return Headline{Before: "Leave the stand-in under ", Strong: s.Valve, After: ", and read it."}
	case s.Do == job.FitStandIn:
		return Headline{
			Before: "Stand-in under ",
			Strong: s.Valve + ".",
			Sub:    "Its own shim is wanted elsewhere.",
		}
	}
	return Headline{Before: "Fit ", Strong: bare(s.Shim) + " under " + s.Valve + ".",
		Sub: "It comes " + ShimFrom(s.Source, s.From) + "."}
}

// ShimFrom is where a shim is to be had, as it follows a figure: "2.60 mm, from E3".
func ShimFrom(source job.ShimSource, giver string) string {
	switch source {
	case job.FromValve:
		return "from " + giver
	case job.FromBench:
		return "from the loose shims"
	case job.InShop:
		return "from the shop"
	case job.ToBuy:
		return "to order"
	}
	return "stays"
}

// ShimStep is one step of the work on shims as a line of a list; stop is where it is turned to, for those
// that turn.
func ShimStep(s job.ShimStep, stop sequence.Stop) string {
	switch {
	case s.Do == job.TurnOn && s.Turn > 0:
		return fmt.Sprintf("Turn a further %s until %s", s.Turn, stop.Until())
	case s.Do == job.TurnOn:
		return "Turn the crank until " + stop.Until()
	case s.Do == job.FitStandIn && s.Shim == 0:
		return fmt.Sprintf(
			"%s gets a stand-in, %s or thinner; its own comes onto the bench",
			s.Valve,
			bare(s.Most),
		)
	case s.Do == job.FitStandIn:
		return fmt.Sprintf("%s gets a stand-in, %s; its own comes onto the bench", s.Valve, bare(s.Shim))
	case s.Source == job.Stays:
		return fmt.Sprintf("The shim that stands in, %s, stays under %s", bare(s.Shim), s.Valve)
	}
	return fmt.Sprintf("Fit %s (%s) under %s", bare(s.Shim), ShimFrom(s.Source, s.From), s.Valve)
}

// bare is a thickness without its unit, where millimetres go without saying.
func bare(l measure.Length) string { return strings.TrimSuffix(l.String(), " mm") }

func numbered(n int, valve string) string { return fmt.Sprintf("valve %d (%s)", n, valve) }

// sayOwnShift foresees what locking does by the mechanic's own word, and says how far it is from being
// learned.
func sayOwnShift(in clearance.Limits, own, pre, aim measure.Length, learned int) string {
	first := "Leave it a hair tight"
	if own < 0 {
		first = "Back it off a hair first"
	}
	return fmt.Sprintf(
		"%s: set %s for %s, as you say your nut %s it by %s (%d of %d times learned).",
		first,
		in.Say(pre),
		in.Say(aim),
		direction(own < 0),
		in.Say(own.Abs()),
		learned,
		adjust.EnoughPairs,
	)
}

// sayShift foresees it by what was learned.
func sayShift(in clearance.Limits, s adjust.Shift, pre, aim measure.Length) string {
	return fmt.Sprintf("Your lock nut usually %s the gap by %s (%d times, spread %s): set %s for %s.",
		direction(s.Median < 0), in.Say(s.Median.Abs()), s.Count, in.Say(s.Spread), in.Say(pre), in.Say(aim))
}

// Notes on the drawing of the head.
const (
	noteNext  = "next"
	noteRock  = "rocking"
	noteWatch = "watch it rock"
)

// noteDown marks a valve whose lift is the sign of a stop.
func noteDown(valve string, turning bool) string {
	if turning {
		return "watch " + valve
	}
	return valve + " is down"
}

// noteHere marks what may be worked on here, by what is being done.
func noteHere(p job.Phase) string {
	switch p {
	case job.Adjust:
		return "set here"
	case job.Verify:
		return "check here"
	}
	return "read here"
}

// nonEmpty leaves out words that a kind of adjuster has not.
func nonEmpty(words []string) (out []string) {
	for _, w := range words {
		if w != "" {
			out = append(out, w)
		}
	}
	return out
}
