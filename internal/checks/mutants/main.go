// Command mutants sums up what mutation testing found: of each package how many changes of its code were
// noticed by its tests, and every one that was not. It fails where fewer are noticed in a package of the core
// than are wanted.
//
//	mutants FOLDER   the folder with a report a package, as gremlins writes them
package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
)

// wanted is the least share of the changes that a test comes upon which must be noticed.
const wanted = 0.95

// report is what the mutation tool writes of a package, as far as it is read here.
type report struct {
	Files []struct {
		Name      string `json:"file_name"`
		Mutations []struct {
			Line   int    `json:"line"`
			Column int    `json:"column"`
			Type   string `json:"type"`
			Status string `json:"status"`
		} `json:"mutations"`
	} `json:"files"`
}

func main() {
	if len(os.Args) != 2 {
		fmt.Fprintln(os.Stderr, "mutants FOLDER")
		os.Exit(2)
	}
	files, err := filepath.Glob(filepath.Join(os.Args[1], "*.json"))
	if err != nil || len(files) == 0 {
		fmt.Fprintf(os.Stderr, "There are no reports in %s: %v\n", os.Args[1], err)
		os.Exit(1)
	}
	few := false
	for _, f := range files {
		name := strings.ReplaceAll(strings.TrimSuffix(filepath.Base(f), ".json"), "_", "/")
		enough, err := sumUp(name, f)
		if err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		few = few || !enough && strings.HasPrefix(name, "core/")
	}
	if few {
		fmt.Fprintf(
			os.Stderr,
			"In a package of the core fewer than %.0f in a hundred are noticed.\n",
			100*wanted,
		)
		os.Exit(1)
	}
}

// sumUp prints the counts of one package and what lived in it.
func sumUp(name, file string) (enough bool, err error) {
	data, err := os.ReadFile(file)
	if err != nil {
		return false, err
	}
	var r report
	if err := json.Unmarshal(data, &r); err != nil {
		return false, fmt.Errorf("%s: %w", file, err)
	}
	counts, lived := map[string]int{}, []string{}
	for _, f := range r.Files {
		for _, m := range f.Mutations {
			counts[m.Status]++
			if m.Status == "LIVED" {
				path := filepath.Join(name, filepath.Base(f.Name))
				lived = append(
					lived,
					fmt.Sprintf("  %s:%d:%d %s | %s", path, m.Line, m.Column, m.Type, lineOf(path, m.Line)),
				)
			}
		}
	}
	killed, of := counts["KILLED"], counts["KILLED"]+counts["LIVED"]
	share := 1.0
	if of > 0 {
		share = float64(killed) / float64(of)
	}
	fmt.Printf(
		"%s: %d of %d noticed, %.1f %%; %d on no test's way, %d ended by their time\n",
		name,
		killed,
		of,
		100*share,
		counts["NOT COVERED"],
		counts["TIMED OUT"],
	)
	slices.Sort(lived)
	for _, line := range lived {
		fmt.Println(line)
	}
	return share >= wanted, nil
}

// lineOf is a line of a file of the tree, from 1; empty where there is none.
func lineOf(path string, n int) string {
	f, err := os.Open(path)
	if err != nil {
		return ""
	}
	defer f.Close()
	for s := bufio.NewScanner(f); s.Scan(); {
		if n--; n == 0 {
			return strings.TrimSpace(s.Text())
		}
	}
	return ""
}
