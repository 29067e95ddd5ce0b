package rehearse_test

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/rehearse"
	"metronix/core/sequence"
)

// A hot job of eight valves, all out, comes to its last reading inside the ten minutes that hot figures hold:
// 12 s a reading, 35 s a setting with locking, 10 s a turn, 60 s to find the crank, the check afterwards. The
// clock is run by the test; the times are from memory.
func TestAHotJobInsideTenMinutes(t *testing.T) {
	set := jobtest.Setup()
	set.Card.State = clearance.Hot
	j, err := job.New(set)
	require.NoError(t, err)
	now, n := jobtest.Noon, 0
	take := func(after time.Duration, a job.Act) {
		t.Helper()
		now = now.Add(after)
		n++
		j, err = j.Take(job.Happening{ID: fmt.Sprint("h", n), At: now, Act: a})
		require.NoError(t, err)
	}
	take(0, job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs},
		Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckSetOnes}})
	f, ok := rehearse.Forecast(j)
	require.True(t, ok)
	assert.Equal(t, time.Minute+8*12*time.Second+3*10*time.Second, f.AllIn, "by hand: 60 + 8 × 12 + 3 × 10 s")
	assert.Equal(t, time.Minute+16*12*time.Second+8*35*time.Second+3*10*time.Second, f.AllOut)
	assert.Contains(t, f.String(), "At a usual pace", "nothing is known of these hands yet")
	assert.Contains(t, f.String(), "inside the 10 min")
	take(0, job.Prepared{EngineC: 85, AmbientC: 20})
	shut, isSet := now, map[string]bool{}
	for j.Phase() != job.Verify && j.Phase() != job.Sign {
		next := j.Next()
		switch next.Action {
		case job.DoTurn:
			by := 10 * time.Second
			if !j.Crank.Known {
				by = time.Minute
			}
			take(by, job.Turned{Stop: next.Stop})
		case job.DoRead:
			v, _ := j.Valve(next.Valve)
			feel := clearance.WontGo
			leaf := jobtest.Nominal(next.Valve)
			if isSet[next.Valve] {
				feel = clearance.Drag
			} else {
				leaf -= 20 // the leaf of the lower limit will not go: it is tight
			}
			take(
				12*time.Second,
				job.ReadingTaken{Valve: v.Name, Leaves: gauge.Straight(leaf * measure.Micrometre),
					Feel:     feel,
					KeepSure: true},
			)
		case job.DoKeep:
			take(0, job.Kept{Valve: next.Valve})
		case job.DoAdjust:
			isSet[next.Valve] = true
			take(25*time.Second, job.Adjusted{Valve: next.Valve})
		case job.DoLock:
			take(10*time.Second, job.Locked{Valve: next.Valve})
		default:
			t.Fatalf("%v at %v", next, j.Phase())
		}
	}
	assert.Len(t, isSet, 8)
	assert.Less(t, now.Sub(shut), 10*time.Minute)
	assert.Equal(t, f.AllOut, now.Sub(shut), "as it was forecast")
	for _, v := range j.Valves {
		assert.False(t, v.Last.Stale, v.Name)
	}
	pace, own := rehearse.PaceOf(j)
	assert.True(t, own)
	assert.Equal(t, 12*time.Second, pace.Read)
	assert.Equal(t, 25*time.Second, pace.Set)
}

// A slow mechanic is told to do it in two warm-ups; a job by cold figures is told nothing.
func TestTheForecastFollowsThePace(t *testing.T) {
	assert.Contains(
		t,
		rehearse.HotForecast{Own: true, AllIn: 12 * time.Minute, AllOut: 20 * time.Minute}.String(),
		"two warm-ups",
	)
	assert.Contains(t, rehearse.HotForecast{AllIn: 6 * time.Minute, AllOut: 13 * time.Minute}.String(),
		"13 with all out. Hot figures hold for 10")
	d := jobtest.Start(t, jobtest.Setup())
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs}}})
	_, ok := rehearse.Forecast(d.Job)
	assert.False(t, ok)
}
