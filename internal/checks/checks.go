package checks

import (
	"encoding/json"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Source is where a value comes from: of which kind, and which one.
type Source struct{ Kind, Name string }

// Standard is a published standard, or a constant fixed by one.
func Standard(name string) Source { return Source{"standard", name} }

// Theorem is a law of physics or geometry, worked out by hand.
func Theorem(name string) Source { return Source{"by hand", name} }

// Library is the answer of a general-purpose library to the same question.
func Library(name string) Source { return Source{"reference library", name} }

// Practice is a fact of the trade that any practitioner confirms.
func Practice(name string) Source { return Source{"common practice", name} }

// Memory is a value that is widely printed and was written down from memory: to be checked against print.
func Memory(name string) Source { return Source{"from memory", name} }

// Check is one value and how it was held against the program, as it is written down.
type Check struct {
	Topic, What, Value string
	Source             Source
	Test               string
}

// Named is what the name of each test ends with that makes checks: only these are run when the page is made.
const Named = "AgainstTheOutside"

// Folder is the environment variable that names where checks are written down; unset, they are only made.
const Folder = "METRONIX_CHECKS"

// writing is held while a line is added: tests of one package run side by side.
var writing sync.Mutex

// Equal holds the program's answer against a value from outside.
func Equal[T any](t testing.TB, from Source, what string, want, got T) {
	t.Helper()
	if assert.Equal(t, want, got, "%s (%s: %s)", what, from.Kind, from.Name) {
		note(t, from, what, fmt.Sprint(want))
	}
}

// Near does the same for a figure known to within so much, both in the unit that what names.
func Near(t testing.TB, from Source, what string, want, got, within float64) {
	t.Helper()
	ok := !math.IsNaN(got) && math.Abs(got-want) <= within
	if assert.True(t, ok, "%s: want %v ± %v, got %v (%s: %s)", what, want, within, got, from.Kind,
		from.Name) {
		note(t, from, what, fmt.Sprintf("%v ± %v", want, within))
	}
}

// note writes a check down. The topic is the folder that the test stands in.
func note(t testing.TB, from Source, what, value string) {
	name, _, _ := strings.Cut(t.Name(), "/")
	assert.True(t, strings.HasSuffix(name, Named), "%s must end with %s, or the page leaves it out", name,
		Named)
	dir := os.Getenv(Folder)
	if dir == "" {
		return
	}
	topic := "?"
	for depth := 1; depth < 8; depth++ {
		_, file, _, ok := runtime.Caller(depth)
		if ok && strings.HasSuffix(file, "_test.go") {
			topic = filepath.Base(filepath.Dir(file))
			break
		}
	}
	line, err := json.Marshal(Check{topic, what, value, from, t.Name()})
	assert.NoError(t, err)
	writing.Lock()
	defer writing.Unlock()
	f, err := os.OpenFile(filepath.Join(dir, topic+".jsonl"), os.O_APPEND|os.O_CREATE|os.O_WRONLY, 0o644)
	if assert.NoError(t, err) {
		_, err = f.Write(append(line, '\n'))
		assert.NoError(t, err)
		assert.NoError(t, f.Close())
	}
}
