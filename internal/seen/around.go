package seen

import (
	"time"

	"metronix/core/around"
	"metronix/core/bench"
	"metronix/core/job"
	"metronix/internal/wire"
)

// Around is what stands around the bench: the steps before and after it, tools, findings, clocks, and what
// was added to a signed job.
type Around struct {
	TurnedBy   string          `json:"turned_by" enum:",pulley,fan,wheel,push" doc:"empty: by the tool that the sheet names"`
	TurnMind   string          `json:"turn_caution" doc:"what to mind while it is turned so; empty: nothing more than usual"`
	Tasks      []TaskView      `json:"tasks" doc:"the steps before and after the bench that apply here, in order"`
	Guided     bool            `json:"guided" doc:"the steps are gone through, half of some part at least: signing asks for the others"`
	Missing    []string        `json:"missing" doc:"the ids of the steps that signing asks for: those that wait, where the job is guided"`
	Tools      []ToolView      `json:"tools" doc:"what this job needs"`
	Made       []string        `json:"tools_made" doc:"tools for this adjuster that one makes oneself"`
	HotWork    string          `json:"hot_work" doc:"what to mind in making them"`
	Findings   []wire.Finding  `json:"findings"`
	TakenIn    *TakenInView    `json:"taken_in,omitempty"`
	Before     HeardView       `json:"sound_before"`
	After      HeardView       `json:"sound_after"`
	Later      HeardView       `json:"sound_later" doc:"when it was started after the job was signed"`
	CoverBy    *time.Time      `json:"cover_by,omitempty" doc:"until when the cover has to be on over the sealant; absent: none stands open"`
	StartFrom  *time.Time      `json:"start_from,omitempty" doc:"from when the engine may run: sealant cures until then; absent: nothing cures"`
	Exceptions string          `json:"exceptions" doc:"why it was signed with steps that were not done; empty: none was left"`
	Amendments []AmendmentView `json:"amendments" doc:"corrections added after it was signed"`
	Counter    *Signed         `json:"countersigned,omitempty"`
	Felt       []string        `json:"nuts_felt" doc:"the valves whose lock nuts were felt once more"`
	Bolts      []BoltView      `json:"bolts" doc:"the cover's bolts and the order of tightening; empty: how many there are is not said"`
	Waits      *wire.Deferral  `json:"waits,omitempty" doc:"what the open vehicle waits for; absent: nothing"`
	WaitsSaid  string          `json:"waits_said" doc:"the same in words"`
	Hands      []HandView      `json:"hands" doc:"who went on with the job, after whoever began it"`
}

// BoltView is one of a cover's bolts.
type BoltView struct {
	Row    int     `json:"row" doc:"0 or 1"`
	Along  float64 `json:"along" doc:"from the front, 0 to 1"`
	Number int     `json:"number" doc:"when its turn comes, from 1; 0: by the maker's numbers"`
}

// HandView is who was at a job from when on.
type HandView struct {
	Name string    `json:"name"`
	Note string    `json:"note"`
	From time.Time `json:"from"`
}

// TaskView is one step around the bench.
type TaskView struct {
	ID      string     `json:"id"`
	Part    string     `json:"part" enum:"take_in,open_up,close_up,start_up"`
	Text    string     `json:"text"`
	Caution string     `json:"caution" doc:"what to mind; empty: nothing"`
	Group   string     `json:"group" doc:"what it may be ticked off with; empty: it is ticked singly"`
	With    []string   `json:"with" doc:"the steps that wait and may be ticked off with it, it among them; empty: it alone"`
	Grouped bool       `json:"grouped" doc:"it was ticked with others, as a group"`
	Marked  bool       `json:"marked" doc:"done, or passed over"`
	Skipped bool       `json:"skipped"`
	Reason  string     `json:"reason" doc:"why it was passed over, or done all the same"`
	At      *time.Time `json:"at,omitempty" doc:"when it was marked"`
}

// ToolView is one thing laid out for a job.
type ToolView struct {
	ID      string `json:"id"`
	Text    string `json:"text"`
	Note    string `json:"note" doc:"what to lay on top; empty: nothing"`
	OnCrank bool   `json:"on_crank" doc:"it turns the engine"`
	Out     bool   `json:"out" doc:"it was taken out and is not back"`
	Counted bool   `json:"counted" doc:"it was taken out at some time"`
}

// TakenInView is what the vehicle came in for.
type TakenInView struct {
	Complaints []string `json:"complaints"`
	Sides      []string `json:"sides" doc:"the sides of the limits that they point to: loose, tight"`
	Note       string   `json:"note"`
	Sound      string   `json:"sound"`
}

// HeardView is how an engine sounded.
type HeardView struct {
	Note string `json:"note"`
	File string `json:"file" doc:"the hash of a recording; empty: none"`
}

// AmendmentView is a correction added to a signed job.
type AmendmentView struct {
	Text string    `json:"text"`
	By   string    `json:"by"`
	At   time.Time `json:"at"`
}

func aroundOf(j *job.Job, now time.Time) Around {
	a := Around{
		Tasks:      []TaskView{},
		TurnedBy:   string(j.Turning),
		TurnMind:   j.Turning.Caution(),
		Guided:     j.Around().Guided(),
		Missing:    missingSteps(j),
		Tools:      []ToolView{},
		Made:       wire.List(j.Sheet.Gear().Made),
		HotWork:    around.HotWork,
		Findings:   []wire.Finding{},
		Exceptions: j.Exceptions,
		Amendments: []AmendmentView{},
		Before:     HeardView(j.SoundBefore),
		After:      HeardView(j.SoundAfter),
		Later:      HeardView(j.HeardLater),
		Felt:       wire.List(j.Around().Felt()),
		Bolts:      []BoltView{},
		WaitsSaid:  j.Waits.Waiting(),
		Hands:      []HandView{},
	}
	if c := j.Sheet.Closing; c != nil {
		for _, b := range c.DrawnBolts() {
			a.Bolts = append(a.Bolts, BoltView(b))
		}
	}
	if j.Waits != (job.Deferral{}) {
		a.Waits = &wire.Deferral{WaitsFor: string(j.Waits.Waits), Until: j.Waits.Until}
	}
	for _, h := range j.Hands {
		a.Hands = append(a.Hands, HandView(h))
	}
	steps := j.Around().Tasks()
	for _, t := range j.Around().TasksAt(now) {
		view := TaskView{ID: t.ID, Part: string(t.Part), Text: t.Text, Caution: t.Caution,
			Group: t.Group, With: []string{}, Grouped: t.Mark.Grouped, Marked: t.Mark.Marked,
			Skipped: t.Mark.Skipped, Reason: t.Mark.Reason}
		if t.Mark.Marked && !t.Mark.At.IsZero() {
			view.At = &t.Mark.At
		}
		for _, o := range around.Together(steps, t.ID) {
			view.With = append(view.With, o.ID)
		}
		a.Tasks = append(a.Tasks, view)
	}
	for _, t := range j.Around().Tools() {
		view := ToolView{ID: t.ID, Text: t.Text, OnCrank: t.OnCrank, Out: t.Out, Counted: t.Counted}
		if t.ID == around.Leaves {
			view.Note = bench.FirstLeaves(j)
		}
		a.Tools = append(a.Tools, view)
	}
	for _, f := range j.Findings {
		a.Findings = append(a.Findings, wire.FindingOf(f))
	}
	for _, m := range j.Amendments {
		a.Amendments = append(a.Amendments, AmendmentView{m.Text, m.By, m.At})
	}
	if j.TakenIn != nil {
		a.TakenIn = &TakenInView{wire.Names(j.TakenIn.Complaints), sides(j.TakenIn.Complaints),
			j.TakenIn.Note,
			j.TakenIn.Sound}
	}
	if j.Countersigned != nil {
		a.Counter = &Signed{j.Countersigned.By, j.Countersigned.At}
	}
	a.CoverBy, a.StartFrom = ClocksOf(j)
	return a
}

// ClocksOf are those that run on the work around the bench, where they do.
func ClocksOf(j *job.Job) (coverBy, startFrom *time.Time) {
	if by, ok := j.Around().CoverBy(); ok {
		coverBy = &by
	}
	if from, ok := j.Around().StartFrom(); ok {
		startFrom = &from
	}
	return coverBy, startFrom
}

func sides(list []around.Complaint) []string {
	out := []string{}
	for _, c := range list {
		if side := c.Side(); side != "" {
			out = append(out, side)
		}
	}
	return out
}

func missingSteps(j *job.Job) []string {
	ids := []string{}
	for _, t := range j.Around().Missing() {
		ids = append(ids, t.ID)
	}
	return ids
}
