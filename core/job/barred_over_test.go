package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
)

func TestTheTwoTurns(t *testing.T) {
	d := slackAt(t, "E1")
	d.refused(job.Happening{Act: job.BarredOver{}}, "after every valve is adjusted and locked")
	d.do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.feel("E1", 300, "drag")
	d.do(job.Happening{Act: job.Kept{Valve: "E1"}})
	assert.Equal(t, job.DoBarOver, d.job.Next().Action)
	d.do(job.Happening{Act: job.BarredOver{}})
	done, all := d.job.Progress()
	assert.Equal(t, [2]int{0, 8}, [2]int{done, all}, "every valve is checked after it")
}
