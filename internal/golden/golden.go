package golden

import (
	"flag"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

var update = flag.Bool("update", false, "write the answers that are held to the letter anew")

// Hold compares lines with those in testdata/NAME.txt, and names the first that differs. With -update it
// writes them.
func Hold(t *testing.T, name string, lines []string) {
	t.Helper()
	File(t, filepath.Join("testdata", name+".txt"), lines)
}

// File does as Hold, with a file that has its place elsewhere.
func File(t *testing.T, path string, lines []string) {
	t.Helper()
	if *update {
		if err := os.MkdirAll(filepath.Dir(path), 0o755); err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(path, []byte(strings.Join(lines, "\n")+"\n"), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	data, err := os.ReadFile(path)
	if err != nil {
		t.Fatalf("%v: write it with -update", err)
	}
	held := strings.Split(strings.TrimSuffix(string(data), "\n"), "\n")
	for i, line := range lines {
		if i >= len(held) || held[i] != line {
			was := "nothing"
			if i < len(held) {
				was = held[i]
			}
			t.Fatalf(
				"%s, line %d is no longer what it was:\n  was %s\n  is  %s\nIf that is wanted: go test -update",
				path,
				i+1,
				was,
				line,
			)
		}
	}
	if len(held) > len(lines) {
		t.Fatalf("%s has %d lines, and %d came", path, len(held), len(lines))
	}
}
