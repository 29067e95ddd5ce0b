package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
)

func TestTheTwoTurns(t *testing.T) {
	d := jobtest.SlackAt(t, "E1")
	d.Refused(job.Happening{Act: job.BarredOver{}}, "after every valve is adjusted and locked")
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.Feel("E1", 300, "drag")
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	next := d.Job.Next()
	assert.Equal(t, job.DoRead, next.Action, "the others were read two turns ago, and are read here at once")
	assert.NotEqual(t, "E1", next.Valve, "its own nut was made tight just now")
	d.Do(job.Happening{Act: job.BarredOver{}})
	done, all := d.Job.Progress()
	assert.Equal(t, [2]int{0, 8}, [2]int{done, all}, "every valve is checked after it")
}
