package job

import (
	"fmt"
	"strings"
	"time"
)

// TaskMarked ticks a step around the bench off: done, passed over with a reason, or waiting again.
//
// Most steps may be ticked in any order, as people work. What harm follows from is refused: a cover that goes
// on over sealant which stood open too long (it is taken off and put on afresh), a start while a tool is on
// the crank or not back, before the cover is on, or before the sealant has cured, unless a reason is written.
//
// Once the engine was started nobody knows where its crank stands.
type TaskMarked struct {
	plain
	Task   string
	Skip   bool   // it is passed over, with its reason
	Back   bool   // it waits again: it was ticked by mistake, or has to be done afresh
	Reason string // why it is passed over, or done all the same
}

// Kind is "task".
func (TaskMarked) Kind() Kind { return "task" }

func (a TaskMarked) sound(j *Job) error {
	for _, s := range j.Tasks() {
		if s.ID == a.Task {
			return nil
		}
	}
	return refuse("task", fmt.Sprintf("%q is no step of this job.", a.Task))
}

func (a TaskMarked) may(j *Job, _ string) error {
	reason := strings.TrimSpace(a.Reason) != ""
	switch {
	case a.Back && !j.marks[a.Task].Marked:
		return refuse("task", "That step waits already.")
	case a.Skip && !reason:
		return refuse("reason", "Say why it is passed over: the sheet will show it.")
	case a.Back, a.Skip:
		return nil
	}
	switch a.Task {
	case stepTools, stepCrank, stepHotRun:
		return a.toolsBack(j)
	case stepCoverOn:
		if by, open := j.CoverBy(); open && j.now.After(by) {
			return refuse("task",
				fmt.Sprintf("The sealant stood open for %s, and %s is the most: take it off and put it "+
					"on afresh.", minutes(j.now.Sub(j.marks[stepSealant].At).Truncate(time.Minute)),
					minutes(j.openTime())))
		}
	case stepStart:
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
	for _, t := range j.Tools() {
		if t.Out && (a.Task == stepTools || t.OnCrank) {
			out = append(out, t.Text)
		}
	}
	if len(out) == 0 {
		return nil
	}
	return refuse("task", "Still out: "+strings.Join(out, ", ")+".")
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
	for _, id := range []string{stepCrank, stepCoverOn} {
		if m := j.marks[id]; !m.Marked {
			return refuse("task", "Not yet: "+j.stepText(id)+".")
		}
	}
	if from, cures := j.StartFrom(); cures && j.now.Before(from) {
		return refuse("task",
			fmt.Sprintf("The sealant cures for %s; %s are left. The sealant's own sheet wins: start all "+
				"the same with a reason.", minutes(j.cureTime()),
				minutes(from.Sub(j.now).Round(time.Minute))))
	}
	return nil
}

func (j *Job) stepText(id string) string {
	for _, s := range j.Tasks() {
		if s.ID == id {
			return strings.ToLower(s.Text[:1]) + s.Text[1:]
		}
	}
	return id
}

// do marks the step. Sealant that has to be put on afresh takes the cover off with it. An engine that ran has
// its crank anywhere, and is as warm as it may be; that it was run warm for hot figures is no news where it
// was said when it was shut off.
func (a TaskMarked) do(j *Job) {
	if j.marks == nil {
		j.marks = map[string]Mark{}
	}
	if a.Back {
		j.marks[a.Task] = Mark{}
		if a.Task == stepSealant { // the cover comes off with it
			j.marks[stepCoverOn] = Mark{}
		}
		return
	}
	j.marks[a.Task] = Mark{At: j.now, Marked: true, Skipped: a.Skip, Reason: strings.TrimSpace(a.Reason)}
	if a.runs() && !(a.Task == stepHotRun && j.stopSaid()) {
		j.ran(time.Time{})
	}
}

// runs says that the engine ran.
func (a TaskMarked) runs() bool {
	return (a.Task == stepStart || a.Task == stepHotRun) && !a.Skip && !a.Back
}

func (a TaskMarked) moves() bool { return a.runs() }

// again makes what is done after the bench wait again: the hot pass opens the engine once more.
func (j *Job) closeAgain() {
	for _, s := range j.Tasks() {
		if s.Part == CloseUp || s.Part == StartUp {
			delete(j.marks, s.ID)
		}
	}
	j.felt = nil
}

// turningTool is what the crank is turned with, by its name.
func (j *Job) turningTool() string {
	p := j.Sheet.TurningPoint
	switch {
	case p == nil || p.Where == "":
		return "whatever turns the engine"
	case p.SocketMM > 0:
		return fmt.Sprintf("the %s from the %s", Socket(p.SocketMM), p.Where)
	}
	return "the tool from the " + p.Where
}
