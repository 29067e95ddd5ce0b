package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/sequence"
)

// All to the aim, by choice: a valve that is in and off the aim is shown as such, and set; otherwise it is
// left alone unless there is a reason, which is kept.
func TestAllToTheAim(t *testing.T) {
	d := goingRound(t, setup())
	d.feel("E1", 290, clearance.Drag) // 0.29 ± 0.01 may be 0.30
	d.do(job.Happening{Act: job.Kept{Valve: "E1"}})
	e1, _ := d.job.Valve("E1")
	assert.False(t, e1.Last.OffAim)
	d.feel("I1", 240, clearance.Drag)
	d.do(job.Happening{Act: job.Kept{Valve: "I1"}})
	i1, _ := d.job.Valve("I1")
	assert.True(t, i1.Last.OffAim, "0.24 ± 0.01 is not 0.22")
	assert.False(t, i1.Needs())
	d.refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "I1 is in. Leave it alone")
	d.do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, ToAim: job.AllToAim}}})
	assert.Equal(t, job.Next{Action: job.DoAdjust, Valve: "I1"}, d.job.Next())
	d.do(job.Happening{Act: job.LeftAsIs{Valve: "I1", Reason: "new gasket only"}})
	d.do(job.Happening{Act: job.Undone{Target: d.job.CanUndo()}})
	d.do(job.Happening{Act: job.Adjusted{Valve: "I1"}})
	d.do(job.Happening{Act: job.Locked{Valve: "I1"}})
	d.do(sure("I1", 220, clearance.Drag))
	assert.Equal(t, job.DoTurn, d.job.Next().Action)
	d.refused(job.Happening{Act: job.RoundChosen{Round: job.Round{ToAim: "some"}}}, "all_to_aim")
}

func TestAValveThatIsInIsSetForAReason(t *testing.T) {
	d := goingRound(t, setup())
	d.do(sure("E1", 300, clearance.Drag))
	found, _ := d.job.Valve("E1")
	assert.True(t, d.job.MaySetThough(found))
	first := start(t, setup()) // read first: nothing is touched before all are read
	first.begin(sequence.RockingPairs)
	first.do(job.Happening{Act: job.Turned{Stop: 0}})
	first.do(sure("E1", 300, clearance.Drag))
	found, _ = first.job.Valve("E1")
	assert.False(t, first.job.MaySetThough(found))
	d.do(job.Happening{Act: job.Adjusted{Valve: "E1", Reason: " race engine, all alike "}})
	d.do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.do(sure("E1", 300, clearance.Drag))
	e1, _ := d.job.Valve("E1")
	assert.Equal(t, "race engine, all alike", e1.SetFor)
	assert.Equal(t, clearance.In, e1.AsFound.Judgement.Verdict)
}

// A job may be put off, with what it waits for, wherever nothing is begun; what is signed so is done with.
func TestAJobIsPutOff(t *testing.T) {
	signed := func(d job.Deferral) job.Happening {
		return job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true, Deferred: d}}
	}
	d := start(t, setup())
	d.do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.ReadOnly}}})
	d.begin(sequence.RockingPairs)
	d.do(job.Happening{Act: job.Turned{Stop: 0}})
	d.refused(signed(job.Deferral{}), "valves are waiting to be read")
	d.refused(signed(job.Deferral{Waits: "luck"}), "is nothing to wait for")
	d.refused(signed(job.Deferral{Waits: job.WaitsForDate}), "until when")
	d.feel("E1", 250, clearance.Drag)
	d.refused(signed(job.Deferral{Waits: job.WaitsForParts}), "its reading is not kept")
	d.do(job.Happening{Act: job.Kept{Valve: "E1"}})
	d.do(signed(job.Deferral{Waits: job.WaitsForParts, Until: "shims on order"}))
	assert.Equal(t, job.Done, d.job.Phase())
	assert.Equal(t, "deferred: waits for parts, shims on order", d.job.Deferred.String())
	assert.Equal(t, "deferred until 120000 km",
		job.Deferral{Waits: job.WaitsForOdometer, Until: "120000 km"}.String())
}

// The loose end may mean that the leaf of the upper limit itself drags (common practice).
func TestTheUpperLimitIsAnAim(t *testing.T) {
	set := setup()
	set.Aim = clearance.AimUpper
	j, err := job.New(set)
	assert.NoError(t, err)
	e1, _ := j.Valve("E1")
	assert.Equal(t, 320*um, j.AimOf(e1))
}
