package e2e

import (
	"bytes"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Two workshops of one owner, whose records bear the same ids, are gathered into one that is looked at: each
// vehicle with whose it is and where its plate is known too, nothing of the two taken for the same; and
// nothing is entered there.
func TestTwoWorkshopsAreGathered(t *testing.T) {
	t.Parallel()
	dir := t.TempDir()
	in := func(name string) string { return filepath.Join(dir, name) }
	archived := func(r *running, name string) string {
		require.NoError(t, r.cmd.Process.Kill())
		_ = r.cmd.Wait()
		code, _, errs := told(t, "", "export", "--data", r.data, in(name))
		require.Zero(t, code, errs)
		return in(name)
	}
	north := archived(demo(t), "north.zip")
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-tipper", 1280, 800)
	p.press("Crank moved?") // in the south it went on differently
	p.shows("Where am I?")
	require.NoError(t, p.Close())
	south := archived(r, "south.zip")

	data := in("all.db")
	code, says, errs := told(t, "", "gather", "--data", data, "North="+north, "South="+south)
	require.Zero(t, code, errs)
	assert.Regexp(
		t,
		`North: \d+ engines, \d+ gauge sets, (\d+) vehicles, (\d+) jobs\.\nSouth: \d+ engines`,
		says,
	)
	code, _, errs = told(t, "", "check", "--data", data)
	require.Zero(t, code, errs)

	// what cannot be gathered is told, and the file that is there stays
	before, err := os.ReadFile(data)
	require.NoError(t, err)
	cut := in("cut.zip")
	whole, err := os.ReadFile(south)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(cut, whole[:len(whole)/2], 0o600))
	for why, args := range map[string][]string{
		"two workshops called": {"--data", data, "North=" + north, "north=" + south},
		"no zip file":          {"--data", data, "North=" + north, "South=" + cut},
		"names no workshop":    {"--data", data, north},
		"cannot be read":       {"--data", data, "North=" + in("absent.zip")},
		"was not gathered":     {"--data", r.data, "North=" + north},
		"Name the gathered":    {"North=" + north},
	} {
		code, _, errs := told(t, "", append([]string{"gather"}, args...)...)
		assert.NotZero(t, code, why)
		assert.Contains(t, errs, why)
	}
	after, err := os.ReadFile(data)
	require.NoError(t, err)
	assert.True(t, bytes.Equal(before, after), "it stays as it was")

	all := started(t, "serve", data)
	p = open(t, all, "/vehicles", 1280, 800)
	p.shows("· North")
	p.shows("· South")
	p.MustElementR("a", "Quarry tipper 7[^·]*· North").MustClick()
	p.shows("The same plate is known elsewhere")
	p.MustElementR("a", "South: Quarry tipper 7").MustClick()
	p.MustElementR("a", "North: Quarry tipper 7")
	p.press("A job is open")
	p.shows("Where am I?")
	answer, err := http.Post(all.base+"/api/v1/jobs/p2-demo-job-tipper/happenings", "application/json",
		bytes.NewReader([]byte(`{"id":"later-0001","kind":"doubted"}`)))
	require.NoError(t, err)
	defer answer.Body.Close()
	text, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	assert.Equal(t, http.StatusForbidden, answer.StatusCode)
	assert.Contains(t, string(text), "Enter it where the vehicle is.")
	p.visit("/shop")
	p.shows("Gathered, and looked at only")

	// gathered again it is made anew
	require.NoError(t, p.Close())
	all.kill()
	code, _, errs = told(t, "", "gather", "--data", data, "South="+south)
	require.Zero(t, code, errs)
}
