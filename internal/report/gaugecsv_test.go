package report_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"metronix/core/gauge"
	"metronix/core/measure"
	"metronix/internal/report"
)

// Whatever sound set goes out as a file comes in again unchanged.
func TestGaugeSetSurvivesItsFile(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var items []gauge.Item
		for _, m := range rapid.SliceOfNDistinct(rapid.IntRange(2, 40), 1, 12, rapid.ID[int]).Draw(t,
			"leaves") {
			item := gauge.Item{
				Leaf: gauge.Leaf{
					ID: gauge.ID{
						Marked: measure.Length(m) * 10 * measure.Micrometre,
						Angled: rapid.Bool().Draw(t, "angled"),
					},
				},
				Missing: rapid.Bool().Draw(t, "missing"),
			}
			if rapid.Bool().Draw(t, "in thousandths") {
				item.Thou, item.Marked = true, measure.Length(m)*measure.Thou
			}
			if rapid.Bool().Draw(t, "measured") {
				item.Measured = item.Marked + measure.Length(rapid.IntRange(-900, 900).Draw(t, "off"))
			}
			items = append(items, item)
		}
		if len(gauge.Check(items)) > 0 {
			return // 0.254 mm and 10 thou are one leaf: another case than this
		}
		var file bytes.Buffer
		require.NoError(t, report.WriteGaugeCSV(&file, items))
		back, faults := report.ReadGaugeCSV(&file)
		require.Empty(t, faults)
		require.Equal(t, items, back)
	})
}

func TestColumnsInAnyOrderAndOnlyTheMarkingIsAMust(t *testing.T) {
	items, faults := report.ReadGaugeCSV(strings.NewReader("state,marked\nmissing,0.2\nhere, 0.25\n"))
	require.Empty(t, faults)
	assert.Equal(t, []gauge.Item{{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 200_000}}, Missing: true},
		{Leaf: gauge.Leaf{ID: gauge.ID{Marked: 250_000}}}}, items)
	_, faults = report.ReadGaugeCSV(strings.NewReader(""))
	assert.Equal(t, "line 1", faults[0].Location)
	_, faults = report.ReadGaugeCSV(strings.NewReader("marked\n\"0.2\n"))
	assert.NotEmpty(t, faults)
	_, faults = report.ReadGaugeCSV(strings.NewReader("unit\nmm\n"))
	assert.Contains(t, faults[0].Message, "The column marked is missing")
}

// Whatever file reads without a fault is a sound set, and is written and read again as the same.
func FuzzReadGaugeCSV(f *testing.F) {
	for _, s := range []string{"marked,unit\n8,thou\n10,thou\n",
		"marked_mm,measured_mm,angled,missing\n0.2,0.201,angled,\n0.25,,,missing\n",
		"\ufeffmarked_mm;measured_mm\n0,20;0,201\n", "marked_mm\n\"0.2\n", "marked_mm,marked_mm\n1,2\n"} {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		items, faults := report.ReadGaugeCSV(bytes.NewReader(data))
		for _, fault := range faults {
			require.NotEmpty(t, fault.Message)
		}
		if len(faults) > 0 || len(gauge.Check(items)) > 0 {
			return
		}
		var file bytes.Buffer
		require.NoError(t, report.WriteGaugeCSV(&file, items))
		again, faults := report.ReadGaugeCSV(bytes.NewReader(file.Bytes()))
		require.Empty(t, faults, file.String())
		require.Equal(t, items, again, file.String())
	})
}
