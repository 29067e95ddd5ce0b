package record

import "slices"

// Statement is what of a report is put under the workshop's seal, a fact a line, short enough for a code that
// a camera reads off the paper: whose engine it is, who signed and when, and each valve as it was left. job
// is its id, and sum the checksum of its list to the end, which the sheet stands for.
func (r Report) Statement(job, sum string) []string {
	lines := []string{r.Title, r.Seal}
	for _, f := range r.Facts {
		if slices.Contains([]string{engineFact, odometerFact, hoursFact}, f.Label) {
			lines = append(lines, f.Label+": "+f.Text)
		}
	}
	lines = append(lines, "As left, "+r.Unit+":")
	for _, row := range r.Rows {
		said := "not read"
		if row.Left != nil {
			said = row.Left.Said
		}
		lines = append(lines, row.Valve+" "+said)
	}
	return append(lines, "Job "+job, "Sum "+sum)
}
