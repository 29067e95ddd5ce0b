package clearance

import "metronix/core/measure"

// Known is what readings tell of a gap, for showing: a figure, an end, or two.
type Known struct {
	Kind KnownKind
	At   measure.Length // the figure, or the end; the lower one of Between
	To   measure.Length // the upper end of Between
}

// KnownKind is how a gap is known.
type KnownKind string

// Nothing is known; its estimate; it is above or below an end; it lies between two; it is looser or tighter
// than the wanted gap, by one leaf. Ends include the uncertainty.
const (
	Unknown KnownKind = ""
	At      KnownKind = "at"
	Above   KnownKind = "above"
	Below   KnownKind = "below"
	Between KnownKind = "between"
	Looser  KnownKind = "looser"
	Tighter KnownKind = "tighter"
)

// Known is the figure to show for a judged gap. It is never reckoned anew from the markings of leaves: the
// micrometer counts.
func (j Judgement) Known() Known {
	switch {
	case j.Estimate != nil:
		return Known{Kind: At, At: *j.Estimate}
	case j.Side > 0 && j.Verdict == Loose:
		return Known{Kind: Looser, At: j.Side}
	case j.Side > 0:
		return Known{Kind: Tighter, At: j.Side}
	case j.High != nil && j.Low > 0:
		return Known{Between, j.Low, *j.High}
	case j.High != nil:
		return Known{Kind: Below, At: *j.High}
	case j.Low > 0:
		return Known{Kind: Above, At: j.Low}
	}
	return Known{}
}
