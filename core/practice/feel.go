package practice

import (
	"fmt"
	"math"
	"math/rand/v2"
	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
	"slices"
)

// Felt is what a leaf says to the hand: how it goes, and how hard it pulls, from 0 (it falls through) over ½
// (it drags as it should) to 1 (it does not enter).
type Felt struct {
	Feel clearance.Feel
	Pull float64
}

// Slide slides a leaf or a stack into a valve's gap where the crank stands: under a lobe nothing goes in.
// Each time the hand is a little different. It errs for a valve that is not there, and leaves that are not
// owned.
func (e *Engine) Slide(valve string, leaves []gauge.ID) (Felt, error) {
	v, err := e.valve(valve)
	if err == nil && v.bare {
		err = fmt.Errorf("there is no shim in %s: a leaf finds nothing there", valve)
	}
	if err != nil {
		return Felt{}, err
	}
	stack, err := e.stack(leaves)
	if err != nil {
		return Felt{}, err
	}
	chance := e.chance()
	if name := stack.String(); name != e.carried {
		e.carried, e.changes = name, e.changes+1
	}
	return feels(e.at(v, valve), stack.Thickness(), chance), nil
}

// feels is how a hand feels a leaf or stack in a gap: each time a little otherwise.
func feels(gap, leaf measure.Length, chance *rand.Rand) Felt {
	return Goes(gap+measure.Length(math.Round(chance.NormFloat64()*noise)), leaf)
}

// Goes is how a leaf goes in a gap, felt by a hand that is never out.
func Goes(gap, leaf measure.Length) Felt {
	pull := min(1, max(0, float64(leaf-gap+drags)/float64(2*drags)))
	return Felt{feltIn(gap, leaf), pull}
}

// stack is what is slid in. It errs for none, too many, or a leaf that is not owned.
func (e *Engine) stack(leaves []gauge.ID) (gauge.Stack, error) {
	if len(leaves) == 0 || len(leaves) > gauge.MaxStack {
		return nil, fmt.Errorf("slide in one leaf, or a stack of up to %d", gauge.MaxStack)
	}
	owned := e.exercise.Setup.Owned
	for _, id := range leaves {
		if !slices.ContainsFunc(owned, func(l gauge.Leaf) bool { return l.ID == id }) {
			return nil, fmt.Errorf("there is no leaf %s in this set", id.Marked)
		}
	}
	return owned.Pick(leaves), nil
}

// feltIn is how a leaf goes in a gap.
func feltIn(gap, leaf measure.Length) clearance.Feel {
	switch {
	case leaf < gap-drags:
		return clearance.Free
	case leaf > gap+drags:
		return clearance.WontGo
	}
	return clearance.Drag
}

// dialNoise is the standard deviation of what a dial shows, nm: a quarter of what is taken for its doubt (our
// own figure).
const dialNoise = float64(clearance.DialUncertainty) / 4

// Dial is what a dial indicator at a valve's tip shows as the rocker is rocked: its gap, to where a leaf
// bridges a dip too, to a hundredth. It errs where there is no such valve, and with its shim out.
func (e *Engine) Dial(valve string) (measure.Length, error) {
	v, err := e.valve(valve)
	if err == nil && v.bare {
		err = fmt.Errorf("there is no shim in %s: there is nothing to rock", valve)
	}
	if err != nil {
		return 0, err
	}
	chance := e.chance()
	gap := max(0, e.at(v, valve))
	if gap > 0 {
		gap += v.dip + measure.Length(math.Round(chance.NormFloat64()*dialNoise))
	}
	const graduated = 10 * um
	return max(0, (gap+graduated/2)/graduated*graduated), nil
}

// mostPlay is a gap whose play is as loud as any (our own figure).
const mostPlay = 400 * um

// Rock rocks what lies on a valve, and says how much play is heard and seen, from 0, none, to 1: by its true
// gap, a dip in a worn tip too, and by no hand to better than a fifth. It errs where there is no such valve.
func (e *Engine) Rock(valve string) (float64, error) {
	v, err := e.valve(valve)
	if err != nil {
		return 0, err
	}
	chance := e.chance()
	gap := e.at(v, valve)
	if gap > 0 {
		gap += v.dip
	}
	if v.bare {
		gap = mostPlay
	}
	return min(1, max(0, float64(gap)/float64(mostPlay)*(0.9+0.2*chance.Float64()))), nil
}
