package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/job"
	"metronix/core/job/jobtest"
)

// Every kind has a word of its own, and says which valve it is about where it is about one.
func TestEveryKindHasAWord(t *testing.T) {
	seen := map[job.Kind]bool{}
	for _, a := range job.Acts() {
		assert.NotEmpty(t, a.Kind(), "%T", a)
		assert.False(t, seen[a.Kind()], "%s twice", a.Kind())
		seen[a.Kind()] = true
		assert.Empty(t, a.On(), "%T without a valve", a)
	}
	assert.Equal(t, "E1", job.Kept{Valve: "E1"}.On())
	assert.Equal(t, "E1", job.ReadingTaken{Valve: "E1"}.On())
}

// Every act that is about a valve refuses a name that is none, and nothing else of it is looked at.
func TestAValveThatIsNone(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin("one_cylinder")
	for _, a := range []job.Act{job.Picked{Valve: "E9"}, job.ReadingTaken{Valve: "E9"},
		job.DialRead{Valve: "E9"}, job.Withdrawn{Valve: "E9"},
		job.Sized{Valve: "E9"}, job.Kept{Valve: "E9"}, job.Adjusted{Valve: "E9"}, job.Locked{Valve: "E9"},
		job.LeftAsIs{Valve: "E9"}} {
		d.Refused(job.Happening{Act: a}, `"E9" is no valve of this engine`)
	}
}
