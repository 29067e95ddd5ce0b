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
}

const dated = "2 Jan 2006 15:04"

func stamp(t time.Time) string { return t.Local().Format(dated) }
