package job_test

import (
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/sequence"
)

// outAt is a job on a four in which E1 was just found tight, at noon, by 0.25.
func outAt(t *testing.T, change func(*job.Setup, *job.Round)) *jobtest.Driver {
	s, r := jobtest.Setup(), job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}
	if change != nil {
		change(&s, &r)
	}
	d := jobtest.Start(t, s)
	d.Do(job.Happening{Act: job.RoundChosen{Round: r}})
	d.Begin(sequence.RockingPairs)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Do(job.Happening{At: jobtest.Noon, Act: job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(250 * um),
		Feel: clearance.Drag, KeepSure: true}})
	return d
}

func told(by job.LockedBy, asked bool) job.SetTold {
	return job.SetTold{Valve: "E1", Leaves: gauge.Straight(300 * um), By: by, Asked: asked}
}

func later(after time.Duration, act job.Act) job.Happening {
	return job.Happening{At: jobtest.Noon.Add(after), Act: act}
}

// One tap says three things, and nothing more than is so: found and left stand, the nut is tight, what
// locking did is not learned, and one undo takes all of it back.
func TestSetLockedAndReadToldInOne(t *testing.T) {
	d := outAt(t, nil)
	e1, _ := d.Job.Valve("E1")
	leaf, ok := d.Job.Telling(e1)
	require.True(t, ok)
	assert.Equal(t, "0.30", leaf.String())
	before := d.Job.Next()
	d.Do(later(20*time.Second, told("", false)))
	e1, _ = d.Job.Valve("E1")
	assert.Equal(t, clearance.Tight, e1.AsFound.Judgement.Verdict)
	assert.Equal(t, 250*um, *e1.AsFound.Judgement.Estimate)
	assert.Equal(t, clearance.In, e1.Last.Judgement.Verdict)
	assert.True(t, e1.Last.Told)
	assert.False(t, e1.AsFound.Told)
	assert.Equal(t, job.Untouched, e1.Stage)
	assert.Equal(t, 1, e1.Adjustments)
	assert.Equal(t, jobtest.Noon.Add(20*time.Second), e1.Last.At, "it has one time")
	assert.Empty(t, d.Job.LockPairs)
	assert.Equal(t, "I1", d.Job.Next().Valve)
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	assert.Equal(t, before, d.Job.Next(), "taken back as one")
	e1, _ = d.Job.Valve("E1")
	assert.Zero(t, e1.Adjustments)
}

// Within five seconds of the verdict nobody has set a valve: it is asked back, and taken then.
func TestToldTooSoonIsAskedBack(t *testing.T) {
	d := outAt(t, nil)
	err := d.Try(later(4*time.Second, told("", false)))
	var refused *job.Refusal
	require.ErrorAs(t, err, &refused)
	assert.Equal(t, job.SoSoon, refused.Code)
	d.Do(later(4*time.Second, told("", true)))
	assert.NoError(t, outAt(t, nil).Try(later(job.TellAfter, told("", false))))
}

// It is not there where one drag proves nothing, where a torque follows that was not given, with shims, for
// gear without a nut, with another leaf, or at a valve that needs nothing.
func TestWhatIsToldInOneAndWhatIsNot(t *testing.T) {
	minute := func(d *jobtest.Driver, act job.Act, says string) {
		t.Helper()
		d.Refused(later(time.Minute, act), says)
	}
	minute(outAt(t, nil), job.SetTold{Valve: "E1", Leaves: gauge.Straight(280 * um)}, "Only a drag of 0.30")
	minute(outAt(t, func(_ *job.Setup, r *job.Round) { r.Locking = job.InTwoGoes }), told("", false), "was torqued")
	twice := outAt(t, func(_ *job.Setup, r *job.Round) { r.Locking = job.InTwoGoes })
	twice.Do(later(time.Minute, told(job.ByTorque, false)))

	wide := func(s *job.Setup, _ *job.Round) { // a doubt as wide as the limits proves nothing under this rule
		s.Rule, s.Feel = clearance.Guarded, 20*um
	}
	guarded := outAt(t, wide)
	guarded.Do(job.Happening{Act: job.RoundChosen{}})
	e1, _ := guarded.Job.Valve("E1")
	_, ok := guarded.Job.Telling(e1)
	assert.False(t, ok)

	shims := jobtest.Setup()
	sheet := *shims.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	shims.Sheet = &sheet
	j := jobtest.Start(t, shims).Job
	_, ok = j.Telling(j.Valves[0])
	assert.False(t, ok)

	in := outAt(t, nil)
	in.Do(later(time.Minute, told("", false)))
	minute(in, told("", false), "E1 is in. Leave it alone")
	minute(in, job.SetTold{Valve: "I1", Leaves: gauge.Straight(220 * um)}, "Read I1 as found")
	minute(in, job.SetTold{Valve: "E1"}, "one to")
	minute(in, job.SetTold{Valve: "X9", Leaves: gauge.Straight(220 * um)}, "no valve of this engine")
}

// It is a reading too: a screen that knew less does not make it of an engine that ran since, nor of a valve
// that was kept since; and the sheet says how it was read again.
func TestToldByAStaleScreen(t *testing.T) {
	d := outAt(t, nil)
	before := d.List[len(d.List)-1].ID
	d.Do(later(time.Minute, told("", false)))
	stale := later(2*time.Minute, told("", false))
	stale.Since = before
	d.Refused(stale, "kept by somebody else since")
	report := record.Of(d.Job).Report(record.Record{})
	i := slices.IndexFunc(report.Rows, func(r record.ReportRow) bool { return r.Valve == "E1" })
	assert.Contains(t, report.Rows[i].Left.Notes, "read again: told with the locking")
	assert.NotContains(t, report.Rows[i].Found.Notes, "read again: told with the locking")

	ran := outAt(t, nil)
	knew := ran.List[len(ran.List)-1].ID
	ran.Do(later(time.Minute, job.EngineStopped{}))
	stale = later(2*time.Minute, told("", false))
	stale.Since = knew
	ran.Refused(stale, "The engine ran after this reading of E1")
}

// A nut that brought a valve back twice has a habit: then each step is told by itself.
func TestNotAfterTheSecondFallBack(t *testing.T) {
	d := outAt(t, nil)
	for range job.SecondTime {
		e1, _ := d.Job.Valve("E1")
		_, ok := d.Job.Telling(e1)
		assert.True(t, ok)
		d.Do(job.Happening{Act: job.Adjusted{Valve: "E1", Leaves: gauge.Straight(300 * um)}})
		d.Do(job.Happening{Act: job.Locked{Valve: "E1"}})
		d.Feel("E1", 250, clearance.Drag)
		d.Do(job.Happening{Act: job.Kept{Valve: "E1"}})
	}
	e1, _ := d.Job.Valve("E1")
	_, ok := d.Job.Telling(e1)
	assert.False(t, ok)
	d.Refused(later(time.Hour, told("", false)), "each step is told by itself")

	// it is set at last, and a check by turning is proposed for it (common practice)
	assert.Empty(t, d.Job.WorthChecking(), "the round is not over")
	d.Work(jobtest.Nominal)
	require.Equal(t, job.Sign, d.Job.Phase())
	require.Len(t, d.Job.WorthChecking(), 1)
	assert.Equal(t, "E1", d.Job.WorthChecking()[0].Name)
	round := d.Job.Round
	round.Check = job.CheckSetOnes
	d.Do(later(time.Hour, job.RoundChosen{Round: round}))
	assert.Equal(t, job.Verify, d.Job.Phase())
	d.Work(jobtest.Nominal)
	assert.Empty(t, d.Job.WorthChecking(), "it was checked")
}

// A drag of the aim's own leaf keeps itself, close or not; not under the guarded rule, nor where the leaf
// lies below the nominal, nor in a list that was stored under earlier rules.
func TestADragOfTheAimsLeafKeepsItself(t *testing.T) {
	kept := func(rules int, rule clearance.Rule, leaf measure.Length, leaves ...measure.Length) (bool, bool) {
		s := jobtest.Setup()
		s.Rule, s.Feel = rule, 25*um // so unsure that no drag is surely in
		s.Owned = jobtest.Owning(leaves...)
		d := jobtest.Start(t, s)
		d.Begin(sequence.RockingPairs)
		d.Do(job.Happening{Act: job.Turned{Stop: 0}})
		list := append(d.List, job.Happening{ID: "r", At: jobtest.Noon, Rules: rules,
			Act: job.ReadingTaken{Valve: "E1", Leaves: gauge.Straight(leaf * um), Feel: clearance.Drag, KeepSure: true}})
		j, err := job.Replay(s, list)
		require.NoError(t, err)
		e1, _ := j.Valve("E1")
		return e1.Last != nil, e1.Last != nil && e1.Last.Judgement.Sure
	}
	is, sure := kept(0, clearance.Workshop, 300, 220, 300)
	assert.True(t, is)
	assert.False(t, sure, "it is shown as close")
	for what, is := range map[string]func() (bool, bool){
		"guarded":           func() (bool, bool) { return kept(0, clearance.Guarded, 300, 220, 300) },
		"below the nominal": func() (bool, bool) { return kept(0, clearance.Workshop, 290, 220, 290) },
		"another leaf":      func() (bool, bool) { return kept(0, clearance.Workshop, 310, 220, 300, 310) },
		"earlier rules":     func() (bool, bool) { return kept(3, clearance.Workshop, 300, 220, 300) },
	} {
		was, _ := is()
		assert.False(t, was, what)
	}
}

// Sixteen valves set at the loose end, all of them out, in fifty acts at most: each is read and told in one,
// and the crank goes to four stops. By hand it is about 48: three looks at each (worked on paper).
func TestSixteenValvesAtTheLooseEnd(t *testing.T) {
	s := jobtest.Setup()
	s.Sheet = enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEEEEEE")
	s.Sheet.Adjuster = &engine.Adjuster{Kind: gear.ScrewValveEnd, Pitch: measure.Millimetre}
	s.Aim, s.Rule = clearance.AimLoose, clearance.OneLeaf
	d := jobtest.Start(t, s)
	d.Do(job.Happening{Act: job.WayChosen{Way: sequence.Way{School: sequence.OneCylinder},
		Round: job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}}})
	d.Do(job.Happening{Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	acts := 0
	for acts < 200 {
		n := d.Job.Next()
		v, _ := d.Job.Valve(n.Valve)
		var act job.Act
		switch n.Action {
		case job.DoTurn:
			act = job.Turned{Stop: n.Stop}
		case job.DoRead:
			act = job.ReadingTaken{Valve: n.Valve, Leaves: gauge.Straight(d.Job.AimOf(v)), Feel: clearance.WontGo,
				KeepSure: true}
		case job.DoKeep:
			act = job.Kept{Valve: n.Valve}
		case job.DoAdjust:
			act = job.SetTold{Valve: n.Valve, Leaves: gauge.Straight(d.Job.AimOf(v))}
		default:
			require.Equal(t, job.DoSign, n.Action)
			assert.LessOrEqual(t, acts, 50)
			t.Logf("%d acts", acts)
			return
		}
		acts++
		d.Do(later(time.Duration(acts)*time.Minute, act))
	}
	t.Fatal("it does not end")
}
