package around

// Means is by what the engine is turned. The zero value is the tool on its turning point.
type Means string

// Other means than the tool that the sheet names (common practice). Each contradicts something of the usual
// way, so it is chosen and never assumed.
const (
	ByTool   Means = ""
	ByPulley Means = "pulley" // a nut on another pulley
	ByFan    Means = "fan"
	ByWheel  Means = "wheel" // a driven wheel off the ground, in gear
	ByPush   Means = "push"  // the vehicle pushed, in gear
)

// AllMeans are those that may be chosen, the usual one first.
func AllMeans() []Means { return []Means{ByTool, ByPulley, ByFan, ByWheel, ByPush} }

// turning is what follows from a means: what it is called, what to mind, and how it is undone at the end.
type turning struct{ name, caution, undoing string }

var turnings = map[Means]turning{
	ByPulley: {"Spanner on another pulley's nut",
		"It slips its belt before it turns a tight engine, and may undo the nut: turn the way that tightens it.",
		"Take the spanner off the pulley"},
	ByFan: {"Hand on the fan and belt",
		"Plugs out and ignition dead first. Fingers out of the belt's run; an electric fan starts by itself and is never turned by.",
		"Hands and rags out of fan and belt"},
	ByWheel: {"A driven wheel, in gear",
		"On a stand, the other wheels chocked, plugs out: a cylinder that fires or kicks drives the wheel.",
		"Out of gear, wheel down, chocks back"},
	ByPush: {"Pushing the vehicle in gear",
		"On the level, somebody at the brake, plugs out. Nobody under it, and nobody at the valves while it moves.",
		"Out of gear, brake on, wheels chocked"},
}

// Caution is what to mind while it is turned so; empty for the tool.
func (m Means) Caution() string { return turnings[m].caution }
