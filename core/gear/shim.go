package gear

// Shim is a shim or a bucket between cam and valve: a gap is changed by putting in one of another size.
const Shim Kind = "shim"

var shim = Gear{
	Kind: Shim, Title: "Shim or bucket",
	Means: Exchanged, FallsOut: true,
	Tools: []string{"Tool that holds the bucket down, or what takes the cams out", "Magnet or tweezers",
		"Micrometer"},
	Picture: Picture{Bucket, ShimDisc, "cam and shim", true},
}
