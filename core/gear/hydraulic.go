package gear

// Hydraulic is gear that takes up its gap with oil under pressure. A setting job refuses it.
const Hydraulic Kind = "hydraulic"

var hydraulic = Gear{
	Kind: Hydraulic, Title: "Hydraulic (self-adjusting)", Means: Never,
	NotSet: "Hydraulic lifters hold zero clearance by themselves: there is no valve clearance to set.",
}
