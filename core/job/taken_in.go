package job

import (
	"fmt"
	"slices"
	"strings"

	"metronix/core/around"
)

// TakenIn says what the vehicle came in for, and how it sounded; it may be said again, and the last word
// counts.
type TakenIn struct {
	plain
	Complaints []around.Complaint
	Note       string // in the mechanic's words
	Sound      string // before the work, as a short note: "ticks when warm, at idle"
}

// Kind is "taken_in".
func (TakenIn) Kind() Kind { return "taken_in" }

func (a TakenIn) sound(*Job) error {
	for i, c := range a.Complaints {
		if !slices.Contains(around.Complaints(), c) {
			return refuse(fmt.Sprintf("complaints[%d]", i),
				fmt.Sprintf("%q is no complaint that is known here.", c))
		}
	}
	for field, text := range map[string]string{"note": a.Note, "sound": a.Sound} {
		if len([]rune(text)) > mostNote {
			return refuse(field, fmt.Sprintf("At most %d characters.", mostNote))
		}
	}
	return nil
}

// do writes the complaint down and ticks the step.
func (a TakenIn) do(j *Job) {
	a.Note, a.Sound = strings.TrimSpace(a.Note), strings.TrimSpace(a.Sound)
	j.TakenIn = &around.Arrival{Complaints: a.Complaints, Note: a.Note, Sound: a.Sound}
	if a.Sound != "" {
		j.SoundBefore.Note = a.Sound
	}
	TaskMarked{Task: around.TakenInStep}.do(j)
}
