package gear_test

import (
	"math"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/gear"
)

// Every kind says all that is asked of it: what it is called, what is done to it, what it is set with and
// how, and what it looks like; a kind with a screw has its gain and its way, one without has neither.
func TestEveryKindSaysAllThatIsAskedOfIt(t *testing.T) {
	require.Len(t, gear.Kinds(), len(gear.All()))
	titles := map[string]bool{}
	for i, g := range gear.All() {
		kind := gear.Kinds()[i]
		of, ok := gear.Of(kind)
		require.True(t, ok)
		assert.Equal(t, g.Title, of.Title)
		assert.Equal(t, kind, g.Kind)
		assert.Regexp(t, regexp.MustCompile(`^[a-z]+(_[a-z]+)*$`), string(kind))
		assert.NotEmpty(t, g.Title, kind)
		assert.False(t, titles[g.Title], g.Title)
		titles[g.Title] = true
		gain, err := gear.Gain(kind, 1.5)
		if g.Means == gear.Turned {
			require.NoError(t, err, kind)
			assert.Positive(t, gain, kind)
			assert.Contains(t, []gear.Way{gear.In, gear.Out}, g.Closes, kind)
			assert.NotEmpty(t, g.Words.In, kind)
			assert.NotEmpty(t, g.Words.Out, kind)
		} else {
			assert.ErrorIs(t, err, gear.ErrNoScrew, kind)
			assert.Empty(t, g.Closes, kind)
			assert.Equal(t, gear.NoRatio, g.Ratio, kind)
		}
		assert.Equal(t, g.Means == gear.Never, g.NotSet != "", kind)
		assert.Equal(t, g.Means != gear.Never, len(g.Tools) > 0, kind)
		assert.Equal(t, g.Means == gear.Turned || g.Means == gear.Felt, g.LockNut(), kind)
		if g.LockNut() {
			assert.NotEmpty(t, g.Words.Part, kind)
			assert.Equal(t, 1, strings.Count(g.Words.Turn, "{leaf}"), kind)
			assert.NotEmpty(t, g.Words.Tools, kind)
			assert.NotEmpty(t, g.Words.Lock, kind)
		}
		if g.Means != gear.Never {
			assert.Contains(t, gear.Trains(), g.Picture.Train, kind)
			assert.Contains(t, gear.Setters(), g.Picture.Setter, kind)
			assert.NotEmpty(t, g.Picture.Between, kind)
		}
	}
}

func TestAKindThatIsNotKnownIsAnErrorAndNeverAFigure(t *testing.T) {
	for _, kind := range []gear.Kind{"screw_cam_end", ""} {
		_, err := gear.Gain(kind, 1.5)
		assert.ErrorIs(t, err, gear.ErrKind)
		g, ok := gear.Of(kind)
		assert.False(t, ok)
		assert.Zero(t, g.Means)
		assert.False(t, g.LockNut())
	}
}

// A rocker's ratio is above 0, a finger's above 1: at 1 its cam stands over the valve, where the pivot
// changes nothing.
func TestRatiosThatAreNotPossible(t *testing.T) {
	for _, g := range gear.All() {
		_, none := gear.Gain(g.Kind, 0)
		_, minus := gear.Gain(g.Kind, -1.5)
		_, unknown := gear.Gain(g.Kind, math.NaN())
		_, one := gear.Gain(g.Kind, 1)
		above, err := gear.Gain(g.Kind, math.Nextafter(1, 2))
		switch {
		case g.Ratio == gear.FingerRatio:
			assert.ErrorIs(t, one, gear.ErrRatio, g.Kind)
			require.NoError(t, err)
			assert.Positive(t, above)
			fallthrough
		case g.Ratio == gear.RockerRatio:
			for _, err := range []error{none, minus, unknown} {
				assert.ErrorIs(t, err, gear.ErrRatio, g.Kind)
			}
		case g.Means == gear.Turned:
			for _, err := range []error{none, minus, unknown, one} {
				assert.NoError(t, err, "%s needs no ratio", g.Kind)
			}
		}
		if g.Ratio == gear.RockerRatio {
			assert.NoError(t, one, g.Kind)
		}
	}
}

// A list that is handed out is the caller's own.
func TestTheTableCannotBeChanged(t *testing.T) {
	gear.All()[0].Title = "changed"
	assert.Equal(t, gear.Assumed().Title, gear.All()[0].Title)
}

func TestWhatIsDoneUntilTheLeafDrags(t *testing.T) {
	assert.Equal(
		t,
		"Slacken the lock nut, turn the screw until 0.30 drags.",
		gear.Assumed().Words.Until("0.30"),
	)
}
