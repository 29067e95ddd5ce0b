package e2e

import (
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// fill puts a text into the field with a label, as typing does.
func (p *tab) fill(label, text string) {
	p.t.Helper()
	find := `[...document.querySelectorAll('label')].filter(l => l.textContent.includes(` + quoted(label) +
		`)).map(l => l.control).find(Boolean)`
	p.waits(`() => `+find, "a field "+label)
	p.MustEval(`text => { const f = `+find+
		`; f.focus(); f.value = text; f.dispatchEvent(new Event('input', {bubbles: true})); `+
		`f.dispatchEvent(new Event('change', {bubbles: true})); f.blur() }`, text)
}

func quoted(s string) string {
	data, _ := json.Marshal(s)
	return string(data)
}

func (p *tab) shows(text string) {
	p.t.Helper()
	p.waits(`() => document.body.innerText.includes(`+quoted(text)+`)`, text)
}

// get reads an answer of the program's interface.
func get(t testing.TB, address string, into any) int {
	t.Helper()
	answer, err := http.Get(address)
	require.NoError(t, err)
	defer answer.Body.Close()
	data, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	if answer.StatusCode == http.StatusOK {
		require.NoError(t, json.Unmarshal(data, into), string(data))
	}
	return answer.StatusCode
}

// A V8 by taps: layout, cylinders, a usual order, a firing order that repeats a cylinder caught and undone, a
// valve swapped on the drawing and back, figures, stored, and its ways round seen.
func TestBuildAVEightByTaps(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/engines", 1280, 800)
	p.press("New engine")
	p.shows("The engine has no name")
	p.press("V")
	for n := 5; n <= 8; n++ {
		p.waits(`() => !document.querySelector('.editor')?.hasAttribute('aria-busy')`, "the sheet")
		p.tap(".steps [data-testid=increment]")
		p.waits(fmt.Sprintf(`() => document.querySelector('.steps input')?.value === '%d'`, n),
			"the cylinders")
	}
	p.press("1-5-4-8-6-3-7-2")
	p.fill("Name the workshop knows it by", "Tapped eight")
	p.shows("This sheet is sound.")
	p.press("Cylinder 4 fires next")
	p.shows("Cylinder 1 is missing from the firing order.")
	p.shows("when does it fire?")
	p.press("Undo")
	p.shows("This sheet is sound.")
	p.press("E1, exhaust")
	p.shows("I1b")
	p.press("Undo")
	p.waits(`() => document.querySelector('[data-valve="E1"]') && `+
		`document.body.innerText.includes('This sheet is sound.')`, "the exhaust again")
	p.press("Add a card")
	for _, kind := range []int{0, 1} {
		p.MustEval(
			`(kind) => { const row = document.querySelectorAll('.card .row:has(.kind)')[kind]; const put = (f, v) => { f.value = v; f.dispatchEvent(new Event('input', {bubbles: true})); f.dispatchEvent(new Event('change', {bubbles: true})) };
			const [nominal, tolerance] = row.querySelectorAll('input'); put(nominal, '0.20'); put(tolerance, kind ? '0.02' : '0.2') }`,
			kind,
		)
	}
	p.shows("Did you mean 0.02")
	p.MustEval(`() => { const f = document.querySelectorAll('.card ` +
		`.row:has(.kind)')[0].querySelectorAll('input')[1]; f.value = '0.02'; f.dispatchEvent(new ` +
		`Event('input', {bubbles: true})); f.dispatchEvent(new Event('change', {bubbles: true})) }`)
	p.shows("This sheet is sound.")
	p.press("Save")
	p.shows("Jobs on the go keep the sheet they began with")
	var list []struct {
		Name   string
		Valves int
		Cards  []json.RawMessage
		Order  []int `json:"firing_order"`
	}
	get(t, r.base+"/api/v1/engines", &list)
	for _, e := range list {
		if e.Name == "Tapped eight" {
			assert.Equal(t, 16, e.Valves)
			assert.Equal(t, []int{1, 5, 4, 8, 6, 3, 7, 2}, e.Order)
			assert.Len(t, e.Cards, 1)
			p.press("Sequences")
			p.see(".on .way")
			assert.Contains(t, p.see(".shut").MustText(), "not for this engine",
				"the rule of nine's kin has its reason")
			p.clean()
			return
		}
	}
	t.Fatalf("the engine is not in the library: %+v", list)
}

// A broken sheet is told fault by fault and not stored; a sound one dropped in is; taken out and put back.
func TestImportOfABrokenSheet(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/engines", 1280, 800)
	p.see(".engine")
	dir := t.TempDir()
	broken := filepath.Join(dir, "broken.engine.json")
	require.NoError(
		t,
		os.WriteFile(
			broken,
			[]byte(
				`{"format":"metronix.engine/1","name":"Broken","cylinders":4,"firing_order":[1,3,3,2],"rotation":"clockwise","layout":"inline","wheels":4,
		"banks":[{"name":"head","cylinders":[1,2,3,4],"rows":[{"side":"left","valves":"EIIEEII"}]}],
		"clearances":[{"source":"book","state":"cold","intake":{"nominal_in":0.25},"exhaust":{"nominal_mm":10}}]}`,
			),
			0o644,
		),
	)
	p.see(`input[type=file]`).MustSetFiles(broken)
	for _, text := range []string{"wheels", "firing_order[2]", "banks[0].rows[0]",
		"clearances[0].intake.nominal_in", "clearances[0].exhaust", "Nothing was saved."} {
		p.shows(text)
	}
	var list []struct{ ID, Name string }
	get(t, r.base+"/api/v1/engines", &list)
	for _, e := range list {
		assert.NotEqual(t, "Broken", e.Name)
	}
	p.press("More of Brindlow 1600")
	p.press("Duplicate Brindlow 1600")
	p.shows("Brindlow 1600 (copy) is in the library.")
	p.press("More of Brindlow 1600 (copy)")
	p.press("Remove Brindlow 1600 (copy)")
	p.shows("Brindlow 1600 (copy) was removed.")
	p.press("Undo")
	p.shows("Brindlow 1600 (copy) is restored.")
	p.press("More of Brindlow 1600")
	p.press("Remove Brindlow 1600")
	p.shows("This engine sits in")
	p.fill("Search", "flat 1-4-3-2")
	p.waits(`() => document.querySelectorAll('.engine').length === 1`, "the search")
}

// Ways round side by side: the frontier's point chosen, the crank drawn along the band, the way taken for the
// job, and later another one while all readings stay.
func TestChoosingAWaySideBySide(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-tipper", 1280, 800)
	p.says("E3")
	before := stateOf(t, r.base, "demo-job-tipper")
	p.press("Undo") // the feel that is not kept
	p.says("Read E3")
	p.press("Rocking pairs")
	p.press("Side by side")
	p.see(".on .way")
	p.press("3 stops, clear by")
	p.waits(`() => document.querySelector('.on .way')?.innerText.includes('Fewest stops')`,
		"the best plan of three stops")
	p.keys(input.ArrowRight)
	p.waits(`() => document.querySelector('.look h2')?.innerText.includes('Stop 2')`, "the second stop")
	band := p.see(".look .band svg").MustShape().Box()
	p.Mouse.MustMoveTo(band.X+band.Width*0.4, band.Y+band.Height/2)
	p.Mouse.MustDown("left").MustMoveTo(band.X+band.Width*0.45, band.Y+band.Height/2).MustUp("left")
	p.waits(`() => !document.querySelector('.look h2')?.innerText.includes('Stop')`,
		"the crank between the stops")
	p.press("Use this sequence")
	p.see(".now")
	after := stateOf(t, r.base, "demo-job-tipper")
	kept := func(s state) (n int) {
		for _, v := range s.State.Valves {
			if v.AsFound != nil {
				n++
			}
		}
		return n
	}
	assert.Equal(t, kept(before), kept(after), "all readings stay")
	assert.NotZero(t, kept(after))
	p.clean()
}

// Back from lunch: the mark alone leaves two places, the rockers tell, one turn out is named, and the bench
// goes on from there.
func TestLunchBreak(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-tipper", 1280, 800)
	p.says("E3")
	p.press("Undo")
	p.says("Read E3")
	p.press("Where am I?")
	p.press("180° mark at the pointer")
	p.waits(`() => document.querySelector('.find h2')?.textContent.includes('2 places')`, "two places")
	p.press("cylinder 3 is rocking")
	p.waits(`() => document.querySelector('.find h2')?.textContent.includes('540°')`, "the place")
	p.shows("One turn out")
	p.shows("May be set now")
	p.press("Remove: cylinder 3 is rocking")
	p.press("Cylinder 1")
	p.shows("cannot both be")
	p.press("Remove: the 180° mark is at the pointer")
	p.waits(`() => document.querySelector('.find h2')?.textContent.includes('360°')`,
		"cylinder 1 rocking is 360°")
	p.press("Go on from here")
	p.says("Read E4")
	p.clean()
}

// A school that does not fit this engine is refused in words, on the page and by the program.
func TestRefusedSchool(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/engines/holmgarth-950/ways", 1280, 800)
	p.shows("Cylinder 1 has no companion firing one turn away")
	p.tap(".v-switch input")
	p.shows("has no mark on this pulley")
	p.clean()
}

// The signs of this engine are there to tap: one on the cam tells the place, one in doubt says what to check
// it against, and a lobe that points away is a place to go on from.
func TestSignsOfTheEngine(t *testing.T) {
	t.Parallel()
	r := demo(t)
	p := open(t, r, "/jobs/demo-job-tipper", 1280, 800)
	p.press("Undo")
	p.says("Read E3")
	p.press("Where am I?")
	p.press("Gear cover: dot on the pulley")
	p.waits(`() => document.querySelector('.find h2')?.textContent.includes('2 places')`, "two places")
	p.shows("Check it against this: the up mark")
	p.press("Cam sprocket: up mark")
	p.waits(`() => document.querySelector('.find h2')?.textContent.includes('0°')`, "the place")
	p.shows("May be set now: E1, I1, I2, E3")
	p.press("Go on from here")
	p.says("until cylinder 2 rocks")
	p.press("Where am I?")
	p.press("A lobe points away")
	p.pressIn(".which", "I1")
	p.shows("To tell them apart")
	p.press("A cylinder rocks")
	p.pressIn(".which", "Cylinder 2")
	p.waits(`() => document.querySelector('.find h2')?.textContent.includes('180°')`, "the place")
	p.press("Go on from here")
	p.says("Cylinder 2 is rocking")
	p.clean()
}
