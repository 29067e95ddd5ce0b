package gear

// Eccentric is a pin off the middle of a disc in the rocker's valve end. How far it moves the gap depends on
// where in its throw it stands, so it is turned by feel.
const Eccentric Kind = "eccentric"

var eccentric = Gear{
	Kind: Eccentric, Title: "Eccentric at the valve end",
	Means: Felt, FallsOut: true,
	Tools: []string{"Ring spanner for the clamp nut", "Thin key or hooked rod for the eccentric"},
	Made:  []string{"Hooked rod: stiff wire that fits the eccentric’s hole, its last centimetre bent square"},
	Words: Words{
		Part: "Eccentric",
		Turn: "Slacken the clamp nut, turn the eccentric until {leaf} drags.",
		Tools: "A thin key or a hooked rod in the hole of the eccentric. It moves the gap by feel: little near " +
			"its " +
			"ends, most between.",
		Lock: "Hold the eccentric with its key or rod while the clamp nut goes tight.",
	},
	Picture: Picture{Rocker, EccentricPin, "eccentric and valve tip", false},
}
