package store

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/clearance"
	"metronix/core/job"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/sequence"
	"metronix/core/wear"
)

// What is kept as codes comes back as it was, whatever somebody wrote.
func TestCodesComeBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		word := rapid.StringMatching(`[a-z_]{0,8}`)
		said := rapid.String()
		some := rapid.IntRange(0, 9)
		var left []wear.LeftOut
		for range some.Draw(t, "left") % 3 {
			left = append(
				left,
				wear.LeftOut{
					Valve: rapid.StringMatching(`[IE][1-9][0-9]?[a-e]?`).Draw(t, "valve"),
					Side:  wear.Tight,
				},
			)
		}
		brief := job.Brief{Action: job.Action(word.Draw(t, "action")), Valve: word.Draw(t, "at"),
			Turning: job.Turning(word.Draw(t, "turning")), By: measure.Angle(rapid.Int64().Draw(t, "by")),
			Turns: some.Draw(
				t,
				"turns",
			), Shims: rapid.Bool().Draw(t, "shims"), SignedBy: said.Draw(t, "by whom"),
			Outcome: job.Outcome{
				Deferred:   job.Deferral{Waits: job.WaitsForParts, Until: said.Draw(t, "until")},
				NothingSet: rapid.Bool().Draw(t, "nothing"),
				Left:       left,
			}}
		for range some.Draw(t, "seen") % 3 {
			brief.Until = append(brief.Until, sequence.Sighting{What: sequence.What(word.Draw(t, "what")),
				Cylinder: some.Draw(t, "cylinder"), Row: some.Draw(t, "row"), Valve: word.Draw(t, "seen at"),
				Mark: measure.Angle(rapid.Int64().Draw(t, "mark")), Sign: said.Draw(t, "sign")})
		}
		back, err := briefOf(codesOfBrief(brief))
		require.NoError(t, err)
		require.Equal(t, brief, back)
		cause := wear.Cause{
			Kind:  wear.CauseKind(word.Draw(t, "kind")),
			Valve: word.Draw(t, "v"),
			Side:  wear.Loose,
			By:    measure.HourMeter,
			Run: rapid.Float64Range(0, 1e7).
				Draw(t, "km"),
			Months: some.Draw(t, "months"),
			Weeks:  some.Draw(t, "weeks"),
			What:   said.Draw(t, "what it is"),
			Left:   left,
		}
		again, err := causeOf(codesOfCause(cause))
		require.NoError(t, err)
		require.Equal(t, cause, again)
	})
	dots := []record.Dot{
		{Valve: "E1", Verdict: clearance.In},
		{Valve: "I1"},
		{Valve: "E12b", Verdict: clearance.Tight},
	}
	assert.Equal(t, dots, dotsOf(codesOfDots(dots)))
	assert.Empty(t, codesOfOutcome(job.Outcome{}))
	for _, text := range []string{"until=rocking", "until=rocking.x.0..0.", "until=mark.0.0..x.", "%zz", "outcome=%25zz"} {
		_, err := briefOf(text)
		assert.Error(t, err, text)
	}
}
