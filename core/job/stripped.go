package job

import (
	"fmt"
	"slices"
	"strings"

	"metronix/core/around"
	"metronix/core/engine"
)

// Stripped says that something came off this engine which its sheet does not list: a connector, a clip, a
// hose. It joins the job's strip list at its end, ticked off, and so is read backwards with the others when
// the engine is closed.
//
// The first job on an engine teaches its strip list in this way, by tapping while it is done; whoever keeps
// the sheets adds it there for the next.
type Stripped struct {
	plain
	Step string // its id, made by the client
	engine.StripStep
}

// mostLearned bounds what one job adds to a strip list.
const mostLearned = 40

// Kind is "stripped".
func (Stripped) Kind() Kind { return "stripped" }

// sound refuses what could not be read at arm's length on the way back.
func (a Stripped) sound(j *Job) error {
	switch {
	case strings.TrimSpace(a.Step) == "":
		return refuse("step", "It has no id.")
	case strings.TrimSpace(a.Text) == "":
		return refuse("text", "Say what came off: a connector, a clip, a hose.")
	}
	for field, text := range map[string]string{"text": a.Text, "fastener": a.Fastener, "note": a.Note} {
		if len([]rune(text)) > mostFindingWord {
			return refuse(field, fmt.Sprintf("At most %d characters.", mostFindingWord))
		}
	}
	if a.SocketMM < 0 || a.SocketMM > 100 {
		return refuse("socket_mm", "A socket is 0 to 100 mm across flats.")
	}
	return nil
}

// may refuses what is on the list already, whatever its capitals: the same hose twice would come back on
// twice.
func (a Stripped) may(j *Job, _ string) error {
	same := func(s engine.StripStep) bool {
		return strings.EqualFold(strings.TrimSpace(s.Text), strings.TrimSpace(a.Text))
	}
	switch {
	case len(j.Learned) >= mostLearned:
		return refuse("text", fmt.Sprintf("A job adds %d things to a strip list.", mostLearned))
	case slices.ContainsFunc(j.Learned, func(l around.Learned) bool { return l.ID == a.Step }):
		return refuse("step", "That is on the list already.")
	case slices.ContainsFunc(j.Sheet.StripList, same),
		slices.ContainsFunc(j.Learned, func(l around.Learned) bool { return same(l.StripStep) }):
		return refuse("text", a.Text+" is on the list already: tick it there.")
	}
	return nil
}

// do adds the thing at the end of the list, as it comes off after what is listed, and ticks it off.
func (a Stripped) do(j *Job) {
	a.Text, a.Fastener, a.Note = strings.TrimSpace(a.Text),
		strings.TrimSpace(a.Fastener), strings.TrimSpace(a.Note)
	j.Learned = append(slices.Clone(j.Learned), around.Learned{ID: a.Step, StripStep: a.StripStep})
	TaskMarked{Task: around.StripPrefix + a.Step}.do(j)
}
