package api

import (
	"math"
	"slices"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/measure"
	"metronix/internal/wire"
)

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
	v := EngineView{Name: s.Name, Layout: string(s.Layout), Rotation: string(s.Rotation),
		FiringOrder: slices.Clone(s.FiringOrder),
		Banks:       banksView(s), Valves: []ValveView{}, MarksDeg: wire.Degrees(
			s.EffectiveMarks()), HasLockNut: s.HasLockNut(), MayTurnBack: s.MayTurnBack}
	if s.TurningPoint != nil {
		v.TurningPoint, v.SocketMM = s.TurningPoint.Where, s.TurningPoint.SocketMM
	}
	if s.Adjuster != nil {
		v.Adjuster = string(s.Adjuster.Kind)
		v.LocknutNm, v.LocknutLbft = wire.Nm(s.Adjuster.LocknutNm), wire.LbfFt(
			measure.PoundFeet(s.Adjuster.LocknutNm))
	}
	for _, valve := range s.Valves() {
		v.Valves = append(v.Valves,
			ValveView{valve.Name, valve.Kind.String(), valve.Cylinder, valve.RowNumber, []float64{},
				[]wire.Arc{}})
	}
	return v
}

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

func lift(c *cycle.Cycle, valve engine.Valve) []float64 {
	curve := []float64{}
	for at := measure.Angle(0); at <= measure.Cycle; at += liftStep {
		curve = append(curve, math.Round(c.OpenFraction(valve, at)*1000)/1000)
	}
	return curve
}

func maySet(c *cycle.Cycle, valve engine.Valve, required measure.Angle) []wire.Arc {
	from, to, ok := c.MaySet(valve, required)
	if !ok {
		return []wire.Arc{}
	}
	return []wire.Arc{{From: wire.Deg(from), To: wire.Deg(to)}}
}
