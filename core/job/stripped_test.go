package job_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"metronix/core/engine"
	"metronix/core/gear"
	"metronix/core/job"
)

// The first job on an engine teaches its strip list: what comes off is tapped, and comes back on in the
// reverse, after what the sheet lists (common practice).
func TestAStripListIsLearnedWhileItIsOpened(t *testing.T) {
	d := guided(t, engine.Closing{})
	off := func(step, text string) job.Happening {
		return job.Happening{Act: job.Stripped{Step: step, StripStep: engine.StripStep{Text: text}}}
	}
	d.do(off("a1", " throttle cable "))
	d.do(job.Happening{Act: job.Stripped{Step: "a2",
		StripStep: engine.StripStep{Text: "oil separator", Fastener: "two bolts", SocketMM: 8}}})
	d.refused(off("a1", "dipstick"), "on the list already")
	d.refused(off("a3", "Throttle Cable"), "on the list already: tick it there")
	d.refused(off("a3", "coil connectors"), "on the list already")
	d.refused(off("a3", " "), "Say what came off")
	d.refused(off("", "dipstick"), "no id")
	assert.Equal(t, []string{"coil connectors", "breather hose, spring clip", "stay, 12 mm", "throttle cable",
		"oil separator, two bolts, 8 mm"}, texts(d.job, job.OpenUp)[2:7])
	closing := texts(d.job, job.CloseUp)
	assert.Subset(t, closing, []string{"Back on: oil separator, two bolts, 8 mm", "Back on: throttle cable"})
	for _, s := range d.job.Tasks() {
		if s.Text == "throttle cable" {
			assert.True(t, s.Mark.Marked, "it is off already")
		}
	}
	// taken back, the one before keeps its tick and its place
	d.do(job.Happening{Act: job.Undone{Target: d.job.CanUndo()}})
	assert.NotContains(t, texts(d.job, job.OpenUp), "oil separator, two bolts, 8 mm")
	assert.Contains(t, texts(d.job, job.CloseUp), "Back on: throttle cable")
}

// Every lock nut is felt once more, untouched ones too, one by one or all at once.
func TestLockNutsAreFeltOneByOne(t *testing.T) {
	d := guided(t, engine.Closing{})
	nuts := func() bool {
		for _, s := range d.job.Tasks() {
			if s.ID == "nuts" {
				return s.Mark.Marked
			}
		}
		return false
	}
	for i, v := range d.job.Valves {
		assert.False(t, nuts())
		d.do(job.Happening{Act: job.NutFelt{Valve: v.Name}})
		assert.Len(t, d.job.Felt(), i+1)
	}
	assert.True(t, nuts())
	d.do(job.Happening{Act: job.NutFelt{Valve: "E1", Back: true}})
	assert.False(t, nuts())
	d.tick(0, "nuts") // the rest at one go
	d.do(job.Happening{Act: job.NutFelt{Valve: "E1"}})
	assert.True(t, nuts())
	d.refused(job.Happening{Act: job.NutFelt{Valve: "E9"}}, "no valve of this engine")

	// a nut that is slackened afterwards waits again
	here := d.job.Valves[slices.IndexFunc(d.job.Valves, d.job.Settable)].Name
	d.do(job.Happening{Act: job.Adjusted{Valve: here, Reason: "to the aim"}})
	assert.False(t, nuts())
	assert.NotContains(t, d.job.Felt(), here)

	s := setup()
	sheet := *s.Sheet
	sheet.Adjuster = &engine.Adjuster{Kind: gear.Shim}
	s.Sheet = &sheet
	start(t, s).refused(job.Happening{Act: job.NutFelt{Valve: "E1"}}, "no lock nut")
}

// A vehicle that stands open says what it waits for until somebody goes on with it.
func TestAnOpenVehicleWaits(t *testing.T) {
	d := guided(t, engine.Closing{})
	d.refused(job.Happening{Act: job.Waiting{Deferral: job.Deferral{Waits: "luck"}}}, "nothing to wait for")
	d.refused(job.Happening{Act: job.Waiting{Deferral: job.Deferral{Waits: job.WaitsForDate}}},
		"Say until when")
	parts := job.Waiting{Deferral: job.Deferral{Waits: job.WaitsForParts, Until: " cover gasket "}}
	d.do(job.Happening{Act: parts})
	assert.Equal(t, "parts, cover gasket", d.job.Waits.Waiting())
	d.do(job.Happening{Act: job.FindingNoted{Finding: job.Finding{ID: "f", Place: "cover", What: "split"}}})
	assert.Equal(t, "parts, cover gasket", d.job.Waits.Waiting(), "a note is no work")
	d.tick(0, "faces")
	assert.Empty(t, d.job.Waits.Waiting())
	d.do(job.Happening{Act: parts})
	d.do(job.Happening{Act: job.Waiting{}})
	assert.Empty(t, d.job.Waits.Waiting())
	d.do(job.Happening{Act: parts})
	d.do(job.Happening{Act: job.Signed{By: "Tess", ToolsOut: true, Exceptions: "as it is"}})
	assert.Empty(t, d.job.Waits.Waiting(), "what is signed waits for nothing")
}

// Who goes on finds everything where it was, and what locking teaches is put down to the hands that lock.
func TestAJobIsHandedOver(t *testing.T) {
	d := guided(t, engine.Closing{})
	assert.Empty(t, d.job.Hand(), "whoever began it")
	d.refused(job.Happening{Act: job.HandedOver{To: " "}}, "Say who")
	crank := d.job.Crank
	d.do(job.Happening{At: at(1), Act: job.HandedOver{To: " June ", Note: "E2 was tight"}})
	assert.Equal(t, []job.Hand{{Name: "June", Note: "E2 was tight", From: at(1)}}, d.job.Hands)
	d.refused(job.Happening{Act: job.HandedOver{To: "june"}}, "is at it already")
	assert.True(t, d.job.Known())
	assert.Equal(t, crank, d.job.Crank)
	d.do(job.Happening{At: at(2), Act: job.HandedOver{To: "Tess"}})
	assert.Equal(t, "Tess", d.job.Hand())
}

// Variable lift has its gear checked before the look round, where the sheet says how.
func TestVariableLiftIsCheckedBeforeAnyValve(t *testing.T) {
	s := setup()
	sheet := *s.Sheet
	sheet.VariableLift = "each pin slides freely"
	s.Sheet = &sheet
	opening := texts(start(t, s).job, job.OpenUp)
	assert.Equal(t, "Check the variable lift gear: each pin slides freely", opening[len(opening)-3])
}
