package e2e

import (
	"bufio"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// simulatedProbe runs `metronix probe` and gives its address.
func simulatedProbe(t *testing.T, args ...string) (address string, stop func()) {
	t.Helper()
	cmd := exec.Command(program, append([]string{"probe", "--listen", "127.0.0.1:0"}, args...)...)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	stop = func() { _ = cmd.Process.Kill(); _ = cmd.Wait() }
	t.Cleanup(stop)
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	_, address, found := strings.Cut(strings.TrimSpace(line), "ready at ")
	require.True(t, found, line)
	return address, stop
}

// A hot engine on cold figures: stopped by the gate, the wait forecast from two readings, the probe followed
// and lost while entry by hand goes on, and the gate overridden only with a reason, which the sheet shows.
func TestHotEngineOnColdFigures(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/", 1280, 800)
	p.shows("Cooling: ready")
	address, stop := simulatedProbe(t, "--engine", "58", "--ambient", "17")
	p.visit("/shop")
	p.fill("Address", address)
	p.press("Save")
	p.shows("Engine 5")
	p.visit("/jobs/demo-job-winch")
	p.shows("Ready at")
	p.shows("Probe 5")
	p.press("Use reading")
	p.press("Log only")
	p.waits(`() => document.querySelectorAll('.plot .dot').length === 3`, "the third reading on the plot")
	stop()
	p.shows("Probe lost:")
	p.shows("Type the figures.")
	for _, k := range "55" {
		p.pressIn(".pad", string(k))
	}
	p.press("Go on")
	p.shows("these are cold figures, good up to 38 °C")
	p.press("Carry on anyway")
	p.press("Comparison only, set later")
	p.press("Made safe")
	p.says("Turn the crank")
	p.visit("/jobs/demo-job-winch/sheet")
	p.shows("passed all the same at 55 °C (131 °F): Comparison only, set later")
	p.shows("Chosen because: Cold start for the new cam")

	// A temperature noted out of the card's range shuts the gate again, and the bench says why.
	post(t, "POST", r.base+"/api/v1/jobs/demo-job-tipper/happenings",
		map[string]any{"id": "noted-warm-01", "kind": "temperature", "engine_c": 71, "ambient_c": 18}, nil)
	p.visit("/jobs/demo-job-tipper")
	p.waits(`() => document.querySelector('.prepare .v-alert')?.textContent.includes('32 °C')`,
		"why the temperature is taken again")
}

// A cold engine on hot figures is stopped; warm, the hot clock runs.
func TestColdEngineOnHotFigures(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/start", 1280, 900)
	p.press("Piste groomer")
	p.fill("Mechanic", "June Halloway")
	p.press("Start the job")
	p.press("Use this sequence")
	p.says("temperature")
	p.keys(input.Digit2, input.Digit0, input.Enter, input.Digit1, input.Digit8,
		input.Enter)
	p.shows("these are hot figures, good from 60 °C")
	p.keys(input.ArrowLeft, input.Backspace, input.Backspace, input.Digit8,
		input.Digit5, input.Enter)
	p.waits(`() => /[89]:\d\d left/.test(document.querySelector('.hot')?.textContent ?? '')`,
		"the hot clock")
}

// A provisional cold start is chosen at the beginning with its reason, the loose end as aim and the guarded
// rule.
func TestStartingProvisionally(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/start", 1280, 900)
	p.press("Ferry winch")
	p.shows("against")
	p.press("shop's own habit")
	p.press("Provisional start, then hot by cam grinder's card")
	p.tap(".v-expansion-panel-title")
	p.press("Aim for the loose end")
	p.fill("Why the loose end", "Hard use")
	p.press("Strict rule")
	p.fill("Mechanic", "Tess Ardal")
	p.press("Start the job")
	p.says("sequence")
	id := strings.TrimPrefix(p.MustInfo().URL, r.base+"/jobs/")
	var view struct {
		Aim       string
		AimReason string `json:"aim_reason"`
		Rule      string
	}
	require.Equal(t, 200, get(t, r.base+"/api/v1/jobs/"+id, &view))
	assert.Equal(t, "loose Hard use guarded", fmt.Sprint(view.Aim, " ", view.AimReason, " ", view.Rule))
}

// The other kind's leaf is marked before it is felt; a contradiction is pointed out, and the feel trusted
// least withdrawn; a dial indicator is a number.
func TestLadderGuards(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-tipper", 1280, 800)
	p.says("E3")
	p.waits(`() => [...document.querySelectorAll('.rung.other')].some(x => `+
		`x.innerText.includes('intake leaf'))`, "the intake leaf at an exhaust valve")
	p.press("0.30 free")
	p.waits(`() => document.querySelector('.strip .word')?.textContent === 'Readings disagree'`,
		"the contradiction")
	p.press("0.30 free")
	p.waits(`() => document.querySelector('.strip .word')?.textContent !== 'Readings disagree'`,
		"the contradiction to go")
	p.press("dial gauge")
	p.fill("Gap by dial", "0.22")
	p.press("Record")
	p.says("E3 is tight")
	p.shows("the dial reads 0.22 mm")
	p.clean()
}

// A shimmed engine: the moves over the whole engine, a shim put in, read again.
func TestShims(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-minibus", 1280, 800)
	p.says("under " + stateOf(t, r.base, "demo-job-minibus").State.Now.Valve)
	p.shows("from I3b")
	p.waits(`() => document.querySelectorAll('.moves li').length === 4`, "four moves")
	p.shows("I3b gets a stand-in, 2.55 or thinner")
	require.NoError(t, p.see(".shims .v-checkbox input").Click(proto.InputMouseButtonLeft, 1))
	p.waits(`() => !document.body.innerText.includes('gets a stand-in')`, "no stand-in with the cams out")
	p.says("Fit ")
	before := stateOf(t, r.base, "demo-job-minibus").State.Happenings
	p.pressIn(".led", "Fitted under")
	waitFor(t, p, r, "demo-job-minibus", before)
	p.says("Fit ")
	p.shows("out →")
	p.press("Undo")
	p.waits(`() => !document.body.innerText.includes('out →')`, "the shim to be back")
	p.press("Correct a shim size")
	wrong := strings.Fields(p.see(".known button").MustText())[0]
	p.pressIn(".known", wrong)
	p.shows("Shim under " + wrong)
	before = stateOf(t, r.base, "demo-job-minibus").State.Happenings
	p.keys(input.Digit2, input.Period, input.Digit9, input.Enter)
	waitFor(t, p, r, "demo-job-minibus", before)
	p.see(".moves")
	assert.Equal(t, 2.9, stateOf(t, r.base, "demo-job-minibus").shimOf(wrong))
	p.clean()
}

// Gauges: slips found leaf by leaf and nothing stored, reach and holes, CSV out and in.
func TestGaugesPage(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/gauges", 1280, 800)
	p.press("Oskar's set")
	p.shows("sizes:")
	p.MustEval(`() => { const f = document.querySelector('input[aria-label="Leaf 2, micrometer, mm"]'); ` +
		`f.value = '0.008'; f.dispatchEvent(new Event('input', {bubbles: true})) }`)
	p.press("Save")
	p.shows("is one of them in the other unit, or a slip?")
	p.shows("Nothing was saved.")
	p.MustEval(`() => { const f = document.querySelector('input[aria-label="Leaf 2, micrometer, mm"]'); ` +
		`f.value = '0.101'; f.dispatchEvent(new Event('input', {bubbles: true})) }`)
	p.press("Save")
	p.shows("is saved. Jobs on the go keep the leaves they began with.")
	file := filepath.Join(t.TempDir(), "drawer.csv")
	require.NoError(t, os.WriteFile(file, []byte("marked,unit\n8,thou\n10,thou\n8,thou\n"), 0o644))
	p.see(`input[type=file]`).MustSetFiles(file)
	p.shows("line 4, marked_mm")
	require.NoError(t, os.WriteFile(file, []byte("marked,unit\n8,thou\n10,thou\n"), 0o644))
	p.see(`input[type=file]`).MustSetFiles(file)
	p.shows("2 leaves are read")
	p.press("Save")
	p.shows("drawer is saved")
	p.press("Remove the set")
	p.shows("drawer was removed")
	p.press("Undo")
	p.shows("drawer is restored")
	p.press("New set")
	p.fill("All leaves in one line", "0.05 0.1O … 0.50")
	p.press("Take these leaves")
	p.shows("“0.1O” is no leaf.")
	p.fill("All leaves in one line", "0.05 0.10 … 0.50")
	p.press("Take these leaves")
	p.shows("10 leaves. Look them over")
	p.fill("Set", "From one line")
	p.press("Save")
	p.shows("From one line is saved")
}

// Each sum stands without a job at an address of its own.
func TestSumsPage(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/sums/turn?kind=screw_valve_end&pitch=1&gap=0.4&aim=0.3", 1280, 800)
	p.shows("Screw in 36°, clockwise")
	for path, says := range map[string]string{
		"/sums/leaves":                    "0.15 + 0.08",
		"/sums/judge":                     "Undecided",
		"/sums/units?value=0.012&unit=in": "0.3048 mm",
		"/sums/torque?value=1&unit=lbft":  "1.4 N·m",
		"/sums/cooldown?readings=0+100%0A10+60&ambient=20&gate=30": "20 minutes",
		"/sums/shims":                         "Nothing to buy",
		"/sums/lock-shift":                    "Set 0.32 mm",
		"/sums/cooldown?readings=5+90%0A4+80": "Line 2: ",
		"/sums/turn?kind=screw_pushrod_end":   "Ratio: ",
		"/sums/turn?gap=0.3&aim=0.3":          "Nothing to turn",
		"/sums/turn?gap=0.3O":                 "Gap now: “0.3O” is no figure",
		"/sums/none":                          "There is no calculator called “none”",
	} {
		p.visit(path)
		p.shows(says)
	}
	p.visit("/sums/turn?gap=12&aim=.010&pitch=25.4&in=thou")
	p.shows("18.3°")
	p.visit("/sums/leaves") // in the unit worked in
	p.shows("thou")
	p.visit("/sums/turn?gap=0.4&aim=0.3") // an address without a unit means millimetres
	p.shows("Screw in 36°, clockwise")
	p.visit("/sums/units?value=10&unit=mm")
	p.fill("Length", "0.254")
	p.waits(`() => location.search.includes('0.254')`, "the address to follow")
	p.shows("0.01 in")

	// What was typed is there again, and the other unit says the same.
	p.visit("/sums/turn?gap=0.4&aim=0.3048&in=mm")
	p.shows("34.3°")
	p.press("Torque")
	p.shows("lbf·ft")
	p.press("Screw turn")
	p.shows("34.3°")
	p.press("thou")
	p.waits(`() => [...document.querySelectorAll('input')].some(i => i.value === '12')`,
		"0.3048 mm to read 12 thou")
	p.shows("34.3°")
	p.press("mm")
	p.waits(`() => [...document.querySelectorAll('input')].some(i => i.value === '0.3048')`,
		"12 thou to read 0.3048 mm again")
}

// Shims led step by step on the bench: two whose valves are nowhere clear together change places by way of a
// stand-in, and the crank is never turned with one missing.
func TestShimsChangePlacesByAStandIn(t *testing.T) {
	t.Parallel()
	r := demo(t)
	const id = "demo-job-minibus"
	p := open(t, r, "/jobs/"+id, 1280, 800)
	for range 30 {
		s := stateOf(t, r.base, id)
		switch s.State.Now.Action {
		case "turn":
			p.press(capitalised(s.State.Now.Instruction.Until))
		case "adjust":
			p.says("under " + s.State.Now.Valve)
			p.see(".led .go")
			if p.MustHas(".led input") {
				p.see(".led input").MustInput("2,40")
			}
			p.tap(".led .go:not([disabled])")
		case "read":
			leaf, feel, _ := s.leafFor(map[string]float64{})
			p.press(leaf + " " + feel)
		case "keep":
			p.press("Keep")
		default:
			assert.Contains(t, []string{"bar_over", "sign"}, s.State.Now.Action)
			assert.InDelta(t, 2.55, s.shimOf("I1a"), 1e-9)
			assert.InDelta(t, 2.65, s.shimOf("I3b"), 1e-9)
			p.clean()
			return
		}
		waitFor(t, p, r, id, s.State.Happenings)
	}
	t.Fatalf("the shims do not come to an end; the page shows: %s", p.text())
}

// A bucket engine that is measured only: every gap as found, nothing set, and signed so.
func TestBucketsMeasuredOnly(t *testing.T) {
	t.Parallel()
	r := demo(t)
	c := played{engine: "pellmark-1400", school: "two_stop", round: map[string]any{"round": "read_only"},
		out: []string{"I2a"}, size: [2]int{1024, 768}}
	job := c.begun(t, r)
	p := open(t, r, "/jobs/"+job, 1024, 768)
	c.drive(t, p, r, job)
	p.shows("I2a")
	for _, v := range stateOf(t, r.base, job).State.Valves {
		assert.Zero(t, v.Adjusted, v.Name)
	}
	p.see(".signing")
	p.shows("I2a is loose")
	p.press("Why it is left, or until when")
	p.press("Part on order")
	p.waits(`() => !document.querySelector('.asked')`, "that nothing is asked any more")
	p.see(".signing")
	p.keys(input.Digit1, input.Digit2, input.Digit3, input.Enter)
	p.says("Signed by")
	p.way("Sheet")
	p.shows("checked, nothing set; I2a left loose")
	p.clean()
}
