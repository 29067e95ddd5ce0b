package gauge_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/gauge"
	"metronix/core/measure"
)

const um = measure.Micrometre

func leaves(marked ...measure.Length) (s gauge.Set) {
	for _, m := range marked {
		s = append(s, gauge.Leaf{Marked: m * um})
	}
	return s
}

func TestStacksAreEveryCombinationOnce(t *testing.T) {
	s := leaves(50, 100, 150)
	got := map[string]bool{}
	for _, st := range s.Stacks(measure.Window{Lower: 0, Upper: measure.Millimetre}, 3) {
		got[st.String()] = true
	}
	assert.Equal(t, map[string]bool{"0.05": true, "0.10": true, "0.15": true, "0.10 + 0.05": true, "0.15 + 0.05": true, "0.15 + 0.10": true, "0.15 + 0.10 + 0.05": true}, got)
	assert.Empty(t, s.Stacks(measure.Window{Lower: 160 * um, Upper: 190 * um}, 3))
	assert.Len(t, s.Stacks(measure.Window{Lower: 150 * um, Upper: 150 * um}, 1), 1, "ends belong")
}

// 0.15 + 0.06 = 0.21: common practice for a missing leaf.
func TestChoose(t *testing.T) {
	narrow := measure.Window{Lower: 195 * um, Upper: 225 * um}
	c, ok := leaves(60, 150, 250).Choose(210*um, &narrow, gauge.MaxStack)
	require.True(t, ok)
	assert.Equal(t, "0.15 + 0.06", c.Stack.String())
	assert.True(t, c.Within)
	assert.Equal(t, 10*um, c.Stack.Uncertainty(), "a stack adds up its leaves")

	wide := measure.Window{Lower: 200 * um, Upper: 240 * um}
	c, _ = leaves(210, 230, 100, 120).Choose(220*um, &wide, gauge.MaxStack)
	assert.Equal(t, "0.23", c.Stack.String(), "one leaf before the exact stack; equally near, the thicker")

	c, _ = leaves(100, 300).Choose(220*um, &wide, gauge.MaxStack)
	assert.Equal(t, "0.30", c.Stack.String())
	assert.False(t, c.Within, "no stack lies inside")

	_, ok = gauge.Set{}.Choose(220*um, nil, gauge.MaxStack)
	assert.False(t, ok)
}

func TestMicrometerFigureCounts(t *testing.T) {
	s := gauge.Set{{Marked: 200 * um, Measured: 197 * um}}
	assert.Equal(t, 197*um, s.Find(200*um).True())
	assert.Equal(t, gauge.CheckedUncertainty, s.Find(200*um).Uncertainty())
	assert.Equal(t, gauge.UncheckedUncertainty, s.Find(300*um).Uncertainty(), "a leaf that is not owned")
	assert.Len(t, gauge.Set{{Marked: 1}, {Marked: 1}}.Singles(), 1)
}

// 0.15 + 0.06 = 0.21 (common practice); what lies between two reached thicknesses is a hole. By hand.
func TestReachAndHoles(t *testing.T) {
	owned := gauge.Owned([]gauge.Item{{Leaf: gauge.Leaf{Marked: 150 * um}}, {Leaf: gauge.Leaf{Marked: 60 * um}}, {Leaf: gauge.Leaf{Marked: 250 * um}},
		{Leaf: gauge.Leaf{Marked: 220 * um}, Missing: true}})
	stacks, holes := owned.Reach(measure.Window{Lower: 200 * um, Upper: 260 * um}, 3, 10*um)
	var got []string
	for _, s := range stacks {
		got = append(got, s.String())
	}
	assert.Equal(t, []string{"0.15 + 0.06", "0.25"}, got)
	assert.Equal(t, []gauge.Hole{{From: 210 * um, To: 250 * um}}, holes, "10 µm to either end is no hole")
	none, holes := gauge.Set{}.Reach(measure.Window{Lower: 200 * um, Upper: 260 * um}, 3, 10*um)
	assert.Empty(t, none)
	assert.Equal(t, []gauge.Hole{{From: 200 * um, To: 260 * um}}, holes)
}

// Every stack is in reach once per thickness, none with more leaves than needed.
func TestReachAgainstStacks(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var owned gauge.Set
		for _, m := range rapid.SliceOfNDistinct(rapid.IntRange(2, 40), 1, 8, rapid.ID[int]).Draw(t, "leaves") {
			owned = append(owned, gauge.Leaf{Marked: measure.Length(m) * 10 * um})
		}
		w := measure.Window{Lower: 100 * um, Upper: 500 * um}
		reached, holes := owned.Reach(w, 3, 0)
		fewest := map[measure.Length]int{}
		for _, s := range owned.Stacks(w, 3) {
			if n, ok := fewest[s.Thickness()]; !ok || len(s) < n {
				fewest[s.Thickness()] = len(s)
			}
		}
		require.Len(t, reached, len(fewest))
		for _, s := range reached {
			require.Equal(t, fewest[s.Thickness()], len(s))
			for _, h := range holes {
				require.False(t, h.From < s.Thickness() && s.Thickness() < h.To, "%s lies in a hole", s)
			}
		}
	})
}

// Slips in a set: nothing, too much, the other unit, twice; straight and angled are two leaves.
func TestCheckFindsSlips(t *testing.T) {
	for name, c := range map[string]struct {
		items []gauge.Item
		field string
	}{
		"nothing":                    {[]gauge.Item{{}}, "marked_mm"},
		"negative":                   {[]gauge.Item{{Leaf: gauge.Leaf{Marked: -um}}}, "marked_mm"},
		"eight millimetres":          {[]gauge.Item{{Leaf: gauge.Leaf{Marked: 8 * measure.Millimetre}}}, "marked_mm"},
		"measured in the other unit": {[]gauge.Item{{Leaf: gauge.Leaf{Marked: 200 * um, Measured: 8 * um}}}, "measured_mm"},
		"twice":                      {[]gauge.Item{{Leaf: gauge.Leaf{Marked: 200 * um}}, {Leaf: gauge.Leaf{Marked: 200 * um}}}, "marked_mm"},
	} {
		faults := gauge.Check(c.items)
		require.Len(t, faults, 1, name)
		assert.Equal(t, c.field, faults[0].Field, name)
		assert.Equal(t, len(c.items)-1, faults[0].Index, name)
	}
	assert.Empty(t, gauge.Check([]gauge.Item{{Leaf: gauge.Leaf{Marked: 200 * um, Measured: 203 * um}}, {Leaf: gauge.Leaf{Marked: 200 * um}, Angled: true}}))
}
