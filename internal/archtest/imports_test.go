// Package archtest holds the rules on who may import whom.
package archtest

import (
	"encoding/json"
	"errors"
	"io"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

type pkg struct {
	ImportPath string
	Imports    []string
	GoFiles    []string
	Dir        string
}

func packages(t *testing.T) []pkg {
	t.Helper()
	watched(t)
	out, err := exec.Command("go", "list", "-json=ImportPath,Imports,GoFiles,Dir", "metronix/...").Output()
	require.NoError(t, err)
	var list []pkg
	for d := json.NewDecoder(strings.NewReader(string(out))); ; {
		var p pkg
		err := d.Decode(&p)
		if errors.Is(err, io.EOF) {
			return list
		}
		require.NoError(t, err)
		list = append(list, p)
	}
}

// watched reads every file that the rules are about, so that what go test remembers of this package is
// forgotten when one of them changes: what another program reads it does not see.
func watched(t *testing.T) {
	t.Helper()
	for _, folder := range []string{"../../core", "../../internal", "../../cmd", "../../e2e"} {
		require.NoError(t, filepath.WalkDir(folder, func(path string, d fs.DirEntry, err error) error {
			if err == nil && strings.HasSuffix(path, ".go") {
				_, err = os.ReadFile(path)
			}
			return err
		}))
	}
}

// standard says that an import path belongs to the standard library: its first element has no dot.
func standard(path string) bool {
	first, _, _ := strings.Cut(path, "/")
	return !strings.Contains(first, ".") && first != "metronix"
}

func TestCoreImportsOnlyTheStandardLibraryGonumAndItself(t *testing.T) {
	forbidden := map[string]string{
		"net/http": "HTTP", "database/sql": "SQL", "encoding/json": "JSON", "math/rand": "randomness",
		"math/rand/v2": "randomness",
		"crypto/rand":  "randomness", "os": "the system", "log": "logging", "log/slog": "logging",
		"sync": "several at once, which its tests are not run for", "sync/atomic": "several at once",
	}
	seen := 0
	for _, p := range packages(t) {
		if !strings.HasPrefix(p.ImportPath, "metronix/core/") {
			continue
		}
		seen++
		for _, i := range p.Imports {
			assert.True(t, standard(i) || strings.HasPrefix(i, "metronix/core/") ||
				strings.HasPrefix(i, "gonum.org/"), "%s imports %s", p.ImportPath, i)
			if p.ImportPath == "metronix/core/practice" && i == "math/rand/v2" {
				continue // from a seed alone, see below
			}
			assert.Empty(t, forbidden[i], "%s imports %s", p.ImportPath, i)
		}
	}
	assert.GreaterOrEqual(t, seen, 8, "the core was not looked at")
}

// What is hidden of a practice engine follows from its seed: nothing there is drawn from anywhere else.
func TestThePracticeEngineDrawsFromItsSeedAlone(t *testing.T) {
	drawn := regexp.MustCompile(`\brand\.(\w+)`)
	paths, err := filepath.Glob("../../core/practice/*.go")
	require.NoError(t, err)
	found := 0
	for _, path := range paths {
		text, err := os.ReadFile(path)
		require.NoError(t, err)
		for _, m := range drawn.FindAllStringSubmatch(string(text), -1) {
			found++
			assert.Contains(t, []string{"New", "NewPCG", "Rand"}, m[1], path)
		}
	}
	assert.Positive(t, found)
}

// rooms: only these may import those.
func TestEveryThingInItsRoom(t *testing.T) {
	rooms := map[string][]string{
		"gorm.io/gorm":                     {"metronix/internal/store"},
		"gorm.io/driver/sqlite":            {"metronix/internal/store"},
		"github.com/mattn/go-sqlite3":      {"metronix/internal/store"},
		"database/sql":                     {"metronix/internal/store"},
		"github.com/gin-gonic/gin":         {"metronix/internal/api"},
		"github.com/danielgtaylor/huma/v2": {"metronix/internal/api", "metronix/internal/wire"},
		"metronix/internal/api":            {"metronix/internal/demo", "metronix/cmd/metronix"},
		"metronix/internal/demo":           {"metronix/cmd/metronix"},
	}
	found := map[string]bool{}
	for _, p := range packages(t) {
		for _, i := range p.Imports {
			allowed, ruled := rooms[i]
			if ruled {
				found[i] = true
				assert.Contains(t, allowed, p.ImportPath, "%s imports %s", p.ImportPath, i)
			}
		}
	}
	assert.Len(t, found, len(rooms), "a rule that nothing meets any more")
}

// Time and chance come into the core as values: it never asks for them.
func TestCoreHasNoClock(t *testing.T) {
	watched(t)
	out, err := exec.Command("grep", "-rnE", `time\.(Now|Since|Until|After|Tick)\(`, "../../core",
		"--include=*.go", "--exclude=*_test.go", "--exclude=doc.go").CombinedOutput()
	var exit *exec.ExitError
	require.ErrorAs(t, err, &exit, "found: %s", out)
	assert.Equal(t, 1, exit.ExitCode(), string(out))
}

// Everything peculiar to SQLite is in the store, in files named so.
func TestSQLiteStaysInItsFiles(t *testing.T) {
	watched(t)
	out, err := exec.Command("grep", "-rliE", `pragma|sqlite|\browid\b|vacuum|"-wal"|"-shm"`, "../../internal", "../../cmd",
		"--include=*.go", "--exclude=*_test.go", "--exclude=doc.go").
		Output()
	require.NoError(t, err)
	files := strings.Fields(string(out))
	assert.NotEmpty(t, files)
	for _, f := range files {
		assert.Regexp(t, `^\.\./\.\./internal/store/sqlite\w*\.go$`, f)
	}
}

// What is stored is declared in store, in the core's words: no answer of the interface is a row.
func TestTheStoreKnowsNoAnswers(t *testing.T) {
	for _, p := range packages(t) {
		if p.ImportPath == "metronix/internal/store" {
			assert.NotContains(t, p.Imports, "metronix/internal/api")
			assert.NotContains(t, p.Imports, "metronix/internal/report")
		}
	}
	watched(t)
	out, _ := exec.Command("grep", "-rnE", `json\.(Un)?[mM]arshal`, "../../internal/api", "--include=vehicle_*.go",
		"--include=job_derived.go", "--include=job_board.go", "--exclude=*_test.go").
		Output()
	assert.Empty(t, string(out), "what is read from rows is no JSON")
}

// The rules of the trade that belong to a vehicle's history are the core's: the interface asks for them.
func TestNoRuleOfWearInTheInterface(t *testing.T) {
	watched(t)
	out, _ := exec.Command("grep", "-rnE", `wear\.(Reckon|On|MonthsOn|Once|Shortest)\b`, "../../internal/api",
		"--include=*.go", "--exclude=*_test.go").Output()
	assert.Empty(t, string(out))
}

// The bench goes into the browser: what it is made of knows neither HTTP nor the data file nor the schemas of
// what is sent, and what core/job follows from needs nothing of what is shown of it.
func TestTheBenchNeedsNoProgram(t *testing.T) {
	list := exec.Command("go", "list", "-deps", "metronix/cmd/bench")
	list.Env = append(os.Environ(), "GOOS=js", "GOARCH=wasm")
	out, err := list.Output()
	require.NoError(t, err)
	deps := strings.Fields(string(out))
	assert.Contains(t, deps, "metronix/core/bench")
	for _, never := range []string{"net/http", "github.com/danielgtaylor/huma/v2", "gorm.io/gorm", "metronix/internal/store",
		"metronix/internal/api", "regexp", "math/big"} {
		assert.NotContains(t, deps, never)
	}
	for _, p := range packages(t) {
		if p.ImportPath == "metronix/core/job" {
			assert.NotContains(t, p.Imports, "metronix/core/bench")
		}
	}
}
