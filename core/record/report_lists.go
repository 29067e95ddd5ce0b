package record

import (
	"fmt"
	"strings"

	"metronix/core/around"
)

func (j Told) soundList() ReportList {
	l := ReportList{Title: "How it sounded"}
	for _, heard := range []struct {
		when string
		around.Heard
	}{{"Before", j.SoundBefore}, {"After", j.SoundAfter}} {
		if said := heard.String(); said != "" {
			l.Items = append(l.Items, ReportItem{Text: heard.when + ": " + said, Sound: heard.File})
		}
	}
	return l
}

func (j Told) findingList() ReportList {
	l := ReportList{Title: "Findings"}
	for _, f := range j.Findings {
		l.Items = append(l.Items, ReportItem{Text: f.String(), Photo: f.Photo})
	}
	return l
}

// partList is what was fitted, with its number and price as they were written down; what was left for later
// is none of it.
func (j Told) partList() ReportList {
	l := ReportList{Title: "Parts fitted"}
	for _, f := range j.Findings {
		if said := f.Fitted(); said != "" {
			l.Items = append(l.Items, ReportItem{Text: said})
		}
	}
	return l
}

func (j Told) shimList() ReportList {
	l := ReportList{Title: "Shims used and left over"}
	for _, p := range j.FromShop {
		l.Items = append(l.Items, ReportItem{Text: "from stock: " + p.Shim.String()})
	}
	for _, s := range j.LooseShims {
		l.Items = append(l.Items, ReportItem{Text: "taken out: " + s.String()})
	}
	return l
}

func (j Told) exceptionList() ReportList {
	l := ReportList{Title: "Exceptions"}
	for _, t := range j.Around().Tasks() {
		switch {
		case t.Mark.Reason == "" || j.later(t):
		case t.Mark.Skipped:
			l.Items = append(
				l.Items,
				ReportItem{Text: fmt.Sprintf("%s: skipped, %s", t.Text, t.Mark.Reason)},
			)
		default:
			l.Items = append(
				l.Items,
				ReportItem{Text: fmt.Sprintf("%s: done anyway, %s", t.Text, t.Mark.Reason)},
			)
		}
	}
	if j.Exceptions != "" {
		text := "Signed with steps left: " + j.Exceptions
		if len(j.StepsLeft) > 0 {
			text = fmt.Sprintf("%s (%s)", text, strings.Join(j.StepsLeft, "; "))
		}
		l.Items = append(l.Items, ReportItem{Text: text})
	}
	return l
}

// later says that a step was ticked after the job was signed.
func (j Told) later(t around.Task) bool {
	return j.SignedBy != "" && t.Mark.Marked && t.Mark.At.After(j.SignedAt)
}

func (j Told) addedList() ReportList {
	l := ReportList{Title: "Added after signing"}
	for _, a := range j.Amendments {
		l.Items = append(
			l.Items,
			ReportItem{Text: fmt.Sprintf("%s (%s, %s)", a.Text, a.By, a.At.Local().Format(dated))},
		)
	}
	for _, t := range j.Around().Tasks() {
		if !j.later(t) {
			continue
		}
		what := "done"
		if t.Mark.Skipped {
			what = "skipped"
		}
		if t.Mark.Reason != "" {
			what += ", " + t.Mark.Reason
		}
		l.Items = append(l.Items, ReportItem{Text: fmt.Sprintf("%s: %s (%s)", t.Text, what,
			t.Mark.At.Local().Format(dated))})
	}
	if heard := j.HeardLater.String(); heard != "" {
		l.Items = append(l.Items, ReportItem{Text: "How it sounds: " + heard, Sound: j.HeardLater.File})
	}
	if c := j.Countersigned; c != nil {
		l.Items = append(
			l.Items,
			ReportItem{Text: fmt.Sprintf("Countersigned by %s, %s", c.By, c.At.Local().Format(dated))},
		)
	}
	return l
}
