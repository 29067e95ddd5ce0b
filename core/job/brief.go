package job

import (
	"fmt"

	"metronix/core/measure"
	"metronix/core/sequence"
)

// Turning is how the crank is turned next.
type Turning string

// The ways; the zero value is that it is not turned.
const (
	NotTurned  Turning = ""
	GoTo       Turning = "to"      // until something is seen: where it stands now is not known
	GoOn       Turning = "on"      // on by an angle
	GoBack     Turning = "back"    // back by an angle
	GoOver     Turning = "over"    // full turns before the check round, and on by an angle
	Confirming Turning = "confirm" // not at all: it is believed to stand there, and has to be looked at
)

// Brief is what is next in a job, for those who only look on. It is codes and figures, and put in words by
// String when it is told.
type Brief struct {
	Action   Action
	Valve    string // empty: it is about none
	Turning  Turning
	By       measure.Angle       // for GoOn, GoBack and GoOver: by how much
	Turns    int                 // for DoBarOver: how many full turns
	Until    []sequence.Sighting // what is then seen, of one place
	Shims    bool                // for DoAdjust: shims are chosen
	SignedBy string              // for DoNothing
	Outcome  Outcome
}

// Brief is what is next.
func (j *Job) Brief() Brief {
	n := j.Next()
	b := Brief{Action: n.Action, Valve: n.Valve}
	switch n.Action {
	case DoTurn:
		b.Turning = GoTo
		switch {
		case n.Confirm:
			b.Turning = Confirming
		case j.Sure():
			b.Turning, b.By = GoOn, n.Turn
			if j.Way.Direction == sequence.Back {
				b.Turning = GoBack
			}
		}
	case DoBarOver:
		b.Turns = 2 * int(n.Turn/measure.Cycle)
		b.Turning, b.By = GoOver, n.Turn%measure.Cycle
	case DoAdjust:
		b.Shims = j.Sheet.Shimmed()
	case DoNothing:
		b.SignedBy, b.Outcome = j.SignedBy, j.Outcome()
	}
	if b.Turning != NotTurned {
		b.Until = j.Plan.Stops[n.Stop].Seen()
	}
	return b
}

// String says it in a line: "Turn a further 180° until cylinder 4 rocks".
func (b Brief) String() string {
	if turn, ok := b.Instruction(); ok {
		return turn.String()
	}
	switch b.Action {
	case DoChooseWay:
		return "Choose the sequence"
	case DoPrepare:
		return "Take the engine’s temperature"
	case DoFree:
		return "Slacken " + b.Valve
	case DoRead:
		return "Read " + b.Valve
	case DoKeep:
		return "Keep the reading of " + b.Valve
	case DoAdjust:
		if b.Shims {
			return "Choose the shims"
		}
		return "Set " + b.Valve
	case DoLock:
		return b.Valve + ": the nut is slack"
	case DoBarOver:
		return "Turn the crank " + FullTurns(b.Turns)
	case DoSign:
		return "Account for all tools, then sign"
	case DoGoHot:
		return "Signed cold: the hot pass is waiting"
	case DoNothing:
		if outcome := b.Outcome.String(); outcome != "" {
			return fmt.Sprintf("Signed by %s: %s", b.SignedBy, outcome)
		}
		return "Signed by " + b.SignedBy
	}
	return ""
}

// Instruction is one thing to do in words: how, and until what is seen. "Turn a further 180°", "cylinder 4
// rocks".
type Instruction struct {
	How     string
	Until   string
	confirm bool
}

// String is the whole sentence without its full stop: turning goes on until something is seen, confirming is
// that it is.
func (i Instruction) String() string {
	if i.confirm {
		return i.How + " " + i.Until
	}
	return i.How + " until " + i.Until
}

// Instruction says how the crank is turned to the next stop, and until what is seen; ok is false where
// turning is not what is next.
func (b Brief) Instruction() (i Instruction, ok bool) {
	i.Until = sequence.UntilSeen(b.Until)
	switch b.Turning {
	case NotTurned:
		return Instruction{}, false
	case GoTo:
		i.How = "Turn the crank"
	case GoOn:
		i.How = sequence.TurnBy(b.By, sequence.Running)
	case GoBack:
		i.How = sequence.TurnBy(b.By, sequence.Back)
	case Confirming:
		i.How, i.confirm = "Confirm that", true
	case GoOver:
		if i.How = "Turn the crank " + FullTurns(b.Turns); b.By > 0 {
			i.How = fmt.Sprintf("Turn the crank %s and a further %s", FullTurns(b.Turns), b.By)
		}
	}
	return i, true
}

// Instruction says how the crank is turned to what is next; ok is false where it is not turned.
func (j *Job) Instruction() (Instruction, bool) { return j.Brief().Instruction() }
