package gear

// Hydraulic is gear that takes up its gap with oil under pressure. A setting job refuses it.
const Hydraulic Kind = "hydraulic"

var hydraulic = Gear{
	Kind: Hydraulic, Title: "Hydraulic: holds zero clearance", Means: Never,
	NotSet: "Hydraulic lifters hold zero clearance by themselves: there is no valve clearance to set.",
}
