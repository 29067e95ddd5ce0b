package gauge_test

import (
	"slices"
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
		s = append(s, gauge.Leaf{ID: gauge.ID{Marked: m * um}})
	}
	return s
}

func TestStacksAreEveryCombinationOnce(t *testing.T) {
	s := leaves(50, 100, 150)
	got := map[string]bool{}
	for _, st := range s.Stacks(measure.Window{Lower: 0, Upper: measure.Millimetre}, 3) {
		got[st.String()] = true
	}
	assert.Equal(t, map[string]bool{"0.05": true, "0.10": true, "0.15": true, "0.10 + 0.05": true,
		"0.15 + 0.05": true, "0.15 + 0.10": true, "0.15 + 0.10 + 0.05": true}, got)
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
	s := gauge.Set{{ID: gauge.ID{Marked: 200 * um}, Measured: 197 * um}}
	assert.Equal(t, 197*um, s.Find(gauge.ID{Marked: 200 * um}).True())
	assert.Equal(t, gauge.CheckedUncertainty, s.Find(gauge.ID{Marked: 200 * um}).Uncertainty())
	assert.Equal(t, gauge.UncheckedUncertainty, s.Find(gauge.ID{Marked: 300 * um}).Uncertainty(),
		"a leaf that is not owned")
}

// 0.15 + 0.06 = 0.21 (common practice); what lies between two reached thicknesses is a hole. By hand.
func TestReachAndHoles(t *testing.T) {
	owned := gauge.Owned([]gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 150 * um}}},
		{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 60 * um}}}, {Leaf: gauge.Leaf{ID: gauge.ID{Marked: 250 * um}}},
		{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 220 * um}}, Missing: true}})
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
		for _, m := range rapid.SliceOfNDistinct(rapid.IntRange(2, 40), 1, 8, rapid.ID[int]).Draw(t,
			"leaves") {
			owned = append(owned, gauge.Leaf{ID: gauge.ID{Marked: measure.Length(m) * 10 * um}})
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
		"nothing": {[]gauge.Item{{}}, "marked_mm"},
		"negative": {[]gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: -um}}}},
			"marked_mm"},
		"eight millimetres": {[]gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 8 * measure.Millimetre}}}},
			"marked_mm"},
		"two millimetres": {[]gauge.Item{{Leaf: gauge.Plain(2 * measure.Millimetre)}},
			"marked_mm"},
		"a slipped decimal": {[]gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 200 * um},
			Measured: 20 * um}}}, "measured_mm"},
		"measured in the other unit": {[]gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 200 * um},
			Measured: 8 * um}}}, "measured_mm"},
		"twice": {[]gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 200 * um}}},
			{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 200 * um}}}}, "marked_mm"},
	} {
		faults := gauge.Check(c.items)
		require.Len(t, faults, 1, name)
		assert.Equal(t, c.field, faults[0].Field, name)
		assert.Equal(t, len(c.items)-1, faults[0].Index, name)
	}
	assert.Empty(t, gauge.Check(
		[]gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 200 * um}, Measured: 203 * um}},
			{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 200 * um, Angled: true}}}}))
}

// The choice without listing all stacks is the one that listing them all gives.
func TestChoiceAgainstListingAll(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var owned gauge.Set
		for _, m := range rapid.SliceOfNDistinct(rapid.IntRange(3, 60), 1, 9, rapid.ID[int]).Draw(t,
			"leaves") {
			leaf := gauge.Plain(measure.Length(m) * 10 * um)
			if rapid.Bool().Draw(t, "measured") {
				leaf.Measured = leaf.Marked + measure.Length(rapid.IntRange(-4, 4).Draw(t, "off"))*um
			}
			owned = append(owned, leaf)
		}
		aim := measure.Length(rapid.IntRange(5, 130).Draw(t, "aim")) * 5 * um
		var window *measure.Window
		if rapid.Bool().Draw(t, "limits") {
			lower := measure.Length(rapid.IntRange(5, 130).Draw(t, "lower")) * 5 * um
			window = &measure.Window{Lower: lower,
				Upper: lower + measure.Length(rapid.IntRange(0, 20).Draw(t, "wide"))*5*um}
		}
		got, ok := owned.Choose(aim, window, gauge.MaxStack)
		require.True(t, ok)
		want, within := slowly(owned, aim, window)
		require.Equal(t, within, got.Within)
		require.Equal(t, key(want, aim, within), key(got.Stack, aim, within), "%s or %s", want, got.Stack)
	})
}

// slowly is the rule of the choice, by listing every stack.
func slowly(owned gauge.Set, aim measure.Length, window *measure.Window) (best gauge.Stack, within bool) {
	all := owned.Stacks(measure.Window{Upper: measure.MaxLength}, gauge.MaxStack)
	for _, inside := range []bool{true, false} {
		for _, st := range all {
			t, u := st.Thickness(), st.Uncertainty()
			if inside && (window == nil || t-u < window.Lower || t+u > window.Upper) {
				continue
			}
			if best == nil || slices.Compare(key(st, aim, inside), key(best, aim, inside)) < 0 {
				best = st
			}
		}
		if best != nil {
			return best, inside
		}
	}
	return nil, false
}

// key is what is small for a good stack, most important first.
func key(st gauge.Stack, aim measure.Length, within bool) []measure.Length {
	off, leaves := (st.Thickness() - aim).Abs(), measure.Length(len(st))
	if within {
		return []measure.Length{leaves, off, -st.Thickness()}
	}
	return []measure.Length{off + st.Uncertainty(), leaves, -st.Thickness()}
}

// A straight and an angled leaf of one marking are two leaves, each with its own micrometer figure.
func TestALeafHasAnIdentity(t *testing.T) {
	bent := gauge.Leaf{ID: gauge.ID{Marked: 200 * um, Angled: true}, Measured: 210 * um}
	s := gauge.Set{bent, gauge.Plain(200 * um)}
	assert.Equal(t, 200*um, s.Find(gauge.ID{Marked: 200 * um}).True())
	assert.Equal(t, 210*um, s.Find(gauge.ID{Marked: 200 * um, Angled: true}).True())
	assert.False(t, gauge.Stack{bent}.Same(gauge.Stack{gauge.Plain(200 * um)}))
	assert.Len(t, s.Singles(), 2)
}

// A leaf is named as it is stamped: common practice.
func TestLeavesAreNamedAsStamped(t *testing.T) {
	thou := func(l measure.Length) gauge.Leaf { return gauge.Leaf{ID: gauge.ID{Marked: l}, Thou: true} }
	assert.Equal(t, ".009", thou(9*measure.Thou).String())
	assert.Equal(t, ".010", thou(10*measure.Thou).String())
	assert.Equal(t, ".0015", thou(3*measure.Thou/2).String())
	assert.Equal(t, "0.25", gauge.Plain(250*um).String())
	assert.Equal(t, ".009 + .004", gauge.Stack{thou(4 * measure.Thou), thou(9 * measure.Thou)}.String())
}

func BenchmarkChooseFrom120(b *testing.B) {
	var owned gauge.Set
	for i := range measure.Length(gauge.MaxLeaves) {
		owned = append(owned, gauge.Plain((30+8*i)*um))
	}
	b.ReportAllocs()
	for b.Loop() {
		owned.Choose(333*um, nil, gauge.MaxStack)
	}
}
