package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// sure is a reading that is kept by itself where it leaves nothing to ask.
func sure(valve string, um10 measure.Length, feel clearance.Feel) job.Happening {
	return job.Happening{Act: job.ReadingTaken{Valve: valve, Leaves: gauge.Straight(um10 * um), Feel: feel,
		KeepSure: true}}
}

// goingRound is a four that stands at its first stop, set as one goes.
func goingRound(t *testing.T, set job.Setup) *jobtest.Driver {
	d := jobtest.Start(t, set)
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo,
		Check: job.CheckSetOnes}}})
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	return d
}

// A valve that is surely in costs one gesture: its reading is kept by itself, and undo takes both back.
func TestASureInIsKeptByItself(t *testing.T) {
	d := goingRound(t, jobtest.Setup())
	d.Do(sure("E1", 300, clearance.Drag))
	e1, _ := d.Job.Valve("E1")
	require.NotNil(t, e1.AsFound)
	assert.Equal(t, clearance.In, e1.AsFound.Judgement.Verdict)
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "I1"}, d.Job.Next())
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	e1, _ = d.Job.Valve("E1")
	assert.Nil(t, e1.AsFound)
	assert.Empty(t, e1.Round)
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "E1"}, d.Job.Next())
	replayed, err := job.Replay(jobtest.Setup(), d.List)
	require.NoError(t, err)
	assert.Equal(t, d.Job.Next(), replayed.Next())
}

// What is close waits for the mechanic, what is out is set, and nothing is kept while the nut is slack.
func TestWhatIsNotSureWaits(t *testing.T) {
	d := goingRound(t, jobtest.Setup())
	d.Do(sure("E1", 320, clearance.Drag))
	assert.Equal(t, job.Next{Action: job.DoKeep, Valve: "E1"}, d.Job.Next(), "on the limit: close")
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	d.Do(sure("E1", 260, clearance.Drag))
	assert.Equal(t, job.Next{Action: job.DoAdjust, Valve: "E1"}, d.Job.Next())
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1"}})
	d.Do(sure("E1", 300, clearance.Drag))
	assert.Equal(t, job.Next{Action: job.DoLock, Valve: "E1"}, d.Job.Next())
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.Do(sure("E1", 300, clearance.Drag))
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, 260*um, *e1.AsFound.Judgement.Estimate, "setting kept it as it was found")
	assert.Equal(t, 300*um, *e1.Last.Judgement.Estimate)
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "I1"}, d.Job.Next())
}

// A dial that leaves nothing to ask is kept by itself too.
func TestASureDialIsKeptByItself(t *testing.T) {
	d := goingRound(t, jobtest.Setup())
	d.Do(job.Happening{Act: job.DialRead{Valve: "E1", Gap: 300 * um, KeepSure: true}})
	e1, _ := d.Job.Valve("E1")
	require.NotNil(t, e1.AsFound)
	assert.Empty(t, e1.Round)
}

// With shims a valve whose shim is to be reckoned waits for its figure; one that is surely in does not.
func TestShimsKeepASureIn(t *testing.T) {
	set := jobtest.Setup()
	set.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	d := jobtest.Start(t, set)
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Do(sure("E1", 300, clearance.Drag))
	e1, _ := d.Job.Valve("E1")
	assert.NotNil(t, e1.AsFound)
	d.Do(sure("I1", 190, clearance.WontGo))
	assert.Equal(t, job.DoRead, d.Job.Next().Action, "tight, and its figure is wanted")
}

// Somebody else's screen that still shows the valve unread is told that it was kept since, as long as it is.
func TestAStaleScreenLearnsThatItWasKept(t *testing.T) {
	d := goingRound(t, jobtest.Setup())
	knew := d.List[len(d.List)-1].ID
	stale := sure("E1", 310, clearance.Free)
	stale.Since = knew
	d.Do(sure("E1", 300, clearance.Drag))
	d.Refused(stale, "read and kept by somebody else since")
	replayed, err := job.Replay(jobtest.Setup(), d.List)
	require.NoError(t, err)
	again := jobtest.Start(t, jobtest.Setup())
	again.Job, again.List = replayed, d.List
	again.Refused(stale, "read and kept by somebody else since")
	again.Do(job.Happening{Act: job.Undone{Target: again.Job.CanUndo()}})
	again.Do(stale)
}

// With the one leaf of the wanted gap, as most work: free is looser and is set at once, whatever its figure;
// the record says the side and no more. Common practice.
func TestAJobByOneLeaf(t *testing.T) {
	set := jobtest.Setup()
	set.Rule = clearance.OneLeaf
	d := goingRound(t, set)
	d.Do(sure("E1", 300, clearance.Free))
	assert.Equal(t, job.Next{Action: job.DoAdjust, Valve: "E1"}, d.Job.Next())
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1"}})
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.Do(sure("E1", 300, clearance.Drag))
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, clearance.Known{Kind: clearance.Looser, At: 300 * um}, e1.AsFound.Judgement.Known())
	assert.Equal(t, clearance.In, e1.Last.Judgement.Verdict)
}

// An undecided valve may be set under any rule: one leaf that shows the side is enough.
func TestAnUndecidedValveMayBeSet(t *testing.T) {
	for _, rule := range []clearance.Rule{clearance.Workshop, clearance.Guarded} {
		set := jobtest.Setup()
		set.Rule = rule
		d := goingRound(t, set)
		d.Do(sure("E1", 300, clearance.Free))
		e1, _ := d.Job.Valve("E1")
		assert.Equal(t, clearance.Undecided, d.Job.Judge(e1).Verdict)
		assert.Equal(t, job.Next{Action: job.DoRead, Valve: "E1"}, d.Job.Next(),
			"another leaf would tell more")
		assert.True(t, d.Job.MaySet(e1))
		d.Do(job.Happening{Act: job.Adjusted{Valve: "E1"}})
		assert.Equal(t, clearance.Undecided, e1.AsFound.Judgement.Verdict)
		assert.Equal(t, job.DoLock, d.Job.Next().Action)
	}
	d := goingRound(t, jobtest.Setup())
	d.Do(sure("E1", 320, clearance.Drag))
	e1, _ := d.Job.Valve("E1")
	assert.False(t, d.Job.MaySet(e1), "it is in")
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "E1"}}, "E1 is in. Leave it alone")
}
