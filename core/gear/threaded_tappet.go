package gear

// ThreadedTappet is a tappet with a screwed head, the gap between it and the valve's stem. The head rises to
// close it.
const ThreadedTappet Kind = "threaded_tappet"

var threadedTappet = Gear{
	Kind: ThreadedTappet, Title: "Threaded tappet, gap at the tappet",
	Means: Turned, Closes: Out, gain: func(float64) float64 { return 1 },
	Creeps: true,
	Tools:  tappetTools, Made: tappetMade, Words: tappetWords,
	Picture: Picture{Tappet, TappetNuts, "tappet and valve stem", false},
}
