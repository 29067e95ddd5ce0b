package gear

// FingerPivotAtCam is the pivot that a finger follower tilts on, the gap between cam and finger. The pivot
// rises to close it.
const FingerPivotAtCam Kind = "finger_pivot_at_cam"

var fingerPivotAtCam = Gear{
	Kind: FingerPivotAtCam, Title: "Pivot of a finger follower, gap at the cam",
	Means: Turned, Closes: Out, Ratio: FingerRatio, gain: func(r float64) float64 { return 1 - 1/r },
	FallsOut: true, Tools: pivotTools, Words: pivotWords,
	Picture: Picture{Finger, Pivot, "cam and finger", true},
}
