package clearance

import (
	"fmt"
	"strings"

	"metronix/core/measure"
)

// State is the thermal state to which a clearance belongs.
type State string

// The two states. Figures are never converted from one to the other.
const (
	Cold State = "cold"
	Hot  State = "hot"
)

// Card is one source's clearances in one thermal state.
type Card struct {
	Source     string
	State      State
	Date       string // of the source, as written there; empty: not stated
	Remark     string
	StoneCold  bool     // cold cards: the engine must be within thermal.StoneColdWithinC of its surroundings
	MaxEngineC *float64 // cold cards: the engine must be at or below this, °C; nil: DefaultColdC
	Intake     Clearance
	Exhaust    Clearance
	// Distrusted is why these figures are not to be used: they are in circulation, and the maker never gave
	// them. Such a card is shown and never chosen. Empty: they may be.
	Distrusted string
}

// UsedCold is a hot card as it serves a provisional cold start, so that the engine can be started at all
// (common practice): the same figures, used cold, and said to be. They are not converted; the hot pass
// follows.
func (c Card) UsedCold() Card {
	c.State, c.StoneCold, c.MaxEngineC = Cold, false, nil
	c.Remark = "hot figures, used cold for a provisional start"
	return c
}

// DefaultColdC is the engine temperature at or below which 'cold' figures hold where the card names none
// (common practice).
const DefaultColdC = 38.0

// Clearance is a stated valve clearance: nominal, nominal with tolerance, or lower and upper.
type Clearance struct{ Nominal, Tolerance, Lower, Upper Figure }

// Figure is a length stated in millimetres, in inches, or in both. Nil: not stated.
type Figure struct{ Metric, Imperial *measure.Length }

// Value is the metric figure where stated, else the imperial one; ok is false where neither is.
func (f Figure) Value() (l measure.Length, ok bool) {
	switch {
	case f.Metric != nil:
		return *f.Metric, true
	case f.Imperial != nil:
		return *f.Imperial, true
	}
	return 0, false
}

// Limits is what a stated clearance comes to: the closed window a gap must lie in and the gap to aim for.
type Limits struct {
	Window      measure.Window
	Nominal     measure.Length
	NominalOnly bool // the source gives no tolerance: the window is nominal ± NominalSlack
	InThou      bool // the source states it in inches alone: it is spoken of in thousandths
}

// In is the same limits spoken of in a person's unit.
func (l Limits) In(unit measure.LengthUnit) Limits {
	l.InThou = unit.InThou(l.InThou)
	return l
}

// Say writes a length in the unit of the source.
func (l Limits) Say(length measure.Length) string {
	if l.InThou {
		return length.Thou()
	}
	return length.String()
}

// String writes the window in the unit of the source: "0.20–0.24 mm", "8–10 thou".
func (l Limits) String() string {
	if l.InThou {
		return strings.TrimSuffix(l.Window.Lower.Thou(), " thou") + "–" + l.Window.Upper.Thou()
	}
	return l.Window.String()
}

// NominalSlack widens a clearance given without tolerance into a window, either way (common practice).
const NominalSlack = 20 * measure.Micrometre

// Bounds of a clearance that can be meant: outside them a unit was mixed up or a decimal slipped. From
// memory; the windows of the trade lie between 0.05 and 0.64 mm.
const (
	MinNominal = 10 * measure.Micrometre
	MaxUpper   = 2 * measure.Millimetre
)

// PairSlack is how far a figure given in both units may disagree, because books round: half a thousandth of
// an inch.
const PairSlack = measure.Thou / 2

// Fault is one thing wrong with a stated clearance: the figure's name ("nominal", "lower", …; empty: the
// whole) and a sentence.
type Fault struct{ Figure, Message string }

// Limits resolves a stated clearance. Faults are empty when the limits hold.
//
// Books print a figure in both units and round one of them: 0.15 mm beside .006 in, 0.35 beside .014. A
// pair that differs by no more than half a thousandth is such a pair, and the metric figure counts; one
// that differs more is a slip in one of them. So is a tolerance as large as its nominal (0.20 ± 0.2),
// inches entered as millimetres, and limits the wrong way round: each is refused with what was probably
// meant, because a wrong limit makes every verdict of the job wrong.
func (c Clearance) Limits() (Limits, []Fault) {
	if faults := c.pairs(); len(faults) > 0 {
		return Limits{}, faults
	}
	limits, faults := c.resolved()
	if len(faults) == 0 {
		limits.InThou = c.inchesAlone()
	}
	return limits, faults
}

// inchesAlone says whether nothing of it is stated in millimetres.
func (c Clearance) inchesAlone() bool {
	return c.Nominal.Metric == nil && c.Tolerance.Metric == nil && c.Lower.Metric == nil &&
		c.Upper.Metric == nil
}

// resolved makes limits of what a card prints. Two limits stand as they are; a nominal with a tolerance is
// limits around it; a nominal alone is taken with NominalSlack either way, and marked as that. A mixture of
// the two ways of printing is refused: which one was meant nobody can tell.
func (c Clearance) resolved() (Limits, []Fault) {
	nominal, hasNominal := c.Nominal.Value()
	tolerance, hasTolerance := c.Tolerance.Value()
	lower, hasLower := c.Lower.Value()
	upper, hasUpper := c.Upper.Value()
	switch {
	case hasLower != hasUpper:
		return Limits{}, []Fault{{"", "One limit is missing: give both a lower and an upper limit, or a " +
			"nominal figure."}}
	case hasLower && hasTolerance:
		return Limits{}, []Fault{{"tolerance", "Limits and a tolerance are both given. Keep one of the two."}}
	case hasLower:
		return c.fromEnds(lower, upper, nominal, hasNominal)
	case hasNominal:
		return c.fromNominal(nominal, tolerance, hasTolerance)
	}
	return Limits{}, []Fault{{"", "No clearance is given: state a nominal figure, or a lower and an upper " +
		"limit."}}
}

// FromWindow gives the limits of a window already known to hold; equal ends mean nominal only.
func FromWindow(w measure.Window) Limits {
	if w.Lower == w.Upper {
		return nominalOnly(w.Lower)
	}
	return Limits{Window: w, Nominal: w.Middle()}
}

// nominalOnly is a figure without limits.
func nominalOnly(nominal measure.Length) Limits {
	w := measure.Window{Lower: max(0, nominal-NominalSlack), Upper: nominal + NominalSlack}
	return Limits{Window: w, Nominal: nominal, NominalOnly: true}
}

// pairs holds the metric and the imperial figure of one line against each other: more than half a thousandth
// apart, one of them is a slip.
func (c Clearance) pairs() []Fault {
	var faults []Fault
	for _, f := range []struct {
		name string
		Figure
	}{{"nominal", c.Nominal}, {"tolerance", c.Tolerance}, {"lower", c.Lower}, {"upper", c.Upper}} {
		if f.Metric == nil || f.Imperial == nil {
			continue
		}
		if (*f.Metric - *f.Imperial).Abs() > PairSlack {
			faults = append(faults, Fault{f.name, fmt.Sprintf("%s and %s (%s) differ by more than half a "+
				"thou: one of the two is a slip.",
				f.Metric, f.Imperial.Thou(), f.Imperial)})
		}
	}
	return faults
}

// fromEnds makes limits of two limits.
func (c Clearance) fromEnds(lower, upper, nominal measure.Length, hasNominal bool) (Limits, []Fault) {
	if lower > upper {
		return Limits{}, []Fault{{"lower", fmt.Sprintf("Lower limit %s is above upper limit %s. Are they "+
			"swapped?", lower, upper)}}
	}
	if lower < 0 {
		return Limits{}, []Fault{{"lower",
			fmt.Sprintf("Lower limit %s is below zero: a gap cannot be.", lower)}}
	}
	if fault := plausible("upper", c.Upper); fault != nil {
		return Limits{}, []Fault{*fault}
	}
	limits := FromWindow(measure.Window{Lower: lower, Upper: upper})
	if hasNominal {
		if !limits.Window.Contains(nominal) {
			return Limits{}, []Fault{{"nominal",
				fmt.Sprintf("Nominal %s lies outside its own limits %s.", nominal, limits.Window)}}
		}
		limits.Nominal = nominal
	}
	return limits, nil
}

// fromNominal makes limits of a figure and its tolerance. A tolerance as large as the figure is most often
// the decimal point's.
func (c Clearance) fromNominal(nominal, tolerance measure.Length, hasTolerance bool) (Limits, []Fault) {
	if fault := plausible("nominal", c.Nominal); fault != nil {
		return Limits{}, []Fault{*fault}
	}
	switch {
	case !hasTolerance || tolerance == 0:
		return nominalOnly(nominal), nil
	case tolerance < 0:
		return Limits{}, []Fault{{"tolerance", fmt.Sprintf("Tolerance %s is below zero. Give it without a "+
			"sign.", tolerance)}}
	case tolerance >= nominal:
		return Limits{}, []Fault{{"tolerance", fmt.Sprintf("Tolerance %s is as large as the clearance %s. "+
			"Did you mean %s?", tolerance, nominal, tolerance/10)}}
	}
	w := measure.Window{Lower: nominal - tolerance, Upper: nominal + tolerance}
	return Limits{Window: w, Nominal: nominal}, nil
}

// plausible catches mixed units: 0.25 typed as inches is 6.35 mm, 10 typed as millimetres meant thousandths.
func plausible(figure string, f Figure) *Fault {
	l, _ := f.Value()
	switch {
	case l < MinNominal:
		return &Fault{figure, fmt.Sprintf("%s is too small for a valve clearance; the least taken is %s.", l,
			MinNominal)}
	case l <= MaxUpper:
		return nil
	case f.Metric == nil:
		asTyped := l * 10 / 254 // the same digits, read as millimetres
		return &Fault{figure, fmt.Sprintf(
			"%s in is %s: far too large for a valve clearance. Did you mean %s?", asTyped.Decimal(), l,
			asTyped)}
	}
	return &Fault{figure, fmt.Sprintf("%s is far too large for a valve clearance. Did you mean %s "+
		"thousandths of an inch?", l, l.Decimal())}
}
