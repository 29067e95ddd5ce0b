package job

import "fmt"

// PlayFelt says how much play a rocker has by hand, before a leaf is put in: none, some or much.
//
// It goes with the first walk, on valves that are clear now, and tells where to begin: none means tight or
// held open, so it is looked at first. It is no measurement: it judges nothing, shortens nothing and sends
// nobody round the engine once more (common practice, all of it).
type PlayFelt struct {
	plain
	Valve string
	Play  Play
}

// Play is how a rocker moves by hand. The zero value is that nobody felt.
type Play string

// The plays.
const (
	NotFelt  Play = ""
	NoPlay   Play = "none"
	SomePlay Play = "some"
	MuchPlay Play = "much"
)

// Kind is "play".
func (PlayFelt) Kind() Kind { return "play" }

// On is its valve.
func (a PlayFelt) On() string { return a.Valve }

func (a PlayFelt) sound(j *Job) error {
	switch a.Play {
	case NotFelt, NoPlay, SomePlay, MuchPlay:
		return j.has(a.Valve)
	}
	return refuse("play", fmt.Sprintf("%q is no play: %s, %s or %s.", a.Play, NoPlay, SomePlay, MuchPlay))
}

// MayFeel says that a valve's play may be felt by hand: it is clear here, and no leaf told anything of it
// yet.
func (j *Job) MayFeel(v *ValveState) bool {
	return j.Settable(v) && v.AsFound == nil && len(v.Round) == 0 && !v.Freed
}

// may feels a valve that is clear here and not read yet: afterwards a leaf has told more.
func (a PlayFelt) may(j *Job, _ string) error {
	v := j.valve(a.Valve)
	if err := j.working(); err != nil {
		return err
	}
	if err := j.clear(v); err != nil {
		return err
	}
	if !j.MayFeel(v) {
		return refuse("valve", fmt.Sprintf("%s was read: a leaf tells more than a hand.", v.Name))
	}
	return nil
}

func (a PlayFelt) do(j *Job) { j.valve(a.Valve).Play = a.Play }
