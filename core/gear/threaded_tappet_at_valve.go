package gear

// ThreadedTappetAtValve is a tappet with a screwed head under a push-rod, the gap at the valve: the rocker
// multiplies what the head moves.
const ThreadedTappetAtValve Kind = "threaded_tappet_at_valve"

var threadedTappetAtValve = Gear{
	Kind: ThreadedTappetAtValve, Title: "Threaded tappet, gap at the valve",
	Means: Turned, Closes: Out, Ratio: RockerRatio, gain: func(r float64) float64 { return r },
	Creeps: true,
	Tools:  tappetTools, Made: tappetMade, Words: tappetWords,
	Picture: Picture{Pushrod, TappetNuts, "rocker and valve tip", false},
}
