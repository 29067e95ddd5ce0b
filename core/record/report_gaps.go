package record

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
func (j Told) gaps() gaps {
	intake, _ := j.Card.Intake.Limits()
	return gaps{j.Speaks.Length.InThou(intake.InThou)}
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

// whole is a gap with its unit.
func (g gaps) whole(l measure.Length) string { return clearance.Limits{InThou: g.thou}.Say(l) }

// inBoth is a gap in this unit, with the other one beside it.
func (g gaps) inBoth(l measure.Length) string {
	return fmt.Sprintf("%s (%s)", g.whole(l), gaps{!g.thou}.whole(l))
}

func (g gaps) window(w measure.Window) string { return g.bare(w.Lower) + "–" + g.bare(w.Upper) }

// both are limits in this unit, with the other one beside it.
func (g gaps) both(l clearance.Limits) string {
	own, other := l, l
	own.InThou, other.InThou = g.thou, !g.thou
	return fmt.Sprintf("%s (%s)", own, other)
}

// cell is what is known of a gap; nil where nothing was kept.
func (g gaps) cell(r *job.Result) *Cell {
	if r == nil {
		return nil
	}
	judged := r.Judgement
	c := &Cell{Verdict: judged.Verdict, Figure: g.figure(judged), Short: g.short(judged)}
	known := judged.Known().Kind
	oneSided := known == clearance.Looser || known == clearance.Tighter
	c.Close = judged.Verdict != clearance.Undecided && !judged.Sure && !oneSided
	if judged.Estimate != nil {
		c.Other = gaps{!g.thou}.whole(*judged.Estimate)
	}
	c.Said = g.inWords(judged)
	if !oneSided {
		between := " "
		if g.thou && c.Said != "" {
			between = ", " // "25 in" would be inches
		}
		c.Said = strings.TrimSpace(c.Said + between + string(judged.Verdict))
	}
	for _, more := range []struct {
		is   bool
		word string
	}{{r.OffAim, "off the aim"}, {r.Void() != "", r.Void()}, {r.TimeDoubtful, "time in doubt"},
		{r.Told, "read again: told with the locking"}} {
		if more.is {
			c.Notes = append(c.Notes, more.word)
			c.Said += ", " + more.word
		}
	}
	return c
}

// inWords is what is known of a gap, as on paper: "above 0.31", "looser than 0.25".
func (g gaps) inWords(judged clearance.Judgement) string {
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

// figure is the same in signs.
func (g gaps) figure(judged clearance.Judgement) string {
	switch k := judged.Known(); k.Kind {
	case clearance.At:
		return g.bare(k.At)
	case clearance.Above, clearance.Looser:
		return ">" + g.bare(k.At)
	case clearance.Below, clearance.Tighter:
		return "<" + g.bare(k.At)
	case clearance.Between:
		return g.bare(k.At) + "–" + g.bare(k.To)
	}
	return ""
}

// short is a figure that fits a valve, and T or L where it is out.
func (g gaps) short(judged clearance.Judgement) string {
	text := g.figure(judged)
	switch k := judged.Known(); k.Kind {
	case clearance.Unknown:
		text = "?"
	case clearance.Between:
		text = "~" + g.bare(k.At)
	}
	switch judged.Verdict {
	case clearance.Tight:
		return text + " T"
	case clearance.Loose:
		return text + " L"
	}
	return text
}
