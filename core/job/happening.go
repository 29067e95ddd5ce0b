// Package job is the order of work on one engine as a state machine over an append-only list of happenings: what is next,
// what is settled, what may be signed. The state is always computed from the list and never kept beside it.
//
// A happening is taken in two steps: today's rules say whether it may happen (a Refusal says why not), and only then it does
// what it does. What was accepted once is never refused again: a stored list replays by its effects alone, so that a rule made
// later cannot shut a job that is half done.
package job

import (
	"time"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// Kind is what happened.
type Kind string

// The happenings of a job. The comment names the fields of Happening that count; others are ignored.
const (
	WayChosen  Kind = "way_chosen"  // School, Order, Direction, Positions, StopCount
	Thermal    Kind = "temperature" // EngineC, AmbientC: written down, while the engine cools or warms
	Prepared   Kind = "prepared"    // EngineC, AmbientC; Reason where the gate is overridden
	Turned     Kind = "turned"      // Stop: the crank now stands at that stop of the plan
	Located    Kind = "located"     // Seen: what is visible tells where the crank stands
	Doubted    Kind = "doubted"     // the crank may have been turned: its place must be found again
	Picked     Kind = "picked"      // Valve: the mechanic turned to this valve
	ReadingHad Kind = "reading"     // Valve, Leaves, Feel; MadeThere
	DialRead   Kind = "dial"        // Valve, Gap, Uncertainty: read off a dial indicator; MadeThere
	Withdrawn  Kind = "withdrawn"   // Valve, Index: one reading not kept yet is taken back
	Sized      Kind = "sized"       // Valve, Shim: the shim found fitted
	Kept       Kind = "kept"        // Valve: its readings stand, on to the next
	Adjusted   Kind = "adjusted"    // Valve; Leaves it was set by; Shim that went in, From the valve it came from, CamsOut: its adjuster was moved and is not locked yet
	Locked     Kind = "locked"      // Valve: its lock nut is tight
	LeftAsIs   Kind = "left_as_is"  // Valve, Reason: out of limits on purpose
	BarredOver Kind = "barred_over" // two full turns of the crank, before the check pass
	Undone     Kind = "undone"      // Target: the id of the happening taken back
	Signed     Kind = "signed"      // By, ToolsOut
	WentHot    Kind = "went_hot"    // the hot pass of a provisionally signed job begins
)

// Kinds lists every kind.
func Kinds() []Kind {
	return []Kind{WayChosen, Thermal, Prepared, Turned, Located, Doubted, Picked, ReadingHad, DialRead, Withdrawn, Sized, Kept,
		Adjusted, Locked, LeftAsIs, BarredOver, Undone, Signed, WentHot}
}

// Rules is the version of the rules by which happenings are taken now. A job that was open when the rules changed has its
// crank unknown, because earlier ones let it stand where it had not been found.
const Rules = 2

// Happening is one entry of the list. ID is made by the client, so that the same happening sent twice is known. Pointers are nil
// where a figure was not said: absent is not zero.
type Happening struct {
	ID     string
	Kind   Kind
	Rules  int       // the version of the rules it was taken by; 0: today's
	At     time.Time // when it arrived; zero: with the one before
	DoneAt time.Time // when it was done, where it waited to be sent; zero: as it arrived
	Since  string    // the newest happening that its screen knew; empty: the newest there was

	Valve  string
	Leaves []gauge.ID
	Feel   clearance.Feel
	Stop   *int // index into the plan's stops, from 0
	sequence.Way
	Seen        []sequence.Sighting
	EngineC     *float64
	AmbientC    *float64
	Gap         *measure.Length
	Uncertainty measure.Length // 0: not said
	Index       *int
	From        string
	Shim        measure.Length // 0: not said
	CamsOut     bool           // every shim can be reached, whatever the crank
	MadeThere   bool           // the reading was made where the crank stood at Since, and counts for that place
	Reason      string
	Target      string
	By          string
	ToolsOut    bool
}

// The codes of refusals that a screen answers with a choice.
const (
	CrankMoved = "crank_moved" // somebody else moved the crank since this screen was drawn
	KeptSince  = "kept_since"  // the valve's readings were kept since this one was made
)

// Refusal says why a happening cannot be taken: the field at fault (empty: the happening as a whole) and a sentence.
type Refusal struct {
	Field, Message string
	Code           string // empty: nothing but the sentence
}

func (r *Refusal) Error() string { return r.Message }

func refuse(field, message string) error { return &Refusal{Field: field, Message: message} }
