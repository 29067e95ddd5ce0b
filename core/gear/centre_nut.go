package gear

// CentreNut is a nut on the stud that the rocker tilts on: it moves the rocker's middle, and so both arms.
const CentreNut Kind = "centre_nut"

var centreNut = Gear{
	Kind: CentreNut, Title: "Rocker stud nut",
	Means: Turned, Closes: In, Ratio: RockerRatio, gain: func(r float64) float64 { return 1 + r },
	Creeps: true,
	Tools:  []string{"Deep socket or ring spanner for the stud nut"},
	Words: Words{
		Part: "Nut", In: "down", Out: "up",
		Turn: "Turn the nut on the stud until {leaf} drags.",
		Tools: "A deep socket or ring spanner on the self-locking nut. One that turns by hand has lost its grip: " +
			"replace it.",
		Lock: "A self-locking nut holds as it stands; with a set screw in it, tighten that and hold the nut.",
	},
	Picture: Picture{Pushrod, StudNut, "rocker and valve tip", false},
}
