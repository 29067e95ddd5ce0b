package archtest

import (
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// How much of the components is their own look, and how long one may be. Both only ever go down: the first to
// a fifth.
const (
	mostStyle = 0.222
	longest   = 250
)

// What a page looks like comes from the base and from look.css and classes.css; a component that grows has
// parts.
func TestComponentsAreShortAndHaveLittleLookOfTheirOwn(t *testing.T) {
	all, style := 0, 0
	require.NoError(t, filepath.WalkDir("../../web/src", func(path string, _ fs.DirEntry, err error) error {
		if err != nil || !strings.HasSuffix(path, ".vue") {
			return err
		}
		text, err := os.ReadFile(path)
		if err != nil {
			return err
		}
		lines := strings.Count(string(text), "\n")
		assert.LessOrEqual(t, lines, longest, path)
		all += lines
		if at := strings.Index(string(text), "\n<style"); at >= 0 {
			style += strings.Count(string(text[at:]), "\n") - 1
		}
		return nil
	}))
	require.Greater(t, all, 5000)
	assert.LessOrEqual(t, float64(style)/float64(all), mostStyle, "%d lines of %d", style, all)
}
