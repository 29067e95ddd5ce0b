package report

import (
	"fmt"
	"strings"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
)

// gaps says gaps in one unit throughout a report: thousandths of an inch, or millimetres.
type gaps struct{ thou bool }

// gaps are in the unit of whom the report is made for, else in that of the card.
func (j Job) gaps() gaps {
	intake, _ := j.State.Card.Intake.Limits()
	return gaps{j.State.Speaks.Length.InThou(intake.InThou)}
}

func (g gaps) unit() string {
	if g.thou {
		return "thousandths of an inch"
	}
	return "millimetres"
}

// bare is a gap without its unit.
func (g gaps) bare(l measure.Length) string {
	if g.thou {
		return strings.TrimSuffix(l.Thou(), " thou")
	}
	return strings.TrimSuffix(l.String(), " mm")
}

func (g gaps) window(w measure.Window) string { return g.bare(w.Lower) + "–" + g.bare(w.Upper) }

// both are limits in this unit, with the other one beside it.
func (g gaps) both(l clearance.Limits) string {
	own, other := l, l
	own.InThou, other.InThou = g.thou, !g.thou
	return fmt.Sprintf("%s (%s)", own, other)
}

// result is a reading in words: "0.30 in", "looser than 0.25", "below 0.28 tight".
func (g gaps) result(r *job.Result) string {
	if r == nil {
		return "–"
	}
	text := g.figure(r.Judgement)
	if k := r.Judgement.Known().Kind; k != clearance.Looser && k != clearance.Tighter {
		between := " "
		if g.thou && text != "" {
			between = ", " // "25 in" would be inches
		}
		text = strings.TrimSpace(text + between + string(r.Judgement.Verdict))
	}
	for _, more := range []struct {
		is   bool
		word string
	}{{r.OffAim, "off the aim"}, {r.Stale, "too late"}, {r.TimeDoubtful, "time in doubt"}} {
		if more.is {
			text += ", " + more.word
		}
	}
	return text
}

func (g gaps) figure(judged clearance.Judgement) string {
	switch k := judged.Known(); k.Kind {
	case clearance.At:
		return g.bare(k.At)
	case clearance.Above:
		return "above " + g.bare(k.At)
	case clearance.Below:
		return "below " + g.bare(k.At)
	case clearance.Between:
		return g.bare(k.At) + "–" + g.bare(k.To)
	case clearance.Looser:
		return "looser than " + g.bare(k.At)
	case clearance.Tighter:
		return "tighter than " + g.bare(k.At)
	}
	return ""
}

// short is a result that fits a valve: its figure, and T or L where it is out.
func (g gaps) short(r *job.Result) string {
	if r == nil {
		return "–"
	}
	k := r.Judgement.Known()
	text := g.bare(k.At)
	switch k.Kind {
	case clearance.Unknown:
		text = "?"
	case clearance.Above, clearance.Looser:
		text = ">" + text
	case clearance.Below, clearance.Tighter:
		text = "<" + text
	case clearance.Between:
		text = "~" + text
	}
	switch r.Judgement.Verdict {
	case clearance.Tight:
		return text + " T"
	case clearance.Loose:
		return text + " L"
	}
	return text
}
