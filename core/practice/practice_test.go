package practice_test

import (
	"fmt"
	"os"
	"slices"
	"strconv"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/adjust"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/gauge"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/practice"
	"metronix/core/sequence"
)

const um = measure.Micrometre

// learner is who goes through a run, entry by entry.
type learner struct {
	t   *testing.T
	run *practice.Run
	now time.Time
	// to what the bench says he does otherwise; nil: he does as it says
	patience map[string]int
	later    map[string]bool // valves that he put off once
}

func begun(t *testing.T, seed uint64) *learner { return learns(t, jobtest.Setup(), seed) }

func learns(t *testing.T, setup job.Setup, seed uint64) *learner {
	run, err := practice.Begin(practice.Exercise{Setup: setup, Seed: seed})
	require.NoError(t, err)
	return &learner{t, run, time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC), map[string]int{}, map[string]bool{}}
}

func (l *learner) does(n practice.Entry) (practice.Answer, error) {
	l.now = l.now.Add(3 * time.Second)
	n.ID, n.At = fmt.Sprintf("e%d", len(l.run.List)), l.now
	n.Said.ID, n.Said.At = n.ID, n.At
	return l.run.Do(n)
}

func (l *learner) hand(h practice.Hand) *practice.Felt {
	l.t.Helper()
	a, err := l.does(practice.Entry{Hand: h})
	require.NoError(l.t, err, "%T %+v", h, h)
	return a.Felt
}

func (l *learner) says(a job.Act) {
	l.t.Helper()
	_, err := l.does(practice.Entry{Said: job.Happening{Act: a}})
	require.NoError(l.t, err, "%T %+v", a, a)
}

func (l *learner) turnsTo(to measure.Angle) {
	if by := (to - l.run.Engine.Crank()).Wrap(); by > 0 {
		l.hand(practice.Turned{By: by})
	}
}

// feels slides the leaf that is next into a valve and says what is felt.
func (l *learner) feels(valve string) {
	j := l.run.Job
	v, _ := j.Valve(valve)
	leaf := j.Judge(v).TryNext
	if leaf == nil {
		choice, _ := j.Owned.Choose(j.AimOf(v), nil, gauge.MaxStack)
		leaf = choice.Stack
	}
	f := l.hand(practice.Slid{Valve: valve, Leaves: leaf.IDs()})
	l.says(job.ReadingTaken{Valve: valve, Leaves: leaf.IDs(), Feel: f.Feel, KeepSure: true})
}

// sets turns the screw until the leaf to set by drags as it should: a little, feel, a little more.
func (l *learner) sets(valve string) {
	j := l.run.Job
	v, _ := j.Valve(valve)
	var pairs []adjust.Pair
	for _, p := range j.LockPairs {
		pairs = append(pairs, p.Pair)
	}
	leaf := bench.Advise(j, adjust.LearnShift(pairs, 0)).SetBy(v)
	require.NotNil(l.t, leaf, valve)
	l.hand(practice.Loosened{Valve: valve})
	for range 400 {
		f := l.hand(practice.Slid{Valve: valve, Leaves: leaf.IDs()})
		if f.Pull > 0.3 && f.Pull < 0.7 {
			break
		}
		by := 2 * measure.Degree
		if f.Pull == 0 || f.Pull == 1 {
			by = 6 * measure.Degree
		}
		if f.Pull >= 0.5 { // too tight: clockwise closes on this engine
			by = -by
		}
		l.hand(practice.Screwed{Valve: valve, By: by})
	}
	l.says(job.Adjusted{Valve: valve, Leaves: leaf.IDs()})
}

// acts does what the bench says is next; false: there is nothing left to do.
func (l *learner) acts() bool {
	j := l.run.Job
	n := j.Next()
	switch n.Action {
	case job.DoChooseWay:
		l.says(
			job.WayChosen{
				Way:   sequence.Way{School: sequence.RockingPairs},
				Round: job.Round{Going: j.Rounds()[0], Check: job.CheckNone},
			},
		)
	case job.DoPrepare:
		l.says(job.Prepared{EngineC: 20, AmbientC: 20})
	case job.DoTurn:
		l.turnsTo(j.Plan.Stops[n.Stop].Crank)
		l.says(job.Turned{Stop: n.Stop})
	case job.DoRead:
		l.feels(n.Valve)
	case job.DoKeep:
		l.says(job.Kept{Valve: n.Valve})
	case job.DoAdjust:
		if j.Sheet.Shimmed() {
			l.shims(n)
			break
		}
		if l.patience[n.Valve]++; l.patience[n.Valve] > 8 {
			l.says(job.LeftAsIs{Valve: n.Valve, Reason: "the nut will not have it"})
			break
		}
		l.sets(n.Valve)
	case job.DoLock:
		l.hand(practice.Tightened{Valve: n.Valve})
		l.says(job.Locked{Valve: n.Valve})
	case job.DoSign:
		l.hand(practice.TookOff{})
		l.says(job.Signed{By: "Ivo Lund", ToolsOut: true})
	default:
		return false
	}
	return true
}

func (l *learner) goesRound() {
	for i := 0; l.acts(); i++ {
		require.Less(l.t, i, 500, "it does not end: %+v", l.run.Job.Next())
	}
}

// seeds are how many engines are gone round; make deep takes more.
func seeds() uint64 {
	if n, err := strconv.ParseUint(os.Getenv("METRONIX_PRACTICE_SEEDS"), 10, 32); err == nil {
		return n
	}
	return 200
}

// A mechanic who does what the bench says ends with every gap in its window, as a leaf finds it, but for the
// leaf's own uncertainty and his feel; what he believes of each is so, and nothing is held against him.
func TestWhoFollowsTheBenchEndsRight(t *testing.T) {
	sure, right, left := 0, 0, 0
	for seed := range seeds() {
		l := begun(t, seed)
		l.goesRound()
		s := l.run.Score()
		require.True(t, s.Signed, "seed %d", seed)
		for _, v := range s.Valves {
			state, _ := l.run.Job.Valve(v.Valve)
			if state.LeaveReason != "" {
				left++
				continue
			}
			slack := clearance.DefaultFeel + 6*um // his drag, and four deviations of the hand of 1.5 µm
			require.LessOrEqual(t, v.Left, v.Window.Upper+slack, "seed %d: %s", seed, v.Valve)
			require.GreaterOrEqual(t, v.Left, v.Window.Lower-slack, "seed %d: %s", seed, v.Valve)
			if v.Verdict == clearance.In {
				if sure++; v.Truly == clearance.In {
					right++
				}
			}
		}
		for _, f := range s.Faults {
			require.Contains(t, []practice.Slip{practice.OutLeft}, f.Slip, "seed %d: %s", seed, f)
		}
	}
	assert.Less(t, float64(left), 0.01*float64(8*seeds()), "valves whose nut would not have it")
	assert.Greater(t, float64(right), 0.95*float64(sure), "believed to be in, and in: %d of %d", right, sure)
}

// The same seed and the same acts are the same engine, leaf by leaf; another seed is another.
func TestASeedIsAnEngine(t *testing.T) {
	one, other := begun(t, 7), begun(t, 7)
	one.goesRound()
	other.goesRound()
	assert.Equal(t, one.run.Score(), other.run.Score())
	again, err := practice.Replay(practice.Exercise{Setup: jobtest.Setup(), Seed: 7}, one.run.List)
	require.NoError(t, err)
	assert.Equal(t, one.run.Score(), again.Score())
	assert.Equal(t, []measure.Angle{0, 180 * measure.Degree, 360 * measure.Degree, 540 * measure.Degree},
		again.Engine.Firing(), "a four fires every half turn")
	third := begun(t, 8)
	third.goesRound()
	assert.NotEqual(t, one.run.Score().Valves, third.run.Score().Valves)
}

// Each slip is seen, by its name and at its valve, and none that was not made.
func TestEachSlipIsSeen(t *testing.T) {
	until := func(l *learner, action job.Action) {
		for l.run.Job.Next().Action != action {
			require.True(t, l.acts())
		}
	}
	slips := func(l *learner) (list []practice.Slip) {
		for _, f := range l.run.Score().Faults {
			if !slices.Contains(
				[]practice.Slip{practice.Forgotten, practice.OutLeft, practice.ToolLeft},
				f.Slip,
			) {
				list = append(list, f.Slip)
			}
		}
		return list
	}
	l := begun(t, 1)
	until(l, job.DoRead)
	assert.Empty(t, slips(l))
	valve := l.run.Job.Next().Valve
	leaf := []gauge.ID{{Marked: 100 * um}}
	l.says(job.ReadingTaken{Valve: valve, Leaves: leaf, Feel: clearance.Free})
	assert.Equal(t, []practice.Slip{practice.NotFelt}, slips(l))

	l = begun(t, 1)
	until(l, job.DoRead)
	f := l.hand(practice.Slid{Valve: valve, Leaves: leaf})
	require.Equal(t, clearance.Free, f.Feel)
	l.says(job.ReadingTaken{Valve: valve, Leaves: leaf, Feel: clearance.WontGo})
	require.Equal(t, []practice.Slip{practice.Misread}, slips(l))
	misread := l.run.Score().Faults
	at := l.run.Score().Valves[0]
	for _, v := range l.run.Score().Valves {
		if v.Valve == valve {
			at = v
		}
	}
	for _, fault := range misread {
		if fault.Slip == practice.Misread {
			assert.Equal(
				t,
				at.Found+clearance.DefaultFeel-100*um,
				fault.By,
				"by how much a gap would have to be less",
			)
		}
	}

	l = begun(t, 1)
	until(l, job.DoTurn)
	to := l.run.Job.Plan.Stops[l.run.Job.Next().Stop].Crank
	l.turnsTo((to + measure.Turn).Wrap())
	l.says(job.Turned{Stop: l.run.Job.Next().Stop})
	assert.Equal(t, []practice.Slip{practice.OneTurnOut}, slips(l))
	l.feels(l.run.Job.Next().Valve)
	assert.Contains(t, slips(l), practice.OffBase)

	l = begun(t, 1)
	until(l, job.DoTurn)
	l.turnsTo((to + 90*measure.Degree).Wrap())
	l.says(job.Turned{Stop: l.run.Job.Next().Stop})
	assert.Equal(t, []practice.Slip{practice.Elsewhere}, slips(l))

	l = begun(t, 2)
	l.goesRound()
	require.Empty(t, slips(l))
	c := cycle.New(jobtest.Setup().Sheet)
	for _, v := range l.run.Score().Valves { // one that was in is set once more, when all is done, and left with its nut loose
		if v.Disturbed || v.Truly != clearance.In {
			continue
		}
		of, _ := c.Valve(v.Valve)
		l.turnsTo(c.DeepestAt(of))
		l.hand(practice.Loosened{Valve: v.Valve})
		l.hand(practice.Screwed{Valve: v.Valve, By: -60 * measure.Degree})
		break
	}
	assert.Equal(t, []practice.Slip{practice.LeftOut, practice.NutLoose, practice.Disturbed}, slips(l))
}

// What no hand can do is refused with a sentence, and leaves the run as it was.
func TestWhatNoHandCanDo(t *testing.T) {
	l := begun(t, 3)
	for want, h := range map[string]practice.Hand{
		"up to 720°":        practice.Turned{By: 0},
		"no valve":          practice.Slid{Valve: "E9", Leaves: []gauge.ID{{Marked: 100 * um}}},
		"no leaf":           practice.Slid{Valve: "E1", Leaves: []gauge.ID{{Marked: 990 * um}}},
		"one leaf":          practice.Slid{Valve: "E1"},
		"loosen it first":   practice.Screwed{Valve: "E1", By: measure.Degree},
		"has no valve \"\"": practice.Tightened{},
	} {
		_, err := l.does(practice.Entry{Hand: h})
		assert.ErrorContains(t, err, want)
	}
	assert.Empty(t, l.run.List)
	hydraulic := jobtest.Setup()
	sheet := *hydraulic.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: gear.Hydraulic}
	hydraulic.Sheet = &sheet
	_, err := practice.Begin(practice.Exercise{Setup: hydraulic, Aid: practice.Watched})
	assert.ErrorIs(t, err, practice.ErrKind)
}
