package engine_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/engine"
	"metronix/core/engine/enginetest"
	"metronix/core/gear"
	"metronix/core/measure"
)

// A variant is the same engine with what it changes; what it does not name stays, and the sheet itself is as
// it was.
func TestAVariantIsTheSheetWithWhatItChanges(t *testing.T) {
	s := enginetest.Four()
	s.TurningPoint = &engine.TurningPoint{Where: "crank pulley bolt", SocketMM: 19}
	s.Variants = []engine.Variant{
		{Name: "early", TurningPoint: &engine.TurningPoint{Where: "crank pulley bolt", SocketMM: 22}},
		{Name: "late", Adjuster: &engine.Adjuster{Kind: gear.CentreNut}},
	}
	require.Empty(t, engine.Check(s).Problems)
	early, ok := s.As("early")
	require.True(t, ok)
	assert.InDelta(t, 22, early.TurningPoint.SocketMM, 0)
	assert.Equal(t, s.Adjuster, early.Adjuster)
	assert.Equal(t, s.Name+", early", early.Called())
	assert.Empty(t, early.Variants)
	assert.InDelta(t, 19, s.TurningPoint.SocketMM, 0)
	late, _ := s.As("late")
	assert.Equal(t, gear.CentreNut, late.Gear().Kind)
	_, ok = s.As("of another year")
	assert.False(t, ok)

	s.Variants = []engine.Variant{{Name: "A"}, {Name: " a"}, {Name: "b", Adjuster: &engine.Adjuster{Kind: "magic"}}}
	problems := engine.Check(s).Problems
	require.Len(t, problems, 2)
	assert.Equal(t, "variants[1].name", problems[0].Location)
	assert.Equal(t, "variants[2].adjuster.kind", problems[1].Location)
}

// The same nut is given differently by book, plate and habit (common practice): the sheet's own figure is the
// one to tighten to, a rounded one is the same, another is told beside it, and one that is not to be used is
// a warning.
func TestTorquesKeepTheirSources(t *testing.T) {
	s := enginetest.Four()
	s.Adjuster = &engine.Adjuster{Kind: gear.ScrewValveEnd, Locknut: engine.Torque{Nm: 17}}
	s.Torques = []engine.SourcedTorque{
		{Of: engine.LockNut, Torque: engine.Torque{LbfFt: 12.5}, Source: "maker's book"}, // 16.95 N·m
		{Of: engine.LockNut, Torque: engine.Torque{Nm: 20}, Source: "plate"},
		{Of: engine.LockNut, Torque: engine.Torque{Nm: 27}, Source: "hearsay", Distrusted: "strips the thread"},
		{Of: engine.CoverBolts, Torque: engine.Torque{Nm: 9}, Source: "plate"},
	}
	r := engine.Check(s)
	require.Empty(t, r.Problems)
	require.Len(t, r.Warnings, 1)
	assert.Contains(t, r.Warnings[0].Message, "Sources differ for the lock nut: 17 N·m (12.5 lbf·ft), maker's book. Otherwise 20")
	to, others := s.TorquesOf(engine.LockNut)
	assert.InDelta(t, 17, to.Torque.Value(), 0)
	assert.Len(t, others, 2)
	assert.Equal(t, "Otherwise 20 N·m (14.8 lbf·ft), plate. Not to be used: 27 N·m (19.9 lbf·ft), hearsay, strips the thread.",
		s.SayOthers(engine.LockNut, measure.Units{}))
	to, _ = s.TorquesOf(engine.CoverBolts)
	assert.Equal(t, "9 N·m (6.64 lbf·ft), plate", to.Say(measure.Units{}))
	s.Adjuster.Locknut = engine.Torque{}
	s.Torques = s.Torques[2:3]
	to, others = s.TorquesOf(engine.LockNut)
	assert.Nil(t, to)
	assert.Len(t, others, 1)
	s.Torques = []engine.SourcedTorque{{Of: "wheel nut"}}
	assert.Len(t, engine.Check(s).Problems, 3, "no such joint, no figure, no source")
}
