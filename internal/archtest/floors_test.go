package archtest

import (
	"fmt"
	"go/ast"
	"go/importer"
	"go/parser"
	"go/token"
	"go/types"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

// floors are the groups of files of core/job, from the ground up: a group is built on those below it and
// knows nothing of those above. A file that is named nowhere is an act, one kind a file.
var floors = []struct {
	name  string
	files []string
}{
	{"what is known", []string{"doc", "act", "happening", "job", "signing", "valve", "heat", "gate", "reading", "place",
		"clear", "nut", "shims", "round", "log", "work", "turns", "hands",
		"judged_cold", "judged_hot", "play_felt"}},
	{"what is next", []string{"phase", "next", "check_round", "shim_steps", "shim_next", "brief", "outcome", "paint_mark", "found", "by_eye",
		"make_safe", "triage"}},
	{"acts", nil},
	{"the list", []string{"acts", "apply", "replay", "undone", "habit"}},
}

const actsFloor = 2

func floorOf(file string) int {
	for i, f := range floors {
		if slices.Contains(f.files, file) {
			return i
		}
	}
	return actsFloor
}

// TestNoArrowRunsUpInTheJob checks every name that a file of core/job takes from another one.
func TestNoArrowRunsUpInTheJob(t *testing.T) {
	fset := token.NewFileSet()
	file := func(p token.Pos) string {
		return strings.TrimSuffix(filepath.Base(fset.Position(p).Filename), ".go")
	}
	paths, err := filepath.Glob("../../core/job/*.go")
	require.NoError(t, err)
	var files []*ast.File
	for _, path := range paths {
		if strings.HasSuffix(path, "_test.go") {
			continue
		}
		f, err := parser.ParseFile(fset, path, nil, parser.SkipObjectResolution)
		require.NoError(t, err)
		files = append(files, f)
	}
	info := &types.Info{Uses: map[*ast.Ident]types.Object{}}
	conf := types.Config{Importer: importer.ForCompiler(fset, "source", nil)}
	pkg, err := conf.Check("metronix/core/job", fset, files, info)
	require.NoError(t, err)

	arrows, up := map[[2]string]bool{}, map[string]bool{}
	for id, to := range info.Uses {
		if v, ok := to.(*types.Var); to.Pkg() != pkg || ok && v.IsField() {
			continue
		}
		from, at := file(id.Pos()), file(to.Pos())
		arrows[[2]string{from, at}] = from != at
		if a, b := floorOf(from), floorOf(at); b > a {
			up[fmt.Sprintf("%s.go (%s) takes %s from %s.go (%s)", from, floors[a].name, to.Name(), at, floors[b].name)] = true
		}
	}
	require.Greater(t, len(arrows), 200, "the files are read")
	require.Empty(t, up)
}
