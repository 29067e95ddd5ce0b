package api

import (
	"math"
	"slices"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/internal/wire"
)

// EngineView is what a drawing of the engine needs; it does not change during a job.
type EngineView struct {
	Name         string      `json:"name"`
	Layout       string      `json:"layout"`
	Rotation     string      `json:"rotation" enum:"clockwise,anticlockwise"`
	FiringOrder  []int       `json:"firing_order"`
	Banks        []BankView  `json:"banks"`
	Valves       []ValveView `json:"valves"`
	MarksDeg     []wire.Deg  `json:"marks_deg"`
	TurningPoint string      `json:"turning_point"`
	LocknutNm    wire.Nm     `json:"locknut_torque_nm" doc:"0: not stated"`
	LocknutLbft  wire.LbfFt  `json:"locknut_torque_lbft" doc:"0: not stated"`
	Gear         wire.Gear   `json:"gear" doc:"of its adjuster; a screw with its lock nut where none is stated"`
	SocketMM     float64     `json:"socket_mm" doc:"0: not stated"`
	MayTurnBack  bool        `json:"may_turn_back"`
	Signs        []wire.Sign `json:"signs" doc:"by which the crank's place can be told on this engine"`
}

// BankView is one head.
type BankView struct {
	Name        string    `json:"name"`
	AngleDeg    wire.Deg  `json:"angle_deg"`
	Cylinders   []int     `json:"cylinders"`
	IntakePorts string    `json:"intake_ports" doc:"left, right, or empty where not said"`
	Rows        []RowView `json:"rows"`
}

// RowView is one line of valves, front to rear.
type RowView struct {
	Side   string   `json:"side" enum:"left,right"`
	Valves []string `json:"valves"`
}

// ValveView is one valve as it is drawn.
type ValveView struct {
	Name      string     `json:"name"`
	Kind      string     `json:"kind" enum:"intake,exhaust"`
	Cylinder  int        `json:"cylinder"`
	RowNumber int        `json:"row_number" doc:"0 where the engine has more than one row"`
	Lift      []float64  `json:"lift" doc:"open fraction at crank 0, 5, 10 … 720"`
	MaySet    []wire.Arc `json:"may_set" doc:"crank positions with the required margin"`
}

// engineView is the whole drawing of a checked sheet, moving with the crank.
func engineView(s *engine.Sheet) EngineView {
	v := stillView(s)
	c := cycle.New(s)
	for i, valve := range c.Valves {
		v.Valves[i].Lift, v.Valves[i].MaySet = lift(c, valve), maySet(c, valve, s.EffectiveMargin())
	}
	return v
}

// stillView is a drawing that does not move with the crank: of a sheet whose banks and rows are in order,
// whatever else is not.
func stillView(s *engine.Sheet) EngineView {
	v := EngineView{Name: s.Called(), Layout: string(s.Layout), Rotation: string(s.Rotation),
		FiringOrder: slices.Clone(s.FiringOrder),
		Banks:       banksView(s), Valves: []ValveView{}, MarksDeg: wire.Degrees(
			s.EffectiveMarks()), Gear: wire.GearOf(s.Gear()), MayTurnBack: s.MayTurnBack,
		Signs: wire.SignsOf(s.Signs)}
	if s.TurningPoint != nil {
		v.TurningPoint, v.SocketMM = s.TurningPoint.Where, s.TurningPoint.SocketMM
	}
	if s.Adjuster != nil {
		v.LocknutNm, v.LocknutLbft = wire.Nm(s.Adjuster.Locknut.Value()), wire.LbfFt(
			measure.PoundFeet(s.Adjuster.Locknut.Value()))
	}
	for _, valve := range s.Valves() {
		v.Valves = append(v.Valves,
			ValveView{valve.Name, valve.Kind.String(), valve.Cylinder, valve.RowNumber, []float64{},
				[]wire.Arc{}})
	}
	return v
}

// banksView is where every valve lies, bank by bank and row by row, under the names that the rules give them.
func banksView(s *engine.Sheet) []BankView {
	banks := []BankView{}
	for _, b := range s.Banks {
		bank := BankView{b.Name, wire.Deg(b.Angle), append([]int{}, b.Cylinders...), string(b.IntakePorts),
			[]RowView{}}
		for _, r := range b.Rows {
			bank.Rows = append(bank.Rows, RowView{string(r.Side), []string{}})
		}
		banks = append(banks, bank)
	}
	for _, valve := range s.Valves() {
		row := &banks[valve.Bank].Rows[valve.Row]
		row.Valves = append(row.Valves, valve.Name)
	}
	return banks
}

// liftStep is the spacing of the lift curves sent for drawing, crank degrees.
const liftStep = 5 * measure.Degree

// lift is how far open a valve is along one cycle, in thousandths and by liftStep: enough to draw by, and
// small enough to send with every engine.
func lift(c *cycle.Cycle, valve engine.Valve) []float64 {
	curve := []float64{}
	for at := measure.Angle(0); at <= measure.Cycle; at += liftStep {
		curve = append(curve, math.Round(c.OpenFraction(valve, at)*1000)/1000)
	}
	return curve
}

// maySet is the arc in which a valve may be set; none where no place is clear enough.
func maySet(c *cycle.Cycle, valve engine.Valve, required measure.Angle) []wire.Arc {
	from, to, ok := c.MaySet(valve, required)
	if !ok {
		return []wire.Arc{}
	}
	return []wire.Arc{{From: wire.Deg(from), To: wire.Deg(to)}}
}
