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

// A lobe that points away is told by eye: within 60° of the middle of the base circle, and never where the
// valve is open.
func TestALobeThatPointsAway(t *testing.T) {
	s := enginetest.Four()
	at := func(valve string) sequence.Range {
		l, err := sequence.Locate(s, []sequence.Sighting{{What: sequence.LobeAway, Valve: valve}}, nil)
		require.NoError(t, err)
		require.Len(t, l.Positions, 1)
		assert.Contains(t, l.Settable, valve)
		return l.Positions[0]
	}
	assert.Equal(t, 120*measure.Degree, at("E1").Length())
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
	assert.Equal(t, 120*measure.Degree, at("E1").Length(), "720 − 480 are left closed")
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
