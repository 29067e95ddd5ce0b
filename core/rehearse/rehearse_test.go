package rehearse_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/rehearse"
	"metronix/core/sequence"
)

func straightSix() *engine.Sheet { return enginetest.Inline([]int{1, 5, 3, 6, 2, 4}, "EIIEEIIEEIIE") }

func sixteenValves() *engine.Sheet {
	return enginetest.Crossflow([]int{1, 3, 4, 2}, "IIIIIIII", "EEEEEEEE")
}

func rehearsed(t testing.TB, s *engine.Sheet, school sequence.School, r job.Round,
	out ...string) rehearse.Rehearsal {
	t.Helper()
	got, err := rehearse.Play(
		rehearse.Rehearsing{Sheet: s, Way: sequence.Way{School: school}, Round: r, Out: out},
	)
	require.NoError(t, err)
	return got
}

// Hand counts (common practice): from the first stop on a four goes three half turns by its cylinders,
// rocking or the rule of nine, one turn by two stops; a six by two stops one turn; sixteen valves by four
// sprocket marks three half turns. Set as you go turns no further, whatever is out.
func TestHandCountsAgainstTheOutside(t *testing.T) {
	set := job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}
	for _, c := range []struct {
		what   string
		sheet  *engine.Sheet
		school sequence.School
		deg    float64
		stops  int
	}{
		{"four by one cylinder", enginetest.Four(), sequence.OneCylinder, 540, 4},
		{"four by rocking pairs", enginetest.Four(), sequence.RockingPairs, 540, 4},
		{"four by two stops", enginetest.Four(), sequence.TwoStop, 360, 2},
		{"six by two stops", straightSix(), sequence.TwoStop, 360, 2},
		{"sixteen valves by one cylinder", sixteenValves(), sequence.OneCylinder, 540, 4},
	} {
		for _, out := range [][]string{nil, {c.sheet.Valves()[0].Name}, enginetest.Names(c.sheet)} {
			got := rehearsed(t, c.sheet, c.school, set, out...)
			assert.Equal(t, measure.FromDegrees(c.deg), got.Turn, "%s, %d out", c.what, len(out))
			assert.Zero(t, got.CheckTurn)
			assert.LessOrEqual(t, got.Gestures, len(c.sheet.Valves())+c.stops-1+4*len(out), "%s, %d out",
				c.what,
				len(out))
		}
	}
	nine := rehearsed(t, enginetest.Four(), sequence.SumRule, set)
	plan, err := sequence.Make(enginetest.Four(),
		sequence.Request{Way: sequence.Way{School: sequence.SumRule}})
	require.NoError(t, err)
	assert.Equal(t, plan.TotalTurn, nine.Turn, "no further than the school's own turning")
}

// What each valve goes through, in its order, and what a check round adds.
func TestWhatARehearsalTells(t *testing.T) {
	got := rehearsed(t, enginetest.Four(), sequence.OneCylinder,
		job.Round{Going: job.SetAsYouGo, Check: job.CheckAll}, "E1")
	assert.Equal(
		t,
		[]rehearse.Step{{Do: rehearse.DoingRead, Valve: "E1"}, {Do: rehearse.DoingSet, Valve: "E1"},
			{
				Do:    rehearse.DoingLock,
				Valve: "E1",
			}, {Do: rehearse.DoingRead, Valve: "E1"}, {Do: rehearse.DoingRead,
				Valve: "I1"}},
		got.Steps[:5],
	)
	assert.Equal(t, 540*measure.Degree, got.Turn)
	assert.Equal(t, 720*measure.Degree, got.CheckTurn, "all: once round again gives each valve its two turns")
	over := slices.IndexFunc(got.Steps, func(s rehearse.Step) bool { return s.Do == rehearse.DoingCheckTurn })
	assert.Equal(
		t,
		rehearse.Step{Do: rehearse.DoingCheckTurn, Stop: 0, Turn: 180 * measure.Degree},
		got.Steps[over],
	)
	assert.Len(t, got.Assumed, 2, "neither adjuster nor clearances are on this sheet")

	only := rehearsed(t, enginetest.Four(), sequence.OneCylinder,
		job.Round{Going: job.SetAsYouGo, Check: job.CheckSetOnes}, "E1")
	assert.Equal(t, 180*measure.Degree, only.CheckTurn, "its nut was tight two turns ago when 1 comes again")
	last := rehearsed(t, enginetest.Four(), sequence.OneCylinder,
		job.Round{Going: job.SetAsYouGo, Check: job.CheckSetOnes}, "E2")
	assert.Equal(t, 720*measure.Degree, last.CheckTurn, "the last stop's needs both turns")
	assert.Zero(t, rehearsed(t, enginetest.Four(), sequence.OneCylinder,
		job.Round{Going: job.SetAsYouGo, Check: job.CheckSetOnes}).CheckTurn, "nothing was set")
	long := enginetest.Four()
	long.CheckTurns = engine.LongCheckTurns
	assert.Equal(t, (720+180)*measure.Degree, rehearsed(t, long, sequence.OneCylinder,
		job.Round{Going: job.SetAsYouGo, Check: job.CheckSetOnes}, "E1").CheckTurn)
}

// A second walk begins where the crank stands and visits only the stops that it needs.
func TestASecondWalk(t *testing.T) {
	four := enginetest.Four()
	count := func(r rehearse.Rehearsal) map[string]int {
		n := map[string]int{}
		for _, s := range r.Steps {
			n[string(s.Do)]++
		}
		return n
	}
	read := rehearsed(t, four, sequence.OneCylinder, job.Round{Going: job.ReadFirst, Check: job.CheckNone},
		"E2")
	assert.Equal(t, 540*measure.Degree, read.Turn, "2 fires last: the crank stands there already")
	assert.Equal(t, map[string]int{"turn": 3, "read": 9, "set": 1, "lock": 1}, count(read))
	assert.Equal(t, 720*measure.Degree, rehearsed(t, four, sequence.OneCylinder,
		job.Round{Going: job.ReadFirst, Check: job.CheckNone}, "E1").Turn, "and on to 1")

	kinds := rehearsed(t, four, sequence.OneCylinder,
		job.Round{Going: job.SetAsYouGo, Check: job.CheckNone, KindFirst: job.ExhaustFirst})
	assert.Equal(t, 1, kinds.LeafChanges, "one leaf, then the other")
	assert.Equal(t, 2*540*measure.Degree, kinds.Turn, "twice round")
	for i, s := range kinds.Steps {
		if s.Do == rehearse.DoingRead {
			assert.Equal(t, i < len(kinds.Steps)/2, s.Valve[0] == 'E', "%d: %s", i, s.Valve)
		}
	}
	assert.Equal(t, 4, rehearsed(t, four, sequence.OneCylinder, job.Round{Going: job.SetAsYouGo}).LeafChanges,
		"E1 I1, I3 E3, E4 I4, I2 E2: the kind whose leaf is in hand comes first")
	none := job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}
	assert.Equal(t, 11, rehearsed(t, four, sequence.OneCylinder, none).Gestures, "all in")
	assert.Equal(t, 14, rehearsed(t, four, sequence.OneCylinder, none, "E1", "I3", "E4").Gestures, "three out")
	assert.Equal(t, 19, rehearsed(t, four, sequence.OneCylinder, none, enginetest.Names(four)...).Gestures,
		"all out: a reading and one tap for setting, locking and reading again")

	free := rehearsed(t, four, sequence.RockingPairs, job.Round{Going: job.FreeFirst, Check: job.CheckNone})
	assert.Equal(t, map[string]int{"turn": 3, "free": 8, "read": 8, "set": 8, "lock": 8}, count(free))
	assert.Equal(t, 540*measure.Degree, free.Turn, "all are slackened where the engine stands, as by hand")
	for i, s := range free.Steps[:8] {
		assert.Equal(t, rehearse.DoingFree, s.Do, i)
	}
	fingers := *four
	fingers.Adjuster = &engine.Adjuster{Kind: gear.FingerPivotAtValve, Pitch: measure.Millimetre, Ratio: 1.5}
	free = rehearsed(
		t,
		&fingers,
		sequence.RockingPairs,
		job.Round{Going: job.FreeFirst, Check: job.CheckNone},
	)
	assert.Equal(t, 540*measure.Degree, free.Turn, "a follower can fall out: each at its own stop")
	assert.Equal(
		t,
		[]rehearse.Doing{rehearse.DoingFree, rehearse.DoingSet},
		[]rehearse.Doing{free.Steps[0].Do, free.Steps[1].Do},
	)

	part := rehearsed(t, four, sequence.OneCylinder,
		job.Round{Going: job.ReadOnly, Scope: []string{"E4", "I4"}})
	assert.Equal(t, map[string]int{"turn": 1, "read": 2}, count(part))
}

// With shims every valve is read first, whatever is chosen, and no lock nut is tightened.
func TestRehearsingShims(t *testing.T) {
	s := enginetest.Four()
	s.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	_, err := rehearse.Play(rehearse.Rehearsing{Sheet: s, Way: sequence.Way{School: sequence.OneCylinder},
		Round: job.Round{Going: job.SetAsYouGo}})
	assert.ErrorContains(t, err, "every valve is read first")
	got := rehearsed(t, s, sequence.OneCylinder, job.Round{Going: job.ReadFirst, Check: job.CheckNone}, "E1")
	for _, step := range got.Steps {
		assert.NotEqual(t, rehearse.DoingLock, step.Do)
	}
	_, err = rehearse.Play(rehearse.Rehearsing{Sheet: s, Way: sequence.Way{School: sequence.OneCylinder},
		Out: []string{"X9"}})
	assert.ErrorContains(t, err, "no valve of this engine")
	_, err = rehearse.Play(rehearse.Rehearsing{Sheet: s, Way: sequence.Way{School: sequence.Own}})
	assert.ErrorContains(t, err, "no printed order")
}

// A four with all eight in takes one gesture a valve and one a stop, and each valve that is out three more:
// the aim is at most four. The counts stand beside the time that finding them takes.
func BenchmarkGesturesOfAFour(b *testing.B) {
	round := job.Round{Going: job.SetAsYouGo, Check: job.CheckNone}
	for _, out := range [][]string{nil, {"E1", "I3", "E4"}} {
		b.Run(fmt.Sprintf("%d out", len(out)), func(b *testing.B) {
			var got rehearse.Rehearsal
			for b.Loop() {
				got = rehearsed(b, enginetest.Four(), sequence.RockingPairs, round, out...)
			}
			b.ReportMetric(float64(got.Gestures), "gestures")
			b.ReportMetric(got.Turn.Degrees(), "degrees")
			require.Equal(b, 8+3+3*len(out), got.Gestures)
		})
	}
}

// A rehearsal counts each tap: of a four whose valves are all in, eight readings and three turns from its
// first stop.
func TestTheGesturesOfAFour(t *testing.T) {
	got := rehearsed(
		t,
		enginetest.Four(),
		sequence.OneCylinder,
		job.Round{Going: job.SetAsYouGo, Check: job.CheckNone},
	)
	assert.Equal(t, 11, got.Gestures)
}
