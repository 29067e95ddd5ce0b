package job

import (
	"fmt"
	"slices"
	"strings"
)

// Complaint is what the vehicle is brought in for.
type Complaint string

// The complaints (common practice): a tick goes with loose valves; rough idle, back-firing, smoke, hard
// starting and low compression with tight ones; some engines tick by nature.
const (
	Ticks           Complaint = "ticks"
	TicksByNature   Complaint = "ticks_by_nature"
	RoughIdle       Complaint = "rough_idle"
	BackFires       Complaint = "back_fires"
	Smokes          Complaint = "smokes"
	HardStart       Complaint = "hard_start"
	LowCompression  Complaint = "low_compression"
	NoComplaint     Complaint = "none"
	mostNote                  = 400 // characters of a note
	mostFindingWord           = 120
)

// Complaints lists them.
func Complaints() []Complaint {
	return []Complaint{Ticks, RoughIdle, BackFires, Smokes, HardStart, LowCompression, TicksByNature,
		NoComplaint}
}

// Side is the side of the limits that a complaint points to: Loose, Tight, or neither.
func (c Complaint) Side() string {
	switch c {
	case Ticks:
		return "loose"
	case RoughIdle, BackFires, Smokes, HardStart, LowCompression:
		return "tight"
	}
	return ""
}

// TakenIn says what the vehicle came in for, and how it sounded; it may be said again, and the last word
// counts.
type TakenIn struct {
	plain
	Complaints []Complaint
	Note       string // in the mechanic's words
	Sound      string // before the work, as a short note: "ticks when warm, at idle"
}

// Kind is "taken_in".
func (TakenIn) Kind() Kind { return "taken_in" }

func (a TakenIn) sound(*Job) error {
	for i, c := range a.Complaints {
		if !slices.Contains(Complaints(), c) {
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

func (a TakenIn) do(j *Job) {
	a.Note, a.Sound = strings.TrimSpace(a.Note), strings.TrimSpace(a.Sound)
	j.TakenIn = &a
	if a.Sound != "" {
		j.SoundBefore.Note = a.Sound
	}
	TaskMarked{Task: stepTakenIn}.do(j)
}
