package job

import "slices"

// Undone takes back the last happening that stands. What it does is done by making the list shorter: the
// state is computed from what is left.
//
// It names what it takes back, so that two hands at two screens cannot undo each other's work by pressing
// at once: the second is told that something else happened since. Undoing is itself a happening and stays
// in the stored list, which only grows; what was taken back is still there to be read in the record, and
// counts no more.
//
// A signed job is not taken back. What was signed is what somebody answers for.
type Undone struct {
	plain
	Target string // the id of the happening taken back
}

// Kind is "undone".
func (Undone) Kind() Kind { return "undone" }

// may takes back the last thing alone, by name: of two screens that undo at once one is told.
func (a Undone) may(j *Job, _ string) error {
	switch last := j.CanUndo(); {
	case j.SignedBy != "":
		return refuse("target", "The job is signed. What is signed is not taken back: start a new job.")
	case last == "":
		return refuse("target", "There is nothing to take back.")
	case last != a.Target:
		return refuse("target", "Something else happened since. Only the last thing done can be taken "+
			"back: look again.")
	}
	return nil
}

func (Undone) do(*Job) {}

// CanUndo is the id of the happening that would be taken back next, empty where none can be.
func (j *Job) CanUndo() string {
	if n := len(j.effective); n > 0 && j.SignedBy == "" && !slices.Contains(j.others, j.effective[n-1].Screen) {
		return j.effective[n-1].ID
	}
	return ""
}

// undo plays the whole list again with this at its end, so that it leaves what opening the job anew would
// show. What was taken back before is played too: what later entries knew of hangs on it.
func (j *Job) undo(h Happening, a Undone) (*Job, error) {
	if err := a.may(j, h.Since); err != nil {
		return j, err
	}
	back, err := Replay(j.begun, append(slices.Clip(j.list), h))
	if err != nil {
		return j, err
	}
	return back, nil
}
