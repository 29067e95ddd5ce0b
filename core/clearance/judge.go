package clearance

import (
	"fmt"
	"strings"

	"metronix/core/gauge"
	"metronix/core/measure"
)

// Feel is what a leaf does in the gap.
type Feel string

// The three feels: falls through, light pull on both faces, does not enter. A drag may be graded: lightly, so
// that the gap lies at the wide side of the leaf's drag band, or firmly, at its narrow side.
const (
	Free      Feel = "free"
	Drag      Feel = "drag"
	DragLight Feel = "drag_light"
	DragFirm  Feel = "drag_firm"
	WontGo    Feel = "wont_go"
)

// Feels lists every feel that a leaf may have, widest gap first.
func Feels() []Feel { return []Feel{Free, DragLight, Drag, DragFirm, WontGo} }

// drags says whether a feel is a drag, graded or not.
// Drags says that a leaf went and was felt, however lightly or firmly.
func (f Feel) Drags() bool { return f == Drag || f == DragLight || f == DragFirm }

// against says whether two feels of one leaf contradict each other: two drags do not, however graded.
func (f Feel) against(g Feel) bool { return f != g && !(f.Drags() && g.Drags()) }

// Reading is one leaf or stack tried in the gap, or a number read off a dial indicator.
type Reading struct {
	Stack gauge.Stack
	Feel  Feel
	Dial  *Dial // nil: a leaf was tried
}

// Dial is a gap read off a dial indicator on the rocker, and its uncertainty either way.
type Dial struct{ Gap, Uncertainty measure.Length }

// DialUncertainty is taken where a dial indicator's is not stated (from memory).
const DialUncertainty = 10 * measure.Micrometre

// MaxUncertainty is the largest uncertainty of a dial or of a mechanic's feel that is taken, either way (from
// memory: beyond a tenth of a millimetre neither tells a clearance).
const MaxUncertainty = measure.Millimetre / 10

// dragged says that a reading gives an estimate: a leaf dragged, or a dial was read.
func (r Reading) dragged() bool { return r.Dial != nil || r.Feel.Drags() }

// band is the stretch of gaps that a drag or a dial allows: its middle, and how far it reaches either way
// with a mechanic's feel; ok is false where a reading only bounds the gap on one side.
func (r Reading) band(feel measure.Length) (middle, doubt measure.Length, ok bool) {
	switch {
	case r.Dial != nil:
		return r.Dial.Gap, r.Dial.Uncertainty, true
	case r.Feel.Drags():
		return r.Stack.Thickness(), r.Stack.Uncertainty() + feel, true
	}
	return 0, 0, false
}

// Estimate is the gap that a reading gives by itself, and its uncertainty with a mechanic's feel; ok is false
// where it only bounds it. A graded drag moves it by half of the feel within its band.
func (r Reading) Estimate(feel measure.Length) (gap, doubt measure.Length, ok bool) {
	gap, doubt, ok = r.band(feel)
	switch {
	case r.Dial != nil:
	case r.Feel == DragLight:
		gap += feel / 2
	case r.Feel == DragFirm:
		gap -= feel / 2
	}
	return gap, doubt, ok
}

// String writes a reading: "0.25 drags", "the dial reads 0.24 mm".
func (r Reading) String() string {
	if r.Dial != nil {
		return fmt.Sprintf("the dial reads %s", r.Dial.Gap)
	}
	return fmt.Sprintf("%s %s", r.Stack, verb(r.Feel))
}

// Verdict is what the readings say of the gap.
type Verdict string

// The four verdicts.
const (
	In        Verdict = "in"
	Tight     Verdict = "tight"
	Loose     Verdict = "loose"
	Undecided Verdict = "undecided"
)

// Rule decides how uncertainty is treated.
type Rule string

// Workshop is simple acceptance (JCGM 106:2012, 8.2): the estimate decides. Guarded decides only when the
// whole interval, uncertainty included, lies on one side (ISO 14253-1). OneLeaf uses the leaf of the wanted
// gap alone, as most of the trade does (common practice): it drags: in; it falls through: loose; it will not
// go: tight. Loose and tight then say a side and no figure.
const (
	Workshop Rule = "workshop"
	Guarded  Rule = "guarded"
	OneLeaf  Rule = "one_leaf"
)

// DefaultFeel is how far from a leaf's thickness the gap may be when it drags, either way. From memory.
const DefaultFeel = 5 * measure.Micrometre

// Judgement is the verdict with the interval it came from, uncertainty included.
type Judgement struct {
	Verdict  Verdict
	Sure     bool            // the whole interval lies on the verdict's side
	Estimate *measure.Length // nil where no leaf dragged
	Low      measure.Length
	High     *measure.Length // nil: unbounded
	TryNext  gauge.Stack     // nil: settled, or no owned leaf can settle it
	// Side is the wanted gap that the gap was found looser or tighter than by one leaf, where that is all
	// that is known; 0: it is not
	Side     measure.Length
	Conflict string // contradicting feels; the verdict is then Undecided
	Limits   Limits // that it was judged by
	// PinDown is the leaf to try because the gap is wanted as a figure; nil: the verdict is enough
	PinDown gauge.Stack
}

// Yardstick is what a gap is judged by: its limits (ends included), the leaves that are owned, the rule, and
// how far from a leaf's thickness a gap may be when it drags, either way. The zero rule is Workshop; zero
// feel stands for no uncertainty of feel. Aim is the wanted gap of the rule OneLeaf; 0: the nominal, which is
// the middle of limits that name none.
type Yardstick struct {
	Limits Limits
	Owned  gauge.Set
	Rule   Rule
	Feel   measure.Length
	Aim    measure.Length
}

// Judge decides from readings whether a gap lies within the limits, and names the next leaf to try from the
// owned set when it is undecided. No readings are undecided, with the first leaf to try.
//
// With limits of 0.20 to 0.24, an unchecked leaf (± 0.005) and a feel of ± 0.005: 0.22 drags, so the gap
// is 0.22 ± 0.01 and in, surely; 0.24 drags, so it is in by the workshop rule, though close, and undecided
// by the strict one; 0.25 falls through, so it is loose; 0.20 will not go, so it is tight. Free at 0.21
// and stopped at 0.23 is in without any drag at all.
func (y Yardstick) Judge(readings []Reading) Judgement {
	j := y.settle(readings)
	if j.Verdict == Undecided {
		j.TryNext = y.nextLeaf(readings)
	}
	j.Limits = y.Limits
	return j
}

// settle is Judge without advice and words.
func (y Yardstick) settle(readings []Reading) Judgement {
	w := y.Limits.Window
	iv, conflict := narrow(readings, y.Feel)
	if conflict != "" {
		return Judgement{Verdict: Undecided, Conflict: conflict}
	}
	j := Judgement{Verdict: Undecided, Estimate: iv.estimate, Low: iv.low, High: iv.high}
	wholly := iv.side(w)
	switch y.Rule {
	case Guarded:
		j.Verdict = wholly
	case OneLeaf:
		j.Verdict = y.byOneLeaf(readings, iv.estimate)
		if iv.estimate == nil && j.Verdict != Undecided {
			j.Side = y.aim()
		}
	default:
		j.Verdict = simple(w, readings, iv.estimate)
	}
	j.Sure = j.Verdict != Undecided && j.Verdict == wholly
	return j
}

// simple is the workshop rule: nominal thicknesses decide, a drag first.
//
// The estimate is that of the leaves that dragged, averaged. Without one the verdict follows from the
// bounds alone: a leaf at or below the lower limit that will not go is tight, one at or above the upper
// limit that is free is loose, and a gap shut in between two leaves that both lie in the window is in.
func simple(w measure.Window, readings []Reading, estimate *measure.Length) Verdict {
	if estimate != nil {
		switch {
		case *estimate < w.Lower:
			return Tight
		case *estimate > w.Upper:
			return Loose
		}
		return In
	}
	entersLower, stopsUpper := false, false
	for _, r := range readings {
		t := r.Stack.Thickness()
		switch {
		case r.Feel == WontGo && t <= w.Lower:
			return Tight
		case r.Feel == WontGo && t <= w.Upper:
			stopsUpper = true
		case r.Feel == Free && t >= w.Lower && t < w.Upper:
			entersLower = true
		}
	}
	for _, r := range readings {
		if r.Feel == Free && r.Stack.Thickness() >= w.Upper {
			return Loose
		}
	}
	if entersLower && stopsUpper {
		return In
	}
	return Undecided
}

// interval is what the readings leave possible. An open end does not belong to it.
type interval struct {
	low               measure.Length
	high              *measure.Length
	openLow, openHigh bool
	estimate          *measure.Length
}

// narrow intersects what every reading allows. A gap is never below zero.
//
// Each reading cuts the line of possible gaps: free keeps what lies above the leaf, won't go what lies
// below, a drag a band about it. The ends of what is left remember whether the cut includes them, because
// limits are inclusive and a leaf that is free on the upper limit says more than that the gap may lie on
// it. Where nothing is left, two of the readings are named that cannot both be.
func narrow(readings []Reading, feel measure.Length) (interval, string) {
	iv := interval{}
	var drags []measure.Length
	for i, r := range readings {
		if middle, doubt, ok := r.band(feel); ok {
			iv.raise(middle-doubt, false)
			iv.lower(middle+doubt, false)
			gap, _, _ := r.Estimate(feel)
			drags = append(drags, gap)
		}
		t, u := r.Stack.Thickness(), r.Stack.Uncertainty()
		switch r.Feel {
		case Free:
			iv.raise(t-u, true)
		case WontGo:
			iv.lower(t+u, true)
		}
		for _, earlier := range readings[:i] {
			if r.Dial == nil && earlier.Dial == nil && r.Feel.against(earlier.Feel) &&
				earlier.Stack.Same(r.Stack) {
				return iv, fmt.Sprintf("%s was felt two ways: %s and %s. Try it again and take one back.",
					r.Stack, words(earlier.Feel), words(r.Feel))
			}
		}
	}
	if iv.empty() {
		return iv, contradiction(readings)
	}
	iv.estimate = mean(drags)
	return iv, ""
}

// raise says that the gap is at least so much; open: more than that.
func (iv *interval) raise(to measure.Length, open bool) {
	if to > iv.low || (to == iv.low && open) {
		iv.low, iv.openLow = to, open
	}
}

// lower says that it is at most so much; open: less than that.
func (iv *interval) lower(to measure.Length, open bool) {
	if iv.high == nil || to < *iv.high || (to == *iv.high && open) {
		iv.high, iv.openHigh = &to, open
	}
}

// empty says that no gap fits everything that was felt.
func (iv *interval) empty() bool {
	return iv.high != nil && (iv.low > *iv.high || (iv.low == *iv.high && (iv.openLow || iv.openHigh)))
}

// side says where the whole interval lies.
func (iv *interval) side(w measure.Window) Verdict {
	switch {
	case iv.high != nil && (*iv.high < w.Lower || (*iv.high == w.Lower && iv.openHigh)):
		return Tight
	case iv.low > w.Upper || (iv.low == w.Upper && iv.openLow):
		return Loose
	case iv.low >= w.Lower && iv.high != nil && *iv.high <= w.Upper:
		return In
	}
	return Undecided
}

// mean is the average of lengths, to the nearest nanometre; nil of none.
func mean(list []measure.Length) *measure.Length {
	if len(list) == 0 {
		return nil
	}
	var sum measure.Length
	for _, l := range list {
		sum += l
	}
	n := measure.Length(len(list))
	m := (sum + n/2) / n // to the nearest nanometre
	return &m
}

// contradiction names the readings that cannot all be true. The program does not choose between them.
func contradiction(readings []Reading) string {
	parts := make([]string, len(readings))
	for i, r := range readings {
		parts[i] = r.String()
	}
	return fmt.Sprintf("These feels cannot all be true: %s. Take back the one you trust least.",
		strings.Join(parts, ", "))
}

// words is a feel, as a noun in a list of readings.
func words(f Feel) string {
	switch f {
	case WontGo:
		return "won't go"
	case DragLight:
		return "light drag"
	case DragFirm:
		return "firm drag"
	}
	return string(f)
}

// verb is the same as what a leaf does.
func verb(f Feel) string {
	switch f {
	case Drag:
		return "drags"
	case DragLight:
		return "drags lightly"
	case DragFirm:
		return "drags firmly"
	case Free:
		return "is free"
	}
	return "won't go"
}
