package gear

// Train is how the cam reaches the valve.
type Train string

// The trains that are drawn.
const (
	Rocker  Train = "rocker"
	Pushrod Train = "pushrod" // push-rod and rocker
	Finger  Train = "finger"
	Bucket  Train = "bucket"
	Tappet  Train = "tappet" // a tappet alone, under a valve beside the cylinder
)

// Trains are those that are drawn.
func Trains() []Train { return []Train{Rocker, Pushrod, Finger, Bucket, Tappet} }

// Setter is the part that sets the gap, as it is drawn from the side and from the tool's end.
type Setter string

// The setters that are drawn.
const (
	ValveScrew   Setter = "valve-screw"
	RodScrew     Setter = "rod-screw"
	StudNut      Setter = "stud-nut"
	EccentricPin Setter = "eccentric"
	Pivot        Setter = "pivot"
	TappetNuts   Setter = "tappet-nuts"
	ShimDisc     Setter = "shim"
)

// Setters are those that are drawn.
func Setters() []Setter {
	return []Setter{ValveScrew, RodScrew, StudNut, EccentricPin, Pivot, TappetNuts, ShimDisc}
}

// Picture is what a gear consists of, seen from the side. The zero value is not drawn.
type Picture struct {
	Train   Train
	Setter  Setter
	Between string // where the leaf goes in, in words: "screw and valve tip"
	AtCam   bool   // the gap lies under the cam: the rest of the gear rests on the valve
}
