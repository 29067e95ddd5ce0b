package practice

import (
	"errors"
	"metronix/core/measure"
)

// Crank is where eyes see it stand: the mark on its pulley and the lobes tell it, 0 ≤ crank < 720°.
func (e *Engine) Crank() measure.Angle { return e.crank }

// Firing are the crank positions of the cylinders' firing top dead centres, before each of which the crank is
// heavy: one to a cylinder in the firing order, 0 ≤ a < 720°, evenly apart or not.
func (e *Engine) Firing() []measure.Angle {
	order := e.exercise.Setup.Sheet.FiringOrder
	list := make([]measure.Angle, len(order))
	for i, cylinder := range order {
		list[i] = e.cycle.CrankAt(cylinder, 0)
	}
	return list
}

// mostTurn is how far the crank is turned in one go, two turns: a hand lets go before.
const mostTurn = measure.Cycle

// Turn turns the crank, forwards in its running direction or back (below 0). It errs where that is no turn,
// or over two turns at once.
func (e *Engine) Turn(by measure.Angle) error {
	if by == 0 || by > mostTurn || by < -mostTurn {
		return errors.New("turn the crank by up to 720° either way")
	}
	e.acts++
	e.tool = true
	e.crank = (e.crank + by).Wrap()
	e.turned += max(by, -by)
	return nil
}

// How compression kicks (our own figures).
const (
	standsOn  = 3 * measure.Degree  // so near to it a crank stands on its dead centre
	kicksFrom = 35 * measure.Degree // before it, it is thrown back where it is let go
)

// kick throws the crank back where it is let go before a firing top dead centre with the plugs in; 0: it
// stands.
func (e *Engine) kick(by measure.Angle) (back measure.Angle) {
	if !e.exercise.Plugs || by <= 0 {
		return 0
	}
	for _, tdc := range e.Firing() {
		if ahead := (tdc - e.crank).Wrap(); ahead > standsOn && ahead <= kicksFrom {
			back = measure.FromDegrees(10 + 15*e.chance().Float64())
			e.crank = (e.crank - back).Wrap()
			e.turned += back
			return back
		}
	}
	return 0
}

// TakeOff takes the tool off the crank, on which turning has put it.
func (e *Engine) TakeOff() {
	e.acts++
	e.tool = false
}

// Tool says whether it is on the crank.
func (e *Engine) Tool() bool { return e.tool }
