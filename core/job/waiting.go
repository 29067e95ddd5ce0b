package job

import "strings"

// Waiting says that the vehicle stands open and the work waits: for parts, for other cams, until a date.
// The zero Deferral is that it waits no more. Work at a valve, a turn of the crank or a step that is ticked
// says so as well.
//
// It is no signature: the job stays open, with everything where it was, and the board says what it waits for.
type Waiting struct {
	plain
	Deferral
}

// Kind is "waiting".
func (Waiting) Kind() Kind { return "waiting" }

func (a Waiting) sound(*Job) error { return a.Deferral.sound() }

func (a Waiting) do(j *Job) {
	a.Until = strings.TrimSpace(a.Until)
	j.Waits = a.Deferral
}

// Waiting says in words what the open vehicle waits for: "parts, on order", "2027-03-01"; empty: for nothing.
func (d Deferral) Waiting() string {
	until := strings.TrimSpace(d.Until)
	switch d.Waits {
	case WaitsForParts, WaitsForCams:
		what := map[WaitsFor]string{WaitsForParts: "parts", WaitsForCams: "other cams"}[d.Waits]
		if until != "" {
			return what + ", " + until
		}
		return what
	}
	return until
}

// resumes says that an act is work at the vehicle, which therefore waits no more.
func resumes(a Act) bool {
	switch a.(type) {
	case TaskMarked, Stripped, NutFelt, ToolMoved, Prepared, JudgedCold, Kept,
		Freed, Adjusted, Nipped, Locked, SetTold,
		Sized, BarredOver, Signed:
		return true
	}
	return a.moves() || a.ReadsOnly()
}
