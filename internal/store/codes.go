package store

import (
	"fmt"
	"net/url"
	"strconv"
	"strings"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/sequence"
	"metronix/core/wear"
)

// What is next in a job, what it came to, and why a vehicle is due are kept as codes and figures in one
// column each, as a query of an address has them: "action=turn&by=180000000&turning=on&until=rocking.4...".
// They are put in words when they are told. What is empty is left out.

// codes are the fields of something small as text: names and values as in a query string, empty ones left
// out. No sentence is stored: words are made when they are told, in the units of whoever asks.
type codes struct{ url.Values }

// coded is a value without fields yet.
func coded() codes { return codes{url.Values{}} }

// readCodes reads what was written as codes.
func readCodes(text string) (codes, error) {
	v, err := url.ParseQuery(text)
	return codes{v}, err
}

// text adds a field where it says something.
func (c codes) text(name, value string) {
	if value != "" {
		c.Add(name, value)
	}
}

// number adds a figure that is not nought.
func (c codes) number(name string, n int64) {
	if n != 0 {
		c.Add(name, strconv.FormatInt(n, 10))
	}
}

// figure reads a number; 0 where there is none.
func (c codes) figure(name string) int64 {
	n, _ := strconv.ParseInt(c.Get(name), 10, 64)
	return n
}

// codesOfBrief is what is next in a job, as the board's row keeps it.
func codesOfBrief(b job.Brief) string {
	c := coded()
	c.text("action", string(b.Action))
	c.text("valve", b.Valve)
	c.text("turning", string(b.Turning))
	c.number("by", int64(b.By))
	c.number("turns", int64(b.Turns))
	for _, w := range b.Until {
		c.text("until", codeOfSighting(w))
	}
	if b.Shims {
		c.text("shims", "yes")
	}
	c.text("signed_by", b.SignedBy)
	c.text("outcome", codesOfOutcome(b.Outcome))
	return c.Encode()
}

// briefOf reads that back; it errs where the row was damaged, never with half of it.
func briefOf(text string) (b job.Brief, err error) {
	c, err := readCodes(text)
	if err != nil {
		return b, err
	}
	b = job.Brief{
		Action:   job.Action(c.Get("action")),
		Valve:    c.Get("valve"),
		Turning:  job.Turning(c.Get("turning")),
		By:       measure.Angle(c.figure("by")),
		Turns:    int(c.figure("turns")),
		Shims:    c.Get("shims") == "yes",
		SignedBy: c.Get("signed_by"),
	}
	for _, code := range c.Values["until"] {
		w, err := sightingOf(code)
		if err != nil {
			return b, err
		}
		b.Until = append(b.Until, w)
	}
	b.Outcome, err = outcomeOf(c.Get("outcome"))
	return b, err
}

// codeOfSighting is what is seen, its cylinder, row, valve, mark and sign, with points between.
func codeOfSighting(w sequence.Sighting) string {
	return fmt.Sprintf("%s.%d.%d.%s.%d.%s", w.What, w.Cylinder, w.Row, w.Valve, int64(w.Mark), w.Sign)
}

// sightingOf reads one thing seen: six parts between points, the last a name that may hold points itself.
func sightingOf(code string) (w sequence.Sighting, err error) {
	parts := strings.SplitN(code, ".", 6)
	if len(parts) < 6 {
		return w, fmt.Errorf("%q is no sighting", code)
	}
	mark, err := strconv.ParseInt(parts[4], 10, 64)
	w = sequence.Sighting{
		What:  sequence.What(parts[0]),
		Valve: parts[3],
		Mark:  measure.Angle(mark),
		Sign:  parts[5],
	}
	for i, n := range []*int{&w.Cylinder, &w.Row} {
		if err == nil {
			*n, err = strconv.Atoi(parts[1+i])
		}
	}
	return w, err
}

// codesOfOutcome is how a job ended: put off, nothing set, which valves were left out.
func codesOfOutcome(o job.Outcome) string {
	c := coded()
	c.text("waits", string(o.Deferred.Waits))
	c.text("until", o.Deferred.Until)
	if o.NothingSet {
		c.text("nothing_set", "yes")
	}
	for _, l := range o.Left {
		c.text("left", codeOfLeft(l))
	}
	return c.Encode()
}

// outcomeOf reads that back.
func outcomeOf(text string) (o job.Outcome, err error) {
	c, err := readCodes(text)
	if err != nil {
		return o, err
	}
	o = job.Outcome{Deferred: job.Deferral{Waits: job.WaitsFor(c.Get("waits")), Until: c.Get("until")},
		NothingSet: c.Get("nothing_set") == "yes"}
	o.Left = leftOf(c.Values["left"])
	return o, nil
}

// codeOfLeft is a valve and the side on which it was left: "E1.tight".
func codeOfLeft(l wear.LeftOut) string { return l.Valve + "." + string(l.Side) }

// leftOf reads the valves that were left out of limits, each with its side.
func leftOf(list []string) (left []wear.LeftOut) {
	for _, code := range list {
		valve, side, _ := strings.Cut(code, ".")
		left = append(left, wear.LeftOut{Valve: valve, Side: wear.Side(side)})
	}
	return left
}

// codesOfCause is why a vehicle is due. A distance keeps every digit: it is compared when the row is made
// anew.
func codesOfCause(w wear.Cause) string {
	c := coded()
	c.text("kind", string(w.Kind))
	c.text("valve", w.Valve)
	c.text("side", string(w.Side))
	if w.Run != 0 {
		c.text("km", strconv.FormatFloat(w.Run, 'g', -1, 64))
	}
	c.text("by", string(w.By))
	c.number("months", int64(w.Months))
	c.number("weeks", int64(w.Weeks))
	c.text("what", w.What)
	for _, l := range w.Left {
		c.text("left", codeOfLeft(l))
	}
	return c.Encode()
}

// causeOf reads that back.
func causeOf(text string) (wear.Cause, error) {
	c, err := readCodes(text)
	if err != nil {
		return wear.Cause{}, err
	}
	run, _ := strconv.ParseFloat(c.Get("km"), 64)
	return wear.Cause{
		Kind:   wear.CauseKind(c.Get("kind")),
		Valve:  c.Get("valve"),
		Side:   wear.Side(c.Get("side")),
		Run:    run,
		By:     measure.Counter(c.Get("by")),
		Months: int(c.figure("months")),
		Weeks:  int(c.figure("weeks")),
		What:   c.Get("what"),
		Left:   leftOf(c.Values["left"]),
	}, nil
}

// codesOfDots are the valves with the verdict of each, in their order: "E1.in I1. E2.tight".
func codesOfDots(dots []record.Dot) string {
	list := make([]string, len(dots))
	for i, d := range dots {
		list[i] = d.Valve + "." + string(d.Verdict)
	}
	return strings.Join(list, " ")
}

// dotsOf reads a row of valves with their verdicts, as the board draws it.
func dotsOf(text string) (dots []record.Dot) {
	for _, code := range strings.Fields(text) {
		valve, verdict, _ := strings.Cut(code, ".")
		dots = append(dots, record.Dot{Valve: valve, Verdict: clearance.Verdict(verdict)})
	}
	return dots
}
