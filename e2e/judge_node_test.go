package e2e

import (
	"bufio"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"metronix/internal/deep"
	"metronix/internal/seen"
	"metronix/internal/wire"
)

// toldOf is one act of a random list, and what the program's own Go says of it: why it is refused, and the
// sum of the state after it.
type toldOf struct {
	Act string `json:"act"`
	At  string `json:"at"`
	Why string `json:"why"`
	Sum string `json:"sum"`
}

// randomList is a job from its opening on.
type randomList struct {
	Opening string   `json:"opening"`
	Acts    []toldOf `json:"acts"`
}

// actsEach is how many acts each list has.
const actsEach = 14

// chosen is one of some.
func chosen[T any](chance *rand.Rand, of ...T) T { return of[chance.IntN(len(of))] }

// opening is a job of one of the demo's engines, by a few leaves, that nothing was done of.
func opening(t *testing.T, chance *rand.Rand, sheets [][]byte) string {
	t.Helper()
	sheet := chosen(chance, sheets...)
	leaves := []map[string]any{}
	for _, mm := range []float64{0.05, 0.08, 0.10, 0.15, 0.18, 0.20, 0.22, 0.25, 0.27, 0.30, 0.32, 0.35, 0.40} {
		if chance.IntN(4) > 0 {
			leaves = append(leaves, map[string]any{"marked_mm": mm})
		}
	}
	from := map[string]any{
		"card":          0,
		"hot_card":      -1,
		"aim":           "",
		"rule":          chosen(chance, "", "guarded", "one_leaf"),
		"feel_mm":       0.005,
		"leaves":        leaves,
		"lock_shift":    seen.LockShift{},
		"shim_sizes_mm": []float64{2.5, 2.55, 2.6, 2.65, 2.7},
		"shim_stock":    []any{},
		"units":         chosen(chance, "", "thou.f", "mi"),
	}
	text, err := json.Marshal(
		map[string]any{
			"id":         "job-by-chance",
			"sheet":      json.RawMessage(sheet),
			"from":       from,
			"happenings": []any{},
		},
	)
	require.NoError(t, err)
	return string(text)
}

// act is what somebody may do next: mostly what the bench says, now and then something else, right or wrong.
func act(chance *rand.Rand, s seen.JobState, n int) map[string]any {
	valve := chosen(chance, s.Valves...).Name
	if chance.IntN(5) == 0 {
		return chosen(
			chance,
			map[string]any{"kind": "undone", "target": s.Undo},
			map[string]any{"kind": "doubted"},
			map[string]any{"kind": "picked", "valve": valve},
			map[string]any{"kind": "kept", "valve": valve},
			map[string]any{
				"kind": "turned",
				"stop": n % 3,
			},
			map[string]any{"kind": "left_as_is", "valve": valve, "reason": "seized"},
			map[string]any{"kind": "dial", "valve": valve, "gap_mm": 0.2, "uncertainty_mm": 0.004},
			map[string]any{"kind": "engine_stopped"},
			map[string]any{"kind": "handed_over", "to": "June"},
		)
	}
	now := s.Now
	if now.MakeSafe {
		return map[string]any{"kind": "task", "task": "safe"}
	}
	switch now.Action {
	case "choose_way":
		return map[string]any{
			"kind":  "way_chosen",
			"round": chosen(chance, "set_as_you_go", "read_first", "read_only"),
			"school": chosen(
				chance,
				"one_cylinder",
				"rocking_pairs",
				"two_stop",
				"exhaust_open",
				"fewest_stops",
			),
		}
	case "prepare":
		return map[string]any{"kind": "prepared", "engine_c": chosen(chance, 19, 85), "ambient_c": 17}
	case "turn", "bar_over":
		return map[string]any{"kind": "turned", "stop": now.Stop}
	case "read":
		if len(now.Ladder) > 0 {
			r := chosen(chance, now.Ladder...)
			return map[string]any{
				"kind":      "reading",
				"valve":     now.Valve,
				"leaves_mm": r.LeavesMM,
				"angled":    r.Angled,
				"feel":      chosen(chance, "free", "drag", "wont_go"),
			}
		}
	case "keep":
		return map[string]any{"kind": "kept", "valve": now.Valve}
	case "adjust":
		return map[string]any{"kind": "adjusted", "valve": now.Valve}
	case "lock":
		return map[string]any{"kind": "locked", "valve": now.Valve}
	}
	return map[string]any{"kind": "signed", "by": "Tess", "tools_out": true}
}

// listed walks one list at random, by the program's own Go.
func listed(t *testing.T, seed uint64, sheets [][]byte) randomList {
	t.Helper()
	chance := rand.New(rand.NewPCG(seed, 1907))
	list := randomList{Opening: opening(t, chance, sheets)}
	at, err := seen.Open([]byte(list.Opening))
	require.NoError(t, err, "seed %d", seed)
	now := time.Date(2026, 11, 30, 8, 0, 0, 0, time.UTC)
	at.Now = now
	for n := range actsEach {
		h := act(chance, seen.StateOf(at), n)
		h["id"] = fmt.Sprintf("act-%06d", n)
		text, err := json.Marshal(h)
		require.NoError(t, err)
		now = now.Add(time.Duration(chance.IntN(40_000)) * time.Millisecond)
		told := toldOf{Act: string(text), At: now.Format(time.RFC3339Nano)}
		if err := at.Take(text, now); err != nil {
			told.Why = err.Error()
		}
		at.Now = now
		state, err := json.Marshal(seen.StateOf(at))
		require.NoError(t, err)
		sum := sha256.Sum256(state)
		told.Sum = hex.EncodeToString(sum[:])
		list.Acts = append(list.Acts, told)
	}
	return list
}

// asTheWorkerSays plays lists to the module that browsers fetch, under Node, and tells the first difference.
const asTheWorkerSays = `
const [fs, crypto, lines] = [require('fs'), require('crypto'), require('readline')]
require(process.argv[2] + '/wasm_exec.js')
const die = (what) => { console.log(what); process.exit(1) }
;(async () => {
	const go = new Go()
	const { instance } = await WebAssembly.instantiate(fs.readFileSync(process.argv[2] + '/bench.wasm'), go.importObject)
	go.run(instance)
	let n = 0, taps = 0, took = 0
	for await (const line of lines.createInterface({ input: fs.createReadStream(process.argv[3]) })) {
		const { opening, acts } = JSON.parse(line)
		const opened = metronixBench.open(opening)
		if (opened.why) die('list ' + n + ': ' + opened.why)
		for (const a of acts) {
			const begun = performance.now()
			const said = metronixBench.take(a.act, a.at)
			const why = said.refused ?? said.why ?? ''
			const { state } = metronixBench.state(a.at, '', [])
			took += performance.now() - begun
			taps++
			const sum = crypto.createHash('sha256').update(state).digest('hex')
			if (why !== a.why || sum !== a.sum) die('list ' + n + ', ' + a.act + ': ' + why + ' for ' + a.why + ', ' + state.slice(0, 600))
		}
		n++
	}
	console.log('the same: ' + n + ' lists, ' + (took / taps).toFixed(2) + ' ms a tap')
	process.exit(0)
})()
`

// listsAlike is how many lists are played.
var listsAlike = map[bool]int{false: 60, true: 2000}[deep.On]

// demoSheets are the texts of the demo's engines.
func demoSheets(t *testing.T) (sheets [][]byte) {
	t.Helper()
	paths, err := filepath.Glob("../internal/demo/engines/*.engine.json")
	require.NoError(t, err)
	require.NotEmpty(t, paths)
	for _, path := range paths {
		text, err := os.ReadFile(path)
		require.NoError(t, err)
		sheet, faults := wire.ReadStoredSheet(text)
		require.Empty(t, faults, path)
		text, err = wire.WriteSheet(sheet)
		require.NoError(t, err)
		sheets = append(sheets, text)
	}
	return sheets
}

// The module that browsers fetch says byte for byte what the program says, over random lists of acts that are
// taken and acts that are refused: its state after each, and why it refuses one.
func TestTheModuleSaysWhatTheProgramSays(t *testing.T) {
	t.Parallel()
	sheets := demoSheets(t)
	folder := t.TempDir()
	f, err := os.Create(filepath.Join(folder, "lists.jsonl"))
	require.NoError(t, err)
	out := bufio.NewWriter(f)
	taken := 0
	for seed := range listsAlike {
		list := listed(t, uint64(seed), sheets)
		for _, a := range list.Acts {
			if a.Why == "" {
				taken++
			}
		}
		require.NoError(t, json.NewEncoder(out).Encode(list))
	}
	require.NoError(t, out.Flush())
	require.NoError(t, f.Close())
	require.Greater(t, taken, listsAlike*actsEach/2, "most acts are taken")
	require.Less(t, taken, listsAlike*actsEach, "and some are refused")
	script := filepath.Join(folder, "compare.cjs")
	require.NoError(t, os.WriteFile(script, []byte(asTheWorkerSays), 0o600))
	gen, err := filepath.Abs("../web/gen")
	require.NoError(t, err)
	said, err := exec.CommandContext(t.Context(), "node", script, gen, f.Name()).CombinedOutput()
	require.NoError(t, err, string(said))
	require.True(
		t,
		strings.HasPrefix(string(said), fmt.Sprintf("the same: %d lists", listsAlike)),
		string(said),
	)
	t.Logf("%d of %d acts taken; %s", taken, listsAlike*actsEach, said)
}

// listsInTheBrowser is how many lists are played there.
const listsInTheBrowser = 40

// The same in the browser's own worker, over lists that Node was not given.
func TestTheWorkerSaysWhatTheProgramSays(t *testing.T) {
	t.Parallel()
	sheets := demoSheets(t)
	var lists []randomList
	for n := range listsInTheBrowser {
		lists = append(lists, listed(t, uint64(100_000+n), sheets))
	}
	text, err := json.Marshal(lists)
	require.NoError(t, err)
	name := func(pattern string) string {
		found, err := filepath.Glob("../web/dist/assets/" + pattern)
		require.NoError(t, err)
		require.Len(t, found, 1)
		return strings.TrimSuffix("/assets/"+filepath.Base(found[0]), ".br")
	}
	p := open(t, lookedAt(t), "/", 1280, 800)
	said := p.Timeout(limit).MustEval(`async (script, module, lists) => {
		const worker = new Worker(script, { type: 'module' })
		let n = 0
		const ask = (what, ...args) => new Promise((done, fail) => {
			worker.onmessage = ({ data }) => done(data.said)
			worker.onerror = (e) => fail(e.message)
			worker.postMessage({ n: ++n, what, args })
		})
		const begun = await ask('start', module, '')
		if (begun.why) return 'it does not start: ' + begun.why
		let shown = 0
		for (const { opening, acts } of JSON.parse(lists)) {
			const opened = await ask('open', opening)
			if (opened.why) return opening + ': ' + opened.why
			for (const a of acts) {
				const said = await ask('take', a.act, a.at, '', '[]')
				if ((said.refused ?? said.why ?? '') !== a.why) return a.act + ': ' + JSON.stringify(said)
				if (!said.state) continue
				const sum = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(said.state))
				const hex = [...new Uint8Array(sum)].map((b) => b.toString(16).padStart(2, '0')).join('')
				if (hex !== a.sum) return a.act + ': ' + said.state.slice(0, 600)
				shown++
			}
		}
		return shown > 300 ? 'the same' : 'only ' + shown
	}`, name("judge.worker-*.js.br"), name("bench-*.wasm.br"), string(text)).Str()
	require.Equal(t, "the same", said)
}
