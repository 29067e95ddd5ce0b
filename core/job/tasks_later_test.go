package job_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/around"
	"metronix/core/engine"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/record"
)

// Steps in which no harm lies are ticked in one, each kept as ticked so; those in which it does have a tick
// of their own: nuts, tools, crank, sealant, and the cover where a cure begins with it (common practice).
func TestStepsAreTickedAsAGroup(t *testing.T) {
	group := func(d *jobtest.Driver, id string) (ids []string) {
		for _, s := range d.Job.Around().Together(id) {
			ids = append(ids, s.ID)
		}
		return ids
	}
	d := guided(t, engine.Closing{SealantPoints: []string{"front cap joints"}})
	for _, id := range []string{"taken_in", "safe", "plugs", "tools_out", around.NutsStep, around.ToolsStep,
		around.CrankStep, around.SealantStep, around.CoverStep, around.StartStep} {
		assert.Nil(t, group(d, id), id)
		d.Refused(job.Happening{Act: job.TaskMarked{Task: id, With: []string{"clean"}}}, "tick it by itself")
		d.Refused(job.Happening{Act: job.TaskMarked{Task: "clean", With: []string{id}}}, "tick it by itself")
	}
	assert.Equal(t, []string{"clean", "strip_1", "strip_2", "strip_3"}, group(d, "strip_2"))
	assert.Equal(t, []string{"bolts_1", "bolts_2"}, group(d, "bolts_2"))
	plain := guided(t, engine.Closing{})
	assert.Equal(t, []string{around.CoverStep, "bolts_1", "bolts_2"}, group(plain, around.CoverStep),
		"where nothing cures")

	d.Do(job.Happening{Act: job.TaskMarked{Task: "strip_2"}})
	assert.Equal(t, []string{"clean", "strip_1", "strip_3"}, group(d, "clean"), "what waits")
	d.Refused(
		job.Happening{Act: job.TaskMarked{Task: "clean", With: []string{"strip_2"}}},
		"tick it by itself",
	)
	d.Refused(
		job.Happening{Act: job.TaskMarked{Task: "clean", With: []string{"strip_1", "strip_1"}}},
		"itself",
	)
	d.Refused(job.Happening{Act: job.TaskMarked{Task: "clean", With: []string{"strip_1"}, Skip: true,
		Reason: "clean"}}, "one by one")
	d.Do(job.Happening{Act: job.TaskMarked{Task: "clean", With: []string{"strip_1", "strip_3"}}})
	for _, id := range []string{"clean", "strip_1", "strip_3"} {
		assert.True(t, d.Job.Marked(id).Grouped, id)
	}
	assert.False(t, d.Job.Marked("strip_2").Grouped)
	d.Do(job.Happening{Act: job.TaskMarked{Task: "strip_1", Back: true}})
	assert.True(t, d.Job.Marked("clean").Marked, "each waits again by itself")
	assert.Nil(t, group(d, "strip_1"), "one is no group")
}

// What comes once the sealant has cured is added to a signed job by whoever is there: the start, how it
// sounds, the road test. What was signed stays as it is, with the steps that were left then; and the crank
// and the warmth of the job are of no concern any more.
func TestWhatComesAfterTheSignature(t *testing.T) {
	d := guided(t, engine.Closing{SealantPoints: []string{"front cap joints"}})
	half(d, around.OpenUp)
	for _, s := range d.Job.Around().Tasks() {
		if s.Part != around.StartUp && !s.Mark.Marked {
			d.Do(job.Happening{At: at(1), Act: job.TaskMarked{Task: s.ID}})
		}
	}
	d.Do(job.Happening{At: at(2), Act: job.Signed{By: "Tess", ToolsOut: true, Exceptions: "it cures"}})
	left := d.Job.StepsLeft
	require.Len(t, left, 3)
	warmth, crank := record.Of(d.Job).Warmth(), d.Job.Crank
	sheet := func() record.Report { return record.Of(d.Job).Report(record.Record{}) }
	assert.True(t, slices.ContainsFunc(sheet().Facts, func(f record.Fact) bool {
		return f.Label == "Do not start before"
	}))
	signed := sheet().Rows
	d.Refused(job.Happening{At: at(3), Act: job.TaskMarked{Task: around.StartStep}}, "cures for")
	d.Refused(job.Happening{At: at(3), Act: job.TaskMarked{Task: around.CoverStep, Back: true}}, "is signed")
	d.Refused(job.Happening{At: at(3), Act: job.SoundNoted{Heard: around.Heard{Note: "before"}}}, "is signed")
	d.Do(job.Happening{At: at(240), Act: job.TaskMarked{Task: around.StartStep}})
	d.Do(job.Happening{At: at(241), Act: job.SoundNoted{After: true, Heard: around.Heard{Note: "even"}}})
	d.Do(job.Happening{At: at(250), Act: job.TaskMarked{Task: "road", Skip: true, Reason: "no plates"}})
	d.Do(job.Happening{At: at(251), Act: job.TaskMarked{Task: "road", Back: true}})
	d.Do(job.Happening{At: at(252), Act: job.TaskMarked{Task: "road"}})
	assert.Equal(t, left, d.Job.StepsLeft)
	assert.Empty(t, d.Job.SoundAfter.Note, "what was signed is silent of it")
	assert.Equal(t, warmth, record.Of(d.Job).Warmth())
	assert.Equal(t, crank, d.Job.Crank)
	assert.Equal(t, signed, sheet().Rows)
	lists := map[string][]string{}
	for _, l := range sheet().Lists {
		for _, i := range l.Items {
			lists[l.Title] = append(lists[l.Title], i.Text)
		}
	}
	assert.Len(t, lists["Added after signing"], 3)
	assert.Contains(t, lists["Added after signing"][0], "Start it and listen")
	assert.Equal(t, "How it sounds: even", lists["Added after signing"][2])
	assert.Contains(t, lists["Exceptions"][0], "Road test", "as it was when it was signed")
}

// An engine that is turned otherwise than by its tool has the cautions of that, and is left as it undoes it
// (common practice).
func TestTurnedByOtherMeans(t *testing.T) {
	d := guided(t, engine.Closing{})
	assert.Empty(t, d.Job.Turning.Caution())
	d.Refused(job.Happening{Act: job.TurningBy{Means: "kick"}}, "no way to turn an engine")
	for means, undone := range map[around.Means]string{around.ByWheel: "Out of gear, wheel down, chocks back",
		around.ByFan: "Hands and rags out of fan and belt", around.ByPush: "Out of gear, brake on, wheels chocked",
		around.ByPulley: "Take the spanner off the pulley"} {
		d.Do(job.Happening{Act: job.TurningBy{Means: means}})
		assert.Contains(t, texts(d.Job, around.CloseUp), undone)
		assert.NotEmpty(t, d.Job.Turning.Caution())
		assert.True(t, d.Job.Around().Tools()[0].OnCrank)
	}
	d.Do(job.Happening{Act: job.TurningBy{}})
	assert.Contains(
		t,
		texts(d.Job, around.CloseUp),
		"Take the 22 mm socket (7/8 in) from the crank pulley bolt off",
	)
}
