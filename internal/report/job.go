package report

import (
	"time"

	"metronix/core/job"
	"metronix/core/record"
)

// Job is a job as it leaves the program: what was stored of it, and the state that follows.
type Job struct {
	record.Record
	State  *job.Job
	Photos map[string][]byte // JPEG, by the hashes that findings name

	Proof       string // what of it stands under the workshop's seal, with the seal; empty: it bears none
	Fingerprint string // of the workshop's key
}

// dated is how a moment is written on paper: the month by name, so that no reader mistakes it for the day.
const dated = "2 Jan 2006 15:04"

// stamp is a moment in the time of the workshop's machine.
func stamp(t time.Time) string { return t.Local().Format(dated) }
