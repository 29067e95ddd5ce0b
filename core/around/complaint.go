package around

// Complaint is what the vehicle is brought in for.
type Complaint string

// The complaints (common practice): a tick goes with loose valves; rough idle, back-firing, smoke, hard
// starting, misfires, want of power, fuel use and low compression with tight ones; some engines tick by
// nature.
const (
	Ticks          Complaint = "ticks"
	TicksByNature  Complaint = "ticks_by_nature"
	RoughIdle      Complaint = "rough_idle"
	BackFires      Complaint = "back_fires"
	Smokes         Complaint = "smokes"
	HardStart      Complaint = "hard_start"
	LowCompression Complaint = "low_compression"
	Misfires       Complaint = "misfires"
	NoPower        Complaint = "no_power"
	FuelUse        Complaint = "fuel_use"
	OilSmell       Complaint = "oil_smell" // of a cover that leaks: it points to no side
	NoComplaint    Complaint = "none"
)

// Complaints lists them.
func Complaints() []Complaint {
	return []Complaint{Ticks, RoughIdle, BackFires, Smokes, HardStart, LowCompression, Misfires, NoPower, FuelUse,
		OilSmell, TicksByNature, NoComplaint}
}

// Side is the side of the limits that a complaint points to: Loose, Tight, or neither.
func (c Complaint) Side() string {
	switch c {
	case Ticks:
		return "loose"
	case RoughIdle, BackFires, Smokes, HardStart, LowCompression, Misfires, NoPower, FuelUse:
		return "tight"
	}
	return ""
}
