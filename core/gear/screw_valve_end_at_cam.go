package gear

// ScrewValveEndAtCam is a screw in the rocker's valve end where the gap is measured at the cam: the rocker
// divides what the screw moves.
const ScrewValveEndAtCam Kind = "screw_valve_end_at_cam"

var screwValveEndAtCam = Gear{
	Kind: ScrewValveEndAtCam, Title: "Screw at the valve end, gap at the cam",
	Means: Turned, Closes: In, Ratio: RockerRatio, gain: func(r float64) float64 { return 1 / r },
	Tools: screwTools, Made: screwMade, Words: screwWords,
	Picture: Picture{Rocker, ValveScrew, "cam and rocker pad", true},
}
