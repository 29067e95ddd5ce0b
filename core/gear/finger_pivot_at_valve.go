package gear

// FingerPivotAtValve is the pivot that a finger follower tilts on, the gap between finger and valve tip. The
// pivot rises to close it.
const FingerPivotAtValve Kind = "finger_pivot_at_valve"

var fingerPivotAtValve = Gear{
	Kind: FingerPivotAtValve, Title: "Pivot of a finger follower, gap at the valve",
	Means: Turned, Closes: Out, Ratio: FingerRatio, gain: func(r float64) float64 { return r - 1 },
	FallsOut: true, Tools: pivotTools, Words: pivotWords,
	Picture: Picture{Finger, Pivot, "finger and valve tip", false},
}
