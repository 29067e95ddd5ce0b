package engine_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gear"
	"metronix/core/measure"
)

// What a sheet tells of working on the engine is checked like the rest: where, what, and what to do.
func TestWorkOnTheEngine(t *testing.T) {
	faults := func(change func(*engine.Sheet)) map[string]string {
		s := enginetest.Four()
		change(s)
		at := map[string]string{}
		for _, p := range engine.Check(s).Problems {
			at[p.Location] = p.Message
		}
		return at
	}
	up := engine.Sign{ID: "up", Where: "cam sprocket", Text: "mark at the top", At: enginetest.Degrees(0),
		Period: measure.Cycle}
	assert.Empty(t, faults(func(s *engine.Sheet) {
		s.CheckTurns, s.Signs = engine.LongCheckTurns, []engine.Sign{up}
		s.StripList = []engine.StripStep{{Text: "coils", SocketMM: 10}}
		s.Closing = &engine.Closing{Pattern: engine.MiddleOut, Rounds: 2,
			Torque: engine.Torque{Nm: 9.8, LbfFt: 7}}
	}))
	twice := up
	twice.At, twice.Period = enginetest.Degrees(0, 400, 0), measure.Turn
	lost := up
	lost.ID, lost.At, lost.Period = "lost", nil, measure.Angle(90)
	got := faults(func(s *engine.Sheet) {
		s.CheckTurns = 3
		s.Signs = []engine.Sign{up, twice, lost,
			{ID: "bare", Where: "pulley", Text: "a dot", Period: measure.Turn}}
		s.StripList = []engine.StripStep{{SocketMM: -1}}
		s.Adjuster = &engine.Adjuster{Kind: gear.CentreNut, Locknut: engine.Torque{Nm: 14, LbfFt: 14}}
		s.Closing = &engine.Closing{Pattern: "spiral", Rounds: 9, Torque: engine.Torque{LbfFt: 900},
			OpenMinutes:   -1,
			SealantPoints: []string{" "}, Gasket: "wet"}
	})
	for at, says := range map[string]string{
		"check_turns": "3 turns", "signs[1].id": "called \"up\" already",
		"signs[1].at_deg[1]": "0 to below 360°",
		"signs[1].at_deg[2]": "stands there twice", "signs[2].period_deg": "every 360° with the crank",
		"signs[3].at_deg": "at which degrees", "strip_list[0].text": "Nothing is said",
		"strip_list[0].socket_mm":        "a socket of -1 mm",
		"adjuster.locknut_torque_lbf_ft": "14 N·m is 10.3 lbf·ft, and 14 lbf·ft stands beside it",
		"closing.pattern":                "middle_out", "closing.rounds": "9 rounds",
		"closing.torque_lbf_ft": "900",
		"closing.open_minutes":  "-1 minutes", "closing.sealant_points[0]": "Nothing is said",
		"closing.gasket": "dry",
	} {
		assert.Contains(t, strings.ToLower(got[at]), strings.ToLower(says), at)
	}
	assert.Len(t, got, 15)
}

// A torque is taken in the unit that it is stated in; 10 lbf·ft is about 14 N·m: common practice.
func TestStatedTorque(t *testing.T) {
	assert.InDelta(t, 13.56, engine.Torque{LbfFt: 10}.Value(), 0.005)
	assert.Equal(t, 14.0, engine.Torque{Nm: 14, LbfFt: 10}.Value())
	assert.Zero(t, engine.Torque{}.Value())
}

// A sign of the crank is seen twice in a cycle, one of the cam once.
func TestWhereASignIsSeen(t *testing.T) {
	crank := engine.Sign{At: enginetest.Degrees(10), Period: measure.Turn}
	assert.Equal(t, enginetest.Degrees(10, 370), crank.Places())
	cam := engine.Sign{At: enginetest.Degrees(10, 370), Period: measure.Cycle}
	assert.Equal(t, enginetest.Degrees(10, 370), cam.Places())
}
