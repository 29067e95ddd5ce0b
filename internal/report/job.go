package report

import (
	"fmt"
	"strings"
	"time"

	"metronix/core/job"
)

// Job is a job as it is reported: what was stored of it, and the state that follows.
type Job struct {
	ID                                        string
	Vehicle, Plate, Engine                    string
	Mechanic, Reason, Gauges, CardReason, Due string // Due: when it is due next, in words; empty: not known
	OdometerKM                                int    // 0: none
	OdometerWhy                               string // why it shows less than before; empty: it does not
	FeelMM                                    float64
	CreatedAt                                 time.Time
	State                                     *job.Job
	Photos                                    map[string][]byte // JPEG, by the hashes that findings name
}

// fact is one line of what a job was done by.
type fact struct{ label, text string }

// list is what is listed under a title; nothing is printed of an empty one.
type list struct {
	title string
	items []string
}

// valveRow is one valve of the table, in words.
type valveRow struct{ valve, kind, limits, cold, found, left, done string }

const dated = "2 Jan 2006 15:04"

func (j Job) title() string { return "Valve clearances: " + strings.TrimSpace(j.Vehicle+" "+j.Plate) }

// seal is who signed and when, or that nobody has.
func (j Job) seal() string {
	s := j.State
	switch {
	case s.SignedBy == "":
		return "NOT SIGNED YET"
	case s.Phase() == job.AwaitHot:
		return fmt.Sprintf("Signed cold, provisionally, by %s, %s: the hot pass is waiting", s.SignedBy,
			s.SignedAt.Local().Format(dated))
	}
	text := fmt.Sprintf("Signed by %s, %s", s.SignedBy, s.SignedAt.Local().Format(dated))
	if s.Countersigned != nil {
		text += fmt.Sprintf("; countersigned by %s, %s", s.Countersigned.By,
			s.Countersigned.At.Local().Format(dated))
	}
	if outcome := s.Outcome().String(); outcome != "" {
		text += ": " + outcome
	}
	return text
}

func (j Job) facts() []fact {
	s := j.State
	by := strings.Trim(fmt.Sprintf("%s, begun %s", j.Mechanic, j.CreatedAt.Local().Format(dated)), ", ")
	for _, h := range s.Hands {
		by += fmt.Sprintf("; %s from %s", h.Name, h.From.Local().Format(dated))
	}
	facts := []fact{
		{"Engine", fmt.Sprintf("%s, firing order %s", j.Engine, order(s))},
		{"Limits", j.limits()},
		{"Temperature", s.Warmth()},
		{"Gauge set", fmt.Sprintf("%s, feel ± %.3f mm", j.Gauges, j.FeelMM)},
		{"Sequence", s.Walk()},
		{"Mechanic", by},
	}
	if s.Cold != nil {
		facts = append(facts, fact{"Cold pass", fmt.Sprintf("%s; signed by %s, %s",
			s.ColdWarmth(), s.Cold.By, s.Cold.At.Local().Format(dated))})
	}
	if j.OdometerKM > 0 {
		odometer := s.Speaks.Distance(float64(j.OdometerKM))
		if j.OdometerWhy != "" {
			odometer += ", less than before: " + j.OdometerWhy
		}
		facts = append(facts, fact{"Odometer", odometer})
	}
	if j.Reason != "" {
		facts = append(facts, fact{"Reason", j.Reason})
	}
	if s.TakenIn != nil {
		if text := takenIn(*s.TakenIn); text != "" {
			facts = append(facts, fact{"Complaint", text})
		}
	}
	for _, heard := range []struct {
		label string
		job.Heard
	}{{"Sound before", s.SoundBefore}, {"Sound after", s.SoundAfter}} {
		switch {
		case heard.Note != "":
			facts = append(facts, fact{heard.label, heard.Note})
		case heard.File != "":
			facts = append(facts, fact{heard.label, "recorded"})
		}
	}
	if j.Due != "" {
		facts = append(facts, fact{"Next due", j.Due})
	}
	return facts
}

func order(s *job.Job) string {
	var parts []string
	for _, c := range s.Sheet.FiringOrder {
		parts = append(parts, fmt.Sprint(c))
	}
	return strings.Join(parts, "-")
}

func (j Job) limits() string {
	c := j.State.Card
	intake, _ := c.Intake.Limits()
	exhaust, _ := c.Exhaust.Limits()
	say := j.gaps()
	text := fmt.Sprintf("%s, %s: intake %s, exhaust %s", c.State, c.Source,
		say.both(intake), say.both(exhaust))
	if j.CardReason != "" {
		text += ". Chosen because: " + j.CardReason
	}
	return text
}

func takenIn(t job.TakenIn) string {
	var parts []string
	for _, c := range t.Complaints {
		parts = append(parts, strings.ReplaceAll(string(c), "_", " "))
	}
	if t.Note != "" {
		parts = append(parts, t.Note)
	}
	return strings.Join(parts, "; ")
}

func (j Job) rows() (rows []valveRow) {
	say := j.gaps()
	for _, v := range j.State.Valves {
		rows = append(rows, valveRow{valve: v.Name, kind: v.Kind.String(),
			limits: say.window(v.Limits.Window),
			cold:   say.result(v.ColdLeft), found: say.result(v.AsFound),
			left: say.result(v.Last), done: j.State.Done(v)})
	}
	return rows
}

// lists are what is listed below the table: findings, parts used and left over, exceptions, corrections.
func (j Job) lists() []list {
	s := j.State
	findings := list{title: "Findings"}
	for _, f := range s.Findings {
		findings.items = append(findings.items, f.String())
	}
	parts := list{title: "Shims used and left over"}
	for _, p := range s.FromShop {
		parts.items = append(parts.items, "from stock: "+p.Shim.String())
	}
	for _, l := range s.LooseShims {
		parts.items = append(parts.items, "taken out: "+l.String())
	}
	exceptions := list{title: "Exceptions"}
	for _, t := range s.Tasks() {
		switch {
		case t.Mark.Reason != "" && t.Mark.Skipped:
			exceptions.items = append(exceptions.items,
				fmt.Sprintf("%s: passed over, %s", t.Text, t.Mark.Reason))
		case t.Mark.Reason != "":
			exceptions.items = append(exceptions.items,
				fmt.Sprintf("%s: done all the same, %s", t.Text, t.Mark.Reason))
		}
	}
	if s.Exceptions != "" {
		exceptions.items = append(exceptions.items, "Signed with steps left: "+s.Exceptions)
	}
	added := list{title: "Added after signing"}
	for _, a := range s.Amendments {
		added.items = append(added.items,
			fmt.Sprintf("%s (%s, %s)", a.Text, a.By, a.At.Local().Format(dated)))
	}
	return []list{findings, parts, exceptions, added}
}

// caution is what stands below every report.
func (j Job) caution() string {
	return "Limits inclusive, gaps in " + j.gaps().unit() +
		". The maker's book and local rules win over any " +
		"figure here. Too tight burns valves and may let valve meet piston."
}
