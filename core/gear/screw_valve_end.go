package gear

// ScrewValveEnd is a screw in the rocker's valve end, the gap between it and the valve's tip: what the screw
// moves, the gap changes.
const ScrewValveEnd Kind = "screw_valve_end"

var screwValveEnd = Gear{
	Kind: ScrewValveEnd, Title: "Screw at the valve end of the rocker",
	Means: Turned, Closes: In, gain: func(float64) float64 { return 1 },
	Tools: screwTools, Made: screwMade, Words: screwWords,
	Picture: Picture{Rocker, ValveScrew, "screw and valve tip", false},
}
