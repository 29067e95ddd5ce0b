// Package job is the order of work on one engine as a state machine over an append-only list of happenings: what is next,
// what is settled, what may be signed. The state is always computed from the list and never kept beside it.
package job

import (
	"time"

	"metronix/core/clearance"
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
	Picked     Kind = "picked"      // Valve: the mechanic turned to this valve
	ReadingHad Kind = "reading"     // Valve, Leaves, Feel
	DialRead   Kind = "dial"        // Valve, Gap, Uncertainty: read off a dial indicator
	Withdrawn  Kind = "withdrawn"   // Valve, Index: one reading not kept yet is taken back
	Sized      Kind = "sized"       // Valve, Shim: the shim found fitted
	Kept       Kind = "kept"        // Valve: its readings stand, on to the next
	Adjusted   Kind = "adjusted"    // Valve; Leaves it was set by; Shim that went in and From, the valve it came from: its adjuster was moved and is not locked yet
	Locked     Kind = "locked"      // Valve: its lock nut is tight
	LeftAsIs   Kind = "left_as_is"  // Valve, Reason: out of limits on purpose
	BarredOver Kind = "barred_over" // two full turns of the crank, before the check pass
	Undone     Kind = "undone"      // Target: the id of the happening taken back
	Signed     Kind = "signed"      // By, ToolsOut
	WentHot    Kind = "went_hot"    // the hot pass of a provisionally signed job begins
)

// Kinds lists every kind.
func Kinds() []Kind {
	return []Kind{WayChosen, Thermal, Prepared, Turned, Located, Picked, ReadingHad, DialRead, Withdrawn, Sized, Kept, Adjusted, Locked, LeftAsIs, BarredOver, Undone, Signed, WentHot}
}

// Happening is one entry of the list. ID is made by the client, so that the same happening sent twice is known.
type Happening struct {
	ID     string
	Kind   Kind
	At     time.Time
	Valve  string
	Leaves []measure.Length // markings
	Feel   clearance.Feel
	Stop   int // index into the plan's stops, from 0
	sequence.Way
	Seen        []sequence.Sighting
	EngineC     float64
	AmbientC    float64
	Gap         measure.Length
	Uncertainty measure.Length
	Index       int
	From        string
	Shim        measure.Length
	Reason      string
	Target      string
	By          string
	ToolsOut    bool
}

// Refusal says why a happening cannot be taken: the field at fault (empty: the happening as a whole) and a sentence.
type Refusal struct{ Field, Message string }

func (r *Refusal) Error() string { return r.Message }

func refuse(field, message string) error { return &Refusal{field, message} }
