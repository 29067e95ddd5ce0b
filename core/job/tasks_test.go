package job_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/around"
	"metronix/core/bench"
	"metronix/core/clearance"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/sequence"
)

// guided is a job on an engine whose sheet says how it is opened and closed, read and done but for signing.
func guided(t *testing.T, closing engine.Closing) *jobtest.Driver {
	s := jobtest.Setup()
	sheet := *s.Sheet
	sheet.TurningPoint = &engine.TurningPoint{Where: "crank pulley bolt", SocketMM: 22}
	sheet.StripList = []engine.StripStep{{Text: "coil connectors", Note: "the clips break"},
		{Text: "breather hose", Fastener: "spring clip"}, {Text: "stay", SocketMM: 12}}
	sheet.Closing = &closing
	s.Sheet = &sheet
	d := jobtest.Start(t, s)
	d.Do(job.Happening{At: at(0), Act: job.WayChosen{Way: sequence.Way{School: sequence.RockingPairs},
		Round: job.Round{Going: job.SetAsYouGo}}})
	d.Do(job.Happening{At: at(0), Act: job.Prepared{EngineC: 19, AmbientC: 18}})
	d.Work(jobtest.Nominal)
	require.Equal(t, job.Sign, d.Job.Phase())
	return d
}

func texts(j *job.Job, part around.Part) (list []string) {
	for _, s := range j.Around().Tasks() {
		if s.Part == part {
			list = append(list, s.Text)
		}
	}
	return list
}

func tick(d *jobtest.Driver, minute float64, tasks ...string) {
	for _, id := range tasks {
		d.Do(job.Happening{At: at(minute), Act: job.TaskMarked{Task: id}})
	}
}

// What is taken off in order is put back in the reverse (common practice), and only what applies is asked.
func TestTasksFitTheEngine(t *testing.T) {
	d := guided(t, engine.Closing{Pattern: engine.Crosswise, Rounds: 3, Torque: engine.Torque{Nm: 9.8},
		SealantPoints: []string{"front cap joints"}, Gasket: engine.StuckFirst})
	closing := texts(d.Job, around.CloseUp)
	back := slices.IndexFunc(closing, func(s string) bool { return s == "Back on: stay, 12 mm" })
	require.Positive(t, back)
	assert.Equal(t, []string{"Back on: stay, 12 mm", "Back on: breather hose, spring clip",
		"Back on: coil connectors"},
		closing[back:back+3])
	assert.Contains(t, closing, "Feel all 8 lock nuts once more, untouched ones too")
	assert.Contains(t, closing, "Take the 22 mm socket (7/8 in) from the crank pulley bolt off")
	assert.Contains(t, closing, "Sealant only at: front cap joints")
	assert.Contains(t, closing, "Gasket stuck to the cover on a flat surface first")
	assert.Contains(t, closing, "Cover bolts, round 3 of 3, crosswise, to 9.8 N·m (7.23 lbf·ft)",
		"9.8 / 1.3558179 = 7.228 (exact foot and pound of 1959)")
	run := "Run it to operating temperature with the cover on, and stop it"
	assert.NotContains(t, texts(d.Job, around.OpenUp), run)
	hot := texts(hotJob(t).Job, around.OpenUp)
	assert.Contains(t, hot, run)
	assert.Less(t, slices.Index(hot, "Lay out and count the tools and leaves"), slices.Index(hot, run),
		"what can be done before the ten minutes begin is")

	plain := guided(t, engine.Closing{})
	assert.NotContains(t, texts(plain.Job, around.CloseUp), "Sealant only at: ")
	assert.Contains(t, texts(plain.Job, around.CloseUp), "Gasket set dry")
	assert.Contains(
		t,
		texts(plain.Job, around.CloseUp),
		"Cover bolts, round 2 of 2, from the middle outwards",
	)
}

// half ticks the first half of the steps of a part: it is gone through, and the rest is asked for.
func half(d *jobtest.Driver, part around.Part) {
	steps := slices.DeleteFunc(d.Job.Around().Tasks(), func(s around.Task) bool { return s.Part != part })
	for _, s := range steps[:(len(steps)+1)/2] {
		d.Do(job.Happening{Act: job.TaskMarked{Task: s.ID}})
	}
}

// A job in which nothing around the bench is ticked is signed as ever, and a complaint or a step used singly
// binds to nothing; once a part is gone through, the rest of it is asked for by name, or left with a reason.
func TestSigningNamesWhatIsMissing(t *testing.T) {
	sign := job.Signed{By: "Tess", ToolsOut: true}
	d := guided(t, engine.Closing{})
	d.Do(job.Happening{Act: sign})

	d = guided(t, engine.Closing{})
	d.Refused(job.Happening{Act: job.TaskMarked{Task: "polish"}}, "is no step")
	d.Refused(job.Happening{Act: job.TaskMarked{Task: "faces", Skip: true}}, "Say why it is passed over")
	d.Refused(job.Happening{Act: job.TaskMarked{Task: "faces", Back: true}}, "waits already")
	d.Do(job.Happening{Act: job.TakenIn{Complaints: []around.Complaint{around.Ticks}, Note: " when warm "}})
	assert.Equal(t, "when warm", d.Job.TakenIn.Note)
	assert.Empty(t, d.Job.SoundBefore.Note)
	d.Do(job.Happening{Act: job.TakenIn{Sound: " a tick at idle "}})
	assert.Equal(t, "a tick at idle", d.Job.SoundBefore.Note, "it need not be said twice")
	d.Do(job.Happening{Act: job.TakenIn{Complaints: []around.Complaint{around.Ticks}, Note: "when warm"}})
	assert.Equal(t, "a tick at idle", d.Job.SoundBefore.Note, "nothing said is not silence")
	assert.Empty(t, d.Job.Around().Missing(), "what it came in for is no list to be gone through")
	d.Do(job.Happening{Act: job.TaskMarked{Task: "faces"}})
	assert.Empty(t, d.Job.Around().Missing(), "nor is a single step")
	half(d, around.OpenUp)
	d.Refused(job.Happening{Act: sign}, "Not done yet: ")
	for _, s := range d.Job.Around().Missing() {
		d.Do(job.Happening{Act: job.TaskMarked{Task: s.ID, Skip: s.ID == "road",
			Reason: map[bool]string{true: "no plates"}[s.ID == "road"]}})
	}
	assert.Empty(t, d.Job.Around().Missing())
	d.Do(job.Happening{Act: sign})
	assert.Empty(t, d.Job.Exceptions)

	d = guided(t, engine.Closing{})
	half(d, around.OpenUp)
	sign.Exceptions = "car goes on to the body shop"
	d.Do(job.Happening{Act: sign})
	assert.Equal(t, sign.Exceptions, d.Job.Exceptions)
	assert.NotEmpty(t, d.Job.Around().Missing(), "what was left stays known")
}

// Sealant stands open five minutes and cures three hours where nothing is said (common practice); by the
// sheet's figures where it does.
func TestSealantHasItsTimes(t *testing.T) {
	d := guided(t, engine.Closing{SealantPoints: []string{"cap joints"}, OpenMinutes: 10, CureMinutes: 60})
	tick(d, 0, "tools_back", "crank_free", "sealant")
	by, ok := d.Job.Around().CoverBy()
	require.True(t, ok)
	assert.Equal(t, at(10), by)
	d.Refused(job.Happening{At: at(10.5), Act: job.TaskMarked{Task: "cover_on"}},
		"stood open for 10 min, and 10 min is the most: take it off and put it on afresh")
	afresh := func(minute float64) string {
		for _, s := range d.Job.Around().TasksAt(at(minute)) {
			if s.ID == "sealant" && !s.Mark.Marked {
				return s.Text
			}
		}
		return ""
	}
	assert.Empty(t, afresh(9.5))
	assert.Equal(t, "The sealant stood open too long: take it off and put it on afresh at: cap joints",
		afresh(10.5))
	tick(d, 13, "sealant") // the step back, taken
	assert.Empty(t, afresh(14))
	tick(d, 22, "cover_on")
	_, open := d.Job.Around().CoverBy()
	assert.False(t, open)
	from, ok := d.Job.Around().StartFrom()
	require.True(t, ok)
	assert.Equal(t, at(82), from)
	d.Refused(job.Happening{At: at(40), Act: job.TaskMarked{Task: "start"}}, "42 min are left")
	assert.True(t, d.Job.Known())
	d.Do(job.Happening{At: at(83), Act: job.TaskMarked{Task: "start"}})
	assert.False(t, d.Job.Known(), "where it stopped nobody knows")
	assert.Equal(t, job.Sign, d.Job.Phase())
	_, cures := d.Job.Around().StartFrom()
	assert.False(t, cures)

	d = guided(t, engine.Closing{SealantPoints: []string{"cap joints"}})
	tick(d, 0, "crank_free", "sealant", "cover_on")
	from, _ = d.Job.Around().StartFrom()
	assert.Equal(t, at(180), from)
	d.Do(job.Happening{At: at(100), Act: job.TaskMarked{Task: "start", Reason: "its tin says 90 min"}})
}

// What turns the engine is asked back by its name before the starter is touched.
func TestNoToolIsLeftOnTheCrank(t *testing.T) {
	d := guided(t, engine.Closing{})
	d.Refused(job.Happening{Act: job.ToolMoved{Tool: "hammer"}}, "is no tool of this job")
	d.Do(job.Happening{Act: job.ToolMoved{Tool: "turning"}})
	d.Do(job.Happening{Act: job.ToolMoved{Tool: "leaves"}})
	d.Refused(job.Happening{Act: job.TaskMarked{Task: "crank_free"}},
		"Still out: 22 mm socket (7/8 in) and bar for the crank pulley bolt.")
	d.Refused(job.Happening{Act: job.TaskMarked{Task: "start", Reason: "in a hurry"}}, "22 mm socket")
	d.Refused(job.Happening{Act: job.TaskMarked{Task: "tools_back"}}, "Feeler leaves")
	d.Refused(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true}}, "Still out: 22 mm socket")
	d.Do(job.Happening{Act: job.ToolMoved{Tool: "turning", Back: true}})
	tick(d, 0, "crank_free")
	d.Refused(job.Happening{Act: job.TaskMarked{Task: "start"}}, "Not yet: cover on")

	hot := hotJob(t)
	hot.Do(job.Happening{Act: job.ToolMoved{Tool: "turning"}})
	hot.Refused(job.Happening{Act: job.TaskMarked{Task: "hot_run"}}, "Still out:")
}

// 22 mm and 7/8 in, 19 mm and 3/4 in take the same bolt (common practice); half an inch, 12.7 mm, does not go
// over a 13 mm head, and 3/8 is no 10.
func TestSocketsThatFit(t *testing.T) {
	for mm, says := range map[float64]string{22: "22 mm socket (7/8 in)", 19: "19 mm socket (3/4 in)",
		27: "27 mm socket (1-1/16 in)", 13: "13 mm socket", 10: "10 mm socket",
		25.4: "25.4 mm socket (1 in)"} {
		assert.Equal(t, says, around.Socket(mm))
	}
}

func TestToolsByTheKindOfGear(t *testing.T) {
	for kind, tool := range map[gear.Kind]string{gear.Eccentric: "Thin key or hooked rod for the eccentric",
		gear.ThreadedTappet:   "Two thin spanners, cranked where it is tight",
		gear.FingerPivotAtCam: "Open spanner for the pivot",
		gear.CentreNut:        "Deep socket or ring spanner for the stud nut",
		gear.Shim:             "Micrometer", gear.ScrewValveEnd: "Ring spanner for the lock nut"} {
		s := jobtest.Setup()
		sheet := *s.Sheet
		sheet.Adjuster = &engine.Adjuster{Kind: kind, Locknut: engine.Torque{Nm: 14}}
		s.Sheet = &sheet
		var names []string
		for _, tool := range jobtest.Start(t, s).Job.Around().Tools() {
			names = append(names, tool.Text)
		}
		assert.Equal(
			t,
			"first to hand 0.22 (intake), 0.30 (exhaust)",
			bench.FirstLeaves(jobtest.Start(t, s).Job),
		)
		assert.Contains(t, names, tool)
		assert.Contains(t, names, "Torque wrench, 14 N·m (10.3 lbf·ft)", "14 / 1.3558179 = 10.33")
	}
}

// The hot pass opens the engine again: what was closed cold is to be closed again.
func TestTheHotPassIsClosedAgain(t *testing.T) {
	s := jobtest.Setup()
	hot := jobtest.Card(clearance.Hot, 240, 320)
	s.Hot = &hot
	d := jobtest.Start(t, s)
	d.Begin(sequence.RockingPairs)
	d.Work(jobtest.Nominal)
	tick(d, 0, "safe", "faces", "cover_on")
	d.Do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true, Exceptions: "hot pass follows"}})
	d.Do(job.Happening{Act: job.WentHot{}})
	marked := map[string]bool{}
	for _, s := range d.Job.Around().Tasks() {
		marked[s.ID] = s.Mark.Marked
	}
	assert.True(t, marked["safe"])
	assert.False(t, marked["faces"] || marked["cover_on"])
	assert.Contains(t, marked, "hot_run")
}

func TestFindingsComeBack(t *testing.T) {
	d := guided(t, engine.Closing{})
	gasket := around.Finding{ID: "f1", Place: "cover", What: "gasket hard", Test: "bent, it cracks",
		Part: "12-3", Later: true}
	d.Refused(job.Happening{Act: job.FindingNoted{Finding: around.Finding{ID: "f1", Place: "cover"}}},
		"Say what was found")
	d.Refused(job.Happening{Act: job.FindingNoted{Finding: around.Finding{ID: "f1", What: "oil"}}},
		"Say where it is")
	d.Do(job.Happening{Act: job.FindingNoted{Finding: gasket}})
	d.Do(job.Happening{Act: job.FindingNoted{Finding: around.Finding{ID: "f2", Place: "E2",
		What: "spring broken"}}})
	assert.Equal(t, []around.Finding{gasket}, d.Job.Later())
	assert.Equal(t, "cover: gasket hard, bent, it cracks, 12-3 (later)", gasket.String())
	gasket.Later = false
	d.Do(job.Happening{Act: job.FindingNoted{Finding: gasket}})
	assert.Empty(t, d.Job.Later())
	assert.Len(t, d.Job.Findings, 2, "the same one again replaces it")
}

// A signed job is sealed: corrections are added and shown, never overwritten; somebody else countersigns.
func TestASignedJobIsSealed(t *testing.T) {
	d := guided(t, engine.Closing{})
	d.Refused(job.Happening{Act: job.Amended{Text: "E2 was 0.31", By: "Tess"}}, "can still be changed")
	d.Refused(job.Happening{Act: job.Countersigned{By: "June"}}, "after it is signed")
	d.Do(job.Happening{At: at(60), Act: job.Signed{By: "Tess", ToolsOut: true}})
	d.Refused(job.Happening{Act: job.FindingNoted{Finding: around.Finding{ID: "f", Place: "cover",
		What: "oil"}}},
		"What is signed stays as it is")
	d.Refused(job.Happening{Act: job.Amended{By: "Tess"}}, "Say what is to be corrected")
	d.Do(job.Happening{At: at(61), Act: job.Amended{Text: "E2 was 0.31", By: "Tess"}})
	assert.Equal(t, []job.Amendment{{Text: "E2 was 0.31", By: "Tess", At: at(61)}}, d.Job.Amendments)
	d.Refused(job.Happening{Act: job.Countersigned{By: "tess"}}, "Another person")
	d.Do(job.Happening{At: at(62), Act: job.Countersigned{By: "June"}})
	d.Refused(job.Happening{Act: job.Countersigned{By: "Oskar"}}, "countersigned by June already")
	assert.Equal(t, job.Done, d.Job.Phase())
}

func TestComplaintsPointToASide(t *testing.T) {
	assert.Equal(t, "loose", around.Ticks.Side(), "noise goes with loose (common practice)")
	for _, c := range []around.Complaint{around.RoughIdle, around.BackFires, around.Smokes, around.HardStart,
		around.LowCompression} {
		assert.Equal(t, "tight", c.Side(), c)
	}
	assert.Empty(t, around.TicksByNature.Side())
	d := guided(t, engine.Closing{})
	d.Refused(job.Happening{Act: job.TakenIn{Complaints: []around.Complaint{"sings"}}},
		"is no complaint that is known")
}

// Sealant put on afresh takes the cover off with it; another step done again leaves it on.
func TestSealantAfreshTakesTheCoverOff(t *testing.T) {
	d := guided(t, engine.Closing{SealantPoints: []string{"cap joints"}})
	on := func() bool {
		return slices.ContainsFunc(
			d.Job.Around().Tasks(),
			func(s around.Task) bool { return s.ID == "cover_on" && s.Mark.Marked },
		)
	}
	tick(d, 0, "crank_free", "tools_back", "sealant", "cover_on")
	d.Do(job.Happening{At: at(1), Act: job.TaskMarked{Task: "tools_back", Back: true}})
	assert.True(t, on())
	d.Do(job.Happening{At: at(1), Act: job.TaskMarked{Task: "sealant", Back: true}})
	assert.False(t, on())
}
