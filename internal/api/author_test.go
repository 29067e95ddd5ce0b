package api_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/api"
)

// Who entered something, and on which screen, is kept in its row, in the chain, in an archive and on the
// sheet; where nobody says, everything is as it was before anybody could.
func TestTheAuthorOfAnEntry(t *testing.T) {
	d := withJob(t)
	const happenings = "/api/v1/jobs/job-0001/happenings"
	entry := func(id, fields string) string { return fmt.Sprintf(`{"id":%q,%s}`, id, fields) }
	d.ok("POST", happenings, entry("author-001", `"kind":"way_chosen","school":"rocking_pairs"`))
	d.ok(
		"POST",
		happenings,
		entry("author-002", `"author":"Tess Ardal","screen":"bay tablet","kind":"prepared",`+
			`"engine_c":19,"ambient_c":18`),
	)
	// sent again, by somebody else's hand: it is the same entry
	d.ok(
		"POST",
		happenings,
		entry("author-002", `"author":"June","kind":"prepared","engine_c":19,"ambient_c":18`),
	)
	list, err := d.st.Happenings("job-0001")
	require.NoError(t, err)
	require.Len(t, list.Happenings, 2)
	assert.Empty(t, list.Happenings[0].Author)
	assert.Equal(t, "Tess Ardal", list.Happenings[1].Author)
	assert.Equal(t, "bay tablet", list.Happenings[1].Screen)
	sheet := d.ok("GET", "/api/v1/jobs/job-0001/sheet", "")
	assert.Contains(t, sheet["facts"], map[string]any{"label": "Entered by", "text": "Tess Ardal"})
	_, refused := d.send("POST", happenings, entry("author-003", `"author":7,"kind":"turned","stop":0`))
	assert.Contains(t, refused, "author")

	_, archive := d.send("GET", "/api/v1/archive.zip", "")
	to := opened(t)
	to.ok("POST", "/api/v1/archive", archive)
	list, err = to.st.Happenings("job-0001")
	require.NoError(t, err)
	assert.Equal(t, "Tess Ardal", list.Happenings[1].Author)

	for _, statement := range []string{`UPDATE happenings SET author = 'June' WHERE place = 1`,
		`UPDATE happenings SET author = 'Tess Ardal', screen = '' WHERE place = 1`,
		`UPDATE happenings SET screen = 'bay tablet' WHERE place = 1`, `UPDATE happenings SET author = 'June' WHERE place = 0`} {
		spoil(t, d.path, statement)
		found, err := api.Check(t.Context())(d.st)
		require.NoError(t, err)
		sound := statement == `UPDATE happenings SET screen = 'bay tablet' WHERE place = 1`
		assert.Equal(t, sound, len(found.Troubles) == 0, statement)
	}
}
