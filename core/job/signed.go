package job

import (
	"fmt"
	"strings"

	"metronix/core/around"
)

// Signed ends a job, or its cold pass where a hot one follows.
//
// A tool on the crank breaks a wrist at the first turn of the starter, and a leaf left in the head ruins an
// engine; so signing asks for both by name, and is refused without them. It is refused as well while any
// valve waits to be read, set or checked: a valve may be left out of its limits with a reason, never
// forgotten. A round that only reads comes to signing with its valves as they are: each that was found out of
// its limits is asked for then.
//
// A job may be signed as deferred: put off until a date, an odometer, parts or other cams. A deferred job may
// leave valves unread, and those that are out; what was set in it stays set.
type Signed struct {
	plain
	By       string // who signs
	ToolsOut bool   // every tool and leaf was counted out, and the socket is off the crank
	Deferred Deferral
	// Exceptions is why the job is signed though steps around the bench were not done; empty: none is left
	Exceptions string
	// Seal is what the sheet shows and the list does not say, as it was at the signature; whoever keeps the
	// job writes it, and no client
	Seal Seal
}

// Kind is "signed".
func (Signed) Kind() Kind { return "signed" }

func (a Signed) sound(*Job) error { return a.Deferred.sound() }

// may signs what is finished: nothing begun, every valve answered, tools and leaves counted back, the steps
// done or said why not. A job that is put off may leave valves unread, never a nut slack.
func (a Signed) may(j *Job, _ string) error {
	if err := j.nothingBegun("signing"); err != nil {
		return err
	}
	if v := j.find((*ValveState).slackened); v != nil {
		return refuse("kind", fmt.Sprintf("Finish %s before signing: %s.", v.Name, v.unfinished()))
	}
	switch {
	case j.Phase() != Sign && a.Deferred == (Deferral{}):
		return refuse("kind", "The job is not finished: valves are waiting to be read, adjusted or checked.")
	case len(j.Unanswered()) > 0 && a.Deferred == (Deferral{}):
		return refuse("kind", j.unanswered())
	case strings.TrimSpace(a.By) == "":
		return refuse("by", "Say who signs.")
	case !a.ToolsOut:
		return refuse("tools_out",
			"Account for all tools and leaves, and take the socket off the crank, before signing.")
	case j.toolsStillOut() != "":
		return refuse("tools_out", "Still out: "+j.toolsStillOut()+". Count them back before signing.")
	case len(j.Around().Missing()) > 0 && strings.TrimSpace(a.Exceptions) == "" && a.Deferred == (Deferral{}):
		return refuse("exceptions",
			"Not done yet: "+stepList(j.Around().Missing())+". Do them, pass them over with a reason, or "+
				"sign with the exceptions and say why.")
	}
	return nil
}

// Unanswered are the valves that were found out of their limits and that nobody has decided about: neither
// set, nor left with a reason, nor put off. Signing asks for each.
func (j *Job) Unanswered() (list []*ValveState) {
	for _, v := range j.Valves {
		if v.IsOut() && v.LeaveReason == "" && !v.Outside {
			list = append(list, v)
		}
	}
	return list
}

// unanswered names the valves that are out and have no reason yet.
func (j *Job) unanswered() string {
	var each []string
	for _, v := range j.Unanswered() {
		each = append(each, fmt.Sprintf("%s is %s", v.Name, v.Last.Judgement.Verdict))
	}
	return "Left out of limits: " + strings.Join(each, ", ") +
		". Say of each why it is left or until when it is put off, or put the job off."
}

// toolsStillOut names the tools that were counted out and are not back.
func (j *Job) toolsStillOut() string {
	var out []string
	for _, t := range j.Around().Tools() {
		if t.Out {
			out = append(out, t.Text)
		}
	}
	return strings.Join(out, ", ")
}

// stepList is steps as a list in a sentence.
func stepList(steps []around.Task) string {
	var texts []string
	for _, s := range steps {
		texts = append(texts, s.Text)
	}
	return strings.Join(texts, "; ")
}

func (a Signed) do(j *Job) {
	j.SignedBy, j.SignedAt, j.Deferred, j.Seal = strings.TrimSpace(a.By), j.now, a.Deferred, a.Seal
	if left := j.Around().Missing(); len(left) > 0 {
		j.Exceptions = strings.TrimSpace(a.Exceptions)
		for _, t := range left {
			j.StepsLeft = append(j.StepsLeft, t.Text)
		}
	}
}
