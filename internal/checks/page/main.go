// Command page makes docs/checks.md of the checks that a run of the tests wrote down, or says where the page
// differs from them.
//
//	page FOLDER PAGE            writes the page
//	page -compare FOLDER PAGE   fails where it would be another one
package main

import (
	"bufio"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"metronix/internal/checks"
)

// topic is a part of the page.
type topic struct{ folder, title string }

// topics are the parts of the page, in the order in which the trade is learned: a folder of core each.
var topics = []topic{
	{"measure", "Measures"},
	{"engine", "Engines"},
	{"cycle", "The cycle"},
	{"sequence", "Sequence"},
	{"order", "Orders proved"},
	{"gauge", "Feeler leaves"},
	{"clearance", "Judging"},
	{"gear", "Kinds of adjuster"},
	{"adjust", "Adjusters and shims"},
	{"thermal", "Temperature"},
	{"wear", "Wear"},
}

// least is how many values the page must hold.
const least = 150

func main() {
	compare := flag.Bool("compare", false, "fail where the page differs, instead of writing it")
	flag.Parse()
	if flag.NArg() != 2 {
		flag.Usage()
		os.Exit(2)
	}
	if err := run(flag.Arg(0), flag.Arg(1), *compare); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// run writes the page, or says that it is no longer what the tests would make of it.
func run(folder, page string, compare bool) error {
	text, err := made(folder)
	if err != nil {
		return err
	}
	if !compare {
		return os.WriteFile(page, []byte(text), 0o644)
	}
	was, err := os.ReadFile(page)
	if err != nil {
		return err
	}
	if string(was) != text {
		return fmt.Errorf("%s does not tell what the tests check. Make it anew: make checks", page)
	}
	return nil
}

// made puts the page together, topic by topic. A file of checks that belongs to no topic is an error: it
// would not be told.
func made(folder string) (string, error) {
	written, err := filepath.Glob(filepath.Join(folder, "*.jsonl"))
	if err != nil {
		return "", err
	}
	for _, file := range written {
		name := strings.TrimSuffix(filepath.Base(file), ".jsonl")
		if !slices.ContainsFunc(topics, func(t topic) bool { return t.folder == name }) {
			return "", fmt.Errorf("%s has checks, and no part of the page: add it to the topics", name)
		}
	}
	var body strings.Builder
	total, kinds := 0, map[string]int{}
	for _, part := range topics {
		list, err := read(filepath.Join(folder, part.folder+".jsonl"))
		if err != nil {
			return "", err
		}
		fmt.Fprintf(&body, "\n## %s\n\n%d values.\n\n", part.title, len(list))
		body.WriteString("| What | Value | Kind | Source | Test |\n|---|---|---|---|---|\n")
		for _, c := range list {
			fmt.Fprintf(&body, "| %s | %s | %s | %s | `%s` |\n", cell(c.What), cell(c.Value), c.Source.Kind,
				cell(c.Source.Name), c.Test)
			kinds[c.Source.Kind]++
		}
		total += len(list)
	}
	if total < least {
		return "", fmt.Errorf("the tests wrote down %d values, %d at least are wanted", total, least)
	}
	var names []string
	for kind, n := range kinds {
		names = append(names, fmt.Sprintf("%d %s", n, kind))
	}
	slices.Sort(names)
	return fmt.Sprintf(head, total, strings.Join(names, ", ")) + body.String(), nil
}

// head is the top of the page, which says what a kind of source is worth.
const head = `# Checks against the outside

Made by ` + "`make checks`" + ` from the tests, which fail where the program answers otherwise; ` + "`make test`" + ` fails where this page is
another one than they would make. %d values: %s.

**Standard**: a published standard, or a constant fixed by one. **By hand**: a law of physics or geometry,
	worked out on paper. **Reference
library**: a general-purpose library asked the same question. **Common practice**: what any practitioner confirms. **From memory**: widely
printed and written down from memory; hold it against print before you rely on it.
`

// read reads the checks of one package, each once and in an order that does not depend on the tests'.
func read(file string) ([]checks.Check, error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	var out []checks.Check
	lines := bufio.NewScanner(f)
	for lines.Scan() {
		var c checks.Check
		if err := json.Unmarshal(lines.Bytes(), &c); err != nil {
			return nil, fmt.Errorf("%s: %w", file, err)
		}
		out = append(out, c)
	}
	slices.SortFunc(out, func(a, b checks.Check) int {
		return slices.Compare(inOrder(a), inOrder(b))
	})
	return slices.Compact(out), lines.Err()
}

// inOrder is what checks are sorted by, to the last word: tests run side by side and write in any order.
func inOrder(c checks.Check) []string {
	return []string{c.Test, c.What, c.Value, fmt.Sprint(c.Source), c.Topic}
}

// cell is a text that breaks no table.
func cell(text string) string {
	return strings.NewReplacer("|", "\\|", "\n", " ").Replace(text)
}
