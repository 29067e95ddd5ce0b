package engine

import (
	"metronix/core/clearance"
	"metronix/core/gear"
	"metronix/core/measure"
)

// The limits of what a sheet may describe.
const (
	MaxCylinders         = 16
	MaxValvesPerCylinder = 5
	MaxNameLength        = 120
	MaxRemarkLength      = 400
)

// DefaultMargin is the distance in crank degrees that a valve must stand from its nearest opening or closing
// before it may be set, where the sheet names none: the ramp allowance (common practice). LiftCardMargin
// replaces it where the cam card is quoted at a lift above zero and so hides the ramps.
const (
	DefaultMargin  = 20 * measure.Degree
	LiftCardMargin = 40 * measure.Degree
)

// Rotation is the running direction as seen from the front of the engine.
type Rotation string

// The two running directions.
const (
	Clockwise     Rotation = "clockwise"
	Anticlockwise Rotation = "anticlockwise"
)

// Layout is how the cylinders sit.
type Layout string

// The layouts a sheet may name.
const (
	Inline Layout = "inline"
	Vee    Layout = "vee"
	Flat   Layout = "flat"
	Other  Layout = "other"
)

// Side is left or right, seen from the rear of the engine looking to its front.
type Side string

// The two sides.
const (
	Left  Side = "left"
	Right Side = "right"
)

// Sheet describes one engine. Absent parts are nil, and Check says what is then assumed.
type Sheet struct {
	Name           string
	Cylinders      int
	FiringOrder    []int
	FiringAngles   []measure.Angle // rising from 0, below 720°; nil: evenly spaced
	Rotation       Rotation
	MayTurnBack    bool
	Layout         Layout
	Banks          []Bank
	Timing         *ValveTiming
	RequiredMargin *measure.Angle
	// after a TDC mark, 0 ≤ m < 360°, repeated every turn; nil: the TDC mark alone
	Marks        []measure.Angle
	Adjuster     *Adjuster
	TurningPoint *TurningPoint
	Clearances   []clearance.Card
	OwnSequence  []OwnStop
	// CheckTurns is how many turns of the crank come before valves are checked again: UsualCheckTurns or
	// LongCheckTurns; 0: not said
	CheckTurns int
	Signs      []Sign // by which the crank's place can be told, besides what every engine shows
	StripList  []StripStep
	Closing    *Closing
	// VariableLift is how the gear of variable lift is checked before any valve is read; empty: there is
	// none, or it is not said
	VariableLift string
	Torques      []SourcedTorque // by source, beside the sheet's own figures
	Variants     []Variant       // how the same engine was also built; one may be chosen for a job
	Variant      string          // the one that was chosen; empty: the engine is as the sheet says
	// KindsToConfirm says that the kinds of the valves were taken from a common pattern and nobody has
	// followed the ports yet: that comes before the first verdict
	KindsToConfirm bool
}

// How many turns of the crank come before a check round: one turn of the cam, or two (common practice).
const (
	UsualCheckTurns = 2
	LongCheckTurns  = 4
)

// Bank is one head: its cylinders from front to rear and its one or two rows of valves.
type Bank struct {
	Name        string
	Angle       measure.Angle // from upright, seen from the front, clockwise positive
	Cylinders   []int
	IntakePorts Side // empty: not said
	Rows        []Row
}

// Row is one line of valves from front to rear, a letter each: I intake, E exhaust.
type Row struct {
	Side   Side
	Valves string
}

// ValveTiming is the cam card in crank degrees. The four events lie in −60° … 150°.
type ValveTiming struct {
	IVO           measure.Angle  // intake opens, before overlap TDC
	IVC           measure.Angle  // intake closes, after BDC
	EVO           measure.Angle  // exhaust opens, before BDC
	EVC           measure.Angle  // exhaust closes, after overlap TDC
	IntakeCentre  *measure.Angle // intake peak lift after overlap TDC; nil: middle of the open interval
	ExhaustCentre *measure.Angle // exhaust peak lift before overlap TDC; nil: middle of the open interval
	AtLiftMM      float64        // the lift at which the card is quoted, millimetres; 0: at the seat
}

// Interval is a stretch of a cylinder's own cycle; To may pass 720°.
type Interval struct{ From, To measure.Angle }

// Open is when intake and exhaust valves are open, in their cylinder's own cycle: 0 firing TDC, 360° overlap
// TDC. By definition of the four events: the exhaust opens before BDC at 180° and closes after overlap TDC,
// the intake opens before overlap TDC and closes after BDC at 540°.
func (t ValveTiming) Open() (intake, exhaust Interval) {
	const half = measure.Turn / 2
	return Interval{measure.Turn - t.IVO, 3*half + t.IVC}, Interval{half - t.EVO, measure.Turn + t.EVC}
}

// TypicalTiming is a typical road cam, assumed (and said so) where no card is at hand. From memory.
func TypicalTiming() ValveTiming {
	return ValveTiming{IVO: 12 * measure.Degree, IVC: 52 * measure.Degree, EVO: 52 * measure.Degree,
		EVC: 12 * measure.Degree}
}

// Adjuster is the screw, nut, eccentric or shim that changes the gap. Zero figures are not stated.
type Adjuster struct {
	Kind         gear.Kind
	Pitch        measure.Length // thread pitch
	Ratio        float64        // rocker or finger ratio
	Eccentricity measure.Length
	Locknut      Torque   // of the lock nut
	Thread       Thread   // of the screw or nut; empty: right-hand
	Closes       gear.Way // how an unusual gear closes, against the rule of its kind; empty: by the rule
}

// Thread is the hand of a screw's thread.
type Thread string

// The two threads; the zero value is right-hand.
const (
	RightHand Thread = "right"
	LeftHand  Thread = "left"
)

// TurningPoint is where the crank is turned by hand. SocketMM is 0 where not stated.
type TurningPoint struct {
	Where    string
	SocketMM float64
}

// OwnStop is one stop of the maker's printed order.
type OwnStop struct {
	Crank measure.Angle
	Set   []string
}
