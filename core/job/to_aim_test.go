package job_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

// All to the aim, by choice: a valve that is in and off the aim is shown as such, and set; otherwise it is
// left alone unless there is a reason, which is kept.
func TestAllToTheAim(t *testing.T) {
	d := goingRound(t, jobtest.Setup())
	d.Feel("E1", 290, clearance.Drag) // 0.29 ± 0.01 may be 0.30
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	e1, _ := d.Job.Valve("E1")
	assert.False(t, e1.Last.OffAim)
	d.Feel("I1", 240, clearance.Drag)
	d.Do(job.Happening{Act: job.Kept{Valve: "I1"}})
	i1, _ := d.Job.Valve("I1")
	assert.True(t, i1.Last.OffAim, "0.24 ± 0.01 is not 0.22")
	assert.False(t, i1.Needs())
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "I1"}}, "I1 is in. Leave it alone")
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, ToAim: job.AllToAim}}})
	assert.Equal(t, job.Next{Action: job.DoAdjust, Valve: "I1"}, d.Job.Next())
	d.Do(job.Happening{Act: job.LeftAsIs{Valve: "I1", Reason: "new gasket only"}})
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	d.Do(job.Happening{Act: job.Adjusted{Valve: "I1"}})
	d.Do(job.Happening{Act: job.Locked{Valve: "I1"}})
	d.Do(sure("I1", 220, clearance.Drag))
	assert.Equal(t, job.DoTurn, d.Job.Next().Action)
	d.Refused(job.Happening{Act: job.RoundChosen{Round: job.Round{ToAim: "some"}}}, "all_to_aim")
}

func TestAValveThatIsInIsSetForAReason(t *testing.T) {
	d := goingRound(t, jobtest.Setup())
	d.Do(sure("E1", 300, clearance.Drag))
	found, _ := d.Job.Valve("E1")
	assert.True(t, d.Job.MaySetThough(found))
	first := jobtest.Start(t, jobtest.Setup()) // read first: nothing is touched before all are read
	first.Begin(sequence.RockingPairs)
	first.Do(job.Happening{Act: job.Turned{Stop: 0}})
	first.Do(sure("E1", 300, clearance.Drag))
	found, _ = first.Job.Valve("E1")
	assert.False(t, first.Job.MaySetThough(found))
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Reason: " race engine, all alike "}})
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	d.Do(sure("E1", 300, clearance.Drag))
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, "race engine, all alike", e1.SetFor)
	assert.Equal(t, clearance.In, e1.AsFound.Judgement.Verdict)
}

// A job may be put off, with what it waits for, wherever nothing is begun; what is signed so is done with.
func TestAJobIsPutOff(t *testing.T) {
	signed := func(d job.Deferral) job.Happening {
		return job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true, Deferred: d}}
	}
	d := jobtest.Start(t, jobtest.Setup())
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.ReadOnly}}})
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(signed(job.Deferral{}), "valves are waiting to be read")
	d.Refused(signed(job.Deferral{Waits: "luck"}), "is nothing to wait for")
	d.Refused(signed(job.Deferral{Waits: job.WaitsForDate}), "until when")
	d.Feel("E1", 250, clearance.Drag)
	d.Refused(signed(job.Deferral{Waits: job.WaitsForParts}), "its reading is not kept")
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	d.Do(signed(job.Deferral{Waits: job.WaitsForParts, Until: "shims on order"}))
	assert.Equal(t, job.Done, d.Job.Phase())
	assert.Equal(t, "put off: waits for parts, shims on order", d.Job.Deferred.String())
	assert.Equal(t, "put off until 120000 km",
		job.Deferral{Waits: job.WaitsForOdometer, Until: "120000 km"}.String())
}

// The loose end may mean that the leaf of the upper limit itself drags (common practice).
func TestTheUpperLimitIsAnAim(t *testing.T) {
	set := jobtest.Setup()
	set.Aim = clearance.AimUpper
	j, err := job.New(set)
	assert.NoError(t, err)
	e1, _ := j.Valve("E1")
	assert.Equal(t, 320*um, j.AimOf(e1))
}
