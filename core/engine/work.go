package engine

import (
	"cmp"
	"slices"

	"metronix/core/measure"
)

// This file is what a sheet tells of working on the engine: what can be seen of its crank, in which order it
// is opened, and how it is closed.

// Sign is something on this engine by which its crank's place can be told: lines on a cam sprocket, a dowel,
// a distributor's rotor. It is seen at each of At, measured as the crank is from firing TDC of the first
// cylinder of the order, and again every Period: measure.Turn for what turns with the crank, measure.Cycle
// for what turns with the cam.
type Sign struct {
	ID       string // by which sightings name it
	Where    string // "cam sprocket"
	Text     string // "up mark at the top, lines level with the head face"
	At       []measure.Angle
	Period   measure.Angle
	Doubtful string // what to check it against, where it may have moved; empty: it can be relied on
	CheckBy  string // what else shows then, by which it can be made sure of; empty: not said
}

// String is the sign as it is spoken of: "cam sprocket: up mark at the top".
func (s Sign) String() string { return s.Where + ": " + s.Text }

// Sign finds a sign of the sheet.
func (s *Sheet) Sign(id string) (Sign, bool) {
	i := slices.IndexFunc(s.Signs, func(o Sign) bool { return o.ID == id })
	if i < 0 {
		return Sign{}, false
	}
	return s.Signs[i], true
}

// Places are the crank positions of a whole cycle at which the sign is seen.
func (s Sign) Places() (list []measure.Angle) {
	for _, at := range s.At {
		for a := at; a < measure.Cycle; a += s.Period {
			list = append(list, a)
		}
	}
	return list
}

// StripStep is one thing to take off when the engine is opened.
type StripStep struct {
	Text     string
	Fastener string
	SocketMM float64 // 0: not said
	Note     string
}

// Pattern is the order in which a cover's bolts are tightened.
type Pattern string

// The patterns (common practice): from the middle outwards, crosswise, or by the maker's numbers.
const (
	MiddleOut Pattern = "middle_out"
	Crosswise Pattern = "crosswise"
	Numbered  Pattern = "numbered"
)

// Gasket is how a cover's gasket is set.
type Gasket string

// Dry, or stuck to the cover on a flat surface first where it tends to fall off (common practice).
const (
	Dry        Gasket = "dry"
	StuckFirst Gasket = "stuck_first"
)

// Closing is how the engine is closed. What is zero or empty is not said.
type Closing struct {
	Pattern       Pattern
	Rounds        int // of tightening, until the torque is reached
	Torque        Torque
	SealantPoints []string
	OpenMinutes   float64 // within which the cover must be on once sealant is laid
	CureMinutes   float64 // before the engine may run
	Gasket        Gasket
	Bolts         int // how many the cover has; 0: not said
}

// Torque is a torque as it is stated: in newton-metres, in pound-feet, or in both. Zero: not stated.
type Torque struct{ Nm, LbfFt float64 }

// Value is the torque in newton-metres; 0: it is not stated.
func (t Torque) Value() float64 { return cmp.Or(t.Nm, t.LbfFt*measure.PoundFoot) }
