package job_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/around"
	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/job"
	"metronix/core/job/jobtest"
)

// The first job on an engine teaches its strip list: what comes off is tapped, and comes back on in the
// reverse, after what the sheet lists (common practice).
func TestAStripListIsLearnedWhileItIsOpened(t *testing.T) {
	d := guided(t, engine.Closing{})
	off := func(step, text string) job.Happening {
		return job.Happening{Act: job.Stripped{Step: step, StripStep: engine.StripStep{Text: text}}}
	}
	d.Do(off("a1", " throttle cable "))
	d.Do(job.Happening{Act: job.Stripped{Step: "a2",
		StripStep: engine.StripStep{Text: "oil separator", Fastener: "two bolts", SocketMM: 8}}})
	d.Refused(off("a1", "dipstick"), "on the list already")
	d.Refused(off("a3", "Throttle Cable"), "on the list already: tick it there")
	d.Refused(off("a3", "coil connectors"), "on the list already")
	d.Refused(off("a3", " "), "Say what came off")
	d.Refused(off("", "dipstick"), "no id")
	assert.Equal(t, []string{"coil connectors", "breather hose, spring clip", "stay, 12 mm", "throttle cable",
		"oil separator, two bolts, 8 mm"}, texts(d.Job, around.OpenUp)[2:7])
	closing := texts(d.Job, around.CloseUp)
	assert.Subset(t, closing, []string{"Back on: oil separator, two bolts, 8 mm", "Back on: throttle cable"})
	for _, s := range d.Job.Around().Tasks() {
		if s.Text == "throttle cable" {
			assert.True(t, s.Mark.Marked, "it is off already")
		}
	}
	// taken back, the one before keeps its tick and its place
	d.Do(job.Happening{Act: job.Undone{Target: d.Job.CanUndo()}})
	assert.NotContains(t, texts(d.Job, around.OpenUp), "oil separator, two bolts, 8 mm")
	assert.Contains(t, texts(d.Job, around.CloseUp), "Back on: throttle cable")
}

// Every lock nut is felt once more, untouched ones too, one by one or all at once.
func TestLockNutsAreFeltOneByOne(t *testing.T) {
	d := guided(t, engine.Closing{})
	nuts := func() bool {
		for _, s := range d.Job.Around().Tasks() {
			if s.ID == "nuts" {
				return s.Mark.Marked
			}
		}
		return false
	}
	for i, v := range d.Job.Valves {
		assert.False(t, nuts())
		d.Do(job.Happening{Act: job.NutFelt{Valve: v.Name}})
		assert.Len(t, d.Job.Around().Felt(), i+1)
	}
	assert.True(t, nuts())
	d.Do(job.Happening{Act: job.NutFelt{Valve: "E1", Back: true}})
	assert.False(t, nuts())
	tick(d, 0, "nuts") // the rest at one go
	d.Do(job.Happening{Act: job.NutFelt{Valve: "E1"}})
	assert.True(t, nuts())
	d.Refused(job.Happening{Act: job.NutFelt{Valve: "E9"}}, "no valve of this engine")

	// a nut that is slackened afterwards waits again
	here := d.Job.Valves[slices.IndexFunc(d.Job.Valves, d.Job.Settable)].Name
	d.Do(job.Happening{Act: job.Adjusted{Valve: here, Reason: "to the aim"}})
	assert.False(t, nuts())
	assert.NotContains(t, d.Job.Around().Felt(), here)

	s := jobtest.Setup()
	sheet := *s.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	s.Sheet = &sheet
	jobtest.Start(t, s).Refused(job.Happening{Act: job.NutFelt{Valve: "E1"}}, "no lock nut")
}

// A vehicle that stands open says what it waits for until somebody goes on with it.
func TestAnOpenVehicleWaits(t *testing.T) {
	d := guided(t, engine.Closing{})
	d.Refused(job.Happening{Act: job.Waiting{Deferral: job.Deferral{Waits: "luck"}}}, "nothing to wait for")
	d.Refused(job.Happening{Act: job.Waiting{Deferral: job.Deferral{Waits: job.WaitsForDate}}},
		"Say until when")
	parts := job.Waiting{Deferral: job.Deferral{Waits: job.WaitsForParts, Until: " cover gasket "}}
	d.Do(job.Happening{Act: parts})
	assert.Equal(t, "parts, cover gasket", d.Job.Waits.Waiting())
	d.Do(
		job.Happening{Act: job.FindingNoted{Finding: around.Finding{ID: "f", Place: "cover", What: "split"}}},
	)
	assert.Equal(t, "parts, cover gasket", d.Job.Waits.Waiting(), "a note is no work")
	tick(d, 0, "faces")
	assert.Empty(t, d.Job.Waits.Waiting())
	d.Do(job.Happening{Act: parts})
	d.Do(job.Happening{Act: job.Waiting{}})
	assert.Empty(t, d.Job.Waits.Waiting())
	d.Do(job.Happening{Act: parts})
	d.Do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true, Exceptions: "as it is"}})
	assert.Empty(t, d.Job.Waits.Waiting(), "what is signed waits for nothing")
}

// Who goes on finds everything where it was, and what locking teaches is put down to the hands that lock.
func TestAJobIsHandedOver(t *testing.T) {
	d := guided(t, engine.Closing{})
	assert.Empty(t, d.Job.Hand(), "whoever began it")
	d.Refused(job.Happening{Act: job.HandedOver{To: " "}}, "Say who")
	crank := d.Job.Crank.At
	d.Do(job.Happening{At: at(1), Act: job.HandedOver{To: " June ", Note: "E2 was tight"}})
	assert.Equal(t, []job.Hand{{Name: "June", Note: "E2 was tight", From: at(1)}}, d.Job.Hands)
	d.Refused(job.Happening{Act: job.HandedOver{To: "june"}}, "is at it already")
	assert.True(t, d.Job.Known())
	assert.Equal(t, crank, d.Job.Crank.At)
	d.Do(job.Happening{At: at(2), Act: job.HandedOver{To: "Tess"}})
	assert.Equal(t, "Tess", d.Job.Hand())
}

// Variable lift has its gear checked before the look round, where the sheet says how.
func TestVariableLiftIsCheckedBeforeAnyValve(t *testing.T) {
	s := jobtest.Setup()
	sheet := *s.Sheet
	sheet.VariableLift = "each pin slides freely"
	s.Sheet = &sheet
	opening := texts(jobtest.Start(t, s).Job, around.OpenUp)
	assert.Equal(t, "Check the variable lift gear: each pin slides freely", opening[len(opening)-3])
}
