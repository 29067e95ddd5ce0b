package compute_test

import (
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/require"

	"metronix/internal/compute"
)

var update = flag.Bool("update", false, "write the golden answers anew")

// questions are those whose answers are held to the letter: what is asked of each operation, sound and
// unsound.
func questions(t testing.TB) map[string][]string {
	all := seeds(t)
	engine := func(name string) string {
		text, err := os.ReadFile(filepath.Join("../demo/engines", name+".engine.json"))
		require.NoError(t, err)
		var plain bytes.Buffer
		require.NoError(t, json.Compact(&plain, text))
		return plain.String()
	}
	for _, name := range []string{"holmgarth-950", "ostrane-1300", "torrick-750", "culverholt-5000"} {
		s := `"sheet":` + engine(name)
		for _, school := range []string{"one_cylinder", "rocking_pairs", "sum_rule", "exhaust_open",
			"two_stop", "opening_closing", "one_lobe", "own", "fewest_stops"} {
			all["plan"] = append(all["plan"], fmt.Sprintf(`{"school":%q,%s}`, school, s))
		}
		all["plan"] = append(all["plan"],
			`{"school":"rocking_pairs","order":"numerical","direction":"back",`+s+`}`)
		for _, round := range []string{"set_as_you_go", "read_first", "read_only", "free_first"} {
			all["rehearse"] = append(all["rehearse"],
				fmt.Sprintf(`{"school":"one_cylinder","round":%q,"out":["E1"],%s}`, round, s))
		}
		all["rehearse"] = append(all["rehearse"],
			`{"school":"two_stop","one_kind_first":"exhaust","check":"all",`+s+`}`,
			`{"school":"one_lobe","out":["X1"],`+s+`}`)
		all["compare"] = append(all["compare"], `{`+s+`}`)
		all["check-sheet"] = append(all["check-sheet"], `{`+s+`}`)
		all["settable"] = append(all["settable"], `{"crank_deg":0,`+s+`}`, `{"crank_deg":127.25,`+s+`}`)
		all["locate"] = append(all["locate"], `{"seen":[{"what":"rocking","cylinder":1}],`+s+`}`,
			`{"seen":[{"what":"mark","mark_deg":0}],`+s+`}`)
	}
	one := `{"limits":{"lower_mm":0.22,"upper_mm":0.28},"rule":"one_leaf","owned":[{"marked_mm":0.25}],`
	all["judge"] = append(all["judge"], one+`"readings":[{"leaves_mm":[0.25],"feel":"free"}]}`,
		one+`"readings":[{"leaves_mm":[0.25],"feel":"wont_go"}]}`,
		one+`"readings":[{"leaves_mm":[0.25],"feel":"drag_firm"}]}`,
		one+`"aim_mm":0.3,"readings":[]}`)
	for operation := range all {
		all[operation] = append(all[operation], `{}`, `{"shoe":1}`)
	}
	return all
}

// The answers that outsiders were promised stay to the letter: field names, order, figures, words.
func TestAnswersStayAsTheyWere(t *testing.T) {
	for operation, requests := range questions(t) {
		var got bytes.Buffer
		for _, r := range requests {
			answer, problem := compute.Run(operation, []byte(r))
			if problem != nil {
				var err error
				answer, err = json.Marshal(problem)
				require.NoError(t, err)
			}
			asked := r
			if len(asked) > 120 {
				asked = asked[:100] + "…"
			}
			fmt.Fprintf(&got, "%s\n%s\n", asked, bytes.TrimSpace(answer))
		}
		path := filepath.Join("testdata", "golden", operation+".txt")
		if *update {
			require.NoError(t, os.MkdirAll(filepath.Dir(path), 0o755))
			require.NoError(t, os.WriteFile(path, got.Bytes(), 0o644))
		}
		want, err := os.ReadFile(path)
		require.NoError(t, err, "run go test ./internal/compute -run Answers -update")
		require.Equal(t, string(want), got.String(), operation)
	}
}
