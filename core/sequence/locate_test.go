package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

func located(t *testing.T, s *engine.Sheet, seen ...sequence.Sighting) sequence.Location {
	t.Helper()
	l, err := sequence.Locate(s, seen, nil)
	require.NoError(t, err)
	return l
}

// The pulley mark alone leaves two places a turn apart; rockers tell which. Common practice.
func TestOneTurnOut(t *testing.T) {
	l := located(t, enginetest.Four(), sequence.Sighting{What: sequence.Mark, Mark: 0})
	assert.Equal(t, []sequence.Range{{From: 355 * measure.Degree, To: 365 * measure.Degree},
		{From: 715 * measure.Degree, To: 5 * measure.Degree}}, l.Positions)
	require.Len(t, l.TellApart, 2)
	assert.Equal(t, sequence.Question{LookAt: sequence.Sighting{What: sequence.Rocking, Cylinder: 1},
		Then: []sequence.Range{{From: 355 * measure.Degree, To: 365 * measure.Degree}}}, l.TellApart[0])
	assert.Equal(t, 4, l.TellApart[1].LookAt.Cylinder)

	firing := located(t, enginetest.Four(), sequence.Sighting{What: sequence.Mark, Mark: 0},
		sequence.Sighting{What: sequence.Loose, Valve: "I1"}, sequence.Sighting{What: sequence.Loose,
			Valve: "E1"})
	assert.Equal(t, []sequence.Range{{From: 715 * measure.Degree, To: 5 * measure.Degree}}, firing.Positions)
	assert.Empty(t, firing.TellApart)
	assert.ElementsMatch(t, []string{"E1", "I1", "I2", "E3"}, firing.Settable)
}

// 4 rocks: 1 may be set (common practice). Rocking runs from intake opening to exhaust closing, 348 … 372 of
// cylinder 4's cycle.
func TestRockingTellsThePlace(t *testing.T) {
	l := located(t, enginetest.Four(), sequence.Sighting{What: sequence.Rocking, Cylinder: 4})
	assert.Equal(t, []sequence.Range{{From: 708 * measure.Degree, To: 12 * measure.Degree}}, l.Positions)
	assert.Contains(t, l.Settable, "E1")
	assert.Contains(t, l.Settable, "I1")
	assert.NotContains(t, l.Settable, "E4")
}

func TestContradictionsAreNamedInPairs(t *testing.T) {
	l := located(t, enginetest.Four(), sequence.Sighting{What: sequence.Mark, Mark: 0},
		sequence.Sighting{What: sequence.Rocking, Cylinder: 4}, sequence.Sighting{What: sequence.Rocking,
			Cylinder: 1})
	assert.Empty(t, l.Positions)
	assert.Empty(t, l.Settable)
	assert.Contains(t, l.Conflict, "cylinder 4 rocking and cylinder 1 rocking cannot both be")
	_, err := sequence.Locate(enginetest.Four(), []sequence.Sighting{{What: sequence.Rocking, Cylinder: 9}},
		nil)
	var unseen *sequence.UnseenError
	require.ErrorAs(t, err, &unseen)
	assert.Contains(t, unseen.Reason, "no cylinder 9")
}

func TestNothingSeenIsEverywhere(t *testing.T) {
	l := located(t, enginetest.Four())
	assert.Empty(t, l.Settable)
	assert.Empty(t, l.Conflict)
	assert.Len(t, l.Positions, 1)
}

// Whatever is truly seen at a position, the answer holds that position and no valve is called settable that
// is not settable there.
func TestLocateHoldsTheTruth(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := randomSheet(t)
		c := cycle.New(s)
		crank := measure.Angle(rapid.IntRange(0, 719_999_999).Draw(t, "crank"))
		var seen []sequence.Sighting
		for _, v := range c.Valves {
			if !rapid.Bool().Draw(t, "looks at "+v.Name) {
				continue
			}
			what := sequence.Loose
			if c.Margin(v, crank) < 0 {
				what = sequence.Pressed
			}
			seen = append(seen, sequence.Sighting{What: what, Valve: v.Name})
		}
		l, err := sequence.Locate(s, seen, nil)
		require.NoError(t, err)
		require.Empty(t, l.Conflict)
		inside := false
		for _, r := range l.Positions {
			if r.From <= r.To {
				inside = inside || (r.From <= crank && crank <= r.To)
			} else {
				inside = inside || crank >= r.From || crank <= r.To
			}
		}
		require.True(t, inside, "%v not in %v", crank, l.Positions)
		for _, name := range l.Settable {
			v, _ := c.Valve(name)
			require.GreaterOrEqual(t, c.Margin(v, crank), s.EffectiveMargin())
		}
	})
}

// One valve with play leaves a wide place: what to look at next is said, and each question leaves exactly
// what looking at it would.
func TestAWidePlaceSaysWhatToLookAt(t *testing.T) {
	seen := []sequence.Sighting{{What: sequence.Loose, Valve: "I1"}}
	l := located(t, enginetest.Four(), seen...)
	require.Len(t, l.Positions, 1)
	assert.Equal(t, 476*measure.Degree, l.Positions[0].Length(), "720 − 244, by hand")
	require.NotEmpty(t, l.TellApart)
	for _, q := range l.TellApart {
		assert.Equal(t, q.Then, located(t, enginetest.Four(), append(seen, q.LookAt)...).Positions)
	}
}

// Whatever several places remain: a question names every one that would show its sighting, and together they
// reach each place that any look can tell.
func TestQuestionsNameEveryPlaceThatShowsThem(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := randomSheet(t)
		seen := []sequence.Sighting{{What: sequence.Mark}}
		l, err := sequence.Locate(s, seen, nil)
		require.NoError(t, err)
		for _, q := range l.TellApart {
			with, err := sequence.Locate(s, append(seen, q.LookAt), nil)
			require.NoError(t, err)
			require.Equal(t, with.Positions, q.Then)
			require.NotEqual(t, l.Positions, q.Then, "a question that tells nothing")
		}
	})
}
