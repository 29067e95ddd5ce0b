package e2e

import (
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A workshop makes backups by itself, sees that they are made, drills one while it works, and goes on from it
// on another machine after its own was lost.
func TestBackupsAndAnotherMachine(t *testing.T) {
	t.Parallel()
	folder := filepath.Join(t.TempDir(), "copies")
	r := demo(t, "--backups", folder, "--every", "1h")
	p := open(t, r, "/shop", 1280, 800)
	p.shows("One every hour into")
	p.shows("1 kept")
	p.press("Make one now")
	p.shows("2 kept")
	code, says, errs := told(t, "", "drill", "--data", r.data, "--backups", folder)
	require.Zero(t, code, errs)
	assert.Regexp(t, `Taken back into a scratch file in [0-9.]+ s, checked and opened: \d+ jobs, \d+ entries`, says)
	assert.Contains(t, says, "The data file holds exactly these.")
	require.NoError(t, p.Close())

	// lost; what was entered last had not reached the copies
	p = open(t, r, "/jobs/demo-job-tipper", 1280, 800)
	p.press("Crank moved?")
	p.shows("Where am I?")
	r.kill()
	there := filepath.Join(t.TempDir(), "there.db")
	code, says, errs = told(t, "", "takeover", "--data", there, "--backups", folder)
	require.Zero(t, code, errs)
	assert.Regexp(t, `is now what the backup of \d+ \w+ \d+, [\d:]+ holds, .* ago: \d+ entries`, says)
	again := started(t, "serve", there, "--backups", folder)
	p = open(t, again, "/", 1280, 800)
	p.shows("Sawmill drive")

	// the other machine comes back: it says on its board that it is not to be used
	old := started(t, "demo", r.data, "--backups", folder)
	p = open(t, old, "/shop", 1280, 800)
	p.press("Make one now")
	p.shows("another machine has taken this workshop over")
	p = open(t, old, "/", 1280, 800)
	p.shows("stop this program")
}
