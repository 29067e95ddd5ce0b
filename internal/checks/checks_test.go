package checks_test

import (
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/checks"
)

// failing takes note of a failed check instead of failing.
type failing struct {
	testing.TB
	failed bool
}

func (f *failing) Errorf(string, ...any) { f.failed = true }

// What holds is written down with its source; what does not hold fails and is not written down.
func TestWhatIsWrittenDownAgainstTheOutside(t *testing.T) {
	dir := t.TempDir()
	t.Setenv(checks.Folder, dir)
	checks.Near(t, checks.Standard("a standard"), "the figure", 1, 1.05, 0.1)
	wrong := &failing{TB: t}
	checks.Near(wrong, checks.Standard("a standard"), "the figure", 1, 1.2, 0.1)
	assert.True(t, wrong.failed)
	wrong.failed = false
	checks.Equal(wrong, checks.Practice("a habit"), "the word", "in", "out")
	assert.True(t, wrong.failed)
	data, err := os.ReadFile(filepath.Join(dir, "checks.jsonl"))
	require.NoError(t, err)
	var c checks.Check
	require.NoError(t, json.Unmarshal(data, &c), "one line")
	assert.Equal(t, checks.Check{Topic: "checks", What: "the figure", Value: "1 ± 0.1",
		Source: checks.Source{Kind: "standard", Name: "a standard"}, Test: t.Name()}, c)
}
