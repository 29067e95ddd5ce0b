package sequence

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/cycle"
	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
)

// Stops within a thousandth of a degree are one, just that far apart two; and a valve that has its margin
// keeps it.
func TestWhichStopsAreOne(t *testing.T) {
	c := cycle.New(enginetest.Four())
	v, _ := c.Valve("E1")
	at := (c.ShutsAt(v) + 30*measure.Degree).Wrap() // 30° clear, and more further on
	d := draft{crank: at, set: []SetValve{{"E1", c.Margin(v, at)}}}
	need := c.Margin(v, at)
	assert.True(t, joins(c, d, at+measure.SameAngle-1, need), "further on it is clearer")
	assert.False(t, joins(c, d, at+measure.SameAngle, need))
	assert.False(t, joins(c, d, at-1, need), "it would lose the margin that it just has")
	assert.True(t, joins(c, d, at-1, need-1), "it just keeps it")
	assert.True(t, joins(c, d, at-1, need+1), "it does not have it there either")

	drafts := places([]draft{{crank: 0}, {crank: measure.SameAngle - 1}, {crank: 2 * measure.SameAngle}})
	assert.Len(t, drafts, 2)
	assert.Len(t, places([]draft{{crank: 0}, {crank: measure.SameAngle}}), 2)
}

// With no overlap and none to spare, all four valves of a twin that fires every turn are shut at one place,
// and just: one stop has no margin there, and so is no plan (by hand).
func TestAPlanWithNoMarginIsNone(t *testing.T) {
	s := enginetest.Inline([]int{1, 2}, "EIEI")
	s.FiringAngles = enginetest.Degrees(0, 360)
	s.Timing = enginetest.Timing(0, 50, 50, 0)
	nothing := measure.Angle(0)
	p, err := Make(s, Request{RequiredMargin: &nothing, Way: Way{School: FewestStops, StopCount: 1}})
	require.NoError(t, err)
	assert.False(t, p.Applies)
	assert.Contains(t, p.Reason, "With 1 stop some valve would always be open")
	c := cycle.New(s)
	for _, v := range c.Valves {
		assert.GreaterOrEqual(t, c.Margin(v, 0), measure.Angle(0), "%s is shut at TDC", v.Name)
	}
	// and a cylinder without overlap rocks about its overlap TDC
	assert.Equal(t, []Range{{From: 350 * measure.Degree, To: 370 * measure.Degree}},
		ranges(c, 0, Sighting{What: Rocking, Cylinder: 1}))
}

// The valve that is named as the one that no position serves is one that none does: not one that is just
// served.
func TestWhichValveNoPositionServes(t *testing.T) {
	s := enginetest.Inline([]int{1, 2}, "IEIE")
	s.Timing = enginetest.Timing(10, 40, 70, 30) // the intake is shut for longer
	c := cycle.New(s)
	need := c.DeepestMargin(engine.Intake)
	require.Less(t, c.DeepestMargin(engine.Exhaust), need)
	p, err := Make(s, Request{RequiredMargin: &need, Way: Way{School: FewestStops}})
	require.NoError(t, err)
	assert.False(t, p.Applies)
	assert.Contains(t, p.Reason, "E1 stands only")
}

// A stretch of just 60° still counts as knowing where the crank stands: nothing more is asked.
func TestAPlaceThatIsJustNarrowEnough(t *testing.T) {
	s := enginetest.Four()
	s.Timing = enginetest.Timing(30, 50, 50, 30) // overlaps for 60°
	l, err := Locate(s, []Sighting{{What: Rocking, Cylinder: 1}}, nil)
	require.NoError(t, err)
	require.Len(t, l.Positions, 1)
	require.Equal(t, Narrow, l.Positions[0].Length())
	assert.Empty(t, l.TellApart)
}

// Of four places what is asked first is what leaves two of them.
func TestWhatIsAskedFirstHalvesThePlaces(t *testing.T) {
	s := enginetest.Four()
	s.Signs = []engine.Sign{
		{ID: "rotor", Where: "distributor", Text: "at a tower", At: enginetest.Degrees(0, 180, 360, 540),
			Period: measure.Cycle},
	}
	l, err := Locate(s, []Sighting{{What: Signed, Sign: "rotor"}}, nil)
	require.NoError(t, err)
	require.Len(t, l.Positions, 4)
	require.NotEmpty(t, l.TellApart)
	assert.Len(t, l.TellApart[0].Then, 2)
}

// A maker's stop at which a valve just begins to open is told as no margin, not as open.
func TestAMakersStopAtTheVeryOpening(t *testing.T) {
	s := enginetest.Four()
	c := cycle.New(s)
	v, _ := c.Valve("E1")
	s.OwnSequence = []engine.OwnStop{{Crank: c.OpensAt(v), Set: []string{"E1"}}}
	p, err := Make(s, Request{Way: Way{School: Own}})
	require.NoError(t, err)
	require.Len(t, p.Cautions, 4)
	assert.Contains(t, p.Cautions[3], "E1 stands only 0° from its opening or closing")
}

// The rule of sums wants one valve of each kind a cylinder, whichever kind there are two of.
func TestTheSumRuleWantsOneOfEachKind(t *testing.T) {
	for _, rows := range []string{"EEIEEI", "EIIEII"} {
		p, err := Make(enginetest.Inline([]int{1, 2}, rows), Request{Way: Way{School: SumRule}})
		require.NoError(t, err)
		assert.False(t, p.Applies, rows)
		assert.Contains(t, p.Reason, "Cylinder 1 has several valves of a kind", rows)
	}
}

// A stop with nothing to be seen is told all the same.
func TestAStopWithNothingToBeSeen(t *testing.T) {
	assert.Equal(t, "The stop is reached", Stop{}.Standing())
}
