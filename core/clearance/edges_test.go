package clearance

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/gauge"
	"metronix/core/measure"
)

func leavesOf(thicknesses ...int) (set gauge.Set) {
	for _, t := range thicknesses {
		set = append(set, gauge.Leaf{ID: gauge.ID{Marked: measure.Length(t) * um}})
	}
	return set
}

// A leaf that is just a limit's thickness is the nearest on its side.
func TestTheNearestLeafBeyondALimitMayBeAtIt(t *testing.T) {
	w := measure.Window{Lower: 200 * um, Upper: 300 * um}
	got := beyond(leavesOf(100, 200, 250, 300, 400).Singles(), w)
	require.Len(t, got, 2)
	assert.Equal(t, 200*um, got[0].Thickness())
	assert.Equal(t, 300*um, got[1].Thickness())
	assert.Empty(t, beyond(nil, w), "where none is owned")
	only := beyond(leavesOf(50).Singles(), w)
	require.Len(t, only, 1)
	assert.Equal(t, 50*um, only[0].Thickness(), "the thickest, where all are thinner")
}

// No stacks are looked for where single leaves are as many as are weighed.
func TestNoStackIsWeighedWhereThereAreLeavesEnough(t *testing.T) {
	owned := leavesOf(50, 60, 200)
	near := measure.Window{Lower: 100 * um, Upper: 400 * um}
	byThickness := func(a, b gauge.Stack) int { return int(a.Thickness() - b.Thickness()) }
	assert.Empty(t, nearestStacks(near, owned, owned.Singles(), 0, byThickness))
	assert.Len(t, nearestStacks(near, owned, owned.Singles(), 1, byThickness), 1)
}

// A gap within what readings leave drags a leaf within the feel, its ends among them; free and "will not go"
// want more.
func TestWhatMayStillBeFelt(t *testing.T) {
	const feel = 10 * um
	drag := []Reading{{Stack: leavesOf(300).Singles()[0], Feel: Drag}}
	iv, _ := narrow(drag, feel)
	low, high := iv.low, *iv.high
	at := func(thickness measure.Length) gauge.Stack {
		return gauge.Stack{{ID: gauge.ID{Marked: thickness}}}
	}
	assert.False(t, mayBeFelt(drag, at(high-feel), Free, feel), "the widest gap just drags it")
	assert.True(t, mayBeFelt(drag, at(high-feel-1), Free, feel))
	assert.False(t, mayBeFelt(drag, at(low+feel), WontGo, feel), "the narrowest gap just lets it drag")
	assert.True(t, mayBeFelt(drag, at(low+feel+1), WontGo, feel))
	assert.True(t, mayBeFelt(drag, at(high+feel), Drag, feel), "the thickest that can drag")
	assert.False(t, mayBeFelt(drag, at(high+feel+1), Drag, feel))
	assert.True(t, mayBeFelt(drag, at(low-feel), Drag, feel), "the thinnest that can drag")
	assert.False(t, mayBeFelt(drag, at(low-feel-1), Drag, feel))
}

// A stack has to settle one feel more than a leaf to be promised as much.
func TestAStackPromisesLessThanALeaf(t *testing.T) {
	y := Yardstick{
		Limits: FromWindow(measure.Window{Lower: 240 * um, Upper: 310 * um}),
		Rule:   Workshop,
		Feel:   10 * um,
	}
	leaf, ok := y.promise(nil, leavesOf(270).Singles()[0])
	require.True(t, ok)
	stack, ok := y.promise(nil, gauge.Stack{leavesOf(200)[0], leavesOf(70)[0]})
	require.True(t, ok)
	assert.InDelta(t, perLeaf, leaf-stack, 1e-9)
}

// A thickness that was felt as a stack laid by hand is known, and the leaf of that thickness tells nothing
// more.
func TestALeafOfAThicknessThatWasFeltIsNotTried(t *testing.T) {
	for name, owned := range map[string]gauge.Set{"free": leavesOf(50, 200, 250, 400), "will not go": leavesOf(50, 200, 250)} {
		for _, feel := range []Feel{Free, WontGo} {
			y := workshop(FromWindow(measure.Window{Lower: 240 * um, Upper: 260 * um}), owned)
			next := y.nextLeaf([]Reading{{Stack: gauge.Stack{owned[0], owned[1]}, Feel: feel}})
			if next != nil {
				assert.NotEqual(t, 250*um, next.Thickness(), name)
			}
		}
	}
}

// Two figures of one clearance may differ by half a thou, no more; a lower limit may be none.
func TestPairsAndEndsAtTheirEdges(t *testing.T) {
	inch := 8 * measure.Thou
	for off, slips := range map[measure.Length]int{PairSlack: 0, -PairSlack: 0, PairSlack + 1: 1, -PairSlack - 1: 1} {
		mm, thou := inch+off, inch
		_, faults := Clearance{Nominal: Figure{Metric: &mm, Imperial: &thou}}.Limits()
		assert.Len(t, faults, slips, off)
	}
	none, upper := measure.Length(0), 300*um
	limits, faults := Clearance{Lower: Figure{Metric: &none}, Upper: Figure{Metric: &upper}}.Limits()
	assert.Empty(t, faults)
	assert.Equal(t, measure.Window{Upper: upper}, limits.Window)
}
