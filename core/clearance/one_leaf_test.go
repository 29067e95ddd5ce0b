package clearance_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/clearance"
	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/checks"
)

// The one leaf of the wanted gap drags, falls through, or will not go: the commonest way of judging.
func TestOneLeafAgainstTheOutside(t *testing.T) {
	trade := checks.Practice("one leaf, that of the wanted gap: it drags: in; falls through: " +
		"loose; won't go: tight")
	inch := func(thou measure.Length, f clearance.Feel) []clearance.Reading {
		return []clearance.Reading{{Stack: gauge.Stack{gauge.Plain(thou * measure.Thou)}, Feel: f}}
	}
	for _, c := range []struct {
		what     string
		limits   clearance.Limits
		aim      measure.Length
		readings []clearance.Reading
		want     clearance.Verdict
	}{
		{"0.25 of 0.22–0.28 drags", window(220, 280), 0, felt(250, clearance.Drag), clearance.In},
		{"0.25 of 0.22–0.28 falls through", window(220, 280), 0, felt(250, clearance.Free), clearance.Loose},
		{"0.25 of 0.22–0.28 won't go", window(220, 280), 0, felt(250, clearance.WontGo), clearance.Tight},
		{"0.28 of 0.22–0.28 falls through", window(220, 280), 0, felt(280, clearance.Free), clearance.Loose},
		{"0.22 of 0.22–0.28 falls through", window(220, 280), 0, felt(220, clearance.Free),
			clearance.Undecided},
		{"0.28 of 0.22–0.28 won't go", window(220, 280), 0, felt(280, clearance.WontGo), clearance.Undecided},
		{"0.24 of 0.22–0.28 falls through: within half a thou of the aim", window(220, 280), 0,
			felt(240, clearance.Free), clearance.Loose},
		{".010 of 0.22–0.28 won't go: within half a thou of the aim", window(220, 280), 0,
			inch(10, clearance.WontGo), clearance.Tight},
		{".009 of 0.20–0.24 falls through: within half a thou of the aim", window(200, 240), 0,
			inch(9, clearance.Free), clearance.Loose},
		{"0.27 wanted of 0.22–0.28, 0.25 falls through", window(220, 280), 270 * um,
			felt(250, clearance.Free),
			clearance.Undecided},
		{"0.30 drags over 0.22–0.28", window(220, 280), 0, felt(300, clearance.Drag), clearance.Loose},
	} {
		j := clearance.Yardstick{Limits: c.limits, Owned: set(220, 250, 280), Rule: clearance.OneLeaf,
			Feel: clearance.DefaultFeel, Aim: c.aim}.Judge(c.readings)
		checks.Equal(t, trade, c.what, c.want, j.Verdict)
	}
}

// A side is told as a side: no figure, and nothing of limits that one leaf does not know.
func TestOneLeafSaysASide(t *testing.T) {
	y := clearance.Yardstick{Limits: window(220, 280), Owned: set(220, 250, 280), Rule: clearance.OneLeaf,
		Feel: clearance.DefaultFeel}
	first := y.Judge(nil)
	assert.Equal(t, "0.25", first.TryNext.String(), "the leaf of the wanted gap first")
	loose := y.Judge(felt(250, clearance.Free))
	assert.Nil(t, loose.Estimate)
	assert.Nil(t, loose.TryNext, "one leaf is enough")
	assert.Contains(t, loose.Why(felt(250, clearance.Free), measure.BySource),
		"looser than the 0.25 mm wanted")
	assert.NotContains(t, loose.Why(felt(250, clearance.Free), measure.BySource), "limit")
	assert.False(t, loose.Sure)
	assert.Contains(t, y.Judge(felt(250, clearance.WontGo)).Why(felt(250, clearance.WontGo),
		measure.BySource), "tighter than the 0.25 mm wanted")
	far := y.Judge(felt(250, clearance.Free, 300, clearance.Free))
	assert.True(t, far.Sure, "beyond its limits for certain")
	none := clearance.Yardstick{Limits: window(220, 280), Owned: set(200, 300), Rule: clearance.OneLeaf,
		Feel: clearance.DefaultFeel}.Judge(nil)
	assert.NotNil(t, none.TryNext, "without such a leaf the one that settles most")
	made := clearance.Yardstick{Limits: window(220, 280), Owned: set(150, 100), Rule: clearance.OneLeaf,
		Feel: clearance.DefaultFeel}.Judge(nil)
	assert.Equal(t, "0.15 + 0.10", made.TryNext.String(), "or a stack that makes it")
}

// A graded drag moves the estimate by half of the feel within the leaf's band, and the band is as it was.
func TestGradedDrag(t *testing.T) {
	y := clearance.Yardstick{Limits: window(200, 240), Owned: set(220), Feel: clearance.DefaultFeel}
	plain := y.Judge(felt(220, clearance.Drag))
	for feel, want := range map[clearance.Feel]measure.Length{clearance.DragLight: 222_500,
		clearance.DragFirm: 217_500} {
		j := y.Judge(felt(220, feel))
		assert.Equal(t, want, *j.Estimate, feel)
		assert.Equal(t, plain.Low, j.Low, feel)
		assert.Equal(t, *plain.High, *j.High, feel)
		assert.Equal(t, clearance.In, j.Verdict, feel)
	}
	both := y.Judge(felt(220, clearance.Drag, 220, clearance.DragFirm))
	assert.Empty(t, both.Conflict, "two drags of one leaf do not contradict each other")
	assert.NotEmpty(t, y.Judge(felt(220, clearance.Free, 220, clearance.DragFirm)).Conflict)
}
