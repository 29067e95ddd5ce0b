package job

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"metronix/core/around"
)

// TaskMarked ticks a step around the bench off: done, passed over with a reason, or waiting again.
//
// Most steps may be ticked in any order, as people work. What harm follows from is refused: a cover that goes
// on over sealant which stood open too long (it is taken off and put on afresh), a start while a tool is on
// the crank or not back, before the cover is on, or before the sealant has cured, unless a reason is written.
//
// Steps of a group are ticked at once, each held to what it would be held to alone, and each says so. One is
// passed over, or waits again, by itself.
//
// Once the engine was started nobody knows where its crank stands.
type TaskMarked struct {
	plain
	Task   string
	With   []string // the other steps of its group that are ticked with it; empty: it alone
	Skip   bool     // it is passed over, with its reason
	Back   bool     // it waits again: it was ticked by mistake, or has to be done afresh
	Reason string   // why it is passed over, or done all the same
}

// Kind is "task".
func (TaskMarked) Kind() Kind { return "task" }

func (a TaskMarked) sound(j *Job) error {
	tasks := j.Around().Tasks()
	if !slices.ContainsFunc(tasks, func(s around.Task) bool { return s.ID == a.Task }) {
		return refuse("task", fmt.Sprintf("%q is no step of this job.", a.Task))
	}
	return nil
}

// alike refuses steps that are not ticked as a group: those of no group or of another, one named twice, and
// anything but ticking.
func (a TaskMarked) alike(j *Job) error {
	if len(a.With) == 0 {
		return nil
	}
	if a.Skip || a.Back {
		return refuse("with", "Steps are passed over, and taken back, one by one: each has its reason.")
	}
	waits := map[string]bool{}
	for _, t := range j.Around().Together(a.Task) {
		waits[t.ID] = t.ID != a.Task
	}
	for _, id := range a.With {
		if !waits[id] {
			return refuse("with", fmt.Sprintf("%q is not ticked as a group with %q: tick it by itself.", id, a.Task))
		}
		waits[id] = false
	}
	return nil
}

// may holds the steps that have conditions: tools and crank free before anything runs, the cover within the
// sealant's open time, the start after its cure. Passing over wants a reason.
func (a TaskMarked) may(j *Job, own string) error {
	if err := a.alike(j); err != nil {
		return err
	}
	for _, id := range a.With {
		if err := (TaskMarked{Task: id, Reason: a.Reason}).may(j, own); err != nil {
			return err
		}
	}
	reason := strings.TrimSpace(a.Reason) != ""
	switch {
	case a.Back && !j.Marked(a.Task).Marked:
		return refuse("task", "That step waits already.")
	case a.Skip && !reason:
		return refuse("reason", "Say why it is passed over: the sheet will show it.")
	case a.Back, a.Skip:
		return nil
	}
	switch a.Task {
	case around.ToolsStep, around.CrankStep, around.HotRunStep:
		return a.toolsBack(j)
	case around.CoverStep:
		if by, open := j.Around().CoverBy(); open && j.now.After(by) {
			return refuse("task",
				fmt.Sprintf("The sealant stood open for %s, and %s is the most: take it off and put it "+
					"on afresh.", around.Minutes(j.now.Sub(j.Marked(around.SealantStep).At).Truncate(time.Minute)),
					around.Minutes(j.Around().OpenTime())))
		}
	case around.StartStep:
		if reason {
			return a.toolsBack(j)
		}
		return a.mayStart(j)
	}
	return nil
}

// toolsBack refuses what a tool that is still out would make dangerous, by its name.
func (a TaskMarked) toolsBack(j *Job) error {
	var out []string
	for _, t := range j.Around().Tools() {
		if t.Out && (a.Task == around.ToolsStep || t.OnCrank) {
			out = append(out, t.Text)
		}
	}
	if len(out) == 0 {
		return nil
	}
	return refuse("task", "Still out: "+strings.Join(out, ", ")+".")
}

// addsTo says that the step comes after the signature, and was not ticked with it.
func (a TaskMarked) addsTo(j *Job) bool {
	tasks := j.Around().Tasks()
	at := slices.IndexFunc(tasks, func(t around.Task) bool { return t.ID == a.Task })
	return at >= 0 && tasks[at].Part == around.StartUp && (!tasks[at].Mark.Marked || tasks[at].Mark.At.After(j.SignedAt))
}

// mayStart refuses a start that would break something or somebody: a tool on the crank, a bucket without its
// shim, a slack lock nut, no cover over moving rockers, sealant that would be washed out of its joint.
func (a TaskMarked) mayStart(j *Job) error {
	if err := a.toolsBack(j); err != nil {
		return err
	}
	if v := j.bare(); v != nil {
		return refuse("task", v.Name+" has no shim. Fit one before the engine is started.")
	}
	if v := j.nutLoose(); v != nil {
		return refuse("task", "The lock nut of "+v.Name+" is slack. Lock it before the engine is started.")
	}
	for _, id := range []string{around.CrankStep, around.CoverStep} {
		if m := j.Marked(id); !m.Marked && j.SignedBy == "" {
			return refuse("task", "Not yet: "+j.Around().Text(id)+".")
		}
	}
	if from, cures := j.Around().StartFrom(); cures && j.now.Before(from) {
		return refuse("task",
			fmt.Sprintf("The sealant cures for %s; %s are left. The sealant's own sheet wins: start all "+
				"the same with a reason.", around.Minutes(j.Around().CureTime()),
				around.Minutes(from.Sub(j.now).Round(time.Minute))))
	}
	return nil
}

// do marks the step. Sealant that has to be put on afresh takes the cover off with it. An engine that ran has
// its crank anywhere, and is as warm as it may be; that it was run warm for hot figures is no news where it
// was said when it was shut off, and nothing is measured any more once the job is signed.
func (a TaskMarked) do(j *Job) {
	if a.Back {
		j.Tick(a.Task, around.Mark{})
		if a.Task == around.SealantStep { // the cover comes off with it
			j.Tick(around.CoverStep, around.Mark{})
		}
		return
	}
	for _, id := range append([]string{a.Task}, a.With...) {
		j.Tick(id, around.Mark{At: j.now, Marked: true, Skipped: a.Skip, Grouped: len(a.With) > 0,
			Reason: strings.TrimSpace(a.Reason)})
	}
	if a.runs() && j.SignedBy == "" && !(a.Task == around.HotRunStep && j.stopSaid()) {
		j.ran(time.Time{})
	}
}

// runs says that the engine ran.
func (a TaskMarked) runs() bool {
	return (a.Task == around.StartStep || a.Task == around.HotRunStep) && !a.Skip && !a.Back
}

func (a TaskMarked) moves() bool { return a.runs() }
