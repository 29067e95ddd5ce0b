package sequence_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/measure"
	"metronix/core/sequence"
)

// signed is a four with an up mark on its cam sprocket and two dots on its gear cover, one of them in doubt.
func signed() *engine.Sheet {
	s := enginetest.Four()
	s.Signs = []engine.Sign{
		{ID: "up", Where: "cam sprocket", Text: "up mark at the top", At: enginetest.Degrees(0),
			Period: measure.Cycle},
		{ID: "dot", Where: "gear cover", Text: "dot under the pointer", At: enginetest.Degrees(180),
			Period: measure.Turn, Doubtful: "the dowel at six o'clock"},
	}
	return s
}

func sign(id string) sequence.Sighting { return sequence.Sighting{What: sequence.Signed, Sign: id} }

// What turns with the cam tells the turn, what turns with the crank does not: common practice.
func TestSignsOfAnEngine(t *testing.T) {
	l, err := sequence.Locate(signed(), []sequence.Sighting{sign("up")}, nil)
	require.NoError(t, err)
	assert.Equal(t, []sequence.Range{{From: 715 * measure.Degree, To: 5 * measure.Degree}}, l.Positions)
	assert.Equal(t, []string{"E1", "I1", "I2", "E3"}, l.Settable)
	l, err = sequence.Locate(signed(), []sequence.Sighting{sign("dot")}, nil)
	require.NoError(t, err)
	assert.Len(t, l.Positions, 2, "once every turn")
	assert.NotEmpty(t, l.TellApart)
	for _, q := range l.TellApart {
		assert.NotEqual(t, "dot", q.LookAt.Sign, "a doubtful sign tells nothing apart")
	}
	l, err = sequence.Locate(signed(), []sequence.Sighting{{What: sequence.Mark}}, nil)
	require.NoError(t, err)
	assert.Equal(t, sign("up"), l.TellApart[0].LookAt, "the sprocket tells the two turns of the mark apart")
	l, err = sequence.Locate(signed(), []sequence.Sighting{sign("up"), sign("dot")}, nil)
	require.NoError(t, err)
	assert.Contains(t, l.Conflict,
		"cam sprocket: up mark at the top and gear cover: dot under the pointer cannot both be")
	_, err = sequence.Locate(signed(), []sequence.Sighting{sign("down")}, nil)
	assert.ErrorContains(t, err, `its sheet describes no sign "down"`)
}

// A lobe is away to the eye over most of its base circle (common practice): wherever it is clear by 20°, or
// by what the engine requires. At firing TDC both lobes of a cylinder are.
func TestALobeThatPointsAway(t *testing.T) {
	s := enginetest.Four()
	at := func(valve string) sequence.Range {
		l, err := sequence.Locate(s, []sequence.Sighting{{What: sequence.LobeAway, Valve: valve}}, nil)
		require.NoError(t, err)
		require.Len(t, l.Positions, 1)
		assert.Contains(t, l.Settable, valve)
		return l.Positions[0]
	}
	assert.Equal(t, 436*measure.Degree, at("E1").Length(), "476 closed, less 20 at either end")
	both, err := sequence.Locate(s, []sequence.Sighting{{What: sequence.LobesAway, Cylinder: 1},
		{What: sequence.Mark}}, nil)
	require.NoError(t, err)
	require.Len(t, both.Positions, 1, both.Conflict)
	assert.True(t, both.Positions[0].Holds(0), "cylinder 1 at firing TDC")
	wide := sequence.Range{}
	if l, err := sequence.Locate(s, []sequence.Sighting{{What: sequence.LobeAway, Valve: "E1"}},
		new(50*measure.Degree)); assert.NoError(t, err) {
		wide = l.Positions[0]
	}
	assert.Equal(t, 376*measure.Degree, wide.Length(), "less what is required, where that is more")
	plan, err := sequence.Make(s, sequence.Request{Way: sequence.Way{School: sequence.OneLobe}})
	require.NoError(t, err)
	for _, stop := range plan.Stops {
		for _, set := range stop.Set {
			assert.True(t, at(set.Valve).Holds(stop.Crank), "%s at %s", set.Valve, stop.Crank)
		}
	}
	s.Timing = &engine.ValveTiming{IVO: 150 * measure.Degree, IVC: 150 * measure.Degree,
		EVO: 150 * measure.Degree,
		EVC: 150 * measure.Degree}
	assert.Equal(t, 200*measure.Degree, at("E1").Length(), "720 − 480 are left closed, less 20 at either end")
	_, err = sequence.Locate(s, []sequence.Sighting{{What: sequence.LobeAway, Valve: "E9"}}, nil)
	assert.ErrorContains(t, err, "no valve")
}

// A stop at which a sign of the sheet is seen says so, after the school's own sign.
func TestStopsTellTheirSigns(t *testing.T) {
	plan, err := sequence.Make(signed(), sequence.Request{Way: sequence.Way{School: sequence.RockingPairs}})
	require.NoError(t, err)
	assert.Equal(t, sequence.Rocking, plan.Stops[0].Watch[0].What)
	assert.Contains(t, plan.Stops[0].Watch, sign("up"))
	assert.Contains(t, plan.Stops[1].Watch, sign("dot"))
	assert.NotContains(t, plan.Stops[1].Watch, sign("up"))
	assert.Contains(t, plan.Stops[3].Watch, sign("dot"))
}
