package wear

import (
	"fmt"
	"strings"

	"metronix/core/measure"
)

// This file is how it is said when a vehicle is due. What is kept of that are the codes and figures of a
// Cause: it is put in words, in a person's own units, when it is told.

// CauseKind is what decided when a vehicle is due.
type CauseKind string

// What may decide.
const (
	NoVisit  CauseKind = ""         // nothing: no job of it is finished
	Unknown  CauseKind = "unknown"  // nothing: neither an interval nor a rate is known
	Distance CauseKind = "distance" // the interval by distance: Run
	Time     CauseKind = "time"     // the interval by time: Months
	Leaves   CauseKind = "leaves"   // Valve leaves its limits, on Side
	WasOut   CauseKind = "was_out"  // Valve was left out of its limits at the last visit that counts, on Side
	Left     CauseKind = "left"     // the last job left valves out of their limits: Left
	PutOff   CauseKind = "put_off"  // the last job was put off
	OnceOnly CauseKind = "once"     // What was fitted, and is checked once after Weeks or Run
)

// Cause is why a vehicle is due then. Which of its fields are filled depends on its kind; Months besides
// where the interval by time is known too, and whichever comes first decides.
type Cause struct {
	Kind   CauseKind
	Valve  string
	Side   Side
	Run    float64 // in what By counts
	By     measure.Counter
	Months int
	Weeks  int
	What   string
	Left   []LeftOut
}

// String says it with kilometres first.
func (c Cause) String() string { return c.In(measure.Units{}) }

// In says it as a sentence in a person's units: "The interval of 24,000 km (14,913 miles), or that of 12
// months, whichever comes first."
func (c Cause) In(u measure.Units) string {
	switch c.Kind {
	case NoVisit:
		return "There is no visit yet."
	case Unknown:
		return "Enter an interval, or do a second job."
	case Time:
		return fmt.Sprintf("The interval of %s.", months(c.Months))
	case Distance:
		return fmt.Sprintf("The interval of %s%s.", u.Run(c.By, c.Run), c.orMonths())
	case Leaves:
		return fmt.Sprintf("%s leaves its limits on the %s side%s.", c.Valve, c.Side, c.orMonths())
	case WasOut:
		return fmt.Sprintf("%s was left out of its limits, on the %s side%s.", c.Valve, c.Side, c.orMonths())
	case Left:
		return fmt.Sprintf("Left out of limits: %s.", leftOut(c.Left))
	case PutOff:
		return "The last job was put off."
	case OnceOnly:
		return fmt.Sprintf("Once, %s after the %s.", c.after(u), c.What)
	}
	return fmt.Sprintf("%q is no cause that is known.", string(c.Kind))
}

// orMonths is the interval by time, where it may come before.
func (c Cause) orMonths() string {
	if c.Months == 0 {
		return ""
	}
	return fmt.Sprintf(", or the interval of %s, whichever comes first", months(c.Months))
}

// after is how long after something was fitted it is checked.
func (c Cause) after(u measure.Units) string {
	switch {
	case c.Weeks > 0 && c.Run > 0:
		return fmt.Sprintf("%s or %s", weeks(c.Weeks), u.Run(c.By, c.Run))
	case c.Run > 0:
		return u.Run(c.By, c.Run)
	}
	return weeks(c.Weeks)
}

func leftOut(list []LeftOut) string {
	var names []string
	for _, l := range list {
		names = append(names, fmt.Sprintf("%s %s", l.Valve, l.Side))
	}
	return strings.Join(names, ", ")
}

func months(n int) string {
	if n == 1 {
		return "1 month"
	}
	return fmt.Sprintf("%d months", n)
}

func weeks(n int) string {
	if n == 1 {
		return "1 week"
	}
	return fmt.Sprintf("%d weeks", n)
}
