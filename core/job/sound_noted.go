package job

import (
	"fmt"
	"strings"

	"metronix/core/around"
)

// SoundNoted says how the engine sounded before the work, or after it. The last word of each counts, and one
// with nothing in it takes back what was said.
//
// An ear compares two sounds of the same engine far better than it judges one: the recording from before is
// there to be played when the engine runs again.
type SoundNoted struct {
	plain
	around.Heard
	After bool // with the valves set; false: as it came in
}

// Kind is "sound".
func (SoundNoted) Kind() Kind { return "sound" }

func (a SoundNoted) sound(*Job) error {
	switch {
	case len([]rune(a.Note)) > mostNote:
		return refuse("note", fmt.Sprintf("At most %d characters.", mostNote))
	case a.File != "" && len(a.File) != photoHash:
		return refuse("file", "A recording is named by the hash that keeping it gave.")
	}
	return nil
}

// do keeps one sound before and one after, and one that was heard after the signature; the newest stands.
func (a SoundNoted) do(j *Job) {
	a.Note = strings.TrimSpace(a.Note)
	if a.After && j.SignedBy != "" {
		j.HeardLater = a.Heard
		return
	}
	if a.After {
		j.SoundAfter = a.Heard
		return
	}
	j.SoundBefore = a.Heard
}
