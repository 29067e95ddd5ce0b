package gear

// ScrewPushrodEnd is a screw in the rocker's push-rod end, the gap at the valve: the rocker multiplies what
// the screw moves.
const ScrewPushrodEnd Kind = "screw_pushrod_end"

var screwPushrodEnd = Gear{
	Kind: ScrewPushrodEnd, Title: "Screw at the push-rod end of the rocker",
	Means: Turned, Closes: In, Ratio: RockerRatio, gain: func(r float64) float64 { return r },
	Tools: screwTools, Made: screwMade, Words: screwWords,
	Picture: Picture{Pushrod, RodScrew, "rocker and valve tip", false},
}
