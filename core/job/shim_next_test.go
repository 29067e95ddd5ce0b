package job_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/job"
	"metronix/core/measure"
)

// Nobody is asked to leave a valve, or to wait for its shim, while another can still be served or one to hand
// be tried: what comes out there may serve it. Whoever tries all that may serve, and now and then has a size
// come that is to be bought, ends the job, and every valve that was not left is in as a leaf reads it.
func TestAllThatMayServeIsDoneBeforeAValveIsLeft(t *testing.T) {
	t.Parallel()
	tried, came, left := 0, 0, 0
	for i := range 80 {
		c := &shimmer{wild{chanced{t: t, chance: rand.New(rand.NewPCG(uint64(i), 7)), gaps: map[string]measure.Length{}}}}
		_, seats := c.begun(i)
		for n := 0; c.d.Job.Phase() != job.Sign; n++ {
			require.Less(t, n, 400, "job %d does not end", i)
			j := c.d.Job
			next := j.Next()
			act := c.led(seats)
			if next.Action == job.DoAdjust && next.Shim == nil && c.known(next.Valve) {
				v, _ := j.Valve(next.Valve)
				size := j.ShimToTry(v.Name)
				if size == 0 && c.chance.IntN(2) == 0 {
					if size = j.ShimToOrder(v.Name); size == 0 {
						fit, _ := j.ShimFor(v.Name)
						size = fit.Shim
					}
					came++
				}
				switch {
				case size > 0 && !j.Settable(v):
					act = job.Picked{Valve: v.Name}
				case size > 0:
					act = job.Adjusted{Valve: v.Name, Shim: size}
					tried++
				default:
					left++
					assert.Empty(t, j.Steps(), "job %d: %s is to be left, and there is work", i, v.Name)
					for _, o := range j.Valves {
						assert.False(t, o.Needs() && o.Stage == job.Untouched && j.ShimToTry(o.Name) > 0,
							"job %d: %s is to be left before %s is tried", i, v.Name, o.Name)
					}
				}
			}
			if _, turned := act.(job.Picked); turned {
				c.d.Do(job.Happening{Act: act})
				require.Equal(t, job.DoTurn, c.d.Job.Next().Action, "it is turned to")
				continue
			}
			c.d.Do(job.Happening{Act: act})
			if a, ok := act.(job.Adjusted); ok {
				c.gaps[a.Valve] = a.Shim
			}
		}
		for _, v := range c.d.Job.Valves {
			if v.LeaveReason == "" {
				gap := seats[v.Name] - c.gaps[v.Name]
				assert.True(t, gap >= v.Limits.Window.Lower-20*um && gap <= v.Limits.Window.Upper+20*um,
					"job %d: %s is left at %v", i, v.Name, gap) // a dial of ±0.02 mm at most
			}
		}
	}
	assert.Positive(t, tried)
	assert.Positive(t, came)
	assert.Positive(t, left)
}
