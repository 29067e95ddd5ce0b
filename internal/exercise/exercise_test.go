package exercise_test

import (
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/practice"
	"metronix/internal/exercise"
)

// Those that come with the program read, begin, and are six, from guided to alone; none leaves a gap that no
// leaf reads, whatever its seed.
func TestOurs(t *testing.T) {
	ids, by, err := exercise.Ours()
	require.NoError(t, err)
	require.Len(t, ids, 6)
	aids := map[string]int{}
	for _, id := range ids {
		x := by[id]
		aids[x.Aid]++
		assert.NotEmpty(t, x.Says)
		for seed := range uint64(50) {
			set, err := x.Practised(seed, time.Time{})
			require.NoError(t, err)
			_, err = practice.Begin(set)
			require.NoError(t, err, "%s, seed %d", id, seed)
		}
		assert.Equal(t, x.SeedOf(), x.SeedOf(), "it has a seed of its own")
	}
	assert.Equal(t, map[string]int{"guided": 2, "watched": 2, "examination": 2}, aids)
}

// What is wrong with a file is told with its place; a newer format is told as such.
func TestExercisesThatAreRefused(t *testing.T) {
	data, err := os.ReadFile("ours/2-four-some-right.exercise.json")
	require.NoError(t, err)
	for _, c := range []struct{ was, is, place, says string }{
		{`metronix.exercise/1`, `metronix.exercise/2`, "format", "Take the program that wrote it"},
		{`metronix.exercise/1`, `exercise`, "format", ""},
		{`"valve": "E3"`, `"valve": "E9"`, "gaps[4]", "no valve E9"},
		{`"gap_mm": 0.19`, `"gap_mm": 0.001`, "gaps[4]", "no leaf of this set can read"},
		{`"aid": "guided"`, `"aid": "alone"`, "aid", ""},
		{`"seed": 12`, `"seed": 12, "shoe": 1`, "shoe", ""},
		{`"seed": 12`, `"card": 7`, "card", "no such clearance card"},
		{`"seed": 12`, `"leaves_mm": [0.5, 0.51]`, "gaps[0]", "no leaf of this set can read"},
		{`"seed": 12`, `"wear": [{"kind": "even", "valve": "E1"}]`, "wear[0]", "Even wear is of all"},
		{`"cylinders": 4`, `"cylinders": 5`, "sheet", ""},
	} {
		text := strings.Replace(string(data), c.was, c.is, 1)
		require.NotEqual(t, string(data), text, c.was)
		_, faults := exercise.Read([]byte(text))
		require.NotEmpty(t, faults, c.is)
		assert.True(t, strings.HasPrefix(faults[0].Location, c.place), "%s: %s", c.is, faults[0].Location)
		assert.Contains(t, faults[0].Message, c.says)
	}
	_, faults := exercise.Read([]byte(`nothing`))
	assert.NotEmpty(t, faults)
	x, faults := exercise.Read(data)
	require.Empty(t, faults)
	set, err := x.Practised(1, time.Time{})
	require.NoError(t, err)
	run, err := practice.Begin(set)
	require.NoError(t, err)
	assert.Len(t, run.Score().Valves, 8)
}
