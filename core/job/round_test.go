package job_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/sequence"
	"metronix/core/wear"
)

// round starts a job on an engine by a school and a round, and works it to the end: some valves are found out
// of their limits, and are in once they were set.
func round(t *testing.T, s *engine.Sheet, school sequence.School, r job.RoundChosen,
	out ...string) (d *jobtest.Driver,
	turned measure.Angle, actions map[job.Action]int) {
	t.Helper()
	set := jobtest.Setup()
	set.Sheet = s
	d = jobtest.Start(t, set)
	d.Do(job.Happening{Act: r})
	d.Begin(school)
	turned, actions = d.Work(func(valve string) measure.Length {
		if state, _ := d.Job.Valve(valve); strings.Contains(strings.Join(out, " "), valve) &&
			state.Adjustments == 0 {
			return map[byte]measure.Length{'I': 150, 'E': 250}[valve[0]]
		}
		return jobtest.Nominal(valve)
	})
	require.Equal(t, job.Sign, d.Job.Phase())
	return d, turned, actions
}

// Set as you go turns the crank as far as the school itself does, whatever is out, and no valve is read more
// often than by hand: hand counts, common practice.
func TestSetAsYouGoTurnsNoFurtherThanTheHand(t *testing.T) {
	six := func() *engine.Sheet { return enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE") }
	sixteen := func() *engine.Sheet {
		return enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEEEEEE")
	}
	for name, c := range map[string]struct {
		sheet  *engine.Sheet
		school sequence.School
		deg    float64
	}{
		"four by one cylinder":        {enginetest.Four(), sequence.OneCylinder, 540},
		"four by rocking pairs":       {enginetest.Four(), sequence.RockingPairs, 540},
		"four by two stops":           {enginetest.Four(), sequence.TwoStop, 360},
		"six by two stops":            {six(), sequence.TwoStop, 360},
		"sixteen valves by cylinders": {sixteen(), sequence.OneCylinder, 540},
	} {
		for _, out := range [][]string{nil, {"E1"}, {"E1", "I3", "E4"}} {
			d, turned, actions := round(t, c.sheet, c.school,
				job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}}, out...)
			assert.Equal(t, measure.FromDegrees(c.deg), turned, "%s, out: %v", name, out)
			set := actions[job.DoAdjust]
			assert.Equal(t, actions[job.DoLock], set, name)
			assert.Equal(t, len(d.Job.Valves), actions[job.DoKeep],
				"%s: each once; setting keeps what was found", name)
			assert.Zero(t, actions[job.DoBarOver], name)
			for _, v := range d.Job.Valves {
				assert.Equal(t, clearance.In, v.Last.Judgement.Verdict, name)
			}
		}
	}
	_, _, actions := round(t, enginetest.Four(), sequence.RockingPairs,
		job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo,
			Check: job.CheckNone}}, "E1", "I3", "E4")
	assert.Equal(t, 3, actions[job.DoAdjust])
}

// At a stop a valve that is out is set, locked and read again before the next one, and its as-found figure
// stays.
func TestSetAsYouGoFinishesAValveBeforeTheNext(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo,
		Check: job.CheckSetOnes}}})
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "E1"}}, "Read E1 as found")
	d.Feel("E1", 250, clearance.Drag)
	assert.Equal(t, job.Next{Action: job.DoAdjust, Valve: "E1"}, d.Job.Next(), "it is surely out")
	assert.Equal(t, []string{"E1", "I1"}, d.Job.Here())
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1"}})
	d.Refused(job.Happening{Act: job.Turned{Stop: 1}}, "nut of E1 is slack")
	d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "E1"}, d.Job.Next())
	d.Feel("E1", 300, clearance.Drag)
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	assert.Equal(t, job.Next{Action: job.DoRead, Valve: "I1"}, d.Job.Next())
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, clearance.Tight, e1.AsFound.Judgement.Verdict)
	assert.Equal(t, job.AsFound, d.Job.Phase(), "others are still to be read")
}

// The check round reads what it is asked to: every valve, those that were set, or none.
func TestTheCheckRound(t *testing.T) {
	for check, want := range map[job.Check]int{job.CheckAll: 8, job.CheckSetOnes: 2, job.CheckNone: 0} {
		d, _, actions := round(t, enginetest.Four(), sequence.RockingPairs,
			job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, Check: check}}, "E1", "I3")
		assert.Equal(t, 8+want, actions[job.DoKeep], check)
		assert.Zero(t, actions[job.DoBarOver], check)
		verified := 0
		for _, v := range d.Job.Valves {
			if v.Verified {
				verified++
			}
		}
		assert.Equal(t, want, verified, check)
	}
	_, _, actions := round(t, enginetest.Four(), sequence.RockingPairs,
		job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckSetOnes}})
	assert.Zero(t, actions[job.DoBarOver], "nothing was set, so nothing is checked")
}

// An inspection reads every valve, sets none, and is signed with what is out of its limits as it is.
func TestReadOnly(t *testing.T) {
	d, turned, actions := round(t, enginetest.Four(), sequence.OneCylinder,
		job.RoundChosen{Round: job.Round{Going: job.ReadOnly}}, "E1")
	assert.Equal(t, 540*measure.Degree, turned)
	assert.Zero(t, actions[job.DoAdjust])
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "E1"}}, "only reads")
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo}}})
	assert.Equal(t, job.Adjust, d.Job.Phase(), "another round, and no reading lost")
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.ReadOnly}}})
	assert.Equal(t, job.DoSign, d.Job.Next().Action, "it does not stop the way to signing")
	d.Refused(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}}, "E1 is tight")
	put, _, _ := round(t, enginetest.Four(), sequence.OneCylinder,
		job.RoundChosen{Round: job.Round{Going: job.ReadOnly}}, "E1")
	put.Do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true,
		Deferred: job.Deferral{Waits: job.WaitsForParts}}})
	d.Do(job.Happening{Act: job.LeftAsIs{Valve: "E1",
		Deferred: job.Deferral{Waits: job.WaitsForDate, Until: "2027-03-01"}}})
	d.Do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}})
	e1, _ := d.Job.Valve("E1")
	assert.Equal(t, clearance.Tight, e1.Last.Judgement.Verdict)
	assert.Equal(t, "put off until 2027-03-01", e1.LeaveReason)
	assert.Equal(t, "checked, nothing set; E1 left tight", d.Job.Outcome().String())
	visit, ok := record.Of(d.Job).Visit()
	require.True(t, ok)
	i := slices.IndexFunc(visit.Valves, func(f wear.Found) bool { return f.Valve == "E1" })
	assert.Equal(t, wear.Tight, visit.Valves[i].LeftOut, "it stays due")
	assert.Equal(t, "2027-03-01", record.Of(d.Job).PutOffUntil().Format(time.DateOnly))
}

// The round may be changed in the middle: what was read stays, and what is next follows from what is to do.
func TestTheRoundIsChangedInTheMiddle(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Feel("E1", 250, clearance.Drag)
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	assert.Equal(t, "I1", d.Job.Next().Valve, "read first goes on")
	d.Refused(job.Happening{Act: job.Adjusted{Valve: "E1"}}, "Read every valve as found")
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}}})
	assert.Equal(t, job.Next{Action: job.DoAdjust, Valve: "E1"}, d.Job.Next())
	d.Do(job.Happening{Act: job.Adjusted{Valve: "E1"}})
	d.Refused(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.ReadOnly}}},
		"its lock nut is slack")
	d.Refused(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: "backwards"}}}, "no round")
	d.Refused(job.Happening{Act: job.RoundChosen{Round: job.Round{Check: "some"}}}, "no check round")
}

// With shims every figure is needed before any shim is moved.
func TestShimsAreReadFirst(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	d := jobtest.Start(t, s)
	d.Refused(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.SetAsYouGo}}},
		"every valve is read first")
	assert.Equal(t, []job.Going{job.ReadFirst, job.ReadOnly}, d.Job.Rounds())
	assert.Equal(t, job.CheckAll, d.Job.UsualCheck())
	screwed := jobtest.Start(t, jobtest.Setup())
	assert.Equal(t, job.SetAsYouGo, screwed.Job.Rounds()[0], "the usual round of screws")
	assert.Equal(t, job.CheckNone, screwed.Job.UsualCheck(), "each is felt again with its nut tight")
	cam := jobtest.Setup()
	cam.NewCam = true
	assert.Equal(t, job.CheckSetOnes, jobtest.Start(t, cam).Job.UsualCheck())
	for kind, want := range map[gear.Kind]job.Check{gear.CentreNut: job.CheckSetOnes,
		gear.ThreadedTappet: job.CheckSetOnes, gear.Eccentric: job.CheckNone} {
		creeps := jobtest.Setup()
		sheet := *creeps.Sheet
		sheet.Adjuster = &engine.Adjuster{Kind: kind}
		creeps.Sheet = &sheet
		assert.Equal(t, want, jobtest.Start(t, creeps).Job.UsualCheck(), kind)
	}
	d.Do(job.Happening{Act: job.RoundChosen{Round: job.Round{Going: job.ReadOnly}}})
}
