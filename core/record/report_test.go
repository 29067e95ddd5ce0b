package record_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/core/around"
	"metronix/core/job"
	"metronix/core/job/jobtest"
	"metronix/core/measure"
	"metronix/core/record"
	"metronix/core/sequence"
)

// A report says all that is known of a job, each fact once, and begins before anything was done.
func TestTheReportOfAJob(t *testing.T) {
	d := jobtest.Start(t, jobtest.Setup())
	r := record.Of(d.Job).Report(
		record.Record{
			Vehicle:   "Tipper",
			Plate:     "T 7",
			Mechanic:  "Tess",
			Gauges:    "plain",
			CreatedAt: jobtest.Noon,
		},
	)
	assert.Equal(t, "Valve clearances: Tipper T 7", r.Title)
	assert.Equal(t, "NOT SIGNED YET", r.Seal)
	assert.False(t, r.Signed)
	assert.Contains(t, r.Facts, record.Fact{Label: "Sequence", Text: "not chosen"})
	assert.Contains(t, r.Facts, record.Fact{Label: "Aim", Text: "the nominal"})
	require.Len(t, r.Rows, len(d.Job.Valves))
	assert.Nil(t, r.Rows[0].Found)
	assert.Empty(t, r.Lists)
	labels := map[string]bool{}
	for _, f := range r.Facts {
		assert.False(t, labels[f.Label], f.Label)
		assert.NotEmpty(t, f.Text, f.Label)
		labels[f.Label] = true
	}
	assert.False(t, labels["Odometer"], "it was not read")

	d.Begin(sequence.OneCylinder)
	d.Do(job.Happening{Act: job.Turned{Stop: 0}})
	d.Feel("E1", 300, "drag")
	d.Do(job.Happening{Act: job.Kept{Valve: "E1"}, Author: "Tess"})
	d.Do(
		job.Happening{
			Act: job.FindingNoted{
				Finding: around.Finding{ID: "finding-1", Place: "cover", What: "gasket hard", Later: true},
			},
		},
	)
	r = record.Of(d.Job).Report(record.Record{Meter: 20_000, OdometerWhy: "a new instrument"})
	assert.Contains(t, r.Facts, record.Fact{Label: "Odometer",
		Text: "20,000 km (12,427 miles), less than before: a new instrument"})
	assert.Contains(t, r.Facts, record.Fact{Label: "Entered by", Text: "Tess"})
	found := r.Rows[0].Found
	require.NotNil(t, found)
	assert.Equal(t, "0.30", found.Figure)
	assert.Equal(t, "11.8 thou", found.Other)
	assert.Equal(t, "0.30 in", found.Said)
	assert.Equal(
		t,
		"As found: 1 in, 0 tight, 0 loose, 0 undecided. 0 set, 0 checked after two full turns.",
		r.Found,
	)
	require.Len(t, r.Lists, 1)
	assert.Equal(t, "cover: gasket hard (later)", r.Lists[0].Items[0].Text)
	d.Job.Speaks = measure.Units{Length: measure.Thousandths}
	thou := record.Of(d.Job).Report(record.Record{}).Rows[0].Found
	assert.Equal(t, "11.8, in", thou.Said, `"11.8 in" would be inches`)
	assert.Equal(t, "0.30 mm", thou.Other)
}
