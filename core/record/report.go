package record

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
)

// Record is what is known of a job besides its list, for its report.
type Record struct {
	ID, Vehicle, Plate       string
	Mechanic, Reason, Gauges string
	CardReason, AimReason    string // why another card or aim than the usual one was chosen
	Meter                    int    // what the counter showed; 0: it was not read
	Counter                  measure.Counter
	OdometerWhy              string // why it shows less than before; empty: it does not
	CreatedAt                time.Time
	Due                      string // when it is due next, in words; empty: nobody knows
}

// Report is a job as it is handed over, composed once: a printed sheet, a screen and files show the same. Its
// words are in the units of whom it is made for ([Job.Speaks]), times in the zone of the workshop.
type Report struct {
	Title   string
	Seal    string // who signed and when, or that nobody has
	Signed  bool   // for good
	Facts   []Fact
	Found   string // how many were found in, tight and loose, how many set and checked
	Unit    string // of the figures: "millimetres"
	Cold    bool   // there was a provisional cold pass, and rows have what it left
	Rows    []ReportRow
	Lists   []ReportList
	Caution string
}

// The facts that the tag for the key repeats.
const (
	NotBefore = "Do not start before"
	NextDue   = "Next due"
)

// The facts that stand under the workshop's seal.
const (
	engineFact   = "Engine"
	odometerFact = "Odometer"
	hoursFact    = "Running hours"
)

// Fact is one line of what a job was done by.
type Fact struct{ Label, Text string }

// ReportList is what is listed under a title; none is empty.
type ReportList struct {
	Title string
	Items []ReportItem
}

// ReportItem is one thing of a list, with the file that belongs to it by its hash.
type ReportItem struct {
	Text         string
	Photo, Sound string // empty: none
}

// ReportRow is one valve.
type ReportRow struct {
	Valve  string
	Kind   string
	Limits string
	Cold   *Cell // as the cold pass left it; nil: nothing
	Found  *Cell
	Left   *Cell
	Done   string // what was done to it
}

// Cell is what is known of one gap.
type Cell struct {
	Figure  string // "0.30", ">0.25", "0.28–0.31"; empty where nothing is known
	Other   string // the same in the other unit, with it; empty where it is no single figure
	Said    string // "0.30 in", "looser than 0.25", "above 0.31 loose, too late": on paper
	Short   string // what fits a valve on a drawing: "0.30", "<0.28 T"
	Verdict clearance.Verdict
	Close   bool     // a limit lies within the uncertainty of leaf and feel
	Notes   []string // "off the aim", "too late", "crank moved", "time in doubt"
}

// dated is how a time stands in a report.
const dated = "2 Jan 2006 15:04"

// Report composes the report of a job.
func (j Told) Report(r Record) Report {
	say := j.gaps()
	out := Report{Title: "Valve clearances: " + strings.TrimSpace(r.Vehicle+" "+r.Plate), Seal: j.sealed(),
		Signed: j.Phase() == job.Done, Facts: j.facts(r), Found: j.foundSaid(), Unit: say.unit(), Cold: j.Cold != nil,
		Caution: j.caution()}
	for _, v := range j.Valves {
		out.Rows = append(
			out.Rows,
			ReportRow{Valve: v.Name, Kind: v.Kind.String(), Limits: say.window(v.Limits.Window),
				Cold: say.cell(
					v.ColdLeft,
				), Found: say.cell(v.AsFound), Left: say.cell(v.Last), Done: j.Done(v)},
		)
	}
	for _, l := range []ReportList{j.soundList(), j.findingList(), j.partList(), j.shimList(), j.exceptionList(), j.addedList()} {
		if len(l.Items) > 0 {
			out.Lists = append(out.Lists, l)
		}
	}
	return out
}

// sealed is the line that says whether, and how far, the sheet is signed.
func (j Told) sealed() string {
	switch {
	case j.SignedBy == "":
		return "NOT SIGNED YET"
	case j.Phase() == job.AwaitHot:
		return fmt.Sprintf("Signed cold, provisionally, by %s, %s: the hot pass is waiting", j.SignedBy,
			j.SignedAt.Local().Format(dated))
	}
	text := fmt.Sprintf("Signed by %s, %s", j.SignedBy, j.SignedAt.Local().Format(dated))
	if c := j.Countersigned; c != nil {
		text += fmt.Sprintf("; countersigned by %s, %s", c.By, c.At.Local().Format(dated))
	}
	if outcome := j.Outcome().String(); outcome != "" {
		text += ": " + outcome
	}
	return text
}

// facts are the head of the sheet, in the order in which a reader asks: which engine, by which limits, how
// warm, with which leaves, in which order, by whom.
func (j Told) facts(r Record) []Fact {
	facts := []Fact{
		{engineFact, fmt.Sprintf("%s, firing order %s", j.Sheet.Called(), j.firingOrder())},
		{"Limits", j.limitsSaid(r.CardReason)},
		{"Temperature", j.Warmth()},
		{"Feeler set", fmt.Sprintf("%s, feel ± %s", r.Gauges, j.gaps().inBoth(j.Feel))},
		{"Sequence", j.Walk()},
		{"Aim", aimSaid(j.Aim, r.AimReason)},
		{"Mechanic", j.whoSaid(r)},
	}
	add := func(label, text string) {
		if text != "" {
			facts = append(facts, Fact{label, text})
		}
	}
	if j.Cold != nil {
		add(
			"Cold pass",
			fmt.Sprintf("%s; signed by %s, %s", j.ColdWarmth(), j.Cold.By, j.Cold.At.Local().Format(dated)),
		)
	}
	if r.Meter > 0 {
		meter := j.Speaks.Run(r.Counter, float64(r.Meter))
		if r.OdometerWhy != "" {
			meter += ", less than before: " + r.OdometerWhy
		}
		label := odometerFact
		if r.Counter == measure.HourMeter {
			label = hoursFact
		}
		add(label, meter)
	}
	add("Reason", r.Reason)
	if j.TakenIn != nil {
		add("Complaint", j.TakenIn.String())
	}
	add("Parked", j.waitsSaid())
	if from, cures := j.Around().StartFrom(); cures {
		add(NotBefore, from.Local().Format(dated)+": the sealant cures")
	}
	add("Entered by", strings.Join(j.authors(), ", "))
	add(NextDue, r.Due)
	return facts
}

// authors are those who said that they entered something, each once, in the order in which they came.
func (j Told) authors() (list []string) {
	for _, h := range j.Standing() {
		if h.Author != "" && !slices.Contains(list, h.Author) {
			list = append(list, h.Author)
		}
	}
	return list
}

// firingOrder is the order as it is cast into a cover: 1-3-4-2.
func (j Told) firingOrder() string {
	var parts []string
	for _, c := range j.Sheet.FiringOrder {
		parts = append(parts, fmt.Sprint(c))
	}
	return strings.Join(parts, "-")
}

// limitsSaid is the card with both limits, and why it was this card where there was a choice.
func (j Told) limitsSaid(why string) string {
	c, say := j.Card, j.gaps()
	intake, _ := c.Intake.Limits()
	exhaust, _ := c.Exhaust.Limits()
	source := c.Source
	if c.Date != "" {
		source += " (" + c.Date + ")"
	}
	text := fmt.Sprintf("%s, %s: intake %s, exhaust %s", c.State, source, say.both(intake), say.both(exhaust))
	if why != "" {
		text += ". Chosen because: " + why
	}
	return text
}

// whoSaid is who began the job, and who went on with it.
func (j Told) whoSaid(r Record) string {
	by := strings.Trim(fmt.Sprintf("%s, begun %s", r.Mechanic, r.CreatedAt.Local().Format(dated)), ", ")
	for _, h := range j.Hands {
		by += fmt.Sprintf("; %s from %s", h.Name, h.From.Local().Format(dated))
		if h.Note != "" {
			by += " (" + h.Note + ")"
		}
	}
	return by
}

func (j Told) waitsSaid() string {
	if w := j.Waits.Waiting(); w != "" {
		return "waits for " + w
	}
	return ""
}

func (j Told) foundSaid() string {
	counts := map[clearance.Verdict]int{}
	set, checked := 0, 0
	for _, v := range j.Valves {
		if v.AsFound != nil {
			counts[v.AsFound.Judgement.Verdict]++
		}
		if v.Adjustments > 0 {
			set++
		}
		if v.Verified {
			checked++
		}
	}
	return fmt.Sprintf(
		"As found: %d in, %d tight, %d loose, %d undecided. %d set, %d checked after %s.",
		counts[clearance.In],
		counts[clearance.Tight],
		counts[clearance.Loose],
		counts[clearance.Undecided],
		set,
		checked,
		job.FullTurns(j.TurnsToCheck()),
	)
}

func (j Told) caution() string {
	return ruleSaid[j.Rule] + " Limits inclusive, gaps in " + j.gaps().
		unit() +
		". Close means that a limit lies within the " +
		"uncertainty of leaf and feel. The maker's book and local rules win over any figure here. Too tight " +
		"burns valves " +
		"and may let valve meet piston."
}

// ruleSaid is what each rule of judging decides by.
var ruleSaid = map[clearance.Rule]string{
	"":                 "Workshop rule: the estimate decides.",
	clearance.Workshop: "Workshop rule: the estimate decides.",
	clearance.Guarded:  "Strict rule: in or out only when the whole uncertainty lies there.",
	clearance.OneLeaf:  "One leaf, that of the wanted gap: without a drag it tells the side and no figure.",
}

// aimSaid is where within the limits valves were set, and why there.
func aimSaid(a clearance.Aim, why string) string {
	said := map[clearance.Aim]string{clearance.AimLoose: "the loose end", clearance.AimUpper: "the upper limit"}[a]
	switch {
	case said == "":
		return "the nominal"
	case why == "":
		return said + ": no reason given"
	}
	return said + ": " + why
}
