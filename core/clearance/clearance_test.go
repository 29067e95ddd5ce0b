package clearance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
)

const um = measure.Micrometre

func fig(l measure.Length) clearance.Figure { return clearance.Figure{Metric: &l} }
func inch(l measure.Length) clearance.Figure {
	return clearance.Figure{Imperial: &l}
}
func window(lower, upper measure.Length) clearance.Limits {
	return clearance.FromWindow(measure.Window{Lower: lower * um, Upper: upper * um})
}

func set(marked ...measure.Length) gauge.Set {
	var s gauge.Set
	for _, m := range marked {
		s = append(s, gauge.Leaf{ID: gauge.ID{Marked: m * um}})
	}
	return s
}

// felt reads "leaf, feel" pairs in micrometres with unchecked leaves.
func felt(pairs ...any) []clearance.Reading {
	var out []clearance.Reading
	for i := 0; i < len(pairs); i += 2 {
		out = append(out, clearance.Reading{Stack: gauge.Stack{{ID: gauge.ID{Marked: measure.Length(
			pairs[i].(int)) * um}}}, Feel: pairs[i+1].(clearance.Feel)})
	}
	return out
}

// Windows seen in the trade: common practice.
func TestStatedClearances(t *testing.T) {
	for name, c := range map[string]struct {
		stated clearance.Clearance
		want   measure.Window
	}{
		"0.22 ± 0.02": {clearance.Clearance{Nominal: fig(220 * um), Tolerance: fig(20 * um)},
			measure.Window{Lower: 200 * um, Upper: 240 * um}},
		"0.05–0.12": {clearance.Clearance{Lower: fig(50 * um), Upper: fig(120 * um)},
			measure.Window{Lower: 50 * um, Upper: 120 * um}},
		"0.25, nominal only": {clearance.Clearance{Nominal: fig(250 * um)},
			measure.Window{Lower: 230 * um, Upper: 270 * um}},
		"0.30 = 0.30": {clearance.Clearance{Lower: fig(300 * um), Upper: fig(300 * um)},
			measure.Window{Lower: 280 * um, Upper: 320 * um}},
		"0.008–0.010 in": {clearance.Clearance{Lower: inch(8 * measure.Thou),
			Upper: inch(10 * measure.Thou)}, measure.Window{Lower: 203_200, Upper: 254_000}},
		"0.35 printed as 0.014": {clearance.Clearance{Nominal: clearance.Figure{Metric: fig(350 * um).Metric,
			Imperial: inch(14 * measure.Thou).Imperial}}, measure.Window{Lower: 330 * um, Upper: 370 * um}},
	} {
		l, faults := c.stated.Limits()
		require.Empty(t, faults, name)
		assert.Equal(t, c.want, l.Window, name)
	}
}

func TestSlipsAreCaught(t *testing.T) {
	for name, c := range map[string]struct {
		stated     clearance.Clearance
		where, say string
	}{
		"0.20 ± 0.2": {clearance.Clearance{Nominal: fig(200 * um), Tolerance: fig(200 * um)},
			"tolerance", "Did you mean 0.02 mm?"},
		"0.25 in": {clearance.Clearance{Nominal: inch(measure.Inch / 4)}, "nominal",
			"Did you mean 0.25 mm?"},
		"10 mm": {clearance.Clearance{Nominal: fig(10 * measure.Millimetre)}, "nominal",
			"10 thousandths"},
		"lower above upper": {clearance.Clearance{Lower: fig(300 * um), Upper: fig(200 * um)}, "lower",
			"swapped"},
		"pair disagrees": {clearance.Clearance{Nominal: clearance.Figure{Metric: fig(200 * um).Metric,
			Imperial: inch(10 * measure.Thou).Imperial}}, "nominal", "half a thou"},
		"one limit": {clearance.Clearance{Lower: fig(200 * um)}, "", "One limit is missing"},
		"nothing":   {clearance.Clearance{}, "", "No clearance"},
		"zero":      {clearance.Clearance{Nominal: fig(0)}, "nominal", "too small"},
	} {
		_, faults := c.stated.Limits()
		require.Len(t, faults, 1, name)
		assert.Equal(t, c.where, faults[0].Figure, name)
		assert.Contains(t, faults[0].Message, c.say, name)
	}
}

// The workshop rule, limits inclusive: simple acceptance, JCGM 106:2012.
func TestWorkshopVerdicts(t *testing.T) {
	for name, c := range map[string]struct {
		limits   clearance.Limits
		readings []clearance.Reading
		verdict  clearance.Verdict
		sure     bool
	}{
		"nothing read":            {window(200, 240), nil, clearance.Undecided, false},
		"drag in the middle":      {window(200, 240), felt(220, clearance.Drag), clearance.In, true},
		"drag on the limit is in": {window(200, 240), felt(240, clearance.Drag), clearance.In, false},
		"drag below": {window(280, 320), felt(250, clearance.Drag, 280, clearance.WontGo),
			clearance.Tight, true},
		"drag just below": {window(220, 280), felt(210, clearance.Drag), clearance.Tight, false},
		"drag above":      {window(200, 240), felt(300, clearance.Drag), clearance.Loose, true},
		"lower limit will not go": {window(200, 240), felt(200, clearance.WontGo), clearance.Tight,
			false},
		"thinner will not go": {window(200, 240), felt(180, clearance.WontGo), clearance.Tight,
			true},
		"upper limit is free": {window(200, 240), felt(240, clearance.Free), clearance.Loose, false},
		"go and no-go on the limits": {window(200, 240), felt(200, clearance.Free, 240, clearance.WontGo),
			clearance.In, false},
		"go and no-go inside": {window(200, 240), felt(210, clearance.Free, 230, clearance.WontGo),
			clearance.In, true},
		"free below says nothing yet": {window(200, 240), felt(180, clearance.Free), clearance.Undecided,
			false},
		"won't go above says nothing": {window(200, 240), felt(300, clearance.WontGo), clearance.Undecided,
			false},
		"9 thou within 0.22 ± 0.02": {window(200, 240),
			[]clearance.Reading{{Stack: gauge.Stack{{ID: gauge.ID{Marked: 9 * measure.Thou}}},
				Feel: clearance.Drag}}, clearance.In, true},
		"12 thou within 0.30 ± 0.02": {window(280, 320),
			[]clearance.Reading{{Stack: gauge.Stack{{ID: gauge.ID{Marked: 12 * measure.Thou}}},
				Feel: clearance.Drag}}, clearance.In, true},
		"two drags are averaged": {window(200, 240), felt(220, clearance.Drag, 225, clearance.Drag),
			clearance.In, true},
		"stack drags 0.01 under limit": {window(220, 280),
			[]clearance.Reading{{Stack: gauge.Stack{{ID: gauge.ID{Marked: 150 * um}},
				{ID: gauge.ID{Marked: 60 * um}}}, Feel: clearance.Drag}}, clearance.Tight, false},
	} {
		j := clearance.Yardstick{Limits: c.limits, Owned: set(150, 200, 220, 250), Rule: clearance.Workshop,
			Feel: clearance.DefaultFeel}.Judge(c.readings)
		assert.Equal(t, c.verdict, j.Verdict, name)
		assert.Equal(t, c.sure, j.Sure, name)
		assert.NotEmpty(t, j.Why(c.readings, measure.BySource), name)
	}
}

func TestIntervalIncludesTheUncertainty(t *testing.T) {
	j := clearance.Yardstick{Limits: window(200, 240), Rule: clearance.Workshop,
		Feel: clearance.DefaultFeel}.Judge(felt(220, clearance.Drag))
	assert.Equal(t, 220*um, *j.Estimate)
	assert.Equal(t, 210*um, j.Low, "± 5 feel ± 5 unchecked leaf")
	assert.Equal(t, 230*um, *j.High)
	checked := []clearance.Reading{{Stack: gauge.Stack{{ID: gauge.ID{Marked: 220 * um}, Measured: 221 * um}},
		Feel: clearance.Free}}
	j = clearance.Yardstick{Limits: window(200, 240), Rule: clearance.Workshop,
		Feel: clearance.DefaultFeel}.Judge(checked)
	assert.Equal(t, 219*um, j.Low, "a micrometer leaf counts as measured, ± 2")
	assert.Nil(t, j.High)
}

// The guarded rule: conformity only outside the uncertainty range, ISO 14253-1.
func TestGuardedVerdicts(t *testing.T) {
	for name, c := range map[string]struct {
		readings []clearance.Reading
		want     clearance.Verdict
	}{
		"well inside":   {felt(220, clearance.Drag), clearance.In},
		"near a limit":  {felt(235, clearance.Drag), clearance.Undecided},
		"at the limits": {felt(200, clearance.Free, 240, clearance.WontGo), clearance.Undecided},
		"well out":      {felt(150, clearance.WontGo), clearance.Tight},
	} {
		j := clearance.Yardstick{Limits: window(200, 240), Rule: clearance.Guarded,
			Feel: clearance.DefaultFeel}.Judge(c.readings)
		assert.Equal(t, c.want, j.Verdict, name)
	}
}

func TestContradictionsAreNamed(t *testing.T) {
	for name, readings := range map[string][]clearance.Reading{
		"free above what won't go": felt(300, clearance.Free, 200, clearance.WontGo),
		"one leaf two ways":        felt(220, clearance.Free, 220, clearance.WontGo),
		"drags far apart":          felt(200, clearance.Drag, 250, clearance.Drag),
		"ends that only touch":     felt(260, clearance.Free, 250, clearance.WontGo),
	} {
		j := clearance.Yardstick{Limits: window(200, 240), Rule: clearance.Workshop,
			Feel: clearance.DefaultFeel}.Judge(readings)
		assert.Equal(t, clearance.Undecided, j.Verdict, name)
		assert.NotEmpty(t, j.Conflict, name)
		assert.Equal(t, j.Conflict, j.Why(readings, measure.BySource), name)
	}
}

func TestNextLeafSettlesIt(t *testing.T) {
	owned := set(100, 150, 200, 220, 240, 250, 300)
	j := clearance.Yardstick{Limits: window(200, 240), Owned: owned, Rule: clearance.Workshop,
		Feel: clearance.DefaultFeel}.Judge(nil)
	assert.Equal(t, "0.20", j.TryNext.String(), "a limit leaf settles two of its three feels")
	j = clearance.Yardstick{Limits: window(200, 240), Owned: owned, Rule: clearance.Workshop,
		Feel: clearance.DefaultFeel}.Judge(felt(200, clearance.Free))
	assert.Equal(t, "0.24", j.TryNext.String())
	j = clearance.Yardstick{Limits: window(200, 240), Owned: owned, Rule: clearance.Workshop,
		Feel: clearance.DefaultFeel}.Judge(felt(220, clearance.WontGo))
	assert.Equal(t, "0.20", j.TryNext.String())
	j = clearance.Yardstick{Limits: window(200, 240), Owned: owned, Rule: clearance.Workshop,
		Feel: clearance.DefaultFeel}.Judge(felt(220, clearance.Drag))
	assert.Nil(t, j.TryNext, "settled")
	j = clearance.Yardstick{Limits: window(200, 240), Owned: set(150, 220, 300), Rule: clearance.Workshop,
		Feel: clearance.DefaultFeel}.Judge(felt(220, clearance.Free))
	assert.Equal(t, "0.30", j.TryNext.String())
}

// Over random gaps, sets and windows the advice always leads to a verdict or says that no leaf helps, and a
// sure verdict is never wrong.
func TestFollowingTheAdviceSettlesOrSaysSo(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lower := measure.Length(rapid.IntRange(50, 300).Draw(t, "lower"))
		limits := window(lower, lower+measure.Length(rapid.IntRange(20, 80).Draw(t, "width")))
		var owned gauge.Set
		for _, m := range rapid.SliceOfNDistinct(rapid.IntRange(20, 450), 3, 12, rapid.ID[int]).Draw(t,
			"leaves") {
			owned = append(owned, gauge.Leaf{ID: gauge.ID{Marked: measure.Length(m) * um}})
		}
		gap := measure.Length(rapid.IntRange(20, 450).Draw(t, "gap")) * um
		var readings []clearance.Reading
		j := clearance.Yardstick{Limits: limits, Owned: owned, Rule: clearance.Workshop,
			Feel: clearance.DefaultFeel}.Judge(readings)
		for len(readings) < 30 && j.Verdict == clearance.Undecided && j.TryNext != nil {
			readings = append(readings,
				clearance.Reading{Stack: j.TryNext, Feel: truth(gap, j.TryNext.Thickness())})
			j = clearance.Yardstick{Limits: limits, Owned: owned, Rule: clearance.Workshop,
				Feel: clearance.DefaultFeel}.Judge(readings)
		}
		require.Less(t, len(readings), 30)
		require.Empty(t, j.Conflict)
		switch {
		case !j.Sure:
		case j.Verdict == clearance.In:
			require.True(t, limits.Window.Contains(gap))
		case j.Verdict == clearance.Tight:
			require.Less(t, gap, limits.Window.Lower)
		case j.Verdict == clearance.Loose:
			require.Greater(t, gap, limits.Window.Upper)
		}
	})
}

// truth is what a leaf feels like in a gap: drag within the feel, else free or not.
func truth(gap, leaf measure.Length) clearance.Feel {
	switch d := gap - leaf; {
	case d.Abs() <= clearance.DefaultFeel:
		return clearance.Drag
	case d > 0:
		return clearance.Free
	}
	return clearance.WontGo
}

// Under the guarded rule a leaf that may still drag is advised although nominal thicknesses already bracket
// the window.
func TestGuardedAdviceGoesOn(t *testing.T) {
	owned := set(200, 220, 240)
	j := clearance.Yardstick{Limits: window(200, 240), Owned: owned, Rule: clearance.Guarded,
		Feel: clearance.DefaultFeel}.Judge(felt(200, clearance.Free, 240, clearance.WontGo))
	assert.Equal(t, clearance.Undecided, j.Verdict)
	assert.Equal(t, "0.22", j.TryNext.String())
}

// What a source states in inches alone is spoken of in thousandths: 12 ± 2 thou (1 in = 25.4 mm exactly,
// international yard and pound agreement of 1959). A source that gives both is metric.
func TestACardInThouReadsInThou(t *testing.T) {
	limits, faults := clearance.Clearance{Nominal: inch(12 * measure.Thou),
		Tolerance: inch(2 * measure.Thou)}.Limits()
	require.Empty(t, faults)
	assert.Equal(t, "10–14 thou", limits.String())
	drags := []clearance.Reading{{Stack: gauge.Stack{{ID: gauge.ID{Marked: 16 * measure.Thou}, Thou: true}},
		Feel: clearance.Drag}}
	loose := clearance.Yardstick{Limits: limits}.Judge(drags)
	assert.Contains(t, loose.Why(drags, measure.BySource), "2 thou over the limit 14 thou.")
	assert.Contains(t, loose.Why(drags, measure.Millimetres), "0.0508 mm over the limit 0.3556 mm.",
		"who thinks in millimetres is told the same in them")
	nominal, faults := clearance.Clearance{Nominal: inch(12 * measure.Thou)}.Limits()
	require.Empty(t, faults)
	assert.Equal(t, "11.2–12.8 thou", nominal.String())
	both, faults := clearance.Clearance{Nominal: clearance.Figure{Metric: new(300 * um),
		Imperial: new(12 * measure.Thou)}}.Limits()
	require.Empty(t, faults)
	assert.Equal(t, "0.28–0.32 mm", both.String())
}

// A hot card may serve the provisional cold start without an invented card: the same figures, said to be used
// cold. Common practice.
func TestAHotCardUsedCold(t *testing.T) {
	hot := clearance.Card{Source: "book", State: clearance.Hot,
		Intake: clearance.Clearance{Nominal: clearance.Figure{Metric: new(300 * um)}}}
	cold := hot.UsedCold()
	assert.Equal(t, clearance.Cold, cold.State)
	assert.Equal(t, hot.Intake, cold.Intake)
	assert.Contains(t, cold.Remark, "hot figures, used cold")
	assert.Equal(t, clearance.Hot, hot.State)
}
