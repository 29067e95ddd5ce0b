package report

import (
	"fmt"
	"strings"
	"time"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
)

// Job is a job as it is reported: what was stored of it, and the state that follows.
type Job struct {
	ID                                        string
	Vehicle, Plate, Engine                    string
	Mechanic, Reason, Gauges, CardReason, Due string // Due: when it is due next, in words; empty: not known
	OdometerKM                                int    // 0: none
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
	if outcome := s.Outcome(); outcome != "" {
		text += ": " + outcome
	}
	return text
}

func (j Job) facts() []fact {
	s := j.State
	facts := []fact{
		{"Engine", fmt.Sprintf("%s, firing order %s", j.Engine, order(s))},
		{"Limits", j.limits()},
		{"Temperature", heat(s)},
		{"Gauge set", fmt.Sprintf("%s, feel ± %.3f mm", j.Gauges, j.FeelMM)},
		{"Sequence", sequenceOf(s)},
		{"Mechanic", strings.Trim(fmt.Sprintf("%s, begun %s", j.Mechanic, j.CreatedAt.Local().Format(dated)),
			", ")},
	}
	if j.OdometerKM > 0 {
		facts = append(facts, fact{"Odometer", fmt.Sprintf("%d km", j.OdometerKM)})
	}
	if j.Reason != "" {
		facts = append(facts, fact{"Reason", j.Reason})
	}
	if s.TakenIn != nil {
		if text := takenIn(*s.TakenIn); text != "" {
			facts = append(facts, fact{"Complaint", text})
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
	text := fmt.Sprintf("%s, %s: intake %s, exhaust %s", c.State, c.Source, intake, exhaust)
	if j.CardReason != "" {
		text += ". Chosen because: " + j.CardReason
	}
	return text
}

func heat(s *job.Job) string {
	var parts []string
	switch {
	case s.Judged != nil:
		parts = append(parts, "judged cold: "+s.Judged.String())
	case s.Prepared:
		parts = append(parts, fmt.Sprintf("engine %v °C, ambient %v °C", s.EngineC, s.AmbientC))
	default:
		parts = append(parts, "not taken")
	}
	for _, o := range s.Overrides {
		parts = append(parts, fmt.Sprintf("passed all the same at %v °C: %s", o.EngineC, o.Reason))
	}
	return strings.Join(parts, "; ")
}

func sequenceOf(s *job.Job) string {
	if s.Way.School == "" {
		return "not chosen"
	}
	text := s.Way.School.Title(s.Sheet)
	if s.BackReason != "" {
		text += "; turned back against the sheet: " + s.BackReason
	}
	return text
}

func takenIn(t job.TakenIn) string {
	var parts []string
	for _, c := range t.Complaints {
		parts = append(parts, strings.ReplaceAll(string(c), "_", " "))
	}
	for _, text := range []string{t.Note, t.Sound} {
		if text != "" {
			parts = append(parts, text)
		}
	}
	return strings.Join(parts, "; ")
}

func (j Job) rows() (rows []valveRow) {
	for _, v := range j.State.Valves {
		rows = append(rows, valveRow{valve: v.Name, kind: v.Kind.String(), limits: v.Limits.Window.String(),
			cold: said(v.ColdLeft), found: said(v.AsFound), left: said(v.Last), done: doneTo(v)})
	}
	return rows
}

// said is a result in words: "0.30 in", "looser than 0.25", "below 0.28 tight".
func said(r *job.Result) string {
	if r == nil {
		return "–"
	}
	text := figureText(r.Judgement)
	if k := r.Judgement.Known().Kind; k != clearance.Looser && k != clearance.Tighter {
		text = strings.TrimSpace(text + " " + string(r.Judgement.Verdict))
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

func figureText(judged clearance.Judgement) string {
	switch k := judged.Known(); k.Kind {
	case clearance.At:
		return bare(k.At)
	case clearance.Above:
		return "above " + bare(k.At)
	case clearance.Below:
		return "below " + bare(k.At)
	case clearance.Between:
		return bare(k.At) + "–" + bare(k.To)
	case clearance.Looser:
		return "looser than " + bare(k.At)
	case clearance.Tighter:
		return "tighter than " + bare(k.At)
	}
	return ""
}

func bare(l measure.Length) string { return strings.TrimSuffix(l.String(), " mm") }

func doneTo(v *job.ValveState) string {
	var parts []string
	switch {
	case v.LeaveReason != "":
		parts = append(parts, "left as it is: "+v.LeaveReason)
	case v.Adjustments > 1:
		parts = append(parts, fmt.Sprintf("set %d times", v.Adjustments))
	case v.Adjustments == 1:
		parts = append(parts, "set")
	case v.Last != nil:
		parts = append(parts, "left alone")
	default:
		parts = append(parts, "not read")
	}
	if v.SetFor != "" {
		parts = append(parts, "though in: "+v.SetFor)
	}
	if v.Shim > 0 {
		shim := "shim " + bare(v.Shim)
		if v.Stamped > 0 {
			shim += " (stamped " + bare(v.Stamped) + ")"
		}
		parts = append(parts, shim)
	}
	if v.LockedBy != "" {
		parts = append(parts, "nut by "+string(v.LockedBy))
	}
	if v.Verified {
		parts = append(parts, "checked")
	}
	return strings.Join(parts, ", ")
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
	var left []string
	for _, t := range s.Tasks() {
		switch {
		case t.Mark.Reason != "" && t.Mark.Skipped:
			exceptions.items = append(exceptions.items,
				fmt.Sprintf("%s: passed over, %s", t.Text, t.Mark.Reason))
		case t.Mark.Reason != "":
			exceptions.items = append(exceptions.items,
				fmt.Sprintf("%s: done all the same, %s", t.Text, t.Mark.Reason))
		case !t.Mark.Marked:
			left = append(left, t.Text)
		}
	}
	if s.Exceptions != "" {
		exceptions.items = append(exceptions.items,
			fmt.Sprintf("Signed without: %s. Reason: %s", strings.Join(left, "; "),
				s.Exceptions))
	}
	added := list{title: "Added after signing"}
	for _, a := range s.Amendments {
		added.items = append(added.items,
			fmt.Sprintf("%s (%s, %s)", a.Text, a.By, a.At.Local().Format(dated)))
	}
	return []list{findings, parts, exceptions, added}
}

const caution = "Limits inclusive, gaps in millimetres unless said. The maker's book and local rules win over any figure here. " +
	"Too tight burns valves and may let valve meet piston."
