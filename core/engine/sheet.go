// Package engine holds the engine sheet: cylinders, firing order, banks and rows of valves, valve timing, adjuster and
// clearance cards. Check says what is wrong with a sheet, what is odd about it and what will be assumed.
package engine

import (
	"metronix/core/clearance"
	"metronix/core/measure"
)

// The limits of what a sheet may describe.
const (
	MaxCylinders         = 16
	MaxValvesPerCylinder = 5
	MaxNameLength        = 120
	MaxRemarkLength      = 400
)

// DefaultMargin is the distance in crank degrees that a valve must stand from its nearest opening or closing before it
// may be set, where the sheet names none: the ramp allowance (common practice).
// LiftCardMargin replaces it where the cam card is quoted at a lift above zero and so hides the ramps.
const (
	DefaultMargin  = 20.0
	LiftCardMargin = 40.0
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
	FiringAngles   []float64 // crank degrees, rising from 0, below 720; nil: evenly spaced
	Rotation       Rotation
	MayTurnBack    bool
	Layout         Layout
	Banks          []Bank
	Timing         *ValveTiming
	RequiredMargin *float64  // crank degrees
	Marks          []float64 // degrees after a TDC mark, 0 ≤ m < 360, repeated every turn; nil: the TDC mark alone
	Adjuster       *Adjuster
	TurningPoint   *TurningPoint
	Clearances     []clearance.Card
	OwnSequence    []OwnStop
}

// Bank is one head: its cylinders from front to rear and its one or two rows of valves.
type Bank struct {
	Name        string
	Angle       float64 // degrees from upright, seen from the front, clockwise positive
	Cylinders   []int
	IntakePorts Side // empty: not said
	Rows        []Row
}

// Row is one line of valves from front to rear, a letter each: I intake, E exhaust.
type Row struct {
	Side   Side
	Valves string
}

// ValveTiming is the cam card in crank degrees. The four events lie in −60 … 150.
type ValveTiming struct {
	IVO           float64  // intake opens, before overlap TDC
	IVC           float64  // intake closes, after BDC
	EVO           float64  // exhaust opens, before BDC
	EVC           float64  // exhaust closes, after overlap TDC
	IntakeCentre  *float64 // intake peak lift after overlap TDC; nil: middle of the open interval
	ExhaustCentre *float64 // exhaust peak lift before overlap TDC; nil: middle of the open interval
	AtLiftMM      float64  // the lift at which the card is quoted, millimetres; 0: at the seat
}

// TypicalTiming is a typical road cam, assumed (and said so) where no card is at hand. From memory.
func TypicalTiming() ValveTiming { return ValveTiming{IVO: 12, IVC: 52, EVO: 52, EVC: 12} }

// AdjusterKind names how the gap is changed.
type AdjusterKind string

// The adjusters a sheet may name. Hydraulic gear holds zero clearance and is refused for a setting job.
const (
	ScrewValveEnd         AdjusterKind = "screw_valve_end"
	ScrewPushrodEnd       AdjusterKind = "screw_pushrod_end"
	CentreNut             AdjusterKind = "centre_nut"
	FingerPivotAtCam      AdjusterKind = "finger_pivot_at_cam"
	FingerPivotAtValve    AdjusterKind = "finger_pivot_at_valve"
	ScrewValveEndAtCam    AdjusterKind = "screw_valve_end_at_cam"
	ThreadedTappet        AdjusterKind = "threaded_tappet"
	ThreadedTappetAtValve AdjusterKind = "threaded_tappet_at_valve"
	Eccentric             AdjusterKind = "eccentric"
	Shim                  AdjusterKind = "shim"
	Hydraulic             AdjusterKind = "hydraulic"
)

// Adjuster is the screw, nut, eccentric or shim that changes the gap. Zero figures are not stated.
type Adjuster struct {
	Kind         AdjusterKind
	Pitch        measure.Length // thread pitch
	Ratio        float64        // rocker or finger ratio
	Eccentricity measure.Length
	LocknutNm    float64 // newton-metres
}

// TurningPoint is where the crank is turned by hand. SocketMM is 0 where not stated.
type TurningPoint struct {
	Where    string
	SocketMM float64
}

// OwnStop is one stop of the maker's printed order.
type OwnStop struct {
	Crank float64
	Set   []string
}
