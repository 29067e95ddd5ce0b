package archtest

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"metronix/internal/compute"
)

func page(t *testing.T, name string) string {
	t.Helper()
	text, err := os.ReadFile(filepath.Join("../..", name))
	require.NoError(t, err)
	return string(text)
}

// TestWhatIsToldToNewcomersIsThere: every test and every file that CONTRIBUTING.md sends a newcomer to
// exists, wherever in the tree it lies.
func TestWhatIsToldToNewcomersIsThere(t *testing.T) {
	tests, files := map[string]bool{}, map[string]bool{}
	declared := regexp.MustCompile(`(?m)^func (Test\w+)\(`)
	for _, root := range []string{"core", "internal", "cmd", "e2e", "web/src"} {
		require.NoError(t, filepath.Walk(filepath.Join("../..", root), func(path string, _ os.FileInfo, err error) error {
			if err != nil {
				return err
			}
			files[strings.TrimPrefix(filepath.ToSlash(path), "../../")] = true
			files[filepath.Base(path)] = true
			if strings.HasSuffix(path, "_test.go") {
				text, err := os.ReadFile(path)
				if err != nil {
					return err
				}
				for _, m := range declared.FindAllStringSubmatch(string(text), -1) {
					tests[m[1]] = true
				}
			}
			return nil
		}))
	}
	text := page(t, "CONTRIBUTING.md")
	named := 0
	for _, m := range regexp.MustCompile("`(Test[A-Za-z]+)`").FindAllStringSubmatch(text, -1) {
		named++
		assert.True(t, tests[m[1]], "there is no test %s", m[1])
	}
	for _, m := range regexp.MustCompile("`((?:core|internal|cmd|web)/[\\w./]+|[\\w]+\\.(?:go|ts|vue))`").FindAllStringSubmatch(text, -1) {
		named++
		assert.True(t, files[strings.TrimSuffix(m[1], "/")] || files[filepath.Base(m[1])], "there is no %s", m[1])
	}
	require.Greater(t, named, 25)
}

// TestTheTableOfComputationsIsWhole: docs/formats.md tells of each operation, and of no other.
func TestTheTableOfComputationsIsWhole(t *testing.T) {
	var told []string
	for _, line := range strings.Split(page(t, "docs/formats.md"), "\n") {
		if m := regexp.MustCompile("^\\| `([a-z-]+)` \\|").FindStringSubmatch(line); m != nil {
			told = append(told, m[1])
		}
	}
	assert.ElementsMatch(t, compute.Names(), told)
}
